"""The all-over hoodie lying flat: every printed panel of its template, sewn together, as a region with its own map."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from improva.catalogue import template
from improva.core.template import Panel
from studio import shapes
from studio.bake import Scene
from studio.flatlay import Lay, Layer, arch, both, curve, joined, mirrored
from studio.scenes import garments
from studio.scenes.hood import truest_map
from studio.sets import WALLS
from studio.stage import Stage

Plane = NDArray[np.float64]
BLANK = template("hoodie-all-over")
SCALE = 0.95
"""Of a cut panel's length in the finished garment, whose edges are turned in."""
DOWN = 4.0
POCKET = (130.0, 440.0)
"""Where the pocket lies on the front's trim, in mm: as in the template."""
CROWN = (-84.0, 0.84)
"""Above this line the hood is lower than the plain hoodie's by this factor: the panel's seam turns away there."""
SHOULDER, CUFF = np.array([219.1, 62.0]), np.array([401.1, 556.0])


def _panel(name: str) -> Panel:
    return BLANK.panel(name)


def _front(at: Plane) -> Plane:
    """Canvas to the front's or back's trim, in mm."""
    return np.stack([at[..., 0] / SCALE + 300, (at[..., 1] - DOWN) / SCALE], -1)


def _from_front(at: Plane) -> Plane:
    return np.stack([(at[..., 0] - 300) * SCALE, at[..., 1] * SCALE + DOWN], -1)


def _sleeve_axes() -> tuple[Plane, Plane]:
    along = (CUFF - SHOULDER) / np.linalg.norm(CUFF - SHOULDER)
    return along, np.array([-along[1], along[0]])  # down the fold; inwards from it


def _sleeve(side: float, half: float) -> Callable[[Plane], Plane]:
    """Canvas to a sleeve's trim: it is folded along its middle, so that only one half is seen."""
    along, inward = _sleeve_axes()

    def place(at: Plane) -> Plane:
        away = at * [side, 1] - SHOULDER
        return np.stack([230 + half * (away @ inward) / SCALE, (away @ along) / SCALE], -1)

    return place


def _sleeve_outline() -> Plane:
    """Half a sleeve on the canvas, on the right."""
    along, inward = _sleeve_axes()
    points = np.array(_panel("sleeve-left").outline_mm)
    half = points[points[:, 0] >= 230 - 1e-6]
    half = half[np.argsort(np.arctan2(half[:, 1] - 300, half[:, 0] - 231))]
    half = joined([(230, 0)], half[(half[:, 0] > 230) & (half[:, 1] < 595)], [(350, 600)], [(230, 600)])
    return np.asarray(SHOULDER + SCALE * (half[:, :1] - 230) * inward + SCALE * half[:, 1:] * along)


def _cuff_outline() -> Plane:
    """A ribbed cuff at the sleeve's end, on the right, a little narrower than the sleeve and reaching under it."""
    along, inward = _sleeve_axes()
    end, wide = SHOULDER + SCALE * 600 * along, SCALE * 120
    corners = curve((9, -16), (15, 24), (19, 66)), curve((wide - 19, 66), (wide - 15, 24), (wide - 9, -16))
    return np.asarray(end + joined(*corners) @ np.array([inward, along]))


@cache
def _hood_half() -> Callable[[Plane], Plane]:
    """Canvas to the trim of the hood's half that lies on the right in front."""
    outline = np.array(_panel("hood-left").outline_mm)
    seam = next(seam for seam in BLANK.seams if seam.id == "hood")
    first = int(np.argmin(np.linalg.norm(outline - seam.first.end, axis=1)))  # type: ignore[union-attr]
    return truest_map(_hood_outline(), _hood_rim()[0], outline[first:], SCALE)


def _hood(side: float, back: bool) -> Callable[[Plane], Plane]:
    """Canvas to the trim of a hood's half: seen from the front by its opening, from the back by its seam."""

    def place(at: Plane) -> Plane:
        if back:
            x, y = at[..., 0] * side / SCALE + 4, (at[..., 1] + 200) / SCALE + 20
            return np.stack([290 - x if side < 0 else x, y], -1)
        u, v = np.moveaxis(_hood_half()(at * [side, 1]), -1, 0)
        return np.stack([u if side > 0 else 290 - u, v], -1)

    return place


def _hood_outline() -> Plane:
    """The plain hoodie's, with a lower crown."""
    plain = next(layer.outline for layer in garments.hoodie(False) if layer.name == "garment@hood")
    return np.stack([plain[:, 0], np.maximum(plain[:, 1], CROWN[0] + CROWN[1] * (plain[:, 1] - CROWN[0]))], -1)


def _hood_rim() -> tuple[Plane, Plane]:
    """The opening, and the outer line of the hem round it."""
    mouth = both(joined(arch((0, -115), (27, -104), (41, -64), (39, -4), (21, 56)), arch((0, 79), (11, 74), (21, 56))[::-1]))
    edge = both(joined(arch((0, -139), (43, -127), (66, -72), (64, 2), (48, 66)), arch((0, 103), (25, 95), (48, 66))[::-1]))
    return mouth, edge


def _as_uv(place: Callable[[Plane], Plane], panel: Panel) -> Callable[[Plane], Plane]:
    w, h = panel.trim_mm
    return lambda at: np.clip(place(at) / [w, h], 0.0005, 0.9995)


