"""Does the picture fill its place? Bare edges, what is cropped away, and what is stretched."""

from __future__ import annotations

from shapely import Polygon, box

from ..design import Placing
from ..fit import place
from ..template import Box
from .subject import Subject
from .verdict import Fix, Verdict

CROP_WARN_PERCENT = 20.0
"""From memory: beyond a fifth, something the seller meant to show is usually gone."""

STRETCH_WARN_PERCENT, STRETCH_FAIL_PERCENT = 2.0, 10.0
"""From memory: two per cent passes unseen, ten shows in faces and circles."""

BARE_TOLERANCE_MM = 0.05


def _polygon(b: Box) -> Polygon:
    return box(b[0], b[1], b[0] + b[2], b[1] + b[3])


def _covering(subject: Subject) -> Placing:
    """The nearest placing that leaves no edge bare: same turn, shift kept as far as it may be."""
    placing = subject.placing.changed(fit="cover", scale=max(1.0, subject.placing.scale))
    for part in (1.0, 0.75, 0.5, 0.25):
        shift = (placing.shift_mm[0] * part, placing.shift_mm[1] * part)
        for candidate in (shift, (shift[0], 0.0), (0.0, shift[1])):
            attempt = placing.changed(shift_mm=candidate)
            if place(subject.panel, subject.facts.size, attempt).covers(subject.panel.file_box):
                return attempt
    return placing.changed(shift_mm=(0.0, 0.0))


def check_bare(subject: Subject) -> Verdict:
    """The width of the widest strip of the print file that the picture leaves bare, in mm."""
    file = _polygon(subject.panel.file_box)
    bare = file.difference(Polygon(subject.placed.corners()))
    parts = [part for part in getattr(bare, "geoms", [bare]) if part.area > 1e-4]
    where = tuple((b[0], b[1], b[2] - b[0], b[3] - b[1]) for b in (part.bounds for part in parts))
    x0, y0, x1, y1 = file.intersection(Polygon(subject.placed.corners())).bounds or (0, 0, 0, 0)
    fx0, fy0, fx1, fy1 = file.bounds
    gap = max(x0 - fx0, y0 - fy0, fx1 - x1, fy1 - y1, 0.0) if bare.area > 1e-4 else 0.0
    if bare.area > 1e-4 and gap <= BARE_TOLERANCE_MM:
        gap = max((min(w, h) for _, _, w, h in where), default=0.0)
    if gap <= BARE_TOLERANCE_MM:
        return Verdict("bare-edge", "Bare edges", "pass", 0.0, 0.0, "mm", "The picture reaches every edge.")
    share = 100 * bare.area / file.area
    told = f"{share:.0f} % of the print is left without picture, up to {gap:.1f} mm from an edge"
    if subject.placing.background is not None:
        return Verdict("bare-edge", "Bare edges", "pass", round(gap, 2), 0.0, "mm",
                       f"{told}; the ground {subject.placing.background} fills it.", where=where)  # fmt: skip
    if subject.facts.has_alpha and subject.placing.fit in ("contain", "actual"):
        return Verdict("bare-edge", "Bare edges", "pass", round(gap, 2), 0.0, "mm",
                       f"{told}: a cut-out on the bare blank, as it should be.")  # fmt: skip
    mend = _covering(subject)
    fix = Fix("Cover the whole print", {"fit": "cover", "scale": mend.scale, "shift_mm": list(mend.shift_mm)})
    return Verdict("bare-edge", "Bare edges", "warn", round(gap, 2), 0.0, "mm",
                   f"{told}: the blank will show there.", fix, where)  # fmt: skip


def check_crop(subject: Subject) -> Verdict:
    """Share of the picture's area that falls outside the trim, in per cent."""
    picture = Polygon(subject.placed.corners())
    inside = picture.intersection(_polygon((0.0, 0.0, *subject.panel.trim_mm))).area
    lost = 100 * (1 - inside / picture.area)
    if lost < 0.05:
        return Verdict("crop", "Cropped away", "pass", 0.0, CROP_WARN_PERCENT, "%", "All of the picture is printed.")
    if lost <= CROP_WARN_PERCENT:
        return Verdict("crop", "Cropped away", "pass", round(lost, 1), CROP_WARN_PERCENT, "%",
                       f"{lost:.0f} % of the picture falls outside the trim.")  # fmt: skip
    fix = Fix("Show the whole picture", {"fit": "contain", "scale": 1.0, "shift_mm": [0.0, 0.0]})
    return Verdict("crop", "Cropped away", "warn", round(lost, 1), CROP_WARN_PERCENT, "%",
                   f"{lost:.0f} % of the picture falls outside the trim: look whether anything that matters is lost.",
                   fix if subject.placing.fit != "contain" or subject.placing.scale > 1 else None)  # fmt: skip


def check_distortion(subject: Subject) -> Verdict:
    """How far the picture's proportions are bent, in per cent."""
    _, _, w, h = subject.placed.box
    ratio = (w / h) / (subject.facts.px[0] / subject.facts.px[1])
    if subject.placing.fit != "stretch":
        ratio = 1.0  # proportions are kept, also where a scanner's tag has unlike densities
    bent = 100 * (max(ratio, 1 / ratio) - 1)
    if bent <= STRETCH_WARN_PERCENT:
        return Verdict("distortion", "Proportions", "pass", round(bent, 2), STRETCH_WARN_PERCENT, "%", "Proportions are kept.")
    way = "wider" if ratio > 1 else "taller"
    limit = STRETCH_FAIL_PERCENT if bent > STRETCH_FAIL_PERCENT else STRETCH_WARN_PERCENT
    return Verdict("distortion", "Proportions", "fail" if bent > STRETCH_FAIL_PERCENT else "warn", round(bent, 2), limit, "%",
                   f"The picture is pulled {bent:.0f} % {way}: circles and faces will show it.",
                   Fix("Cover without stretching", {"fit": "cover"}))  # fmt: skip
