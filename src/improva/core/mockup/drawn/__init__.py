"""Scenes drawn by formula for any blank, including newly measured ones.

They are the same :class:`Passes` as a baked pack's, in simpler light: lobes in place of traced soft boxes.
"""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ...design import Design
from ...render import Opener
from ...render.contour import cut_shape, mask_of
from ...template import Template
from ..parallel import ONE_CORE, Cores
from ..scene import Measure, Passes, Region, SceneInfo
from .flat_lay import Table, draw_laid, parts_of
from .measures import laid_measures, turned_measures
from .round_body import draw_turned
from .standing_pillow import draw_standing

DRAWN_PX = (1440, 1080)
CUT_PX = 800
VERSION = 3
"""Raise it when drawing changes, so that stored pictures are made again."""

LID = {"Snow": "#f2f1ed", "Ink": "#1d1f23", "Pine": "#2f4a3e", "Rowan": "#a8322b"}
TURNED = {"front": 0.0, "right": 90.0, "back": 180.0, "left": -90.0}
ENDING = "-drawn"
STANDING = "-standing"
SWEEPS = {"Sand": "#cbbfae", "Chalk": "#ebe8e1", "Mist": "#c5cdd0", "Sage": "#aab3a0", "Clay": "#b58d78", "Dusk": "#5d6470"}


def body_of(template: Template) -> str:
    """Return how a blank is drawn: by its ``looks``, else by the kind of its panels."""
    body = str(template.looks.get("body", ""))
    if body:
        return body
    first = template.panels[0]
    return "turned" if first.closes or first.gap_mm or first.cone else "panels" if len(template.panels) > 1 else "cloth"


def drawn_scenes(template: Template) -> list[SceneInfo]:
    """Return the drawn scenes of a blank: one, or one for each direction of a handle."""
    body = body_of(template)
    printed = [Region(p.id, p.title, p.id) for p in template.panels]
    if body == "turned":
        handle = bool(template.looks.get("handle")) or bool(template.panels[0].gap_mm)
        parts = printed[:1]
        if template.looks.get("top") == "lid":
            parts = [*parts, Region("lid", "Lid", None, LID, "Snow")]
        if not handle:
            return [_info(template, "", "studio", TURNED, True, parts)]
        parts = [
            *parts,
            Region("handle", "Handle", None, {"White": "#f1f0ec", **LID}, "White"),
            Region("inside", "Inside", None, {"White": "#f1f0ec", **LID}, "White"),
        ]
        return [
            _info(template, f"-handle-{side}", "studio", {f"handle {side}": angle}, False, parts)
            for side, angle in (("right", 90.0), ("left", -90.0), ("behind", 0.0))
        ]
    if body in ("shirt", "hoodie"):
        return [
            _info(template, "" if i == 0 else f"-{p.id}", "flat", {p.title.lower(): 0.0}, False, [printed[i]])
            for i, p in enumerate(template.panels)
        ]
    lying = _info(template, "", "flat", {"flat": 0.0}, False, printed)
    if template.panels[0].shape != "cutout":
        return [lying]
    sweep = Region("table", "Surface below", None, SWEEPS, "Mist", around=True)
    return [replace(_info(template, STANDING, "studio", {"front": 0.0}, False, [printed[0], sweep]), unprinted=True), lying]


def measures_of(info: SceneInfo, cut: NDArray[np.bool_] | None = None) -> tuple[Measure, ...]:
    """Return the measures of a drawn scene in pixels of the scene's size; garments and loose panels have none.

    ``cut`` (h, w) is as in :func:`draw`.
    """
    template = info.drawn
    assert template is not None
    body = body_of(template)
    if body == "turned":
        return turned_measures(template, info.px, 0.0 if info.turns else next(iter(info.views.values())))
    if body in ("shirt", "hoodie", "panels") or info.id.endswith(STANDING):
        return ()
    return laid_measures(template.panel(info.regions[0].panel), Table(info, parts_of(template, info, body)), cut)


def _info(template: Template, more: str, kind: str, views: dict[str, float], turns: bool, parts: list[Region]) -> SceneInfo:
    where = "on a light table" if kind == "flat" else "in plain light"
    info = SceneInfo(
        id=f"{template.id}{ENDING}{more}",
        title=f"{template.title}, drawn {where}",
        kind=kind,
        templates=(template.id,),
        px=DRAWN_PX,
        views=views,
        turns=turns,
        regions=tuple(parts),
        exposure=1.0,
        folder=Path(),
        drawn=template,
    )
    return replace(info, measures=measures_of(info))


def draw(info: SceneInfo, cut: NDArray[np.bool_] | None = None, cores: Cores = ONE_CORE) -> Passes:
    """Draw a scene at its native size: planes (h, w, …). ``cut`` (h, w) is the mask of a shape cut out of its panel."""
    template = info.drawn
    assert template is not None, "a baked scene is read, not drawn"
    if info.id.endswith(STANDING):
        w, h = template.panels[0].trim_mm
        whole = np.ones((round(CUT_PX * h / w), CUT_PX), bool)
        return draw_standing(template, info, whole if cut is None else cut, cores)
    if body_of(template) == "turned":
        base, basis, maps = draw_turned(template, info)
    else:
        base, basis, maps = draw_laid(template, info, body_of(template), cut)
    return Passes(base, basis, maps)


def cut_mask(design: Design, open_art: Opener) -> NDArray[np.bool_]:
    """Return the sewn shape of a cut-out as a mask of its panel, :data:`CUT_PX` wide; see :mod:`~improva.core.render.contour`."""
    return mask_of(cut_shape(design, open_art).sewn, design.panel, CUT_PX)


__all__ = [
    "DRAWN_PX",
    "ENDING",
    "TURNED",
    "VERSION",
    "cut_mask",
    "draw",
    "drawn_scenes",
    "measures_of",
]
