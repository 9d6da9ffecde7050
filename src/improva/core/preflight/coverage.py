"""Checks of coverage: bare edges, bleed, cropping and distortion."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import partial

from shapely import Polygon, box, unary_union
from shapely.geometry.base import BaseGeometry

from ..design import Placement
from ..fit import place
from ..pieces import Band, Overlay
from ..template import Box
from .result import CheckResult, Fix
from .subject import Subject

STRETCH_FAIL_TIMES = 5.0
"""From memory: two per cent is not noticed, ten shows in faces and circles."""

BARE_TOLERANCE_MM = 0.05


def _polygon(b: Box) -> Polygon:
    return box(b[0], b[1], b[0] + b[2], b[1] + b[3])


def _printed(subject: Subject) -> Polygon:
    """Return the boxes of the picture and its copies, in mm of the rectangle they are placed in."""
    return unary_union([Polygon(copy.corners()) for copy in subject.placed.copies()])


def _filled(subject: Subject) -> Polygon:
    """Return the area covered by the picture, a second artwork or a border."""
    shapes = [_printed(subject)]
    for extra in subject.extras:
        if isinstance(extra, Band):
            shapes.append(extra.shape(subject.level))
        elif isinstance(extra, Overlay) and not extra.mixing.clipped:
            placed = place(subject.level, extra.art.size, extra.placement)
            whole = placed.tiling is not None and placed.covers(subject.level.file_box)
            shapes += [subject.level.cut()] if whole else [Polygon(copy.corners()) for copy in placed.copies()]
    return unary_union(shapes)


def _covering(subject: Subject) -> Placement:
    """Return the nearest placement without bare edges: the same rotation, and the shift as far as possible."""
    placement = subject.placement.changed(fit="cover", copies=1, scale=max(1.0, subject.placement.scale))
    for part in (1.0, 0.75, 0.5, 0.25):
        shift = (placement.shift_mm[0] * part, placement.shift_mm[1] * part)
        for candidate in (shift, (shift[0], 0.0), (0.0, shift[1])):
            attempt = placement.changed(shift_mm=candidate)
            if place(subject.panel, subject.facts.size, attempt).covers(subject.field.file_box):
                return attempt
    return placement.changed(shift_mm=(0.0, 0.0))


def _cover_fix(subject: Subject, label: str) -> Fix:
    cover = _covering(subject)
    return Fix(label, {"fit": "cover", "copies": 1, "scale": cover.scale, "shift_mm": list(cover.shift_mm)})


_bare_edge = partial(CheckResult, "bare-edge", "Bare edges", limit=0.0, unit="mm")


def check_bare(subject: Subject) -> CheckResult:
    """Measure the widest bare strip of the print file, in mm."""
    if subject.placed.tiling is not None:
        return _bare_spacing(subject)
    file, picture = subject.field.cut(), _filled(subject)
    bare = file.difference(picture)
    if not file.intersects(picture):
        return _bare_edge(
            status="warn",
            measured=round(max(subject.field.file_box[2:]), 2),
            message="The picture lies wholly outside this panel: nothing of it is printed.",
            fix=_cover_fix(subject, "Bring it back"),
        )
    parts = [part for part in getattr(bare, "geoms", [bare]) if part.area > 1e-4]
    where = tuple((b[0], b[1], b[2] - b[0], b[3] - b[1]) for b in (part.bounds for part in parts))
    x0, y0, x1, y1 = file.intersection(picture).bounds or (0, 0, 0, 0)
    fx0, fy0, fx1, fy1 = file.bounds
    gap = max(x0 - fx0, y0 - fy0, fx1 - x1, fy1 - y1, 0.0) if bare.area > 1e-4 else 0.0
    if bare.area > 1e-4 and gap <= BARE_TOLERANCE_MM:
        gap = max((min(w, h) for _, _, w, h in where), default=0.0)
    if gap <= BARE_TOLERANCE_MM:
        return _bare_edge(status="pass", measured=0.0, message="The picture reaches every edge.")
    share = 100 * bare.area / file.area
    message = f"{share:.0f} % of the print is left without picture, up to {gap:.1f} mm from an edge"
    result = partial(_bare_edge, measured=round(gap, 2))
    if subject.placement.background is not None:
        filled = f"{message}; the background {subject.placement.background} fills it."
        return result(status="pass", message=filled, where=where)
    motif = subject.facts.has_alpha or subject.template.default_fit == "contain" or subject.panel.gap_mm > 0
    if motif and subject.placement.fit in ("contain", "actual"):
        return result(status="pass", message=f"{message}: a motif on the unprinted blank, as intended.")
    fix = _cover_fix(subject, "Cover the whole print")
    return result(status="warn", message=f"{message}: the blank will show there.", fix=fix, where=where)


def _bare_spacing(subject: Subject) -> CheckResult:
    gap = subject.placement.spacing_mm
    if gap and subject.placement.background is None and not subject.facts.has_alpha:
        message = f"The blank shows between the tiles, {gap:g} mm wide: give the pattern a background."
        return _bare_edge(status="warn", measured=gap, message=message, fix=Fix("Close the tiles up", {"spacing_mm": 0.0}))
    return _bare_edge(status="pass", measured=gap, message="The pattern runs through every edge.")


def check_bleed(subject: Subject) -> CheckResult | None:
    """Measure how far the print reaches past the trim, in mm, if it reaches the trim."""
    bleed = subject.panel.bleed_mm
    if not bleed:
        return None
    trim = replace(subject.field, bleed_mm=0.0).cut()
    picture = _filled(subject)
    if subject.placed.tiling is not None or subject.placement.background is not None:
        reach = bleed
    elif not picture.contains(trim):
        return None
    else:
        reach = bleed if picture.contains(subject.field.cut().buffer(-0.01)) else picture.boundary.distance(trim)
    if reach >= bleed - BARE_TOLERANCE_MM:
        return CheckResult(
            "bleed", "Bleed", "pass", round(reach, 2), bleed, "mm", "The print runs through the bleed on every side."
        )
    message = f"The print reaches {reach:.1f} mm past the trim where {bleed:.1f} mm are asked for."
    return CheckResult("bleed", "Bleed", "warn", round(reach, 2), bleed, "mm", message, _cover_fix(subject, "Cover the bleed"))


def check_crop(subject: Subject) -> CheckResult:
    """Measure the part of the picture's area outside the trim, in per cent; for a cut-out, of its content's box."""
    limit = subject.limit("crop_percent")
    if subject.placed.tiling is not None:
        return CheckResult("crop", "Cropped away", "pass", 0.0, limit, "%", "A pattern may be cut anywhere.")
    trim = replace(subject.field, bleed_mm=0.0).cut()
    cutout = subject.traits.kind == "cutout"
    picture = _content(subject) if cutout else _printed(subject)
    lost = 100 * (1 - picture.intersection(trim).area / picture.area)
    if lost < 0.05:
        return CheckResult("crop", "Cropped away", "pass", 0.0, limit, "%", "All of the picture is printed.")
    if lost <= min(limit, subject.limit("crop_fix_percent")) and not cutout:
        return CheckResult(
            "crop", "Cropped away", "pass", round(lost, 1), limit, "%", f"{lost:.0f} % of the picture falls outside the trim."
        )
    fix: Fix | None = Fix("Show the whole picture", {"fit": "contain", "scale": 1.0, "shift_mm": [0.0, 0.0]})
    if cutout:
        fix = _inside(subject, picture)
    elif subject.placement.fit == "contain" and subject.placement.scale <= 1:
        fix = None
    return CheckResult(
        "crop",
        "Cropped away",
        "fail" if lost > subject.limit("crop_fix_percent") else "warn",
        round(lost, 1),
        0.0 if cutout else limit,
        "%",
        f"{lost:.0f} % of the picture falls outside the trim: look whether anything that matters is lost.",
        fix,
    )


def _content(subject: Subject) -> BaseGeometry:
    """Return the bounding box of a cut-out's printed content, over all its copies."""
    x, y, w, h = subject.traits.content_box
    corners = ((x, y), (x + w, y), (x + w, y + h), (x, y + h))
    return unary_union([Polygon([copy.from_art(u, v) for u, v in corners]) for copy in subject.placed.copies()])


