"""Checks of a wrap's seam: whether the ends match, and whether anything important lies there."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from .result import CheckResult, Fix
from .seam_measures import calm_roll, seam_match, zone_detail
from .subject import Subject

BUSY_FACTOR = 1.25
SHIFTS_TRIED = 8


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
    at = subject.placement.roll_mm % w
    rolled = (
        "The picture's ends meet inside the wrap, where the step is seen. Roll it back" if at else "Keep the seam at the back"
    )
    places = ((at - strip, 0.0, 2 * strip, h),) if at else ((0.0, 0.0, strip, h), (w - strip, 0.0, strip, h))
    return CheckResult(
        "seam-match",
        "Seam",
        "warn",
        round(mismatch, 2),
        round(limit, 2),
        "ΔE",
        f"The ends do not match along {share:.0f} % of the seam, worst {worst:.0f} mm from the top. "
        f"{rolled}, or use art that closes.",
        Fix("Roll it back", {"roll_mm": 0.0}) if at else None,
        where=places,
    )


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
    """Return a roll to where the seam is calmest, or the smallest shift that halves the detail there and leaves no bare edge."""
    roll = calm_roll(subject)
    if roll is not None and roll != subject.placement.roll_mm:
        rolled = replace(subject, placement=subject.placement.changed(roll_mm=roll))
        if zone_detail(rolled)[0] < here / 2:
            return Fix("Turn the seam to the calmest place", {"roll_mm": roll})
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
