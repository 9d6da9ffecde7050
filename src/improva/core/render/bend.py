"""Resample between a tapered wall's level rectangle and its flat ring, once in either direction."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import pyvips

from ..artwork.pixels import TRANSPARENT, as_bytes, with_alpha
from ..geometry import Cone
from ..template import Panel

EDGE_PX = 3
"""Px by which art extends past the level rectangle, so that no pixel on the cut is blended with transparency."""

SPARE_MM = 0.15
"""Mm by which the print extends past the cut, so that the knife leaves no bare edge."""


def _cone(panel: Panel) -> Cone:
    assert panel.cone is not None, "only a tapered wall is bent"
    return panel.cone


def _level_index(panel: Panel, size_px: tuple[int, int], level_px: tuple[int, int]) -> pyvips.Image:
    """Return, for each pixel of the flat, its position on the level rectangle: two float bands, streamed."""
    cone = _cone(panel)
    (fw, fh), (lw, lh) = panel.file_mm, panel.level().file_mm
    at = pyvips.Image.xyz(*size_px).cast("float")
    x = (at[0] + 0.5) * (fw / size_px[0]) - panel.bleed_mm - cone.box_mm[0] / 2
    y = (at[1] + 0.5) * (fh / size_px[1]) - panel.bleed_mm
    up = cone.outer_radius_mm - (cone.box_mm[1] - y if cone.widens_down else y)
    # polar() counts degrees from 0 to 360; the turn by half a circle keeps the wall's middle away from its ends
    polar = (up * -1).complexform(x * -1).polar()
    turn = polar.imag() - 180
    inward = cone.outer_radius_mm - polar.real()
    level_x = (turn * (np.pi / 180 / cone.sweep_rad) + 0.5) * cone.round_mm
    level_y = cone.slant_mm - inward if cone.widens_down else inward
    to_px = (level_px[0] / lw, level_px[1] / lh)
    return ((level_x + panel.bleed_mm) * to_px[0] - 0.5 + EDGE_PX).bandjoin(
        (level_y + panel.bleed_mm) * to_px[1] - 0.5 + EDGE_PX
    )


def _sampled(image: pyvips.Image, index: pyvips.Image) -> pyvips.Image:
    """Look up pixels; transparent where the index lies outside the image."""
    image = with_alpha(image).premultiply().cast("float").copy_memory()
    samples = image.mapim(index, interpolate=pyvips.Interpolate.new("bicubic"), extend="background", background=TRANSPARENT)
    return as_bytes(samples.unpremultiply())


def bent(level: pyvips.Image, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Bend the level rectangle on to the flat and cut it along the outline: size_px, four bands."""
    index = _level_index(panel, size_px, (level.width, level.height))
    grown = level.embed(EDGE_PX, EDGE_PX, level.width + 2 * EDGE_PX, level.height + 2 * EDGE_PX, extend="copy")
    return cut_out(_sampled(grown, index), panel)


def unbent(flat: pyvips.Image, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Resample the flat ring to the level rectangle: size_px, four bands."""
    cone, level = _cone(panel), panel.level()
    across, down = (mm / px for mm, px in zip(level.file_mm, size_px, strict=True))
    x, y = np.meshgrid(
        (np.arange(size_px[0]) + 0.5) * across - panel.bleed_mm, (np.arange(size_px[1]) + 0.5) * down - panel.bleed_mm
    )
    fx, fy = cone.to_flat(x, y)
    to_px = (flat.width / panel.file_mm[0], flat.height / panel.file_mm[1])
    index = np.stack([(fx + panel.bleed_mm) * to_px[0] - 0.5, (fy + panel.bleed_mm) * to_px[1] - 0.5], -1)
    return _sampled(flat, pyvips.Image.new_from_array(index.astype(np.float32)))


def outline_svg(panel: Panel, size_px: tuple[int, int], paint: str, grown_mm: float = 0.0) -> pyvips.Image:
    """Return a panel's outline, without bleed, on the print file's pixels, in the given SVG paint."""
    if panel.cone is not None:
        points = panel.cone.outline(grown_mm)
    elif panel.outline_mm:
        points = list(panel.outline_mm)
    else:
        w, h = panel.trim_mm
        points = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)]
    return rings_svg(panel, size_px, paint, [points])


def rings_svg(
    panel: Panel, size_px: tuple[int, int], paint: str, rings: Sequence[Sequence[tuple[float, float]]]
) -> pyvips.Image:
    """Return closed lines, in mm of the trim, on the print file's pixels, in the given SVG paint."""
    (w, h), b = panel.file_mm, panel.bleed_mm
    lines = "".join(f'<polygon points="{" ".join(f"{x:.4f},{y:.4f}" for x, y in ring)}" {paint}/>' for ring in rings)
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{size_px[0]}" height="{size_px[1]}" preserveAspectRatio="none" '
        f'viewBox="{-b} {-b} {w} {h}">{lines}</svg>'
    )
    image = pyvips.Image.svgload_buffer(svg.encode())
    return image.crop(0, 0, *size_px) if (image.width, image.height) != size_px else image


def cut_out(image: pyvips.Image, panel: Panel) -> pyvips.Image:
    """Make everything outside the ring and its bleed transparent."""
    image = with_alpha(image)
    mask = outline_svg(panel, (image.width, image.height), 'fill="#fff"', panel.bleed_mm + SPARE_MM)[3]
    colours = image.extract_band(0, n=3)
    return colours.bandjoin(as_bytes(image[3].cast("float") * mask / 255)).copy(interpretation="srgb")