def _inside(subject: Subject, picture: BaseGeometry) -> Fix | None:
    """Return the scale at which a cut-out with its border lies wholly in the print area."""
    x0, y0, x1, y1 = picture.bounds
    w, h = subject.field.trim_mm
    cx, cy = subject.placed.centre
    reach = [(cx - x0, cx), (x1 - cx, w - cx), (cy - y0, cy), (y1 - cy, h - cy)]
    factor = min(room / need for need, room in reach if need > 0) if len(subject.placed.offsets_mm) == 1 else 0.0
    if factor <= 0.05:
        return Fix("Show the whole picture", {"fit": "contain", "scale": 1.0, "shift_mm": [0.0, 0.0]})
    scale = math.floor(subject.placement.scale * factor * 1e4) / 1e4
    return Fix(f"Print it at {100 * factor:.0f} % of this size: it fits {w:.0f} × {h:.0f} mm", {"scale": scale})


def check_distortion(subject: Subject) -> CheckResult:
    """Measure the change of the picture's proportions, in per cent."""
    _, _, w, h = subject.placed.box
    ratio = (w / h) / (subject.facts.px[0] / subject.facts.px[1])
    least, most = subject.limit("stretch_percent"), STRETCH_FAIL_TIMES * subject.limit("stretch_percent")
    if subject.placement.fit != "stretch":
        ratio = 1.0  # proportions are kept, even if a scanner's tag has two different densities
    bent = 100 * (max(ratio, 1 / ratio) - 1)
    if bent <= least:
        return CheckResult("distortion", "Proportions", "pass", round(bent, 2), least, "%", "Proportions are kept.")
    way = "wider" if ratio > 1 else "taller"
    limit = most if bent > most else least
    return CheckResult(
        "distortion",
        "Proportions",
        "fail" if bent > most else "warn",
        round(bent, 2),
        limit,
        "%",
        f"The picture is pulled {bent:.0f} % {way}: circles and faces will show it.",
        Fix("Cover without stretching", {"fit": "cover"}),
    )
