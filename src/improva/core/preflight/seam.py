"""The seam of a wrap: do the two ends match, and does anything that matters lie there?"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..colour import Floats, delta_e_2000
from .subject import Subject
from .verdict import Fix, Verdict

MATCH_FLOOR = 2.0
"""ΔE2000. From memory: about twice a just noticeable difference; what sewing or taping hides anyway."""

MATCH_FACTOR = 1.5
DETAIL_STEP = 12.0
"""Lab distance between points half a millimetre apart that counts as an edge. From memory."""

DETAIL_LIMIT_PERCENT = 6.0
"""From memory: share of edge points above which a strip is lettering or busy drawing."""

BUSY_FACTOR = 1.25
SHIFTS_TRIED = 8
ROWS_LOOKED_AT = 200


def column_differences(lab: Floats) -> tuple[float, Floats, Floats]:
    """How the last column meets the first, against how columns meet inside.

    Args:
        lab: the trim (h, w, 3) in Lab.

    Returns:
        mean ΔE2000 across the seam; the same for each inner pair of neighbours (w - 1,); and the
        difference along the seam (h,).
    """
    along = delta_e_2000(lab[:, -1], lab[:, 0])
    rows = lab[:: max(1, len(lab) // ROWS_LOOKED_AT)]
    inner = delta_e_2000(rows[:, :-1], rows[:, 1:]).mean(axis=0)
    return float(along.mean()), inner, along


def check_seam_match(subject: Subject) -> Verdict | None:
    """Mismatch where the ends meet, judged against what neighbouring columns inside the art do."""
    if not subject.panel.closes:
        return None
    mismatch, inner, along = column_differences(subject.trim_lab)
    limit = max(MATCH_FLOOR, MATCH_FACTOR * float(np.percentile(inner, 99)))
    w, h = subject.panel.trim_mm
    if mismatch <= limit:
        return Verdict("seam-match", "Seam", "pass", round(mismatch, 2), round(limit, 2), "ΔE",
                       "The two ends meet without a visible step.")  # fmt: skip
    worst = int(along.argmax()) / len(along) * h
    strip = subject.panel.seam_zone_mm or 2.0
    share = 100 * float((along > limit).mean())
    return Verdict("seam-match", "Seam", "warn", round(mismatch, 2), round(limit, 2), "ΔE",
                   f"The ends do not match along {share:.0f} % of the seam, worst {worst:.0f} mm from the top. "
                   "Turn the seam to the back, or use art that closes.",
                   where=((0.0, 0.0, strip, h), (w - strip, 0.0, strip, h)))  # fmt: skip


def detail_by_column(lab: Floats, px_per_mm: float) -> Floats:
    """Share of each column's points that lie on an edge, in per cent (w,)."""
    step = max(1, round(0.5 * px_per_mm))
    across = np.linalg.norm(np.roll(lab, -step, axis=1) - lab, axis=2)
    across[:, -step:] = 0  # the seam's own step is the other check's
    down = np.zeros_like(across)
    down[:-step] = np.linalg.norm(lab[step:] - lab[:-step], axis=2)
    return np.asarray(100 * (np.maximum(across, down) > DETAIL_STEP).mean(axis=0), np.float32)


def zone_detail(subject: Subject) -> tuple[float, float]:
    """Mean share of edge points in the seam's strips, and the median over all columns, in per cent."""
    detail = detail_by_column(subject.trim_lab, subject.px_per_mm)
    strip = max(1, round(subject.panel.seam_zone_mm * subject.px_per_mm))
    return float(np.concatenate([detail[:strip], detail[-strip:]]).mean()), float(np.median(detail))


def check_seam_zone(subject: Subject) -> Verdict | None:
    """Words or busy detail within the strips that tape, trimming and the press may swallow."""
    zone = subject.panel.seam_zone_mm
    if not subject.panel.closes or not zone:
        return None
    here, typical = zone_detail(subject)
    limit = max(DETAIL_LIMIT_PERCENT, BUSY_FACTOR * typical)
    if here <= limit:
        return Verdict("seam-zone", "Detail at the seam", "pass", round(here, 1), round(limit, 1), "%",
                       f"The {zone:.1f} mm on either side of the seam are no busier than the rest.")  # fmt: skip
    w, h = subject.panel.trim_mm
    return Verdict("seam-zone", "Detail at the seam", "warn", round(here, 1), round(limit, 1), "%",
                   f"Words or fine detail lie within {zone:.1f} mm of the seam, where tape and press may spoil them.",
                   _quieter(subject, here), ((0.0, 0.0, zone, h), (w - zone, 0.0, zone, h)))  # fmt: skip


def _quieter(subject: Subject, here: float) -> Fix | None:
    """The smallest shift that halves the detail at the seam and leaves no edge bare, if there is one."""
    slack = subject.placed.box[2] - subject.panel.file_mm[0]
    if slack < 1 or not subject.placed.covers(subject.panel.file_box):
        return None
    x, y = subject.placing.shift_mm
    for distance in np.linspace(slack / SHIFTS_TRIED, slack, SHIFTS_TRIED):
        for shift in (distance, -distance):
            moved = (round(x + float(shift), 1), y)
            attempt = replace(subject, placing=subject.placing.changed(shift_mm=moved))
            if attempt.placed.covers(subject.panel.file_box) and zone_detail(attempt)[0] < here / 2:
                return Fix(f"Shift it {abs(shift):.0f} mm, where it is calmer", {"shift_mm": list(moved)})
    return None
