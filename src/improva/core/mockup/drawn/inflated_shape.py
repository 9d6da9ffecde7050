"""The height of a stuffed shape with any contour, and the puckers along its seam."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import distance_transform_edt
from scipy.sparse import coo_matrix
from scipy.sparse.linalg import splu

from ...colour import Floats

SOLVED_PX = 150
FULL, ROUND = 0.66, 0.62
"""Height of the front over the square root of the membrane's greatest sag, and how it grows with the sag: at 0.5 it would rise
straight up at the seam. By eye; common practice, no published source: a plump pillow is a third as thick as it is wide."""
PUCKER_MM, PUCKER_REACH_MM, PUCKER_EVERY_MM = 0.55, 13.0, 14.0


def sag(mask: NDArray[np.bool_]) -> NDArray[np.float64]:
    """Return the deflection (h, w) in px² of a membrane held along a contour: u with ∇²u = -1 inside, 0 outside.

    The five-point Laplacian of Press et al., "Numerical Recipes", 3rd edition, 20.0.
    """
    h, w = mask.shape
    count = int(mask.sum())
    at = np.full((h + 2, w + 2), -1)
    at[1:-1, 1:-1][mask] = np.arange(count)
    here = at[1:-1, 1:-1][mask]
    rows, columns = [here], [here]
    values = [np.full(count, 4.0)]
    for dy, dx in ((0, 1), (2, 1), (1, 0), (1, 2)):
        there = at[dy : dy + h, dx : dx + w][mask]
        inside = there >= 0
        rows.append(here[inside])
        columns.append(there[inside])
        values.append(np.full(int(inside.sum()), -1.0))
    matrix = coo_matrix((np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=(count, count)).tocsc()
    out = np.zeros((h, w))
    if count:  # symmetric and positive definite: no pivoting is needed
        solver = splu(matrix, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True})
        out[mask] = solver.solve(np.ones(count))
    return out


def inflated(mask: NDArray[np.bool_], mm: float) -> tuple[Floats, Floats]:
    """Return heights of a stuffed front and distances from the contour, both (h, w) in mm. ``mm`` is the size of a mask pixel."""
    h, w = mask.shape
    step = max(1.0, max(h, w) / SOLVED_PX)
    size = max(8, round(w / step)), max(8, round(h / step))
    small = cv2.resize(mask.astype(np.float32), size, interpolation=cv2.INTER_AREA) > 0.5
    u = sag(small) * (mm * w / size[0]) ** 2
    wide = np.asarray(cv2.resize(u.astype(np.float32), (w, h), interpolation=cv2.INTER_CUBIC))
    inside = np.asarray(cv2.distanceTransform(mask.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE) * mm, np.float32)
    # near the contour the sag is proportional to the distance, which hides the steps of the coarse solution
    edge = 2.5 * mm * step
    slope = cv2.GaussianBlur(np.maximum(wide, 0) / np.maximum(inside, 0.5 * edge), (0, 0), 2 * step)
    near = np.clip(inside / edge, 0, 1)
    smooth = np.maximum(near * wide + (1 - near) * slope * inside, 0)
    most = max(float(u.max()), 1e-6)
    height = FULL * np.sqrt(most) * (smooth / most) ** ROUND
    return np.where(mask, height, 0).astype(np.float32), inside


def puckered(mask: NDArray[np.bool_], inside: Floats, mm: float, seed: int = 5) -> Floats:
    """Return small folds that run inwards from the seam and fade, in mm, (h, w)."""
    contours, _ = cv2.findContours(mask.astype(np.uint8), cv2.RETR_LIST, cv2.CHAIN_APPROX_NONE)
    rng = np.random.default_rng(seed)
    along = np.zeros(mask.shape, np.float32)
    on_edge = np.ones(mask.shape, bool)
    for contour in contours:
        x, y = contour[:, 0, 0], contour[:, 0, 1]
        wave = rng.normal(0, 1, len(x)).astype(np.float32)
        ring = np.concatenate([wave, wave, wave])[None]
        soft = cv2.GaussianBlur(ring, (0, 0), max(0.8, 0.30 * PUCKER_EVERY_MM / mm))[0, len(x) : 2 * len(x)]
        along[y, x] = soft / max(float(soft.std()), 1e-6)
        on_edge[y, x] = False
    if on_edge.all():
        return np.zeros(mask.shape, np.float32)
    _, (iy, ix) = distance_transform_edt(on_edge, return_indices=True)
    fall = np.exp(-inside / PUCKER_REACH_MM) * np.clip(inside / 2.0, 0, 1)
    field = cv2.GaussianBlur(along[iy, ix] * fall, (0, 0), max(0.6, 0.9 / mm))
    return np.asarray(PUCKER_MM * field, np.float32)
