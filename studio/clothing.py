"""Garments on a stage: settled panels as fine meshes over one canvas of cloth, with hems and stitches as relief."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from studio import shapes, surfaces
from studio.cloth.surface import Piece, Surface
from studio.stage import Stage, bitmap, relief_of

Points = NDArray[np.float64]
Plane = NDArray[np.float32]

TEXEL_MM = 0.25
STITCH_MM, THREAD_MM = 3.2, 0.55
RIB_MM, RIB_DEEP = 1.7, 0.30

RELIEF = 0.22
"""Of the relief's mm in cm: a little more than true, as thread also casts shadows that a relief does not."""

KNIT_MM, KNIT_PX = 55.0, 1024

FINER = 2
"""How often triangles of a settled cloth are halved for a picture."""


@dataclass(frozen=True)
class Canvas:
    """The plane in mm on which all panels of a garment lie: x to the right, y down.

    Attributes:
        size: width and height.
        places: of each panel's origin.
    """

    size: tuple[float, float]
    places: Mapping[str, tuple[float, float]]

    def on(self, panel: str, flat: Points) -> Points:
        """Return places on the canvas in mm of flat places in cm, whose y runs up."""
        return np.asarray(np.array(self.places[panel]) + flat * [10, -10])


@dataclass(frozen=True)
class Sewn:
    """A line of sewing on a panel, (n, 2) in flat cm: ``stitched`` rows lie beside it at these distances in mm, on its left.

    ``raised`` is how wide the doubled cloth is beside it, in mm, and ``step`` how high it stands, in mm.
    """

    panel: str
    line: Points
    stitched: tuple[float, ...] = ()
    raised: float = 0.0
    step: float = 0.5


def beside(line: Points, away: float) -> Points:
    """Return a line (n, 2) moved to its left by a distance."""
    along = np.gradient(line, axis=0)
    along /= np.maximum(np.linalg.norm(along, axis=1, keepdims=True), 1e-9)
    return np.asarray(line + away * np.column_stack([-along[:, 1], along[:, 0]]))


def relief(
    canvas: Canvas, sewing: Sequence[Sewn], ribbed: Mapping[str, tuple[float, float, float, float]], rib_mm: float = RIB_MM
) -> Plane:
    """Return the height of the cloth over its canvas, (h, w) in mm: doubled hems, stitches drawn into it, and ribs.

    ``ribbed`` gives boxes of panels, (left, low, right, high) in flat cm, whose ribs run upwards, one every ``rib_mm``. The knit itself is finer than a picture
    keeps; it is laid on as a weave.
    """
    w, h = (round(v / TEXEL_MM) for v in canvas.size)
    height = np.zeros((h, w), np.float32)
    for panel, (left, low, right, high) in ribbed.items():
        (x0, y1), (x1, y0) = (canvas.on(panel, np.array(corner)) / TEXEL_MM for corner in ((left, low), (right, high)))
        columns = np.arange(int(x0), int(x1) + 1)
        height[int(y0) : int(y1) + 1, columns] = (
            rib_mm / RIB_MM * RIB_DEEP * np.abs(np.cos(np.pi * columns * TEXEL_MM / rib_mm))
        )
    fixed = 4  # bits of a pixel's fraction

    def px(line: Points, panel: str) -> NDArray[np.int32]:
        return np.asarray(np.round(canvas.on(panel, line) / TEXEL_MM * 2**fixed), np.int32)

    raised = np.zeros((h, w), np.float32)
    for seam in sewing:
        if seam.raised:
            edge = np.concatenate([seam.line, beside(seam.line, seam.raised / 10)[::-1]])
            cv2.fillPoly(raised, [px(edge, seam.panel)], seam.step, cv2.LINE_AA, fixed)
    height += cv2.GaussianBlur(raised, (0, 0), 0.7 / TEXEL_MM)
    pulled = np.zeros((h, w), np.float32)
    thread = np.zeros((h, w), np.float32)
    for seam in sewing:
        for away in seam.stitched:
            row = beside(seam.line, away / 10)
            at = np.append(0, np.cumsum(np.linalg.norm(np.diff(row, axis=0), axis=1)))
            ends = np.arange(0, at[-1], STITCH_MM / 10)
            cv2.polylines(pulled, [px(row, seam.panel)], False, 1.0, round(1.2 / TEXEL_MM), cv2.LINE_AA, fixed)
            for begin in ends:
                both = np.array([begin + 0.03, begin + STITCH_MM / 10 - 0.03])
                stitch = np.stack([np.interp(both, at, row[:, axis]) for axis in (0, 1)], axis=-1)
                cv2.polylines(
                    thread, [px(stitch, seam.panel)], False, 1.0, max(1, round(THREAD_MM / TEXEL_MM)), cv2.LINE_AA, fixed
                )
    height += 0.22 * cv2.GaussianBlur(thread, (0, 0), 0.6) - 0.30 * cv2.GaussianBlur(pulled, (0, 0), 0.6 / TEXEL_MM)
    return height.astype(np.float32)


def woven(stage: Stage, region: str, height: Plane, sheen: float = 0.2) -> dict[str, Any]:
    """Return cloth of a region with a relief over its canvas."""
    cloth = stage.cloth(region, sheen=sheen)
    return {
        "type": "twosided",
        "bsdf": {"type": "bumpmap", "arbitrary": bitmap(height), "scale": RELIEF, "bsdf": cloth["bsdf"]},
    }


@cache
def knit() -> Plane:
    """Return the height of a knit's face, which repeats after ``KNIT_MM``: columns of small V's."""
    wales = 64
    y, x = np.mgrid[0:KNIT_PX, 0:KNIT_PX] / KNIT_PX * wales
    rng = np.random.default_rng(6)
    x = x + 0.10 * surfaces.noise(rng, (KNIT_PX, KNIT_PX), 8, 40)
    part = np.abs((x % 1) - 0.5)
    loops = np.abs(np.sin(np.pi * (y * 1.25 + 0.9 * part)))
    fuzz = surfaces.noise(rng, (KNIT_PX, KNIT_PX), 2, 2)
    return relief_of(np.cos(2 * np.pi * (part - 0.25)) * 0.5 + 0.5 * loops + 0.25 * fuzz)


def put_piece(stage: Stage, name: str, piece: Piece, uv: Points, bsdf: dict[str, Any], at: Any = None) -> None:
    """Put a panel of a garment on the stage with u and v at its points."""
    vertex = np.concatenate([piece.at, piece.normal, uv], axis=1).astype("<f4")
    stage.add(name, shapes.write_ply(stage.folder / f"{name.replace('@', '-')}.ply", vertex, piece.triangles), bsdf, at)


def put_garment(
    stage: Stage, surface: Surface, canvas: Canvas, height: Plane, region: str = "garment", sheen: float = 0.2
) -> None:
    """Put a settled garment on the stage as shapes of one region, with places on the canvas as u and v."""
    cloth = woven(stage, region, height, sheen)
    for panel, piece in surface.smoothed(FINER).items():
        put_piece(stage, f"{region}@{panel}", piece, canvas.on(panel, piece.flat) / canvas.size, cloth)
