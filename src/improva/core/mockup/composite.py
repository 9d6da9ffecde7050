"""The mock-up's inner loop: picture = base + Σ basis · reflectance, in linear light, then tone and sRGB."""

from __future__ import annotations

import math
import os
import threading
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from ..ink import colour_reflectance
from .tone import table
from .view import PrintMap, View

STRIP_PX = 240_000
"""Pixels worked on at a time: a strip and its passes stay in a core's cache."""

_CORES = os.cpu_count() or 2
_pool = ThreadPoolExecutor(max_workers=_CORES, thread_name_prefix="composite")


_kept = threading.local()


def _scratch(name: str, shape: tuple[int, ...], kind: type) -> NDArray[Any]:
    """A thread's own working memory, used again: asking the system for pages costs as much as the arithmetic."""
    held: dict[str, NDArray[Any]] = _kept.__dict__.setdefault("arrays", {})
    size = math.prod(shape)
    if name not in held or held[name].size < size:
        held[name] = np.empty(size, kind)
    return held[name][:size].reshape(shape)


@dataclass(frozen=True)
class Lit:
    """A view with its plain parts coloured: all that stays the same while art changes or turns."""

    view: View
    plain: Floats


def light_plain_parts(view: View, colours: dict[str, str | None]) -> Lit:
    """Colour every region that is not printed. Raises :class:`BadScene` for an unknown part or colour."""
    for name in colours:
        view.info.region(name)
    plain = view.base.copy()
    for region in view.info.regions:
        if region.panel is None:
            rho = colour_reflectance(region.colour(colours.get(region.id)))[::-1]
            plain += view.basis[region.id] * rho
    return Lit(view, plain)


def turned(texture: Floats, angle_deg: float) -> Floats:
    """A wrap's texture with the part that lies ``angle_deg`` to the right of the front moved to the front."""
    return np.roll(texture, -round(angle_deg / 360 * texture.shape[1]), axis=1)


def _strip(lit: Lit, rows: slice, prints: dict[str, Floats], means: dict[str, Floats], out: NDArray[np.uint8]) -> None:
    """Compute some rows of the picture."""
    added: Floats | None = None
    for name, texture in prints.items():
        basis = lit.view.basis[name][rows]
        shone = np.multiply(basis, means[name], out=_scratch(f"shone {name}", basis.shape, np.float32))
        if name in lit.view.maps:
            _lay(shone, basis, texture, means[name], lit.view.maps[name], rows)
        added = shone if added is None else np.add(added, shone, out=added)
    assert added is not None, "a scene without a printed region is refused when its pack is read"
    codes = _scratch("codes", added.shape, np.uint16)
    cv2.add(lit.plain[rows], added, dst=codes, dtype=cv2.CV_16U)  # rounds, and holds what outshines the table
    cv2.LUT(codes, table(), dst=out[rows])


def _lay(shone: Floats, basis: Floats, texture: Floats, mean: Floats, seen: PrintMap, rows: slice) -> None:
    """Light some rows by the texture where they see the print itself, not only its bounce."""
    first, last = max(rows.start, seen.rows.start), min(rows.stop, seen.rows.stop)
    if first >= last:
        return
    inside = slice(first - seen.rows.start, last - seen.rows.start)
    h, w = texture.shape[:2]
    rho = cv2.remap(texture, seen.u[inside] * w - 0.5, seen.v[inside] * h - 0.5, cv2.INTER_LINEAR,
                    borderMode=cv2.BORDER_REPLICATE)  # fmt: skip
    rho[seen.far[inside]] = mean
    window = (slice(first - rows.start, last - rows.start), seen.columns)
    shone[window] = cv2.multiply(basis[window], rho, dst=rho)


def composite(lit: Lit, prints: dict[str, Floats], angle_deg: float = 0.0) -> NDArray[np.uint8]:
    """Lay prints into a lit view.

    Args:
        lit: the view with its plain parts coloured.
        prints: reflectance a printed region, (h, w, 3) float32 linear in B, G, R.
        angle_deg: how far a body of revolution is turned, its right side coming to the front.

    Returns:
        (h, w, 3) uint8 sRGB in B, G, R order. Pixels that do not see a print but its bounced light take
        the print's mean colour.
    """
    if lit.view.info.turns and angle_deg % 360:
        prints = {name: turned(texture, angle_deg) for name, texture in prints.items()}
    means = {name: np.array(cv2.mean(texture)[:3], np.float32) for name, texture in prints.items()}
    w, h = lit.view.size
    out = np.empty((h, w, 3), np.uint8)
    strips = _CORES * math.ceil(h * w / STRIP_PX / _CORES)  # as many for each core
    step = math.ceil(h / strips)
    jobs = [_pool.submit(_strip, lit, slice(y, min(y + step, h)), prints, means, out) for y in range(0, h, step)]
    for job in jobs:
        job.result()
    return out
