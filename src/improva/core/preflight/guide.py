"""Find a template's guide left in the artwork: straight lines of one colour where the template has lines."""

from __future__ import annotations

import numpy as np

from ..colour import Floats, lab_distance
from ..template import Box
from .result import CheckResult
from .subject import Subject

SEARCH_MM = 0.6
LINE_STEP = 18.0
"""Lab distance between a guide line and the pixels on both its sides. From memory."""

EVEN = 8.0
ALONG = 0.85
"""Share of a line's length that must be present and of one colour. From memory."""

LEAST_SIDES = 4


def _has_line(strip: Floats, px_per_mm: float) -> bool:
    """Return whether a strip (length, across, 3) contains a straight line of one colour along it, unlike both sides."""
    reach_px = max(2, round(1.0 * px_per_mm))
    if strip.shape[1] <= 2 * reach_px:
        return False
    middle = strip[:, reach_px:-reach_px]
    before, after = strip[:, : -2 * reach_px], strip[:, 2 * reach_px :]
    stands = np.minimum(lab_distance(middle, before), lab_distance(middle, after)) > LINE_STEP
    even = lab_distance(middle, np.median(middle, axis=0)) < EVEN
    return bool(((stands & even).mean(axis=0) >= ALONG).any())


def _sides(box: Box, scale: float, reach: int, shape: tuple[int, int]) -> list[tuple[slice, slice, bool]]:
    """Return the strips along a box's four sides, as rows, columns, and whether the line is horizontal."""
    x0, y0, x1, y1 = (round(v * scale) for v in (box[0], box[1], box[0] + box[2], box[1] + box[3]))
    h, w = shape

    def near(at: int, most: int) -> slice:
        return slice(max(0, at - reach), min(most, at + reach + 1))

    across, down = slice(max(0, x0 + reach), min(w, x1 - reach)), slice(max(0, y0 + reach), min(h, y1 - reach))
    return [(near(y0, h), across, True), (near(y1, h), across, True), (down, near(x0, w), False), (down, near(x1, w), False)]


def check_guide(subject: Subject) -> CheckResult | None:
    """Count the sides of the template's trim and safe line that are drawn in the artwork."""
    level, scale = subject.level, subject.px_per_mm
    boxes: list[Box] = [level.safe_box] if level.safe_mm else []
    if level.bleed_mm:
        boxes.append((0.0, 0.0, *level.trim_mm))
    if not boxes or subject.placed.tiling is not None:
        return None
    seen, bleed = subject.file_lab, level.bleed_mm
    reach = round((SEARCH_MM + 1.0) * scale)
    frames: list[tuple[int, Box]] = []
    for box in boxes:
        moved = (box[0] + bleed, box[1] + bleed, box[2], box[3])
        strips = [
            np.moveaxis(seen[rows, columns], 0, 1) if across else seen[rows, columns]
            for rows, columns, across in _sides(moved, scale, reach, seen.shape[:2])
        ]
        frames.append((sum(bool(s.size) and _has_line(s, scale) for s in strips), box))
    sides, box = max(frames, key=lambda f: f[0])
    if sides < LEAST_SIDES:
        return CheckResult(
            "guide", "Guide left in", "pass", float(sides), float(LEAST_SIDES), "sides", "No guide lines were found in it."
        )
    return CheckResult(
        "guide",
        "Guide left in",
        "fail",
        float(sides),
        float(LEAST_SIDES),
        "sides",
        "Lines in the artwork run just where the template's own lines do: export it without the guide layer.",
        where=(box,),
    )
