"""The print file: true size, true density, sRGB, mirrored where the seller presses it."""

from __future__ import annotations

from pathlib import Path

import pyvips

from ..artwork.pixels import as_bytes, unreadable, with_alpha
from ..design import Design
from ..errors import BadOutput
from ..render import Opener, on_blank, render
from ..render.bend import outline_svg
from ..template import Panel
from .pdf import write_pdf
from .profile import srgb_profile
from .writing import beside

DPI_LIMITS = (36.0, 1200.0)
MAX_PRINT_PX = 600_000_000
PNG_COMPRESSION = 6


CUT_LINE_MM = 0.25


def _with_cut_line(image: pyvips.Image, panel: Panel) -> pyvips.Image:
    """The print with the panel's trim drawn on it as a thin line to cut along."""
    w, h = image.width, image.height
    line = outline_svg(panel, (w, h), f'fill="none" stroke="#1a1a1a" stroke-width="{CUT_LINE_MM}"')
    return as_bytes(with_alpha(image).composite2(line.copy(interpretation="srgb"), "over"))


def print_image(design: Design, open_art: Opener, dpi: float, mirror: bool, cut_line: bool = False) -> pyvips.Image:
    """The panel at ``dpi``, tagged with its true density and the sRGB profile; not yet computed.

    ``cut_line`` draws the trim's outline, for a wrap or panel that is cut out by hand.

    Raises:
        BadOutput: the density is out of reach.
        BadArtwork, BadPlacing: a piece cannot be read or placed.
    """
    if not DPI_LIMITS[0] <= dpi <= DPI_LIMITS[1]:
        raise BadOutput(f"{dpi:g} dpi cannot be made: ask for {DPI_LIMITS[0]:g} to {DPI_LIMITS[1]:g}.")
    w, h = design.panel.file_px(dpi)
    if w * h > MAX_PRINT_PX:
        raise BadOutput(f"{w} × {h} px is more than can be printed in one file: ask for fewer dpi.")
    image = render(design, open_art, (w, h))
    if cut_line:
        image = _with_cut_line(image, design.panel)
    if mirror:
        image = image.fliphor()
    mm = design.panel.file_mm
    image = image.copy(interpretation="srgb", xres=w / mm[0], yres=h / mm[1])
    image.set_type(pyvips.GValue.blob_type, "icc-profile-data", srgb_profile())
    return image


def write_print_file(design: Design, open_art: Opener, path: Path, *, dpi: float, mirror: bool,
                     cut_line: bool = False) -> tuple[int, int]:  # fmt: skip
    """Write the print file in the format of the path's ending and return its pixels.

    Raises:
        BadOutput: an unknown ending, an impossible density, a folder that cannot be written.
        BadArtwork, BadPlacing: a piece cannot be read or placed.
    """
    ending = path.suffix.lower()
    if ending not in (".png", ".tif", ".tiff", ".pdf"):
        raise BadOutput(f"'{path.name}': print files are made as .png, .tif or .pdf: choose one of these endings.")
    image = print_image(design, open_art, dpi, mirror, cut_line)
    try:
        with beside(path) as temporary:
            if ending == ".png":
                image.pngsave(str(temporary), compression=PNG_COMPRESSION, keep="icc")
            elif ending == ".pdf":
                write_pdf(on_blank(image), design.panel, temporary)
            else:
                image.tiffsave(str(temporary), compression="lzw", predictor="horizontal", resunit="inch",
                               xres=image.xres, yres=image.yres, keep="icc")  # fmt: skip
    except pyvips.Error as broken:
        raise unreadable(broken) from broken
    return image.width, image.height
