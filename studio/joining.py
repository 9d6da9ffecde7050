"""Join passes traced at several sizes, with the product's silhouette sharp in all of them."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

Image = NDArray[np.float32]
Window = tuple[int, int, int, int]

FAINTEST = 0.002
"""Light on the surroundings that is given up: half an 8-bit step where the table is brightest."""

OUTSIDE, INSIDE, SOFT = 3, 6, 24.0
"""Px on either side of the silhouette where light on a ground is not believed: it was traced at half the size, and what noise is
removed there is removed across the silhouette. Inside is little light, which a little more would spoil; where a thing is so thin
that it has no more inside, what its middle shows is evened out over the last of these."""


STEADY_PX = 4
"""Px to either side over which is told how a ground's places run."""

SPOT, LEAK = 90, 24
"""Light of a ground on the product that is shorter than this, in px, and lies within so many px of the silhouette, has leaked over it:
what a wall or a table throws there runs along the edge."""


def disc(reach: int) -> NDArray[np.uint8]:
    """Return a disc of a radius in px, for growing and shrinking masks."""
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1, 2 * reach + 1)), np.uint8)


def grown(mask: NDArray[np.bool_], reach: int) -> NDArray[np.bool_]:
    """Return a mask grown by a number of px."""
    return np.asarray(cv2.dilate(mask.astype(np.uint8), disc(reach)) > 0)


def laid(low: Image, high: Image, window: Window, size: tuple[int, int], air: float) -> Image:
    """Insert a full-size window into an enlarged coarse frame, blended within ``air``."""
    x, y, w, h = window
    frame_w, frame_h = size
    out = cv2.resize(low, (frame_w, frame_h), interpolation=cv2.INTER_CUBIC)
    ramp = max(1, round(0.8 * air * frame_w))  # melted within the air round what must be sharp
    along, down = np.arange(w, dtype=np.float32) + 0.5, np.arange(h, dtype=np.float32) + 0.5
    full = np.float32(ramp)
    left, right = (along if x else along + full), ((w - along) if x + w < frame_w else along * 0 + full)
    top, foot = (down if y else down + full), ((h - down) if y + h < frame_h else down * 0 + full)
    weight = np.clip(np.minimum(left, right), 0, full)[None, :] * np.clip(np.minimum(top, foot), 0, full)[:, None] / full**2
    part = out[y : y + h, x : x + w]
    part += weight[..., None] * (high - part)
    return np.asarray(out, np.float32)


