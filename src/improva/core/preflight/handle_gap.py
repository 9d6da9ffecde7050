"""Check of a mug's handle gap: whether the bare stretch beside the handle stands out."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from ..colour import delta_e_2000, lab, parse_hex
from ..fit import first_size, turned_extent
from .result import CheckResult, Fix
from .subject import Subject

END_MM = 4.0
"""Width of the strip at each end of the wrap that is compared with the bare gap. From memory."""

MARGIN_SCALE, BOTH_SCALE = 0.92, 0.85
"""The largest scale of a picture with a white margin, and of one on front and back. From memory."""


def check_handle_gap(subject: Subject) -> CheckResult | None:
    """Measure how strongly the wrap's ends contrast with the bare gap at a mug's handle, ΔE2000."""
    gap = subject.level.gap_mm
    if not gap:
        return None
    strip = max(1, round(END_MM * subject.px_per_mm))
    ends = np.concatenate([subject.trim_lab[:, :strip], subject.trim_lab[:, -strip:]], axis=1)
    bare = lab(np.array([[parse_hex(subject.template.blank_colour)]], np.uint8))
    step, limit = float(delta_e_2000(ends, bare).mean()), subject.limit("gap_delta_e")
    message = f"The wrap's ends are ΔE {step:.0f} from the {gap:.0f} mm of unprinted blank at the handle"
    if step <= limit:
        return CheckResult(
            "handle-gap", "Gap at the handle", "pass", round(step, 1), limit, "ΔE", f"{message}: it does not stand out."
        )
    w, h = subject.level.trim_mm
    fixes = (
        Fix("Leave a white margin", _whole(subject, 1, MARGIN_SCALE)),
        Fix("Put it on front and back", _whole(subject, 2, BOTH_SCALE)),
    )
    return CheckResult(
        "handle-gap",
        "Gap at the handle",
        "warn",
        round(step, 1),
        limit,
        "ΔE",
        f"{message}, which will show as a stripe.",
        fixes[0],
        ((0.0, 0.0, END_MM, h), (w - END_MM, 0.0, END_MM, h)),
        fixes[1:],
    )


def _whole(subject: Subject, copies: int, most: float) -> dict[str, Any]:
    """Return a placement that shows all of the picture, once or twice, inside the safe line."""
    whole = subject.placement.changed(fit="contain", copies=copies, scale=1.0, background=None, shift_mm=(0.0, 0.0))
    w, h = turned_extent(*first_size(subject.field, subject.art.facts.size, whole), whole.rotate_deg)
    share, tall, safe = subject.field.trim_mm[0] / copies, subject.field.trim_mm[1], subject.level.safe_mm
    scale = min(most, (share - 2 * safe) / w, (tall - 2 * safe) / h)
    return {
        "fit": "contain",
        "copies": copies,
        "scale": math.floor(1000 * scale) / 1000,
        "shift_mm": [0.0, 0.0],
        "background": None,
    }
