"""Make a picture tile without visible joints."""

from __future__ import annotations

import numpy as np

from ..artwork.pixels import as_array
from ..artwork.seamless import blended_edges
from ..errors import StepError
from .picture import MOST_PREPARED_PX, Picture, vips_of
from .step import Field, StepKind


def seamless(picture: Picture, *, method: str = "blend", share: float = 12) -> Picture:
    """Make a picture tile without visible joints.

    Args:
        method: ``blend``: its opposite edges are faded into each other over ``share`` per cent of its width and
            height, which it then lacks; ``mirror``: four of it, mirrored, whose edges are the same.

    Raises :class:`StepError` where the result is larger than can be prepared.
    """
    if method == "mirror":
        row = np.concatenate([picture.pixels, picture.pixels[:, ::-1]], axis=1)
        if 2 * row.size // 4 > MOST_PREPARED_PX:
            raise StepError("Four of this picture are larger than can be prepared: crop a tile from it first.")
        return picture.changed(pixels=np.concatenate([row, row[::-1]], axis=0))
    pixels = as_array(blended_edges(vips_of(picture.pixels), share / 100))
    return picture.changed(
        pixels=pixels if pixels.shape[2] == 4 else np.dstack([pixels, np.full(pixels.shape[:2], 255, np.uint8)])
    )


KIND = StepKind(
    "seamless",
    "Make seamless",
    "Makes opposite edges match, so that the picture repeats without a seam.",
    (
        Field("method", "Method", "choice", "blend", choices=(("blend", "Blend its edges"), ("mirror", "Mirror it"))),
        Field("share", "Blend width", "number", 12, "%", 1, 45),
    ),
    seamless,
    reshapes=True,
)
