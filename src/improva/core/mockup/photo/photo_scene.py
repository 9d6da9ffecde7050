"""Make a scene pack from a photograph and its marks."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...colour import LUMINANCE, Floats
from ...errors import SceneError
from ...template import Panel, Template
from ..drawn import TURNED
from ..scene import Passes, SceneInfo
from ..scene_file import parse_scene
from . import light as parting
from .marks import Marks, goes_round, on_cloth
from .masks import product_mask
from .print_area import Place, place_of

PHOTO_PX = 2700
"""Longer side of a photo scene in px; a larger photograph is reduced."""
OWN = "As photographed"
FAR_OFF, DARK, BURNT = 0.012, 0.18, 0.05
"""Limits above which the seller is told: points off by picture heights; darkness of the blank; burnt-out share."""

COLOURS = {
    "White": "#f2f1ed",
    "Cream": "#e9dfca",
    "Sky": "#a9c3d8",
    "Sage": "#9aa98c",
    "Rust": "#a9583a",
    "Pine": "#24483c",
    "Night": "#232b44",
    "Coal": "#33343a",
    "Black": "#1a1a1c",
}


@dataclass(frozen=True)
class PhotoScene:
    """A scene made from a photograph.

    Attributes:
        passes: its light.
        scene_toml: the content of ``scene.toml``.
        place: where the print lies.
        notes: sentences for the seller about flaws of the photograph.
    """

    passes: Passes
    scene_toml: dict[str, Any]
    place: Place
    notes: list[str]

    def info(self) -> SceneInfo:
        """Return the scene as read from its ``scene.toml``."""
        return parse_scene(self.scene_toml, Path())


def make_scene(
    photo: NDArray[np.uint8], template: Template, panel: Panel, marks: Marks, scene_id: str, title: str
) -> PhotoScene:
    """Make a scene from a photograph of a plain blank.

    Args:
        photo: (h, w, 3) sRGB, no larger than :data:`PHOTO_PX`.
        panel: the panel of the template that is seen.

    Raises:
        SceneError: the marks cannot be meant, or leave nothing of the print.
    """
    h, w = photo.shape[:2]
    place = place_of(panel, marks, (w, h))
    cover = product_mask(photo, marks, place.seen)
    if float((cover * place.share).sum()) < 64:
        raise SceneError("The mask leaves the whole print out. Paint over the product with “Keep”.")
    light = parting.light_of(photo)
    fell = parting.incident_light(light, cover, marks)
    cloth = on_cloth(template)
    base, basis = parting.separate_light(light, cover, fell, marks.colour, cloth)
    share = place.share[..., None]
    print_ = {"id": "print", "title": panel.title, "panel": panel.id, **({"on": "product"} if cloth else {})}
    product = {"id": "product", "title": template.kind.capitalize(), "default": OWN, "colours": {OWN: marks.colour, **COLOURS}}
    shaded = {"product": basis} if cloth else {"print": basis * share, "product": basis * (1 - share)}
    turns = _turns(panel, template)
    facts = {
        "id": scene_id,
        "title": title,
        "kind": "lifestyle",
        "templates": [template.id],
        "px": [w, h],
        "views": _views(panel, turns),
        "turns": turns,
        "exposure": 1.0,
        "finish": "as photographed",
        "photograph": True,
        "measures": [
            {"title": m.title, "mm": round(m.mm, 2), "from": [round(v, 1) for v in m.start], "to": [round(v, 1) for v in m.end]}
            for m in place.measures
        ],
        "regions": [print_, product],
    }
    uv = np.where((cover > 0.01)[..., None], place.uv, np.nan).astype(np.float32)
    return PhotoScene(Passes(base, shaded, {"print": uv}, cover), facts, place, _said(place, photo, cover, marks))


def _turns(panel: Panel, template: Template) -> bool:
    """Return whether the blank looks the same all round, so that its print can turn: it has no handle."""
    return goes_round(panel) and not panel.gap_mm and not template.looks.get("handle")


def _views(panel: Panel, turns: bool) -> dict[str, float]:
    if turns:
        return TURNED
    return {"as photographed" if goes_round(panel) else panel.title.lower(): 0.0}


def _said(place: Place, photo: NDArray[np.uint8], cover: Floats, marks: Marks) -> list[str]:
    lines = []
    if place.off > FAR_OFF:
        lines.append(
            f"The points lie {place.off:.1%} of the picture's height from where a blank of these figures would show "
            "them: check that it is this blank, and that they stand on the edges of the print."
        )
    if float(parting.rho_of(marks.colour) @ LUMINANCE) < DARK:
        lines.append(
            "The photographed blank is dark, so light colours on it will look rough: photograph a white one if you can."
        )
    inside = cover > 0.9
    burnt = float(np.mean((photo[inside] >= 254).all(axis=-1))) if inside.any() else 0.0
    if burnt > BURNT:
        lines.append(
            f"{burnt:.0%} of the product is burnt out to white, and no print will be seen there: a darker exposure is better."
        )
    return lines
