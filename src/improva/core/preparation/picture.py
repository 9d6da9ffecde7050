"""A picture between preparation steps: its pixels and their density."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import cv2
import numpy as np
import pyvips
from numpy.typing import NDArray

from ..artwork.pixels import as_array, as_bytes, with_alpha
from ..colour import Floats
from ..errors import StepError

Pixels = NDArray[np.uint8]
Mask = NDArray[np.bool_]

MOST_PREPARED_PX = 160_000_000
"""Most pixels of a picture for steps: they work on the whole picture at about 16 bytes per pixel."""

SOLID, CLEAR = 250, 5
"""Alpha from which a pixel counts as solid, and up to which it counts as transparent."""


@dataclass(frozen=True)
class Picture:
    """Pixels between two steps.

    Attributes:
        pixels: (h, w, 4) uint8 sRGB with straight alpha. Cleared pixels keep their colour until the last step is
            done, so that a later step can bring them back.
        px_per_mm: pixels to a millimetre of print.
        reduced: 1 for the whole picture, less for a small copy for previews; lengths in px are multiplied by it.
        enlarged: how many times each original pixel was stretched, in length.
        notes: what steps have to say, one sentence each.
    """

    pixels: Pixels
    px_per_mm: float
    reduced: float = 1.0
    enlarged: float = 1.0
    notes: tuple[str, ...] = ()

    @property
    def size_mm(self) -> tuple[float, float]:
        """Return width and height in print, in mm."""
        h, w = self.pixels.shape[:2]
        return w / self.px_per_mm, h / self.px_per_mm

    @property
    def alpha(self) -> Pixels:
        """Return the alpha channel, (h, w) uint8."""
        return self.pixels[..., 3]

    def changed(self, **what: Any) -> Picture:
        """Return a copy with some values changed."""
        return replace(self, **what)

    def noting(self, note: str) -> Picture:
        """Return a copy with one more note."""
        return replace(self, notes=(*self.notes, note))

    def cut_out(self, why: str) -> None:
        """Check that some pixels are transparent. Raises :class:`StepError`, ending in ``why``."""
        if int(self.alpha.min()) > CLEAR:
            raise StepError(f"This picture has no transparent ground: cut it from its paper first. {why}")


def picture_of(image: pyvips.Image, px_per_mm: float, reduced: float = 1.0) -> Picture:
    """Return the picture of a decoded artwork. Raises :class:`StepError` if it is too large."""
    if image.width * image.height > MOST_PREPARED_PX:
        raise StepError(
            f"Pictures of up to {MOST_PREPARED_PX // 1_000_000} megapixels can be prepared; this one has "
            f"{image.width * image.height // 1_000_000}: export it smaller."
        )
    return Picture(as_array(with_alpha(image)), px_per_mm, reduced)


def bounds(mask: Mask) -> tuple[int, int, int, int] | None:
    """Return left, top, right and bottom edge of a mask's set pixels, or None."""
    x, y, w, h = cv2.boundingRect(mask.view(np.uint8))
    return (x, y, x + w, y + h) if w else None


def premultiplied(pixels: Pixels) -> Floats:
    """Convert pixels (h, w, 4) to values in 0…1 multiplied by alpha, so that hidden colour does not show after resampling."""
    soft = np.divide(pixels, 255, dtype=np.float32)
    soft[..., :3] *= soft[..., 3:]
    return soft


def straight(soft: Floats) -> Pixels:
    """Convert premultiplied values (h, w, 4) back to pixels (h, w, 4); overshoots are clipped."""
    soft[..., :3] /= np.maximum(soft[..., 3:], 1e-4)
    return (np.clip(soft, 0, 1) * 255 + 0.5).astype(np.uint8)


def over(front: Pixels, back: Pixels) -> Pixels:
    """Composite straight-alpha images (h, w, 4): Porter and Duff 1984, *over*."""
    return as_array(as_bytes(_vips(back).composite2(_vips(front), "over")))


def _vips(pixels: Pixels) -> pyvips.Image:
    return pyvips.Image.new_from_array(np.ascontiguousarray(pixels)).copy(interpretation="srgb")


def vips_of(pixels: Pixels) -> pyvips.Image:
    """Convert pixels (h, w, 4) to an sRGB image, without alpha if all pixels are opaque, and without hidden colour."""
    if int(pixels[..., 3].min()) == 255:
        return _vips(pixels[..., :3])
    clear = pixels[..., 3] == 0
    if clear.any():
        pixels = pixels.copy()
        pixels[clear] = 0
    return _vips(pixels)
