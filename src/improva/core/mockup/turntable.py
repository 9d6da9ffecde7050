"""Frames of a blank that turns once around."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from ..errors import OutputError, SceneError
from .composite import ShadedView, composite
from .scene import SceneInfo

SECONDS = (2.0, 30.0)


Frame = NDArray[np.uint8]


FRAMES_A_SECOND = {".mp4": 24.0, ".webp": 20.0, ".gif": 12.5}
"""Formats and their frame rates. GIF delays are whole hundredths of a second, so a frame takes 8 of them."""


def angles(seconds: float, ending: str) -> list[float]:
    """Return the angle of each frame in degrees: once around in even steps, the last frame one step before the first.

    Raises :class:`OutputError` for a format or a length that is not made.
    """
    rate = FRAMES_A_SECOND.get(ending.lower())
    if rate is None:
        raise OutputError(f"'{ending}': films are made as .mp4, .webp or .gif: choose one of these endings.")
    if not SECONDS[0] <= seconds <= SECONDS[1]:
        raise OutputError(f"A film of {seconds:g} s cannot be made: use {SECONDS[0]:g} to {SECONDS[1]:g} s.")
    count = round(seconds * rate)
    return [i * 360 / count for i in range(count)]


def check_turns(info: SceneInfo) -> None:
    """Raises :class:`SceneError` where a scene's blank does not turn."""
    if not info.turns:
        raise SceneError(f"{info.title} does not turn, so it makes no film: choose a scene of something round.")


def turning(shaded: ShadedView, prints: dict[str, Floats]) -> Callable[[float], Frame]:
    """Return a function from an angle in degrees to the frame (h, w, 3) of a lit view turned by it, for :func:`write_film`."""
    return partial(composite, shaded, prints)
