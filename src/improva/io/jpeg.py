"""JPEG files with their true density, which libvips omits from the header."""

from __future__ import annotations

import struct
from pathlib import Path

import pyvips

from ..core.units import MM_PER_IN

JPEG_QUALITY = 95
_START = b"\xff\xd8"


def jfif_header(dpi: tuple[float, float]) -> bytes:
    """Return the APP0 segment with the density in whole dots per inch: ITU-T T.871, 10.1."""
    across, down = (min(65_535, max(1, round(d))) for d in dpi)
    return b"\xff\xe0" + struct.pack(">H5sHBHHBB", 16, b"JFIF\0", 0x0102, 1, across, down, 0, 0)


def write_jpeg(image: pyvips.Image, path: Path, quality: int = JPEG_QUALITY) -> None:
    """Write an image with its profile and with the density of its ``xres`` and ``yres``.

    Raises the reader's error where the image's source is broken.
    """
    head = _START + jfif_header((image.xres * MM_PER_IN, image.yres * MM_PER_IN))
    refused: list[OSError] = []
    with path.open("wb") as out:

        def write(data: bytes) -> int:
            try:
                out.write(data if out.tell() else head + bytes(data[len(_START) :]))
            except OSError as problem:  # must not pass through libvips
                refused.append(problem)
                return -1
            return len(data)

        target = pyvips.TargetCustom()
        target.on_write(write)
        try:
            image.jpegsave_target(target, Q=quality, subsample_mode="off", optimize_coding=True, keep="icc")
        except pyvips.Error:
            if refused:
                raise refused[0] from None
            raise
