"""Pictures of known content that several tests read."""

from __future__ import annotations

import io
import struct
import zlib

import numpy as np
import pikepdf
from PIL import Image, ImageCms

from tests.conftest import encoded


def bomb(w: int = 60_000, h: int = 60_000) -> bytes:
    head = struct.pack(">IIBBBBB", w, h, 8, 2, 0, 0, 0)

    def chunk(kind: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 1000)) + chunk(b"IEND", b"")


def gif(frames: int) -> bytes:
    pictures = [Image.new("RGB", (20, 20), c) for c in ("red", "lime", "blue")[:frames]]
    return encoded(pictures[0], "GIF", save_all=frames > 1, append_images=pictures[1:])


def guide_png(dpi: float | None = 300) -> bytes:
    """A guide of 600 × 500 px: a painted frame, 40 px wide left and right and 60 px above and below, transparent inside."""
    rgba = np.zeros((500, 600, 4), np.uint8)
    rgba[...] = (255, 0, 140, 180)
    rgba[60:440, 40:560] = 0
    return encoded(Image.fromarray(rgba), dpi=(dpi, dpi)) if dpi else encoded(Image.fromarray(rgba))


def pdf_image(page: pikepdf.Page, name: str | None = None) -> pikepdf.PdfImage:
    """Return an image of a PDF's page: the only one if no name is given."""
    images = page.get_images()
    stream = images[name] if name else next(iter(images.values()))
    assert isinstance(stream, pikepdf.Stream)
    return pikepdf.PdfImage(stream)


def little_cms_round_trip(colours: np.ndarray, profile: bytes, mode: str) -> np.ndarray:
    """Convert sRGB colours (h, w, 3) to a printer's profile and back with Little CMS: relative colorimetric, with black
    point compensation in both directions.
    """
    printer, srgb = ImageCms.ImageCmsProfile(io.BytesIO(profile)), ImageCms.createProfile("sRGB")
    intent, flags = ImageCms.Intent.RELATIVE_COLORIMETRIC, ImageCms.Flags.BLACKPOINTCOMPENSATION
    there = ImageCms.profileToProfile(Image.fromarray(colours), srgb, printer, intent, mode, flags=flags)
    assert there is not None
    back = ImageCms.profileToProfile(there, printer, srgb, intent, "RGB", flags=flags)
    return np.asarray(back).astype(int)


def narrow_profile() -> bytes:
    """An ICC profile of a printer with a small gamut: sRGB's primaries moved two thirds of the way to grey."""
    from improva.core.output.profile import srgb_profile

    data = bytearray(srgb_profile())
    count = int.from_bytes(data[128:132], "big")
    tags = {
        bytes(data[132 + 12 * i : 136 + 12 * i]): int.from_bytes(data[136 + 12 * i : 140 + 12 * i], "big") for i in range(count)
    }
    columns = [
        [int.from_bytes(data[tags[t] + 8 + 4 * k : tags[t] + 12 + 4 * k], "big", signed=True) for k in range(3)]
        for t in (b"rXYZ", b"gXYZ", b"bXYZ")
    ]
    grey = [sum(c[k] for c in columns) / 3 for k in range(3)]
    for tag, column in zip((b"rXYZ", b"gXYZ", b"bXYZ"), columns, strict=True):
        for k in range(3):
            value = round(grey[k] * 0.67 + column[k] * 0.33)
            data[tags[tag] + 8 + 4 * k : tags[tag] + 12 + 4 * k] = value.to_bytes(4, "big", signed=True)
    return bytes(data)
