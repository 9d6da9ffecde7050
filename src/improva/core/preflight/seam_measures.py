"""Measure a wrap's seam: whether the art's ends match, how much detail lies there, and where it would disturb least."""

from __future__ import annotations

import numpy as np

from ..artwork.traits import column_differences
from ..colour import Floats, lab_distance
from ..fit import can_roll
from ..render.roll import shorter
from .subject import Subject

MATCH_FACTOR = 1.5
DETAIL_STEP = 12.0
"""Lab distance over half a millimetre that counts as an edge. From memory."""

LEAST_STRIP_MM = 3.0
"""Half of the width that is looked at round a seam, where the blank has no seam zone."""

WORDS = 100.0
"""What a column under words counts, in per cent of edge points: no seam goes through words."""

FAR = 2.0
"""What half a turn counts: of two places that are equally calm, the nearer one is taken."""


def seam_match(subject: Subject) -> tuple[float, Floats, float]:
    """Compare the art's two ends, wherever a roll has brought them: mean ΔE2000, ΔE2000 along their line from the top (h,),
    and the limit.

    The limit rises where neighbouring columns inside the art differ as much.
    """
    by = round(subject.placement.roll_mm * subject.px_per_mm)
    mismatch, inner, along = column_differences(np.roll(subject.trim_lab, -by, axis=1))
    return mismatch, along, max(subject.limit("seam_delta_e"), MATCH_FACTOR * float(np.percentile(inner, 99)))


def detail_by_column(image: Floats, px_per_mm: float) -> Floats:
    """Return the part of each column's points that lie on an edge, in per cent (w,)."""
    step = max(1, round(0.5 * px_per_mm))
    across = lab_distance(np.roll(image, -step, axis=1), image)
    across[:, -step:] = 0  # another check judges the step at the seam itself
    down = np.zeros_like(across)
    down[:-step] = lab_distance(image[step:], image[:-step])
    return np.asarray(100 * (np.maximum(across, down) > DETAIL_STEP).mean(axis=0), np.float32)


def zone_detail(subject: Subject) -> tuple[float, float]:
    """Return the mean part of edge points in the seam's strips, and the median of all columns, in per cent."""
    detail = detail_by_column(subject.trim_lab, subject.px_per_mm)
    strip = max(1, round(subject.level.seam_zone_mm * subject.px_per_mm))
    return float(np.concatenate([detail[:strip], detail[-strip:]]).mean()), float(np.median(detail))


def calm_roll(subject: Subject) -> float | None:
    """Return the roll in mm at which the seam lies in the calmest place.

    None where the blank has no such seam, or where the picture's own ends do not meet: rolled, their step would be seen.
    Faces are recognised by their detail only.
    """
    if not can_roll(subject.panel, subject.placement) or subject.linked is not None:
        return None
    mismatch, _, limit = seam_match(subject)
    if mismatch > limit:
        return None
    around, per_mm = subject.level.trim_mm[0], subject.px_per_mm
    cost = detail_by_column(subject.trim_lab, per_mm)
    count = len(cost)
    for words in subject.words:
        x, _, w, _ = words.box
        cost[max(0, int(x * per_mm)) : int((x + w) * per_mm) + 1] += WORDS
    half = max(1, round(max(subject.level.seam_zone_mm, LEAST_STRIP_MM) * per_mm))
    round_it = np.concatenate([cost[-half:], cost, cost[:half]])
    strip = np.convolve(round_it, np.ones(2 * half + 1) / (2 * half + 1), "valid")
    away = np.minimum(np.arange(count), count - np.arange(count)) / (count / 2)
    best = int((strip + FAR * away).argmin())
    return round(shorter(subject.placement.roll_mm - best / per_mm, around), 1)
