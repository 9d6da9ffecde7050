"""Light and places from captured light probes: what a stage stands in, seen out of focus behind it.

The probes in ``studio/probes`` are EXR files of 512 × 256 px, equirectangular, in linear light; ``studio/ASSETS.md`` says where each
comes from.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING

import cv2
import mitsuba as mi
import numpy as np
import OpenEXR
from numpy.typing import NDArray

if TYPE_CHECKING:
    from studio.stage import Stage

FOLDER = Path(__file__).parent / "probes"
Image = NDArray[np.float32]

WIDTH = 3072
"""Of a place in px: fine enough for a backdrop that is out of focus."""

UNEVEN, BRIGHT = 4.0, 20.0
"""A pixel in which one channel is this many times another, and which is this many times as bright as the median, shows a clipped sun."""

FAR = 1500.0
"""Distance of the sun from the stage, cm."""


@dataclass(frozen=True)
class Probe:
    """A captured place.

    Attributes:
        light: (h, w, 3) linear; the sun is taken out.
        sun: place of the sun as shares of width and height; None where there was none.
    """

    light: Image
    sun: tuple[float, float] | None


@cache
def probe(name: str) -> Probe:
    """Read a probe. Values that are not finite, and a sun that was clipped to one colour, are replaced by what is around them."""
    with OpenEXR.File(str(FOLDER / f"{name}.exr")) as file:
        light = np.array(file.channels()["RGB"].pixels, np.float32)
    return cleaned(light)


def cleaned(light: Image) -> Probe:
    """Return a probe without values that are not finite, and without a clipped sun."""
    broken = ~np.isfinite(light).all(axis=2)
    whole = np.where(np.isfinite(light), np.maximum(light, 0), 0)
    strongest, weakest = whole.max(axis=2), whole.min(axis=2)
    clipped = (strongest > UNEVEN * np.maximum(weakest, 1e-6)) & (strongest > BRIGHT * np.median(strongest))
    broken |= cv2.dilate(clipped.astype(np.uint8), np.ones((3, 3), np.uint8)).astype(bool)
    sun = None
    if clipped.any():
        rows, columns = np.nonzero(clipped)
        sun = (float(columns.mean() + 0.5) / light.shape[1], float(rows.mean() + 0.5) / light.shape[0])
    if broken.any():
        ring = cv2.dilate(broken.astype(np.uint8), np.ones((5, 5), np.uint8)).astype(bool) & ~broken
        whole[broken] = np.median(whole[ring], axis=0)
    return Probe(whole, sun)


def softened(light: Image, width: int, disc_deg: float) -> Image:
    """Return a probe at a finer size, each point spread over a disc as an open lens does, in linear light."""
    height = width // 2
    wide = cv2.resize(np.concatenate([light, light, light], axis=1), (3 * width, height), interpolation=cv2.INTER_CUBIC)
    radius = disc_deg / 360 * width / 2
    reach = math.ceil(radius) + 1
    y, x = np.mgrid[-reach : reach + 1, -reach : reach + 1]
    disc = np.clip(radius + 0.5 - np.hypot(x, y), 0, 1).astype(np.float32)
    spread = cv2.filter2D(np.maximum(wide, 0), cv2.CV_32F, disc / disc.sum(), borderType=cv2.BORDER_REPLICATE)
    return np.ascontiguousarray(spread[:, width : 2 * width])


def place(
    stage: Stage,
    name: str,
    turn_deg: float,
    gain: float | tuple[float, float, float] = 1.0,
    disc_deg: float = 1.8,
    sun: tuple[float, float, float] | None = None,
    sun_deg: float = 1.2,
) -> None:
    """Put a stage into a probe's place.

    Args:
        stage: what stands there.
        name: of the probe.
        turn_deg: which part of the place lies behind: it is turned to the right by so much.
        gain: of its light, or of its red, green and blue.
        disc_deg: diameter of what a distant point is blurred to.
        sun: irradiance (linear R, G, B) of a sun disc where the probe's sun was taken out.
        sun_deg: its diameter: hazier than the real one's 0.5°, for softer shadows.
    """
    found = probe(name)
    turned = stage.to.rotate([0, 0, 1], 180 - turn_deg) @ stage.to.rotate([1, 0, 0], 90)
    light = mi.Bitmap(softened(found.light, WIDTH, disc_deg) * np.asarray(gain, np.float32))
    stage.parts["place"] = {"type": "envmap", "bitmap": light, "to_world": turned}
    if sun is not None and found.sun is not None:
        x, y, z = towards(found.sun, turn_deg)
        area = math.pi * math.tan(math.radians(sun_deg / 2)) ** 2
        side = FAR * math.sqrt(area)
        stage.softbox("sun", (FAR * x, FAR * y, FAR * z), (0, 0, 0), side, side, [each / area for each in sun])


def towards(at: tuple[float, float], turn_deg: float) -> tuple[float, float, float]:
    """Return the direction (x, y, z) in which a point of a probe, in shares of its width and height, is seen from the stage.

    The middle of an untouched probe lies behind the stage, towards +y.
    """
    azimuth = 2 * math.pi * (at[0] - 0.5) + math.radians(turn_deg)
    height = math.pi * (0.5 - at[1])
    return math.sin(azimuth) * math.cos(height), math.cos(azimuth) * math.cos(height), math.sin(height)
