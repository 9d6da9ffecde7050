"""Prepare a print: true size and density, sRGB or the printer's own colours, mirrored for pressing."""

from __future__ import annotations

from dataclasses import dataclass

import pyvips

from ..artwork.pixels import as_bytes, with_alpha
from ..design import Design
from ..render import Opener, render
from ..render.bend import outline_svg, rings_svg
from ..render.contour import cut_shape, rings_of
from ..template import Box
from .carrier import on_carrier, on_ring_carrier
from .mirror import mirrored
from .profile import converted, srgb_profile, tagged
from .settings import PrintSettings

CUT_LINE_MM = 0.25


@dataclass(frozen=True)
class Print:
    """A print that is ready to be computed and written.

    ``image`` carries its density and its profile; ``size_mm`` is its true size, ``bleed`` and ``trim`` lie on it, in mm
    from its top left corner.
    """

    image: pyvips.Image
    size_mm: tuple[float, float]
    bleed: Box
    trim: Box
    profile: bytes

    @property
    def px(self) -> tuple[int, int]:
        """Width and height."""
        return self.image.width, self.image.height


def _with_cut_line(image: pyvips.Image, design: Design, open_art: Opener) -> pyvips.Image:
    """Draw a thin cutting line on the print: along the panel's trim, or round the artwork that it is cut along."""
    panel, size = design.panel, (image.width, image.height)
    paint = f'fill="none" stroke="#1a1a1a" stroke-width="{CUT_LINE_MM}"'
    if panel.shape == "cutout":
        line = rings_svg(panel, size, paint, rings_of(cut_shape(design, open_art).cut))
    else:
        line = outline_svg(panel, size, paint)
    return as_bytes(with_alpha(image).composite2(line.copy(interpretation="srgb"), "over"))


def make_print(design: Design, open_art: Opener, settings: PrintSettings) -> Print:
    """Prepare a design's print; its pixels are computed when it is written.

    Raises:
        OutputError: it is too large, or its ends are not straight where a tab is wanted.
        ArtworkError, PlacementError: a piece cannot be read or placed.
    """
    panel, carrier = design.panel, settings.carrier
    carrier.check(panel)
    w, h = settings.art_px(panel)
    image = render(design, open_art, (w, h))
    if settings.cut_line:
        image = _with_cut_line(image, design, open_art)
    image = image.copy(interpretation="srgb")
    profile = srgb_profile()
    if settings.profile is not None:
        image, profile = converted(image, settings.profile, settings.intent), settings.profile
    per_mm = w / panel.file_mm[0], h / panel.file_mm[1]
    margins = settings.margins_px(panel)
    if panel.cone is not None and not carrier.bare:
        image = on_ring_carrier(image, panel, carrier, margins)
    elif any(margins):
        image = on_carrier(image, margins, per_mm)
    if settings.mirror:
        image = mirrored(image)
    x, y, *_ = bleed = settings.print_box(panel)
    trim = (x + panel.bleed_mm, y + panel.bleed_mm, *panel.trim_mm)
    image = tagged(image.copy(xres=per_mm[0], yres=per_mm[1]), profile)
    return Print(image, settings.file_mm(panel), bleed, trim, profile)
