"""Small scenes with known content, made without a path tracer."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from improva.app.scenes import SceneLibrary
from improva.core.mockup.scene import Lens, Passes, Region, SceneInfo

SHIPPED_SCENES = SceneLibrary()
"""The scenes that ship, and those drawn for shipped blanks."""

packs, scene, scenes_of = SHIPPED_SCENES.packs, SHIPPED_SCENES.get, SHIPPED_SCENES.of

PX = (96, 72)
SQUARE = (slice(18, 54), slice(30, 66))
"""Where the product is seen: 36 px a side, in the middle."""


def scene_info(*regions: Region, turns: bool = False, **more: Any) -> SceneInfo:
    return SceneInfo(
        "made-up", "Made up", "studio", ("tumbler-20oz-straight",), PX, {"front": 0.0}, turns, regions, 1.0, Path(), **more
    )


def grid(rows: slice, columns: slice) -> np.ndarray:
    """Return u, v that run over a window, NaN outside it: (h, w, 2)."""
    uv = np.full((PX[1], PX[0], 2), np.nan, np.float32)
    h, w = rows.stop - rows.start, columns.stop - columns.start
    uv[rows, columns] = np.stack(np.meshgrid((np.arange(w) + 0.5) / w, (np.arange(h) + 0.5) / h), -1)
    return uv


def plane(value: float, rows: slice = slice(None), columns: slice = slice(None)) -> np.ndarray:
    out = np.zeros((PX[1], PX[0], 3), np.float32)
    out[rows, columns] = value
    return out


PRINT = Region("wrap", "Print", "wrap")
GROUND = Region(
    "table",
    "Surface below",
    None,
    {"Grey": "#808080", "White": "#ffffff"},
    "Grey",
    size_mm=(960.0, 720.0),
    surface="stripes",
    around=True,
)


def standing(lens: Lens | None = None, shadow: float = 0.0) -> tuple[SceneInfo, Passes]:
    """A square print on a background that fills the rest of the picture, 10 mm per pixel; the right half of the background
    is in shadow.
    """
    cover = plane(1.0, *SQUARE)[..., 0]
    shade = np.ones_like(cover)
    shade[:, 66:90] = 1 - shadow
    info = scene_info(PRINT, GROUND, lens=lens)
    basis = {"wrap": plane(0.5, *SQUARE), "table": plane(0.5) * (1 - cover)[..., None] * shade[..., None]}
    depth = np.where(cover > 0, 100.0, 200.0).astype(np.float32)
    maps = {"wrap": grid(*SQUARE), "table": grid(slice(0, PX[1]), slice(0, PX[0]))}
    return info, Passes(plane(0.0), basis, maps, cover, shade, depth)


def on_cloth() -> tuple[SceneInfo, Passes]:
    """A cloth that fills the picture, 10 mm per pixel, with a print of 360 mm in its middle and a print with its own map."""
    cloth = Region("cloth", "Cloth", None, {"White": "#ffffff", "Black": "#000000"}, "White", size_mm=(960.0, 720.0))
    chest = Region("chest", "Chest", "wrap", on="cloth", box_mm=(300.0, 180.0, 360.0, 360.0))
    corner = Region("corner", "Corner", "corner", on="cloth")
    maps = {"cloth": grid(slice(0, PX[1]), slice(0, PX[0])), "corner": grid(slice(0, 12), slice(0, 12))}
    return scene_info(chest, corner, cloth), Passes(plane(0.0), {"cloth": plane(0.5)}, maps)
