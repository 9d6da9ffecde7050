"""Worn hoodies on a stage: pocket, cords and ribbing; plain with a print, or printed all over. Lengths in cm."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import LinearNDInterpolator
from scipy.spatial import KDTree
from shapely import Polygon, distance, points

from studio import clothing, shapes, surfaces
from studio.cloth.panels import cut
from studio.cloth.surface import Piece, Surface, normals
from studio.clothing import Canvas, Sewn
from studio.draped import from_template, hoodie
from studio.draped.hoodie import BLANK, CENTRE, SCALE
from studio.kept import kept_surface
from studio.people import poses
from studio.people.skin import put_body
from studio.stage import Stage, relief_of, rgb
from studio.wardrobe import Under, Wearing, put_trousers

Points = NDArray[np.float64]

CANVAS = Canvas(
    (2100.0, 1150.0),
    {
        "front": (20.0, 20.0),
        "back": (620.0, 20.0),
        "sleeve-left": (1220.0, 20.0),
        "sleeve-right": (1660.0, 20.0),
        "hood-left": (20.0, 720.0),
        "hood-right": (320.0, 720.0),
        "rib-front": (620.0, 820.0),
        "rib-back": (620.0, 920.0),
        "cuff-left": (1220.0, 720.0),
        "cuff-right": (1660.0, 720.0),
        "pocket": (1220.0, 800.0),
    },
)
POCKET = np.array([13.0, -44.0]) * SCALE
"""Where the pocket's upper left corner lies on the front."""

STANDS_OUT, GAPES = 0.24, 0.55
"""The pocket over the front: its own thickness, and its open sides."""

UNDER = Under(2.6, 1.4, 0.9, 8.0)
"""Trousers under the ribbing, which is tight."""

LINING, LAID = 0.25, 0.05
"""Of a hood's inside under its outside, worn and lying: where one half lies on the other their insides nearly touch."""

RIB_MM = 3.4
"""From one rib to the next: two stitches up, two down."""

FINER = 2


@dataclass(frozen=True)
class Worn(Wearing):
    """A hoodie on a person."""

    def surface(self) -> Surface:
        """Return the settled hoodie."""
        return kept_surface(
            f"hoodie-{self.person}-{self.posed}",
            (hoodie, from_template),
            lambda: Surface.of(hoodie.worn(self.body, self.pose(self.body))),
            repr((self.person, self.pose.__name__, self.size)),
        )

    def put(self, stage: Stage, trouser: tuple[float, float, float], printed: bool = False) -> None:
        """Put the person on the stage; ``printed`` gives every panel of the template a map of its own."""
        settled = self.surface()
        put_hoodie(stage, settled, printed)
        below = put_trousers(stage, self, settled, trouser, UNDER)
        put_body(stage, self.body, self.pose(self.body), [(settled, 1.2), (below, 4.0)])


def put_hoodie(stage: Stage, settled: Surface, printed: bool, lining: float = LINING) -> None:
    """Put a settled hoodie on the stage; ``printed`` gives every panel of the template a map of its own."""
    pieces = settled.smoothed(FINER)
    pieces["pocket"] = pocket_on(pieces["front"])
    height = relief()
    for panel, piece in pieces.items():
        ribbing = panel.startswith(("rib", "cuff"))
        if printed and not ribbing:
            w, h = (v * SCALE / 10 for v in BLANK.panel(panel).trim_mm)
            uv = np.clip(piece.flat * [1 / w, -1 / h], 0.0005, 0.9995)
            shown = panel if panel in stage.reflectance else "garment"
            times = (10 * w / clothing.KNIT_MM, 10 * h / clothing.KNIT_MM)
            clothing.put_piece(stage, panel, piece, uv, stage.cloth(shown, clothing.knit(), 0.05, times, 0.25))
        else:
            uv = CANVAS.on(panel, piece.flat) / CANVAS.size
            region = "trim" if ribbing and printed else "garment"
            clothing.put_piece(stage, f"{region}@{panel}", piece, uv, clothing.woven(stage, region, height, 0.25))
    if printed:
        for panel in ("hood-left", "hood-right"):
            put_lining(stage, panel, pieces[panel], lining)
    put_cords(stage, pieces["front"])


def put_lining(stage: Stage, panel: str, piece: Piece, below: float) -> None:
    """Put the inside of half a hood on the stage: the region ``inside``."""
    at = piece.at - below * piece.normal
    lining = Piece(piece.flat, at, -piece.normal, piece.triangles[:, ::-1])
    clothing.put_piece(stage, f"inside@{panel}", lining, piece.flat / 30, stage.cloth("inside", sheen=0.25))


