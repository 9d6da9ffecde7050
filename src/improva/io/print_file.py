"""Write print files: true size and density, sRGB or the printer's own colours, mirrored for pressing."""

from __future__ import annotations

from pathlib import Path

import pyvips

from ..core.artwork.pixels import unreadable
from ..core.design import Design
from ..core.errors import OutputError
from ..core.output.print_image import Print, make_print
from ..core.output.settings import PrintSettings
from ..core.progress import UNWATCHED, Progress
from ..core.render import Opener, on_blank
from .atomic import atomic_path
from .jpeg import write_jpeg
from .pdf import PNG_COMPRESSION, Page, PlacedPicture, write_pages

ENDINGS = (".png", ".tif", ".tiff", ".pdf", ".jpg", ".jpeg")


def check_ending(path: Path) -> str:
    """Return a print file's ending in lower case. Raises :class:`OutputError` for an unsupported one."""
    ending = path.suffix.lower()
    if ending not in ENDINGS:
        raise OutputError(f"'{path.name}': print files are made as .png, .tif, .pdf or .jpg: choose one of these endings.")
    return ending


def write_print(print_image: Print, path: Path, progress: Progress = UNWATCHED) -> None:
    """Write a print in the format of the path's ending; PDF and JPEG have a white background instead of bare parts.

    Raises:
        OutputError: an unknown ending, a folder or disk that cannot be written.
        ArtworkError: the artwork is damaged.
        Stopped: the watch says so.
    """
    ending = check_ending(path)
    image = print_image.image if ending in (".png", ".tif", ".tiff") else on_blank(print_image.image)
    image = progress.follow(image)
    try:
        with atomic_path(path) as temporary:
            if ending == ".png":
                image.pngsave(str(temporary), compression=PNG_COMPRESSION, keep="icc")
            elif ending == ".pdf":
                page = Page(
                    print_image.size_mm,
                    (PlacedPicture(image, (0, 0, *print_image.size_mm)),),
                    "",
                    print_image.trim,
                    print_image.bleed,
                )
                write_pages([page], temporary, print_image.profile)
            elif ending in (".jpg", ".jpeg"):
                write_jpeg(image, temporary)
            else:
                image.tiffsave(
                    str(temporary),
                    compression="lzw",
                    predictor="horizontal",
                    resunit="inch",
                    bigtiff=False,
                    xres=image.xres,
                    yres=image.yres,
                    keep="icc",
                )
    except pyvips.Error as broken:
        progress.check()
        raise write_error(broken, path) from broken


def write_error(broken: pyvips.Error, path: Path) -> Exception:
    """Return the error behind a libvips error: of the disk, or of the artwork."""
    reason = str(broken.detail).lower()
    if any(word in reason for word in ("no space", "unable to write", "write error", "write failed", "system error")):
        return OutputError(f"'{path.name}' cannot be written: the disk is full or was taken away. Make room and try again.")
    return unreadable(broken)


def write_print_file(
    design: Design, open_art: Opener, path: Path, settings: PrintSettings, progress: Progress = UNWATCHED
) -> tuple[int, int]:
    """Write a design's print file and return its pixels. Raises the errors of :func:`make_print` and :func:`write_print`."""
    check_ending(path)
    print_image = make_print(design, open_art, settings)
    write_print(print_image, path, progress)
    return print_image.px