def layers(back: bool) -> list[Layer]:
    """The plain hoodie's layers with the template's own outlines and maps."""
    plain = {layer.name.split("@")[1]: layer for layer in garments.hoodie(back)}
    body = "back" if back else "front"
    half = -1.0 if not back else 1.0
    seen_right, seen_left = ("sleeve-right", "sleeve-left") if back else ("sleeve-left", "sleeve-right")
    result = []

    def put(
        name: str,
        old: str,
        outline: Plane | None = None,
        place: Callable[[Plane], Plane] | None = None,
        keep: float = 0.0,
        rib: float | None = None,
        hole: Plane | None = None,
        seams: tuple[Plane, ...] | None = None,
    ) -> None:
        uv = None if place is None else _as_uv(place, _panel(name.split("@", maxsplit=1)[0]))
        plain_layer = plain[old]
        result.append(
            Layer(
                name,
                plain_layer.outline if outline is None else outline,
                plain_layer.thick,
                plain_layer.puff,
                plain_layer.soft,
                plain_layer.folds,
                plain_layer.rib if rib is None else rib,
                (plain_layer.seams if outline is None else ()) if seams is None else seams,
                plain_layer.hem,
                plain_layer.hole if hole is None else hole,
                uv,
                plain_layer.creases,
                keep,
            )
        )

    mouth, edge = _hood_rim()
    sleeve, cuff, (_, inward) = _sleeve_outline(), _cuff_outline(), _sleeve_axes()
    tilt = float(np.degrees(np.arctan2(inward[1], inward[0])))
    put("trim@cuff-r", "cuff-r", cuff, rib=tilt)
    put("trim@cuff-l", "cuff-l", mirrored(cuff), rib=-tilt)
    put("trim@rib", "rib", np.asarray(plain["rib"].outline * [1.05, 1]))
    put(seen_right, "sleeve-r", sleeve, _sleeve(1, half))
    put(seen_left, "sleeve-l", mirrored(sleeve), _sleeve(-1, -half))
    put(body, "body", _from_front(np.array(_panel(body).outline_mm)), _front)
    if not back:
        put(
            "pocket",
            "pocket",
            _from_front(np.array(_panel("pocket").outline_mm) + np.array(POCKET)),
            lambda at: _front(at) - np.array(POCKET),
        )
        put("inside@lining", "lining", _hood_outline())
    # both halves of the hood are one height field, of which each keeps its own side; the second is laid, the first only cut
    for name, side in (("hood-right" if not back else "hood-left", -1.0), ("hood-left" if not back else "hood-right", 1.0)):
        if back:
            put(name, "hood", None, _hood(side, back), side)
        else:
            put(
                name,
                "hood",
                _hood_outline(),
                _hood(side, back),
                side,
                hole=mouth,
                seams=(curve((0, -215), (1, -160), (0, -119)),),
            )
    if not back:
        put("inside@edge", "edge", edge, hole=mouth)
    return result


@cache
def _meshes(back: bool) -> tuple[list[tuple[str, Any]], Plane]:
    lay = Lay(garments.CANVAS, -250.0, 14 + back)
    return [(layer.name, lay.lay(layer)) for layer in layers(back)], lay.z


def flat(back: bool) -> Callable[[Stage], None]:
    """The hoodie on a ground, seen from straight above."""

    def build(stage: Stage) -> None:
        garments.from_above(stage, 259 if back else 240, 31.6)
        meshes, heights = _meshes(back)
        for name, (vertex, faces) in meshes:
            part = name.split("@")[0]
            region = part if part in ("trim", "inside") else "garment"
            fleece = stage.cloth(region, garments.knit(), 0.05, garments.WALES, 0.2)
            stage.add(name, shapes.write_ply(stage.folder / f"{name}.ply", vertex, faces), fleece)
        if not back:
            garments.cords(stage, heights)

    return build


def _scene(back: bool) -> Scene:
    shown = [p for p in BLANK.panels if p.id != ("front" if back else "back") and not (back and p.id == "pocket")]
    prints = [{"id": p.id, "title": p.title, "panel": p.id, "on": "garment"} for p in shown]
    side = "back" if back else "front"
    plain = {"White": "#f1f0ec", "Black": "#1a1a1c", "Grey": "#8e8f92"}
    more = (
        []
        if back
        else [
            {"id": "inside", "title": "Inside of the hood", "default": "White", "colours": plain},
            {"id": "cords", "title": "Cords", "default": "White", "colours": plain},
        ]
    )
    return Scene(
        {
            "id": f"hoodie-all-over-{side}",
            "title": f"{side.title()}, lying flat",
            "kind": "flat",
            "templates": [BLANK.id],
            "finish": "soft matte",
            "views": {side: 0.0},
            "regions": [
                *prints,
                {"id": "garment", "title": "Undyed cloth", "default": "White", "colours": {"White": "#f3f2ee"}},
                {"id": "trim", "title": "Ribbing", "default": "Black", "colours": plain},
                *more,
                {
                    "id": "table",
                    "title": "Surface below",
                    "around": True,
                    "size_mm": [3300, 2700],
                    "surface": "limed",
                    "colours": WALLS,
                },
            ],
        },
        flat(back),
        1.0,
        ("table",),
        measures=_sizes(side),
    )


def _sizes(side: str) -> tuple[Any, ...]:
    """Of the body with its ribbing, lying flat."""
    body = _from_front(np.array(_panel(side).outline_mm)) / 10
    wide, top, foot = float(body[:, 0].max()), float(body[:, 1].min()), 71.6
    return (
        ("Width, lying flat", (-wide, -foot - 2.0, 0.5), (wide, -foot - 2.0, 0.5), 20 * wide),
        ("Length", (wide + 16, -top, 0.5), (wide + 16, -foot, 0.5), 10 * (foot - top)),
    )


SCENES = (_scene(False), _scene(True))