def calmed(basis: Image, product: NDArray[np.bool_]) -> Image:
    """Smooth the light a region throws on its surroundings, which is soft, and leave the product itself sharp.

    What noise remains there would be neither seen nor compressed. ``product`` is a (h, w) mask of the product.
    """
    w = product.shape[1]
    reach = max(1, w // 700)
    sharp = cv2.dilate(product.astype(np.uint8), np.ones((2 * reach + 1,) * 2, np.uint8)).astype(bool)
    sigma = max(1.0, w / 270)
    outside = (~sharp).astype(np.float32)
    steady = cv2.medianBlur(np.ascontiguousarray(basis), 5) * outside[..., None]
    weight = cv2.GaussianBlur(outside, (0, 0), sigma)[..., None]
    soft = cv2.GaussianBlur(steady, (0, 0), sigma) / np.maximum(weight, 1e-3)
    soft = np.sign(soft) * np.maximum(np.abs(soft) - FAINTEST, 0)
    return np.where(sharp[..., None], basis, soft).astype(np.float32)


def dilate(uv: Image, reach_px: int) -> Image:
    """Extend u, v outward by up to ``reach_px``, so that pixels on the silhouette sample real art."""
    from scipy.ndimage import distance_transform_edt

    empty = np.isnan(uv[..., 0])
    distance, (iy, ix) = distance_transform_edt(empty, return_indices=True)
    spread = uv[iy, ix]
    spread[distance > reach_px] = np.nan
    return np.asarray(spread, np.float32)


def continued(uv: Image, reach_px: int) -> Image:
    """Extrapolate a ground's u, v past its edge by up to ``reach_px``: out of focus, it is visible over what lies behind."""
    from scipy.ndimage import distance_transform_edt

    def nearest(known: Image) -> NDArray[np.intp]:
        indices = distance_transform_edt(np.isnan(known[..., 0]), return_distances=False, return_indices=True)
        return np.asarray(indices)[:, y, x]

    spread = dilate(uv, reach_px)
    y, x = np.nonzero(np.isnan(uv[..., 0]) & ~np.isnan(spread[..., 0]))
    edge = nearest(uv)
    for axis, at in ((0, y), (1, x)):
        ahead, behind = np.roll(uv, -STEADY_PX, axis), np.roll(uv, STEADY_PX, axis)
        slope = (ahead - behind) / np.float32(2 * STEADY_PX)
        np.moveaxis(slope, axis, 0)[[*range(STEADY_PX), *range(-STEADY_PX, 0)]] = np.nan  # it runs round the picture's edge
        spread[y, x] += slope[tuple(nearest(slope))] * (at - edge[axis])[:, None]
    return spread


def parted(low: Image, cover: Image, soft: float) -> Image:
    """Enlarge soft light on a ground, traced at half size, with the product's sharp silhouette.

    Background and product are separated, each is extended beneath the other, and both are joined by the cover at full size.
    ``soft`` is the reach in px over which what noise is left is smoothed: it would be seen by nobody, but compressed by none.
    """
    small = cv2.resize(cover, (low.shape[1], low.shape[0]), interpolation=cv2.INTER_AREA)
    size = (cover.shape[1], cover.shape[0])
    layers = []
    for share in (1 - small, small):
        known = (share > 0.5).astype(np.float32)
        if not known.any():
            layers.append(np.zeros((*cover.shape, 3), np.float32))
            continue
        place = np.where(known[..., None] > 0, low / np.maximum(share, 0.5)[..., None], np.nan).astype(np.float32)
        full = cv2.GaussianBlur(dilate(place, low.shape[1]), (0, 0), soft)
        layers.append(cv2.resize(full, size, interpolation=cv2.INTER_CUBIC))
    return np.asarray(layers[0] * (1 - cover[..., None]) + layers[1] * cover[..., None], np.float32)


def kept_apart(seen: dict[str, Image], spread: dict[str, Image]) -> dict[str, Image]:
    """Limit the extension of adjoining panels to where no other panel is visible or nearer."""
    from scipy.ndimage import distance_transform_edt

    if not seen:
        return {}
    away = np.stack([distance_transform_edt(np.isnan(uv[..., 0])) for uv in seen.values()])
    nearest = away.argmin(axis=0)
    return {name: np.where((nearest == i)[..., None], spread[name], np.nan).astype(np.float32) for i, name in enumerate(seen)}


def _unspotted(light: Image, known: NDArray[np.bool_]) -> Image:
    """Light without what is brighter than about it over less than :data:`SPOT` px in every direction, (h, w, 3).

    Opened by lines of that length, each way, at half the size; beyond ``known`` anything may be.
    """
    h, w = known.shape
    size, long = (w // 2, h // 2), SPOT // 2
    inside = cv2.resize(known.astype(np.uint8), size, interpolation=cv2.INTER_NEAREST)[..., None] > 0
    low = cv2.resize(light, size, interpolation=cv2.INTER_AREA)
    most = np.full_like(low, -1e6)
    for angle in np.arange(0, 180, 15):
        line = np.zeros((long + 1, long + 1), np.uint8)
        dx, dy = (round(long / 2 * f) for f in (np.cos(np.radians(angle)), np.sin(np.radians(angle))))
        cv2.line(line, (long // 2 - dx, long // 2 - dy), (long // 2 + dx, long // 2 + dy), 1)
        least = cv2.erode(np.where(inside, low, np.float32(1e6)), line)
        most = np.maximum(most, cv2.dilate(np.where(inside, least, np.float32(-1e6)), line))
    # the least of what is known about each place: half a pixel of what is not would be carried on beneath the silhouette
    ceiling = cv2.erode(np.where(inside, most, np.float32(1e6)), np.ones((5, 5)))
    ceiling = cv2.resize(np.where(ceiling < 1e6, ceiling, low), (w, h), interpolation=cv2.INTER_LINEAR)
    return np.minimum(light, ceiling)


def edged(light: Image, cover: Image) -> Image:
    """Return a ground's light with a clean silhouette: each side is extrapolated towards it, and joined by the cover.

    Args:
        light: (h, w, 3) at the picture's size; ``cover`` (h, w), how much of each pixel is the product.
    """
    edge = ((cover > 0.003) & (cover < 0.997)) | (cv2.dilate(cover, np.ones((3, 3))) - cv2.erode(cover, np.ones((3, 3))) > 0.5)
    ground, product = (cover < 0.5) & ~grown(edge, OUTSIDE), (cover >= 0.5) & ~grown(edge, INSIDE)
    thin = (cover >= 0.5) & ~grown(product, 2 * INSIDE)  # a pole, a cord, a straw: all of it is edge
    inmost = (thin & ~grown(edge, OUTSIDE)).astype(np.float32)[..., None]
    leaked = product & grown(edge, LEAK)
    light = np.where(leaked[..., None], _unspotted(light, product), light)
    sides = []
    for known in (ground, product | (inmost[..., 0] > 0)):
        if not known.any():
            sides.append(np.zeros_like(light))
            continue
        place = np.where(known[..., None], light, np.nan).astype(np.float32)
        sides.append(cv2.GaussianBlur(dilate(place, max(cover.shape)), (0, 0), 2.0))  # type: ignore[arg-type]
    weight = cv2.GaussianBlur(inmost, (0, 0), SOFT)[..., None]
    even = cv2.GaussianBlur(light * inmost, (0, 0), SOFT) / np.maximum(weight, 1e-6)
    sides[1] = np.where((weight > 1e-3) & grown(thin, 2 * INSIDE)[..., None], even, sides[1])
    near = ~(ground | product)
    share = cover[..., None]
    return np.where(near[..., None], sides[0] * (1 - share) + sides[1] * share, light).astype(np.float32)
