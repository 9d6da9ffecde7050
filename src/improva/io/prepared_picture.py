"""Write a prepared picture with its true density and the sRGB profile."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ..core.errors import OutputError
from ..core.output.profile import srgb_profile, tagged
from ..core.preparation.picture import Picture, vips_of
from .atomic import atomic_path
from .jpeg import write_jpeg

FORMATS: dict[str, dict[str, Any]] = {
    ".png": {"compression": 6},
    ".tif": {"compression": "deflate", "predictor": "horizontal"},
    ".tiff": {"compression": "deflate", "predictor": "horizontal"},
    ".webp": {"lossless": True},
}


def write_picture(picture: Picture, path: Path) -> None:
    """Write a prepared picture in the format of its ending.

    Raises:
        OutputError: another ending, or JPEG for a picture with transparency.
    """
    ending = path.suffix.lower()
    jpeg = ending in (".jpg", ".jpeg")
    if ending not in FORMATS and not jpeg:
        raise OutputError(f"'{path.name}': prepared pictures are written as .png, .tif, .webp or .jpg: choose one of these.")
    image = vips_of(picture.pixels)
    if image.hasalpha() and jpeg:
        raise OutputError("JPEG has no transparency, and this picture has: write it as .png, .tif or .webp.")
    image = tagged(image.copy(xres=picture.px_per_mm, yres=picture.px_per_mm), srgb_profile())
    with atomic_path(path) as temporary:
        if jpeg:
            write_jpeg(image, temporary)
        else:
            image.write_to_file(str(temporary), keep="icc", **FORMATS[ending])
