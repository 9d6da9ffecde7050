"""Traits of an artwork that hold on any blank: background, lettering, thin lines, and whether it tiles."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any, Literal

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats, delta_e_2000, hex_of_lab, lab
from .content import BARE_ALPHA, find_content, without_specks
from .pixels import PROXY_PX, Artwork, as_array
from .text_rows import Row, find_rows, thinnest_px

SOLID_ALPHA = 242
HAZE_LIGHT = 225
HAZE_AWAY_PX = 2.5
"""Distance from solid ink, in px of the proxy, beyond which faint alpha is haze and not an antialiased edge."""

JOINT_PX = 700
JOINT_FACTOR, JOINT_PERCENTILE = 1.5, 95
"""A joint is visible if it is 1.5 times as strong as all but the strongest steps inside the picture. From memory."""

EDGE_SHARE, EDGE_DEPTH = 0.04, 0.002
LEAST_STROKES_PX = 40
ROWS_LOOKED_AT = 100


@dataclass(frozen=True)
class Traits:
    """The traits of an artwork's pixels, measured at ``px`` (width, height).

    Attributes:
        kind: ``cutout``, ``drawing`` on an even background, or ``picture``; see :mod:`.content`.
        ground: ``#rrggbb`` of a drawing's background.
        content_box: x, y, w, h of what stands out, as fractions of the picture.
        all_over: a drawing that runs off all four edges, as patterns do.
        rows: rows of lettering, in px of the examined picture.
        stroke_px: the thinnest strokes of a drawing; 0 if it has none.
        joint: ΔE2000 of the graver step where the picture meets itself when repeated, 0 where it is seamless.
        haze: share of the printed points that are a near-white veil; ``haze_box`` is around the largest part of it.
    """

    px: tuple[int, int]
    kind: Literal["cutout", "drawing", "picture"]
    ground: str | None
    content_box: tuple[float, float, float, float]
    all_over: bool
    rows: tuple[Row, ...]
    stroke_px: float
    joint: float
    haze: float
    haze_box: tuple[float, float, float, float] | None

    def as_dict(self) -> dict[str, Any]:
        """Return plain values, as stored."""
        return asdict(self)


def traits_from_dict(data: dict[str, Any]) -> Traits:
    """The reverse of :meth:`Traits.as_dict`, after a trip through JSON."""
    rows = tuple(Row(tuple(r["box"]), r["height_px"], r["stroke_px"]) for r in data["rows"])
    haze = tuple(data["haze_box"]) if data["haze_box"] else None
    return Traits(
        **{**data, "px": tuple(data["px"]), "content_box": tuple(data["content_box"]), "rows": rows, "haze_box": haze}
    )


def column_differences(image: Floats) -> tuple[float, Floats, Floats]:
    """Compare the step from the last column to the first with the steps between columns inside.

    Args:
        image: (h, w, 3) in Lab.

    Returns:
        mean ΔE2000 across the seam; the same for each inner pair of neighbours (w - 1,); and the
        difference along the seam (h,).
    """
    along = delta_e_2000(image[:, -1], image[:, 0])
    rows = image[:: max(1, len(image) // ROWS_LOOKED_AT)]
    inner = delta_e_2000(rows[:, :-1], rows[:, 1:]).mean(axis=0)
    return float(along.mean()), inner, along


def joint_of(image: Floats) -> float:
    """Return the worse colour step (ΔE2000) across the two joints of a repeated tile, Lab (h, w, 3).

    A joint whose step is no larger than steps inside the tile counts as 0. A tile one pixel wide meets itself.
    """
    worst = 0.0
    for tile in (image, image.transpose(1, 0, 2)):
        if tile.shape[1] < 2:
            continue
        step, inner, _ = column_differences(tile)
        worst = max(worst, step if step > JOINT_FACTOR * float(np.percentile(inner, JOINT_PERCENTILE)) else 0.0)
    return worst


def _fractions(mask: NDArray[np.bool_]) -> tuple[float, float, float, float]:
    h, w = mask.shape
    ys, xs = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    if not len(ys):
        return 0.0, 0.0, 1.0, 1.0
    return float(xs[0] / w), float(ys[0] / h), float((xs[-1] + 1 - xs[0]) / w), float((ys[-1] + 1 - ys[0]) / h)


def _haze(pixels: NDArray[np.uint8]) -> tuple[float, tuple[float, float, float, float] | None]:
    alpha = pixels[..., 3]
    solid = alpha > SOLID_ALPHA
    away = cv2.distanceTransform((~solid).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5) > HAZE_AWAY_PX
    veil = (alpha > 3) & ~solid & (pixels[..., :3].min(axis=2) >= HAZE_LIGHT) & away
    share = float(veil.sum()) / max(1, int((alpha > 3).sum()))
    return share, (_fractions(veil) if share else None)


def _runs_off(mask: NDArray[np.bool_]) -> bool:
    """Return whether content touches each of the four edges."""
    d = max(1, round(EDGE_DEPTH * min(mask.shape)))
    return all(float(side.mean()) > EDGE_SHARE for side in (mask[:d], mask[-d:], mask[:, :d], mask[:, -d:]))


def find_traits(art: Artwork) -> Traits:
    """Measure an artwork's traits. Raises :class:`ArtworkError` where they do not decode."""
    pixels = as_array(art.reduced(PROXY_PX))
    alpha = np.ascontiguousarray(pixels[..., 3]) if pixels.shape[2] == 4 else None
    seen = pixels[..., :3]
    if alpha is not None:
        cover = alpha[..., None].astype(np.float32) / 255
        seen = (seen * cover + 255 * (1 - cover) + 0.5).astype(np.uint8)
    image = lab(seen)
    content = find_content(image, alpha)
    mask = without_specks(content.mask) if content.kind != "picture" else content.mask
    thin = content.kind == "drawing" and int(mask.sum()) > LEAST_STROKES_PX
    h, w = seen.shape[:2]
    factor = min(1.0, JOINT_PX / max(h, w))
    size = (max(1, round(w * factor)), max(1, round(h * factor)))
    small = cv2.resize(seen, size, interpolation=cv2.INTER_AREA) if factor < 1 else seen
    haze, haze_box = _haze(pixels) if alpha is not None and not art.facts.vector else (0.0, None)
    return Traits(
        px=(w, h),
        kind=content.kind,
        ground=None if content.ground is None else hex_of_lab(content.ground),
        content_box=_fractions(mask),
        all_over=content.kind == "drawing" and _runs_off(mask),
        rows=tuple(find_rows(np.ascontiguousarray(image[..., 0]), alpha)),
        stroke_px=thinnest_px(mask) if thin else 0.0,
        joint=joint_of(lab(np.ascontiguousarray(small))),
        haze=haze,
        haze_box=haze_box,
    )


__all__ = ["BARE_ALPHA", "Traits", "column_differences", "find_traits", "joint_of", "traits_from_dict"]
