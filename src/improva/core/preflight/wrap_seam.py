"""Checks of a wrap's seam: whether the ends match, and whether anything important lies there."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..artwork.traits import column_differences
from ..colour import Floats, lab_distance
from .result import CheckResult, Fix
from .subject import Subject

MATCH_FACTOR = 1.5
DETAIL_STEP = 12.0
"""Lab distance over half a millimetre that counts as an edge. From memory."""

BUSY_FACTOR = 1.25
SHIFTS_TRIED = 8


def seam_match(subject: Subject) -> tuple[float, Floats, float]:
    """Compare a wrap's two ends: mean ΔE2000, ΔE2000 along the seam from the top (h,), and the limit.

    The limit rises where neighbouring columns inside the art differ as much.
    """
    mismatch, inner, along = column_differences(subject.trim_lab)
    return mismatch, along, max(subject.limit("seam_delta_e"), MATCH_FACTOR * float(np.percentile(inner, 99)))


def check_seam_match(subject: Subject) -> CheckResult | None:
    """Measure the mismatch where the ends meet, against the steps between neighbouring columns inside."""
    if not subject.level.closes:
        return None
    mismatch, along, limit = seam_match(subject)
    w, h = subject.level.trim_mm
    if mismatch <= limit:
        return CheckResult(
            "seam-match", "Seam", "pass", round(mismatch, 2), round(limit, 2), "ΔE", "The two ends meet without a visible step."
        )
    worst = int(along.argmax()) / len(along) * h
    strip = subject.level.seam_zone_mm or 2.0
    share = 100 * float((along > limit).mean())
    return CheckResult(
        "seam-match",
        "Seam",
        "warn",
        round(mismatch, 2),
        round(limit, 2),
        "ΔE",
        f"The ends do not match along {share:.0f} % of the seam, worst {worst:.0f} mm from the top. "
        "Turn the seam to the back, or use art that closes.",
        where=((0.0, 0.0, strip, h), (w - strip, 0.0, strip, h)),
    )


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


def check_seam_zone(subject: Subject) -> CheckResult | None:
    """Find text or busy detail in the strips at both ends: at the seam of a wrap, or beside a mug's handle."""
    zone, closes = subject.level.seam_zone_mm, subject.level.closes
    if not zone or not (closes or subject.level.gap_mm):
        return None
    name, title, place = (
        ("seam-zone", "Detail at the seam", "the seam") if closes else ("handle-zone", "Detail beside the handle", "the handle")
    )
    here, typical = zone_detail(subject)
    limit = max(subject.limit("detail_percent"), BUSY_FACTOR * typical)
    if here <= limit:
        return CheckResult(
            name,
            title,
            "pass",
            round(here, 1),
            round(limit, 1),
            "%",
            f"The {zone:.1f} mm on either side of {place} are no busier than the rest.",
        )
    w, h = subject.level.trim_mm
    spoilt = "where tape and press may spoil them" if closes else "which hides them"
    return CheckResult(
        name,
        title,
        "warn",
        round(here, 1),
        round(limit, 1),
        "%",
        f"Words or fine detail lie within {zone:.1f} mm of {place}, {spoilt}.",
        _quieter(subject, here),
        ((0.0, 0.0, zone, h), (w - zone, 0.0, zone, h)),
    )


def check_repeat_joint(subject: Subject) -> CheckResult | None:
    """Measure the step between tiles, ΔE2000, above the steps between neighbouring columns inside."""
    tiling = subject.placed.tiling
    if tiling is None:
        return None
    limit = subject.limit("joint_delta_e")
    if tiling.kind == "mirror" or subject.placement.blend > 0 or subject.placement.spacing_mm > 0:
        if subject.placement.spacing_mm > 0:
            message = "The tiles stand apart."
        else:
            message = f"{'Mirrored tiles' if tiling.kind == 'mirror' else 'Blended edges'} meet by construction."
        return CheckResult("repeat-joint", "Tile edges", "pass", 0.0, limit, "ΔE", message)
    step = subject.traits.joint
    if step <= limit:
        return CheckResult(
            "repeat-joint",
            "Tile edges",
            "pass",
            round(step, 2),
            limit,
            "ΔE",
            "The picture's edges meet: the repeat has no joints.",
        )
    x, y, w, h = subject.placed.box
    return CheckResult(
        "repeat-joint",
        "Tile edges",
        "warn",
        round(step, 2),
        limit,
        "ΔE",
        f"The picture's opposite edges do not meet (ΔE {step:.0f}), so every tile will show its edge.",
        Fix("Mirror every other tile", {"repeat_kind": "mirror", "repeats_around": _even(tiling.around)}),
        ((x, y, w, h),),
        (Fix("Blend the edges into each other", {"blend": 0.12}),),
    )


def _even(around: int | None) -> int | None:
    return around if around is None or around % 2 == 0 else around + 1


def _quieter(subject: Subject, here: float) -> Fix | None:
    """Return the smallest shift that halves the detail at the seam and leaves no bare edge, if there is one."""
    slack = subject.placed.box[2] - subject.field.file_mm[0]
    if slack < 1 or not subject.placed.covers(subject.field.file_box):
        return None
    x, y = subject.placement.shift_mm
    for distance in np.linspace(slack / SHIFTS_TRIED, slack, SHIFTS_TRIED):
        for shift in (distance, -distance):
            moved = (round(x + float(shift), 1), y)
            attempt = replace(subject, placement=subject.placement.changed(shift_mm=moved))
            if attempt.placed.covers(subject.field.file_box) and zone_detail(attempt)[0] < here / 2:
                return Fix(f"Shift it {abs(shift):.0f} mm, where it is calmer", {"shift_mm": list(moved)})
    return None
