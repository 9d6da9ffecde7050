"""Render a panel that continues another panel's design: shifted in place where possible, else resampled once."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pyvips

from ..artwork.pixels import as_bytes, resized, with_alpha
from ..design import Design
from ..template import Panel
from .picture import EDGE_PX, MOST_DENSE

Assemble = Callable[[Design, Panel, tuple[int, int]], pyvips.Image]
"""Renders a design on a part of its panel's plane, at a size."""


def _seen_box(design: Design) -> tuple[float, float, float, float]:
    """Return the box on the leader's panel that contains a linked panel's whole print file."""
    assert design.linked is not None
    x, y, w, h = design.panel.file_box
    corners = design.linked.motion([(x, y), (x + w, y), (x + w, y + h), (x, y + h)])
    low, high = corners.min(axis=0), corners.max(axis=0)
    return float(low[0]), float(low[1]), float(high[0] - low[0]), float(high[1] - low[1])


def render_linked_panel(design: Design, assemble: Assemble, size_px: tuple[int, int]) -> pyvips.Image:
    """Return a linked panel's print file: size_px."""
    assert design.linked is not None
    leader, motion = design.linked.design, design.linked.motion
    x, y, w, h = _seen_box(design)
    if motion.is_shift:
        return assemble(leader, replace(leader.panel, window_mm=(x, y, w, h)), size_px)
    density = MOST_DENSE * max(px / mm for px, mm in zip(size_px, design.panel.file_mm, strict=True))
    spare = EDGE_PX / density
    across, down = (math.ceil((side + 2 * spare) * density) for side in (w, h))
    window = (x - spare, y - spare, across / density, down / density)
    image = assemble(leader, replace(leader.panel, window_mm=window), (across, down))
    back = motion.back()
    canvas = [round(px * MOST_DENSE) for px in size_px]
    to_px = np.array(canvas) / design.panel.file_mm
    matrix = np.diag(to_px) @ back.matrix / density
    corner = to_px * (back([window[:2]])[0] - design.panel.file_box[:2])
    shift = corner + matrix @ [0.5, 0.5] - 0.5  # libvips counts from the centre of the first pixel
    # kept in memory, so that a rotated row does not render the same parts repeatedly
    image = (
        with_alpha(image)
        .copy_memory()
        .premultiply()
        .affine(
            matrix.ravel().tolist(),
            interpolate=pyvips.Interpolate.new("bicubic"),
            odx=shift[0],
            ody=shift[1],
            oarea=[0, 0, *canvas],
            extend="copy",
        )
    )
    return resized(as_bytes(image.unpremultiply()), size_px[0] / canvas[0], size_px[1] / canvas[1])
