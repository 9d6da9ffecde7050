"""The print file: true size, true density, sRGB or the printer's own colours, mirrored where the seller presses it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import pyvips

from ..artwork.pixels import as_bytes, unreadable, with_alpha
from ..design import Design
from ..errors import BadOutput
from ..render import Opener, on_blank, render
from ..render.bend import outline_svg
from ..template import Box, Panel
from .carrier import on_carrier, on_ring_carrier
from .jpeg import write_jpeg
from .pdf import PNG_COMPRESSION, Page, Placed, write_pages
from .profile import converted, srgb_profile, tagged
from .settings import PrintSettings
from .watch import ALONE, Watch
from .writing import beside

CUT_LINE_MM = 0.25
ENDINGS = (".png", ".tif", ".tiff", ".pdf", ".jpg", ".jpeg")


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


def _with_cut_line(image: pyvips.Image, panel: Panel) -> pyvips.Image:
    """The print with the panel's trim drawn on it as a thin line to cut along."""
    w, h = image.width, image.height
    line = outline_svg(panel, (w, h), f'fill="none" stroke="#1a1a1a" stroke-width="{CUT_LINE_MM}"')
    return as_bytes(with_alpha(image).composite2(line.copy(interpretation="srgb"), "over"))


def make_print(design: Design, open_art: Opener, settings: PrintSettings) -> Print:
    """A design's print, not yet computed.

    Raises:
        BadOutput: it is too large, or its ends are not straight where a tab is wanted.
        BadArtwork, BadPlacing: a piece cannot be read or placed.
    """
    panel, carrier = design.panel, settings.carrier
    carrier.check(panel)
    w, h = settings.art_px(panel)
    image = render(design, open_art, (w, h))
    if settings.cut_line:
        image = _with_cut_line(image, panel)
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
        image = image.fliphor()
    x, y, *_ = bleed = settings.print_box(panel)
    trim = (x + panel.bleed_mm, y + panel.bleed_mm, *panel.trim_mm)
    image = tagged(image.copy(xres=per_mm[0], yres=per_mm[1]), profile)
    return Print(image, settings.file_mm(panel), bleed, trim, profile)


def check_ending(path: Path) -> str:
    """A print file's ending, in small letters. Raises :class:`BadOutput` for one that is not made."""
    ending = path.suffix.lower()
    if ending not in ENDINGS:
        raise BadOutput(f"'{path.name}': print files are made as .png, .tif, .pdf or .jpg: choose one of these endings.")
    return ending


def write_print(made: Print, path: Path, watch: Watch = ALONE) -> None:
    """Write a print in the format of the path's ending; PDF and JPEG, which have no bare parts, on white.

    Raises:
        BadOutput: an unknown ending, a folder or disk that cannot be written.
        BadArtwork: the artwork is damaged.
        Stopped: the watch says so.
    """
    ending = check_ending(path)
    image = made.image if ending in (".png", ".tif", ".tiff") else on_blank(made.image)
    image = watch.follow(image)
    try:
        with beside(path) as temporary:
            if ending == ".png":
                image.pngsave(str(temporary), compression=PNG_COMPRESSION, keep="icc")
            elif ending == ".pdf":
                page = Page(made.size_mm, (Placed(image, (0, 0, *made.size_mm)),), "", made.trim, made.bleed)
                write_pages([page], temporary, made.profile)
            elif ending in (".jpg", ".jpeg"):
                write_jpeg(image, temporary)
            else:
                image.tiffsave(str(temporary), compression="lzw", predictor="horizontal", resunit="inch", bigtiff=False,
                               xres=image.xres, yres=image.yres, keep="icc")  # fmt: skip
    except pyvips.Error as broken:
        watch.check()
        raise unwritten(broken, path) from broken


def unwritten(broken: pyvips.Error, path: Path) -> Exception:
    """What libvips's error means: the disk, or the artwork."""
    told = str(broken.detail).lower()
    if any(word in told for word in ("no space", "unable to write", "write error", "write failed", "system error")):
        return BadOutput(f"'{path.name}' cannot be written: the disk is full or was taken away. Make room and try again.")
    return unreadable(broken)


def write_print_file(design: Design, open_art: Opener, path: Path, settings: PrintSettings, watch: Watch = ALONE
                     ) -> tuple[int, int]:  # fmt: skip
    """Write a design's print file and return its pixels. Raises as :func:`make_print` and :func:`write_print`."""
    check_ending(path)
    made = make_print(design, open_art, settings)
    write_print(made, path, watch)
    return made.px
