"""Checks of sewn seams: whether a design continues across them, and what lies too near."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ..artwork.content import boxes_of, without_specks
from ..colour import Floats
from ..sewing.edges import edge_line, pairs
from ..sewing.linked_panels import Corrections, Link, seam_of
from ..sewing.mismatch import POINTS, offset_along
from ..sewing.motion import Points
from ..sewing.seams import Follow, LaidOn, Seam
from ..template import Panel, Template
from .result import CheckResult, Status
from .subject import SUBPIXEL_BITS, SUBPIXELS, Subject
from .words import only_words_matter, row_mask

SHOWS_SHARE = 0.9
"""Percentile of the colour steps along a seam that is judged, so that single points do not count."""


def check_runs_on(
    template: Template,
    panel: Panel,
    follow: Follow,
    ways: tuple[Link | None, Link | None],
    corrections: Corrections,
    apart: Floats,
) -> tuple[CheckResult, ...]:
    """Measure a design's worst offset along the followed seam against the sewing tolerance, in mm, and the colour difference
    there, ΔE2000.

    Where it is off, but in colours that do not tell, nothing will be seen, and both pass.

    ``ways`` are who leads the seam's leader and its follower; ``apart`` is as of :func:`..sewing.mismatch.apart_along`.
    """
    seam = seam_of(template, follow.seam)
    limit, most = template.limit("sewing_mm"), template.limit("break_delta_e")
    off = offset_along(seam, template, ways, corrections)
    if off is None:  # a follower of a missing panel is refused earlier
        return (CheckResult("runs-on", seam.title, "pass", None, limit, "mm", "Both sides have their own design."),)
    worst, beyond = float(off.max()), off > limit
    step = round(float(np.quantile(apart[beyond] if beyond.any() else apart, SHOWS_SHARE)), 1)
    colours, shows = f"Colours across {seam.title}", step > most
    if not beyond.any():
        runs = f"The design runs on over it within {max(worst, 0.1):.1f} mm."
        message = "It shows just what lies beneath it." if isinstance(seam, LaidOn) else runs
        return (
            CheckResult("runs-on", seam.title, "pass", round(worst, 2), limit, "mm", message),
            CheckResult(
                "seam-colours", colours, "pass", step, most, "ΔE", "The design runs on: what steps there are, are its own."
            ),
        )
    _, edge = pairs(seam, template.panel(seam.leader), panel, POINTS)
    (x0, y0), (x1, y1) = edge[beyond].min(axis=0), edge[beyond].max(axis=0)
    where = ((float(x0), float(y0), float(x1 - x0), float(y1 - y0)),)
    message = (
        f"Along {100 * float(beyond.mean()):.0f} % of it the design cannot continue: both edges are curved, and it is off by up "
        f"to {worst:.0f} mm."
    )
    advice = "Calm art hides it; or give this side its own placement." if shows else "In this art it does not show."
    seen = f"Where it cannot continue, colours differ by up to ΔE {step:.0f}" + (", and the break shows." if shows else ".")
    status: Status = "warn" if shows else "pass"
    return (
        CheckResult("runs-on", seam.title, status, round(worst, 2), limit, "mm", f"{message} {advice}", where=where),
        CheckResult("seam-colours", colours, status, step, most, "ΔE", seen, where=where if shows else ()),
    )


def _edges(seam: Seam, template: Template, panel: Panel) -> list[Points]:
    """Return a seam's lines on a panel, in mm of its trim."""
    if isinstance(seam, LaidOn):
        line = np.array([*panel.line(), panel.line()[0]]) if seam.follower == panel.id else np.zeros((0, 2))
        if seam.leader == panel.id:
            outline = template.panel(seam.follower).line()
            line = np.array([*outline, outline[0]]) + seam.offset_mm
        return [line] if len(line) else []
    return [np.array(edge_line(panel, edge).coords) for edge in (seam.first, seam.second) if edge.panel == panel.id]


def _near(subject: Subject, lines: list[Points], reach_mm: float) -> tuple[tuple[slice, slice], NDArray[np.bool_]]:
    """Return the points of the trim within a distance of lines: a window, and a mask in it."""
    h, w = subject.trim_lab.shape[:2]
    # the panel's edge is half a pixel outside the outermost pixels
    drawn = [np.clip(line * subject.px_per_mm - 0.5, 0, (w - 1, h - 1)) for line in lines]
    reach = reach_mm * subject.px_per_mm
    every = np.concatenate(drawn)
    left, top = np.maximum(np.floor(every.min(axis=0) - reach), 0).astype(int)
    right, below = (np.ceil(every.max(axis=0) + reach) + 1).astype(int)
    window = slice(top, min(below, h)), slice(left, min(right, w))
    away = np.ones((window[0].stop - top, window[1].stop - left), np.uint8)
    for line in drawn:
        points = ((line - (left, top)) * SUBPIXELS).round().astype(np.int32)
        cv2.polylines(away, [points], False, 0, 1, shift=SUBPIXEL_BITS)
    return window, cv2.distanceTransform(away, cv2.DIST_L2, cv2.DIST_MASK_PRECISE) <= reach


def _detail_near(subject: Subject, mask: NDArray[np.bool_], lines: list[Points], reach_mm: float) -> NDArray[np.bool_]:
    """Return a mask's points within a distance of lines, without specks."""
    window, near = _near(subject, lines, reach_mm)
    out = np.zeros_like(mask)
    out[window] = without_specks(mask[window] & near)
    return out


def check_near_seams(subject: Subject) -> CheckResult | None:
    """Measure important detail within the sewing tolerance of a seam, in mm²: text, or a motif that should not cross it."""
    template, panel, reach = subject.template, subject.panel, subject.limit("sewing_mm")
    seams = [(seam, lines) for seam in template.seams if (lines := _edges(seam, template, panel))]
    if not seams:
        return None
    words = only_words_matter(subject) or subject.placed.tiling is not None
    mask = row_mask(subject) if words else subject.content.mask
    hit = [(seam, _detail_near(subject, mask, lines, reach)) for seam, lines in seams]
    crossed = [(seam, there) for seam, there in hit if there.any()]
    if not crossed:
        return CheckResult(
            "near-seam",
            "Detail at seams",
            "pass",
            0.0,
            0.0,
            "mm²",
            f"Nothing that matters lies within the {reach:g} mm that sewing may be off.",
        )
    area = sum(float(there.sum()) for _, there in crossed) / subject.px_per_mm**2
    names = ", ".join(seam.title for seam, _ in crossed[:3])
    boxes = tuple(box for _, there in crossed for box in boxes_of(there, subject.px_per_mm))[:6]
    return CheckResult(
        "near-seam",
        "Detail at seams",
        "warn",
        round(area, 1),
        0.0,
        "mm²",
        f"{'Words' if words else 'Parts of the motif'} lie within the {reach:g} mm that sewing may be off, at: {names}.",
        where=boxes,
    )
