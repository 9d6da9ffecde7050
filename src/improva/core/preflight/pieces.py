"""Checks of text and extras: inside the safe area, sharp, complete, with every character."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..colour import contrast
from ..design import Placement
from ..fit import place
from ..pieces import Band, Frames, Lettering, Overlay, piece_box
from ..pieces.frames import slot_dpi
from ..template import Box
from .resolution import sharpness
from .result import CheckResult, Fix
from .subject import Subject


def _named(extra: Lettering | Frames) -> str:
    return "the frames" if isinstance(extra, Frames) else f"“{extra.text.strip().splitlines()[0][:24]}”"


def _boxes(subject: Subject) -> list[tuple[int, str, Box]]:
    """Return words and frames, each with its index, its kind, and its bounding box on the level panel."""
    return [
        (i, _named(extra), box)
        for i, extra in enumerate(subject.extras)
        if isinstance(extra, Lettering | Frames) and (box := piece_box(extra, subject.panel, subject.fonts)) is not None
    ]


def check_pieces_safe(subject: Subject) -> CheckResult | None:
    """Measure how far text and frames reach past the safe line, in mm, and find the move that brings them inside."""
    boxes = _boxes(subject)
    if not boxes or not subject.level.safe_mm:
        return None
    sx, sy, sw, sh = subject.level.safe_box
    worst: tuple[float, int, str, Box, tuple[float, float]] | None = None
    where = []
    for index, what, box in boxes:
        x, y, w, h = box
        left, top, right, bottom = sx - x, sy - y, x + w - sx - sw, y + h - sy - sh
        past = max(left, top, right, bottom)
        if past <= subject.limit("outside_safe_mm"):
            continue
        where.append(box)
        move = (max(left, 0.0) - max(right, 0.0), max(top, 0.0) - max(bottom, 0.0))
        if worst is None or past > worst[0]:
            worst = (past, index, what, box, move)
    limit = subject.limit("outside_safe_mm")
    if worst is None:
        return CheckResult(
            "pieces-safe", "Text and extras in the safe area", "pass", 0.0, limit, "mm", "They lie inside the safe line."
        )
    past, index, what, (_, _, w, h), move = worst
    fix = None
    if w <= sw and h <= sh:
        shift = subject.extras[index].shift_mm  # type: ignore[union-attr]  # words and frames have one
        moved = [round(shift[0] + move[0], 2), round(shift[1] + move[1], 2)]
        fix = Fix(f"Move {what} inside the safe line", {}, index, {"shift_mm": moved})
    return CheckResult(
        "pieces-safe",
        "Text and extras in the safe area",
        "warn",
        round(past, 2),
        limit,
        "mm",
        f"{what[0].upper()}{what[1:]} reach{'' if what == 'the frames' else 'es'} {past:.1f} mm past the safe line.",
        fix,
        tuple(where),
    )


def check_letters_there(subject: Subject) -> CheckResult | None:
    """Find characters that a font lacks and that would not be printed."""
    words = [extra for extra in subject.extras if isinstance(extra, Lettering)]
    if not words:
        return None
    for extra in words:
        missing = subject.set_words(extra).missing
        if missing:
            shown = " ".join(missing[:8])
            return CheckResult(
                "letters",
                "Missing characters",
                "fail",
                float(len(missing)),
                0.0,
                "",
                f"The font of {_named(extra)} has no {shown}: choose another font.",
            )
    return CheckResult("letters", "Missing characters", "pass", 0.0, 0.0, "", "The fonts have every letter.")


def check_words_contrast(subject: Subject) -> CheckResult | None:
    """Measure the least contrast of a text with its surroundings (WCAG 2.2, "contrast ratio")."""
    words = [(i, extra) for i, extra in enumerate(subject.extras) if isinstance(extra, Lettering)]
    if not words:
        return None
    limit = subject.limit("words_contrast")
    bare = replace(subject, extras=tuple(e for e in subject.extras if not isinstance(e, Lettering)))
    contrasts = []
    for i, extra in words:
        box = piece_box(extra, subject.panel, subject.fonts)
        assert box is not None, "words have a box"
        ground = extra.outline or (extra.plaque_fill if extra.plaque != "none" else None) or _ground(bare, box)
        if ground is not None:
            contrasts.append((contrast(extra.fill, ground), i, extra, ground, box))
    if not contrasts:
        return None
    ratio, index, extra, ground, box = min(contrasts, key=lambda each: each[0])
    message = f"{_named(extra)} in {extra.fill} on about {ground}"
    if ratio >= limit:
        return CheckResult("words-contrast", "Text contrast", "pass", round(ratio, 1), limit, ":1", f"{message} reads well.")
    better = max(("#ffffff", "#23211e"), key=lambda colour: contrast(colour, ground))
    fix = Fix(f"Give it the colour {better}", {}, index, {"fill": better})
    return CheckResult(
        "words-contrast", "Text contrast", "warn", round(ratio, 1), limit, ":1", f"{message} is hard to read.", fix, (box,)
    )


def _ground(bare: Subject, box: Box) -> str | None:
    """Return the median colour of a box without the words; None for a box outside the print."""
    x, y, w, h = (v * bare.px_per_mm for v in box)
    seen = bare.trimmed(bare.seen)[max(0, round(y)) : max(0, round(y + h)), max(0, round(x)) : max(0, round(x + w))]
    if not seen.size:
        return None
    r, g, b = (round(float(v)) for v in np.median(seen.reshape(-1, 3), axis=0))
    return f"#{r:02x}{g:02x}{b:02x}"


def _densities(subject: Subject) -> list[tuple[str, float]]:
    level = subject.level
    densities: list[tuple[str, float]] = []
    for extra in subject.extras:
        if isinstance(extra, Overlay) and not subject.vector(extra.art.art):
            densities.append(("the second artwork", min(place(level, extra.art.size, extra.placement).dpi)))
        elif isinstance(extra, Band) and extra.pattern is not None and not subject.vector(extra.pattern.art):
            placement = Placement("repeat", scale=extra.tile_mm / extra.pattern.size.claimed_mm[0])
            densities.append(("the border's pattern", min(place(level, extra.pattern.size, placement).dpi)))
        elif isinstance(extra, Frames):
            densities += [
                (f"picture {i + 1} in the frames", slot_dpi(extra.slot(i), cell))
                for i, cell in enumerate(extra.cells())
                if (ref := extra.slot(i).art) is not None and not subject.vector(ref.art)
            ]
    return densities


def check_pieces_sharp(subject: Subject) -> CheckResult | None:
    """Measure the lowest effective resolution of the extra pictures."""
    densities = _densities(subject)
    if not densities:
        return None
    what, dpi = min(densities, key=lambda pair: pair[1])
    status, limit, message = sharpness(subject, dpi)
    return CheckResult(
        "pieces-sharp",
        "Sharpness of extras",
        status,
        round(dpi, 1),
        limit,
        "dpi",
        f"{what[0].upper()}{what[1:]} has {dpi:.0f} dpi at its size: {message}.",
    )


def check_slots(subject: Subject) -> CheckResult | None:
    """Find slots of frames without a picture."""
    frames = [extra for extra in subject.extras if isinstance(extra, Frames)]
    if not frames:
        return None
    empty = sum(each.slot(i).art is None for each in frames for i in range(each.across * each.down))
    if not empty:
        return CheckResult("slots", "Empty frames", "pass", 0.0, 0.0, "", "Every frame has its picture.")
    return CheckResult(
        "slots",
        "Empty frames",
        "fail",
        float(empty),
        0.0,
        "",
        f"{empty} frame{'s have' if empty > 1 else ' has'} no picture yet, and would be printed empty.",
    )
