"""Draw words with their plaque and shadow."""

from __future__ import annotations

import pyvips

from ..artwork.pixels import as_bytes
from ..colour import parse_hex
from ..pieces.text import Lettering, LetteringShape, Shadow, lettering_box, lettering_shape, plaque_size
from ..template import Panel
from ..words import Font
from .lines import Region, drawn, placed_on, region_of


def _letters(shape: LetteringShape) -> str:
    return "".join("M" + "L".join(f"{x:.4f} {y:.4f}" for x, y in contour) + "Z" for contour in shape.contours)


def _plaque(lettering: Lettering, shape: LetteringShape) -> str:
    w, h = plaque_size(lettering, shape.words)
    line = f' stroke="{lettering.plaque_line}" stroke-width="{max(0.3, 0.02 * h):.3f}"' if lettering.plaque_line else ""
    fill = f'fill="{lettering.plaque_fill}"{line}'
    if lettering.plaque == "oval":
        return f'<ellipse rx="{w / 2:.4f}" ry="{h / 2:.4f}" {fill}/>'
    if lettering.plaque == "box":
        return f'<rect x="{-w / 2:.4f}" y="{-h / 2:.4f}" width="{w:.4f}" height="{h:.4f}" rx="{0.12 * h:.4f}" {fill}/>'
    if lettering.plaque == "banner":
        return _banner(w, h, fill, lettering.plaque_fill)
    return ""


def _banner(w: float, h: float, fill: str, colour: str) -> str:
    """Draw a ribbon: a bar in front, and two notched tails slightly lower behind it, each with a shaded fold."""
    bar, drop, tail = h / 1.25, h - h / 1.25, 0.6 * h
    r, g, b = (round(0.62 * c) for c in parse_hex(colour))
    x, top, inner = w / 2, -h / 2, w / 2 - tail
    parts = []
    for side in (-1, 1):
        outer, near, fold = side * x, side * (inner - 0.3 * tail), side * inner
        parts.append(
            f'<path d="M{near:.4f} {top + drop:.4f}L{outer:.4f} {top + drop:.4f}L{outer - side * 0.3 * tail:.4f} '
            f'{top + drop + bar / 2:.4f}L{outer:.4f} {top + drop + bar:.4f}L{near:.4f} {top + drop + bar:.4f}Z" {fill}/>'
            f'<path d="M{near:.4f} {top + bar:.4f}L{fold:.4f} {top + bar:.4f}L{near:.4f} {top + bar + drop:.4f}Z" '
            f'fill="#{r:02x}{g:02x}{b:02x}"/>'
        )
    return "".join(parts) + f'<rect x="{-inner:.4f}" y="{top:.4f}" width="{2 * inner:.4f}" height="{bar:.4f}" {fill}/>'


def _shadow(shadow: Shadow, body: str, turn: str, region: Region, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Return the shadow: offset, blurred and coloured."""
    density = size_px[0] / panel.file_mm[0]
    x, y = shadow.shift_mm
    cast = drawn(f'<g transform="translate({x} {y})"><g transform="{turn}">{body}</g></g>', region, panel, size_px)[3]
    sigma = shadow.blur_mm * density
    if sigma > 0.3:
        cast = cast.gaussblur(sigma, precision="integer")
    plain = cast.new_from_image(list(parse_hex(shadow.colour)))
    return plain.bandjoin(as_bytes(cast * shadow.opacity)).copy(interpretation="srgb")


def words_layer(lettering: Lettering, font: Font, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image | None:
    """Draw words on a rectangular panel's print file; None where they lie outside."""
    shape = lettering_shape(lettering, font)
    box = lettering_box(lettering, shape, panel.trim_mm)
    shadow = lettering.shadow
    spare = max(map(abs, shadow.shift_mm)) + 3 * shadow.blur_mm if shadow else 0.0
    x, y, w, h = box
    region = region_of((x - spare, y - spare, w + 2 * spare, h + 2 * spare), panel, size_px)
    if region is None:
        return None
    letters, plaque = _letters(shape), _plaque(lettering, shape)
    line = ""
    if lettering.outline and lettering.outline_mm:
        line = f'<path d="{letters}" fill="none" stroke="{lettering.outline}" stroke-width="{2 * lettering.outline_mm:.4f}" stroke-linejoin="round"/>'
    turn = f"translate({x + w / 2:.5f} {y + h / 2:.5f}) rotate({lettering.rotate_deg:.5f})"
    body = f'{line}<path d="{letters}" fill="{lettering.fill}"/>'
    image = drawn(f'<g transform="{turn}">{plaque}{body}</g>', region, panel, size_px)
    if shadow and shadow.opacity:
        image = as_bytes(_shadow(shadow, plaque or body, turn, region, panel, size_px).composite2(image, "over"))
    return placed_on(image, region, size_px)
