"""A prepared picture as a file: true density tags, the sRGB profile, written beside and renamed."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pyvips

from ..errors import BadOutput
from ..output.profile import srgb_profile
from ..output.writing import beside
from .picture import Picture, vips_of

FORMATS: dict[str, dict[str, Any]] = {
    ".png": {"compression": 6},
    ".tif": {"compression": "deflate", "predictor": "horizontal"},
    ".tiff": {"compression": "deflate", "predictor": "horizontal"},
    ".webp": {"lossless": True},
    ".jpg": {"Q": 95, "subsample_mode": "off"},
    ".jpeg": {"Q": 95, "subsample_mode": "off"},
}


def write_picture(picture: Picture, path: Path) -> None:
    """Write a prepared picture as its ending says.

    Raises:
        BadOutput: another ending, or JPEG for a picture with transparency.
    """
    options = FORMATS.get(path.suffix.lower())
    if options is None:
        raise BadOutput(f"'{path.name}': prepared pictures are written as .png, .tif, .webp or .jpg: choose one of these.")
    image = vips_of(picture.pixels)
    if image.hasalpha() and path.suffix.lower() in (".jpg", ".jpeg"):
        raise BadOutput("JPEG has no transparency, and this picture has: write it as .png, .tif or .webp.")
    image = image.copy(xres=picture.px_per_mm, yres=picture.px_per_mm)
    image.set_type(pyvips.GValue.blob_type, "icc-profile-data", srgb_profile())
    with beside(path) as temporary:
        image.write_to_file(str(temporary), keep="icc", **options)
