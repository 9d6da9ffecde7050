"""Checks of lettering and lines: inside the safe area, not covered, large and thick enough."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ..artwork.content import boxes_of, without_specks
from ..colour import hex_of_lab
from ..template import Box
from .result import CheckResult, Fix
from .subject import Subject

ALL_OVER = 0.6
"""Density of ink outside the safe line, relative to inside, from which art is meant to reach the edge. From memory."""


def _outside(subject: Subject, mask: NDArray[np.bool_]) -> tuple[NDArray[np.bool_], float]:
    """Return the part of a mask between safe line and trim, and how far it reaches past the safe line, in mm.

    Where smaller sizes are cut from the same file, it is the smallest one's safe line.
    """
    safe = subject.zone(subject.level.safe_mm, subject.template.cut_share())
    away = cv2.distanceTransform((~safe).astype(np.uint8), cv2.DIST_C, cv2.DIST_MASK_3)
    out = without_specks(mask & subject.zone(0.0) & ~safe)
    return out, float(away[out].max(initial=0.0)) / subject.px_per_mm


def row_mask(subject: Subject) -> NDArray[np.bool_]:
    """Return the mask of the trim's points under rows of lettering, (h, w)."""
    mask = np.zeros(subject.trim_lab.shape[:2], bool)
    for words in subject.words:
        mask[_within(subject, words.box)] = True
    return mask


def only_words_matter(subject: Subject) -> bool:
    """Return whether only words matter at the edge: in a picture, and in a drawing that deliberately runs off on all sides."""
    content = subject.content
    if content.kind != "drawing":
        return content.kind == "picture"
    mask, d = content.mask, max(1, round(subject.level.safe_mm * subject.px_per_mm))
    inner = mask[d:-d, d:-d]
    outer = (float(mask.sum()) - float(inner.sum())) / max(1, mask.size - inner.size)
    return bool(outer > ALL_OVER * float(inner.mean()))


def check_safe(subject: Subject) -> CheckResult | None:
    """Measure how far content reaches past the safe line, in mm: a motif by its outline, a picture by its lettering."""
    safe = subject.level.safe_mm
    if not safe or subject.placement.fit == "repeat":
        return None
    content = subject.content
    words = only_words_matter(subject)
    out, measured = _outside(subject, row_mask(subject) if words else content.mask)
    limit = subject.limit("outside_safe_mm")
    what = "words" if words else "the motif"
    smallest = min(subject.template.sizes, key=lambda name: subject.template.sizes[name], default="")
    where = f" of size {smallest}" if subject.template.cut_share() < 1 else ""
    if measured <= limit:
        message = "No words were found" if words else "Nothing that matters was found"
        return CheckResult(
            "safe-area", "Safe area", "pass", round(measured, 2), limit, "mm", f"{message} past the safe line{where}."
        )
    return CheckResult(
        "safe-area",
        "Safe area",
        "warn",
        round(measured, 2),
        limit,
        "mm",
        f"{what[0].upper()}{what[1:]} reach{'' if words else 'es'} {measured:.1f} mm past the safe line{where}, "
        f"which runs {safe:.1f} mm inside the trim.",
        None if words else _drawn_in(subject),
        boxes_of(out, subject.px_per_mm),
    )


def _drawn_in(subject: Subject) -> Fix | None:
    """Fix: print the content smaller, inside the safe line; an even background continues around it."""
    content = subject.content
    if content.kind == "picture" or subject.placed.tiling is not None:
        return None
    ys, xs = np.flatnonzero(content.mask.any(axis=1)), np.flatnonzero(content.mask.any(axis=0))
    scale, level = subject.px_per_mm, subject.level
    half = [
        max(abs(v[0] / scale - side / 2), abs((v[-1] + 1) / scale - side / 2))
        for v, side in ((xs, level.trim_mm[0]), (ys, level.trim_mm[1]))
    ]
    room = [side * subject.template.cut_share() / 2 - level.safe_mm for side in level.trim_mm]
    factor = min(r / max(h, 1e-6) for r, h in zip(room, half, strict=True))
    if not 0.2 < factor < 1:
        return None
    change: dict[str, object] = {"scale": round(subject.placement.scale * factor * 0.998, 4)}
    change["shift_mm"] = [round(v * factor, 2) for v in subject.placement.shift_mm]
    if content.ground is not None and subject.placement.background is None:
        change["background"] = hex_of_lab(content.ground)
    return Fix(f"Print it at {100 * factor:.0f} %, inside the safe line", change)


