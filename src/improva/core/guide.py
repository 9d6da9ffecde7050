"""A provider's guide picture: an overlay that is never printed and from which zones are read."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import pypdfium2
import pypdfium2.raw
import pyvips

from .artwork.pixels import as_array, srgb, unreadable, with_alpha
from .artwork.svg import SVG_DPI, draw_svg, inspect_svg
from .errors import ArtworkError
from .units import MM_PER_IN, PT_PER_IN

BGRA = pypdfium2.raw.FPDFBitmap_BGRA
CLEAR_ALPHA = 24
LEAST_SHARE = 0.04
"""A transparent part smaller than this share of the guide is a gap in its drawing and not the print area."""

MAX_GUIDE_PIXELS, MAX_GUIDE_BYTES = 100_000_000, 50_000_000
"""Largest guide: a 53 × 63 in blanket at 150 dpi has 75 million pixels. It is drawn over the design and never printed."""

VECTOR_DPI = 150.0
TRACED_PX = 1600


@dataclass(frozen=True)
class Guide:
    """A guide as pixels with alpha, and its own size in mm if it states one."""

    image: pyvips.Image
    px: tuple[int, int]
    claimed_mm: tuple[float, float] | None


@dataclass(frozen=True)
class Traced:
    """Zones read from a guide's transparency, as fractions of its width and height (x, y, w, h).

    Attributes:
        trim: the box of the clear part, or None where the guide has no transparency to read.
        rectangular: share of that box that is clear; well below 1 where the print area is not a rectangle.
    """

    trim: tuple[float, float, float, float] | None
    rectangular: float


def _pdf_guide(data: bytes) -> Guide:
    """Return the first page of a PDF, transparent where nothing is painted. Raises :class:`ArtworkError`."""
    try:
        with pypdfium2.PdfDocument(data) as pdf:
            page = pdf[0]
            w, h = (side / PT_PER_IN * MM_PER_IN for side in page.get_size())  # ISO 32000-1, 14.11.2: in points
            if w * h * (VECTOR_DPI / MM_PER_IN) ** 2 > MAX_GUIDE_PIXELS:
                raise ArtworkError("This guide is larger than any print: export it smaller.")
            bitmap = page.render(
                scale=VECTOR_DPI / PT_PER_IN, fill_color=(0, 0, 0, 0), rev_byteorder=True, force_bitmap_format=BGRA
            )
            pixels = np.array(bitmap.to_numpy(), np.uint8)
    except (pypdfium2.PdfiumError, IndexError, ValueError) as broken:
        raise ArtworkError("This PDF cannot be opened: export it again without a password.") from broken
    image = pyvips.Image.new_from_array(pixels).copy(interpretation="srgb")
    return Guide(image, (image.width, image.height), (w, h))


def read_guide(data: bytes) -> Guide:
    """Read a guide from PNG, SVG or PDF bytes.

    Raises:
        ArtworkError: not one of these, damaged, too large, or an SVG that points outside itself.
    """
    if len(data) > MAX_GUIDE_BYTES:
        raise ArtworkError(f"This guide is over {MAX_GUIDE_BYTES // 1_000_000} MB: export it smaller.")
    start = data[:1024].lstrip(b"\xef\xbb\xbf \t\r\n")
    try:
        if data.startswith(b"\x89PNG\r\n\x1a\n"):
            image = pyvips.Image.new_from_buffer(data, "", access="random", fail_on="truncated")
            if image.width * image.height > MAX_GUIDE_PIXELS:
                raise ArtworkError("This guide is larger than any print: export it smaller.")
            dpi = image.xres * MM_PER_IN
            claimed = (image.width / image.xres, image.height / image.yres) if dpi > 30 else None
            return Guide(_with_alpha(srgb(image)), (image.width, image.height), claimed)
        if start.startswith(b"%PDF"):
            return _pdf_guide(data)
        if b"<svg" in start or start.startswith(b"<"):
            inspect_svg(data)
            first = draw_svg(data)
            claimed = (first.width / SVG_DPI * MM_PER_IN, first.height / SVG_DPI * MM_PER_IN)
            image = draw_svg(data, VECTOR_DPI / SVG_DPI)
            return Guide(_with_alpha(image), (image.width, image.height), claimed)
    except pyvips.Error as broken:
        raise unreadable(broken) from broken
    raise ArtworkError("Guides are read from PNG, SVG or PDF: choose one of these files.")


def _with_alpha(image: pyvips.Image) -> pyvips.Image:
    return with_alpha(image).copy_memory()


def trace(guide: Guide) -> Traced:
    """Find the print area: the largest transparent part inside the sheet."""
    factor = min(1.0, TRACED_PX / max(guide.px))
    alpha = as_array(guide.image.resize(factor) if factor < 1 else guide.image)[..., 3]
    h, w = alpha.shape
    count, labels, stats, _ = cv2.connectedComponentsWithStats((alpha < CLEAR_ALPHA).astype(np.uint8), connectivity=4)
    best, area = None, LEAST_SHARE * h * w
    for i in range(1, count):
        x, y, bw, bh, size = (int(v) for v in stats[i])
        outside = x == 0 or y == 0 or x + bw == w or y + bh == h
        if size > area and not (outside and size < 0.5 * h * w):
            best, area = i, size
    if best is None or bool((labels == best).all()):
        return Traced(None, 0.0)
    x, y, bw, bh, size = (int(v) for v in stats[best])
    return Traced((x / w, y / h, bw / w, bh / h), size / (bw * bh))


def laid_over(guide: Guide, longest_px: int) -> pyvips.Image:
    """Return the guide reduced for display, with alpha."""
    factor = min(1.0, longest_px / max(guide.px))
    return guide.image.resize(factor) if factor < 1 else guide.image