def ribs() -> dict[str, tuple[float, float, float, float]]:
    """Return the boxes of ribbing on their panels."""
    found = {}
    for panel in hoodie.panels(4.0)[0]:
        if panel.name.startswith(("rib", "cuff")):
            (left, low), (right, high) = panel.flat.min(axis=0), panel.flat.max(axis=0)
            found[panel.name] = (float(left), float(low), float(right), float(high))
    return found


@cache
def relief() -> NDArray[np.float32]:
    """Return the height of seams, the pocket's stitches and ribbing over the canvas."""
    rows: list[Sewn] = []
    for name in hoodie.CUT:
        for side, line in from_template.sides_of(BLANK, BLANK.panel(name), SCALE).items():
            if not side.startswith("edge"):
                rows.append(Sewn(name, line, (3.0, 8.0), 9.0, 0.6))
            elif name.startswith("hood"):
                rows.append(Sewn(name, line, (22.0, 25.0), 26.0, 0.8))
    outline = from_template.flat_of(BLANK.panel("pocket"), SCALE)
    rows.append(Sewn("pocket", np.concatenate([outline, outline[:1]]), (3.0, 9.0), 0.0))
    return clothing.relief(CANVAS, rows, ribs(), RIB_MM)


def pocket_on(front: Piece) -> Piece:
    """Return the pocket as it lies on the front: sewn on above, below and at the lower sides, open at its slanted sides."""
    outline = from_template.flat_of(BLANK.panel("pocket"), SCALE)
    closed = np.concatenate([outline, outline[:1]])
    made = cut("pocket", {"round": closed}, 0.3, seed=7)
    at = _over(front)(made.flat + POCKET)
    whole = Polygon(closed)
    inside = distance(whole.exterior, points(made.flat))
    low, high = outline.min(axis=0), outline.max(axis=0)
    y = made.flat[:, 1]
    side = np.minimum(np.abs(made.flat[:, 0] - low[0]), np.abs(high[0] - made.flat[:, 0]))
    mouth = np.exp(-((side / 5.0) ** 2)) * np.clip((y - (low[1] + 6.5)) / 2, 0, 1) * np.clip((high[1] - y) / 3, 0, 1)
    out = STANDS_OUT * np.minimum(1, 0.35 + inside / 0.5) + GAPES * mouth
    normal = normals(at, made.triangles)
    at = at + out[:, None] * normal
    return Piece(made.flat, at, normals(at, made.triangles), made.triangles)


def _over(piece: Piece) -> Callable[[Points], Points]:
    """Return the place in space over a flat place of a piece; the nearest point's beyond its border."""
    linear, tree = LinearNDInterpolator(piece.flat, piece.at), KDTree(piece.flat)

    def place(flat: Points) -> Points:
        at = np.asarray(linear(flat))
        return np.where(np.isfinite(at), at, piece.at[tree.query(flat)[1]])

    return place


def put_cords(stage: Stage, front: Piece) -> None:
    """Two cords down the chest, with metal ends."""
    over = _over(front)
    for side, way in (
        (-1, [(2.6, -9.0), (4.4, -13.0), (4.0, -19.0), (4.9, -26.5)]),
        (1, [(2.6, -9.0), (4.8, -14.0), (5.4, -20.0), (4.6, -29.0)]),
    ):
        flat = shapes.spline([(CENTRE + side * x, y) for x, y in way], 140)
        at = over(flat)
        near = KDTree(front.flat).query(flat)[1]
        smooth = np.stack([np.convolve(np.pad(v, 8, mode="edge"), np.ones(17) / 17, "valid") for v in at.T], axis=1)
        line = smooth + 0.34 * front.normal[near]
        cloth = stage.cloth("cords", relief_of(surfaces.weave(512, 30)), 0.05, (1, 14), 0.2)
        name = f"cords@{side}"
        stage.add(
            name, shapes.tube(line[:132], np.full((132, 2), 0.27), stage.folder / f"{name}.ply", around=24, squareness=2), cloth
        )
        end = shapes.tube(line[128:], np.full((12, 2), 0.25), stage.folder / f"aglet{side}.ply", around=24, squareness=2)
        stage.add(f"aglet@{side}", end, stage.coat(rgb(0.55, 0.53, 0.5), 0.25, 0.4))


ASH = Worn("ash", poses.at_rest, size=1.05)
BIRCH = Worn("birch", poses.at_rest, size=1.14)
DAMSON = Worn("damson", poses.at_rest, size=1.15)
ELM = Worn("elm", poses.at_rest)