def _within(subject: Subject, box: Box) -> tuple[slice, slice]:
    x, y, w, h = (v * subject.px_per_mm for v in box)
    return slice(max(0, round(y)), max(0, round(y + h))), slice(max(0, round(x)), max(0, round(x + w)))


def check_keep_out(subject: Subject) -> CheckResult | None:
    """Measure the part of a panel's covered areas that holds lettering or a motif, in per cent."""
    if not subject.level.keep_out:
        return None
    words = only_words_matter(subject) or subject.placed.tiling is not None
    mask = row_mask(subject) if words else subject.content.mask
    shares = [(k, 100 * float(mask[_within(subject, k.box)].mean())) for k in subject.level.keep_out]
    worst, share = max(shares, key=lambda f: f[1])
    if share < 0.5:
        return CheckResult(
            "keep-out",
            "Covered parts",
            "pass",
            round(share, 1),
            0.5,
            "%",
            f"Nothing that matters lies in the part for the {worst.title.removeprefix('beneath the ')}.",
        )
    return CheckResult(
        "keep-out",
        "Covered parts",
        "warn",
        round(share, 1),
        0.5,
        "%",
        f"{'Words' if words else 'Parts of the motif'} lie {worst.title if worst.title.startswith('beneath') else 'in the ' + worst.title}.",
        where=tuple(k.box for k, s in shares if s >= 0.5),
    )


def _least_size(subject: Subject) -> float:
    """Return the scale of the smallest finished size against the file."""
    return min(subject.template.sizes.values(), default=1.0) if subject.template.grading == "scaled" else 1.0


def check_lettering(subject: Subject) -> CheckResult | None:
    """Measure the height of the smallest printed lettering, in mm, on the smallest finished size."""
    limit, size = subject.limit("letter_mm"), _least_size(subject)
    if not subject.words:
        return CheckResult("lettering", "Lettering", "pass", None, limit, "mm", "No lettering was found.")
    height = min(words.height_mm for words in subject.words) * size
    if height >= limit:
        return CheckResult(
            "lettering",
            "Lettering",
            "pass",
            round(height, 2),
            limit,
            "mm",
            f"The smallest lettering found is {height:.1f} mm high.",
        )
    small = [words for words in subject.words if words.height_mm * size < limit]
    one = len(small) == 1
    return CheckResult(
        "lettering",
        "Lettering",
        "warn",
        round(height, 2),
        limit,
        "mm",
        f"{len(small)} row{'s' * (not one)} of lettering come{'s' * one} out only {height:.1f} mm high.",
        _larger(subject, limit / height),
        tuple(words.box for words in small[:6]),
    )


def check_stroke(subject: Subject) -> CheckResult | None:
    """Measure the width of the thinnest printed strokes, in mm: of lettering, and of drawings on an even background."""
    limit, size = subject.limit("stroke_mm"), _least_size(subject)
    widths = [words.stroke_mm for words in subject.words if words.stroke_mm > 0]
    if subject.traits.stroke_px > 0:
        widths.append(subject.traits.stroke_px * subject.mm_per_px)
    if not widths:
        return CheckResult("stroke", "Thin strokes", "pass", None, limit, "mm", "No lines were found that could be too thin.")
    width = min(widths) * size
    if width >= limit:
        return CheckResult(
            "stroke",
            "Thin strokes",
            "pass",
            round(width, 2),
            limit,
            "mm",
            f"The thinnest strokes come out {width:.2f} mm wide.",
        )
    thin = tuple(words.box for words in subject.words if 0 < words.stroke_mm * size < limit)[:6]
    return CheckResult(
        "stroke",
        "Thin strokes",
        "warn",
        round(width, 2),
        limit,
        "mm",
        f"The thinnest strokes come out {width:.2f} mm wide and may break up or fill in.",
        _larger(subject, limit / max(width, 1e-3)),
        thin,
    )


def _larger(subject: Subject, factor: float) -> Fix | None:
    """Fix: print larger, if the motif still fits."""
    content = subject.content
    if content.kind == "picture" or subject.placed.tiling is not None or factor > 5:
        return None
    ys, xs = np.flatnonzero(content.mask.any(axis=1)), np.flatnonzero(content.mask.any(axis=0))
    if not len(ys):
        return None
    size = ((xs[-1] - xs[0]) / subject.px_per_mm, (ys[-1] - ys[0]) / subject.px_per_mm)
    if any(s * factor > side - 2 * subject.level.safe_mm for s, side in zip(size, subject.level.trim_mm, strict=True)):
        return None
    return Fix(f"Print it at {100 * factor:.0f} %", {"scale": round(subject.placement.scale * factor * 1.01, 4)})
