"""A picture of the panels in their sewn positions, each with its design."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ..artwork.pixels import as_array
from ..colour import parse_hex
from ..design import Design
from ..render import Opener, render
from ..template import Panel, Template
from .assembly import laid_flat
from .linked_panels import Corrections
from .motion import Motion

PAPER, LINE = (246, 244, 239), (40, 38, 34)
MARGIN = 0.04
SUBPIXEL = 4


def _extent(panels: dict[str, Panel], lies: dict[str, Motion]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    points = np.concatenate([motion(panels[name].line()) for name, motion in lies.items()])
    return points.min(axis=0), points.max(axis=0)


def _seen(design: Design, open_art: Opener, px_mm: float) -> NDArray[np.float32]:
    """Return a panel's print on the blank's colour, (h, w, 3) sRGB."""
    w, h = (max(2, round(side * px_mm)) for side in design.panel.file_mm)
    pixels = as_array(render(design, open_art, (w, h))).astype(np.float32)
    if pixels.shape[2] == 3:
        return pixels
    alpha = pixels[..., 3:] / 255
    return np.asarray(pixels[..., :3] * alpha + np.array(parse_hex(design.template.blank_colour)) * (1 - alpha), np.float32)


def assembly(
    template: Template, designs: dict[str, Design], open_art: Opener, corrections: Corrections, width: int = 1600
) -> NDArray[np.uint8]:
    """Return all faces of a sewn blank side by side, (h, w, 3) sRGB; ``designs`` by panel id.

    Each panel is cut along its trim, and lies where its seams bring it and samples have shown it to be.
    """
    panels = {panel.id: panel for panel in template.panels}
    faces = [laid_flat(template, face, corrections) for face in template.faces]
    extents = [_extent(panels, lies) for lies in faces]
    sizes = [high - low for low, high in extents]
    air = MARGIN * max(float(size.max()) for size in sizes)
    wide = sum(float(size[0]) + air for size in sizes) + air
    px_mm = width / wide
    tall = max(float(size[1]) for size in sizes) + 2 * air
    picture = np.full((round(tall * px_mm), width, 3), PAPER, np.float32)
    left = air
    for lies, (low, high) in zip(faces, extents, strict=True):
        origin = low - np.array([left, (tall - (high[1] - low[1])) / 2])
        for name, motion in lies.items():
            _lay(picture, designs[name], motion, origin, px_mm, open_art)
        left += float(high[0] - low[0]) + air
    return np.asarray(np.clip(picture + 0.5, 0, 255), np.uint8)


def _lay(
    picture: NDArray[np.float32], design: Design, motion: Motion, origin: NDArray[np.float64], px_mm: float, open_art: Opener
) -> None:
    """Lay one panel on the picture."""
    panel, size = design.panel, picture.shape[1::-1]
    own = _seen(design, open_art, px_mm)
    x, y, w, h = panel.file_box
    step = np.array([w / own.shape[1], h / own.shape[0]])  # mm of a pixel of its own
    linear = motion.matrix @ np.diag(step) * px_mm
    shift = (motion([(x, y)])[0] - origin) * px_mm + linear @ [0.5, 0.5] - 0.5
    matrix = np.hstack([linear, shift[:, None]]).astype(np.float32)
    warped = cv2.warpAffine(own, matrix, size, flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE)
    outline = (motion(panel.line()) - origin) * px_mm - 0.5
    points = (outline * 2**SUBPIXEL).round().astype(np.int32)
    mask = np.zeros(size[::-1], np.uint8)
    cv2.fillPoly(mask, [points], 255, cv2.LINE_AA, SUBPIXEL)
    share = mask[..., None].astype(np.float32) / 255
    picture += share * (warped - picture)
    line = np.zeros_like(mask)
    cv2.polylines(line, [points], True, 255, 1, cv2.LINE_AA, SUBPIXEL)
    picture += line[..., None].astype(np.float32) / 255 * (np.array(LINE, np.float32) - picture)
