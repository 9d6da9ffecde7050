"""Check of a mug's handle gap: whether the bare stretch beside the handle stands out."""

from __future__ import annotations

import numpy as np

from ..colour import delta_e_2000, lab, parse_hex
from .result import CheckResult, Fix
from .subject import Subject

END_MM = 4.0
"""Width of the strip at each end of the wrap that is compared with the bare gap. From memory."""


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
        Fix("Leave a white margin", {"fit": "contain", "copies": 1, "scale": 0.92, "shift_mm": [0.0, 0.0], "background": None}),
        Fix(
            "Put it on front and back",
            {"fit": "contain", "copies": 2, "scale": 0.85, "shift_mm": [0.0, 0.0], "background": None},
        ),
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
