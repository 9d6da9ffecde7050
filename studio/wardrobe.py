"""T-shirts on people and on tables: their canvas, their sewing, and who wears which."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import clothing, surfaces
from studio.cloth.surface import Surface
from studio.clothing import Canvas, Sewn, put_piece
from studio.draped import trousers, tshirt, tshirt_worn
from studio.draped.tshirt import Cut
from studio.kept import kept_surface
from studio.people import poses
from studio.people.body import Body, Pose
from studio.people.skin import TUCKED_CM, put_body, tucked
from studio.stage import Stage, relief_of, rgb

CLOTHS = {
    "White": "#f2f1ed",
    "Natural": "#e9dfca",
    "Ash": "#c9c9c6",
    "Sky": "#a9c3d8",
    "Sage": "#9aa98c",
    "Mustard": "#c99a3c",
    "Rust": "#a9583a",
    "Rose": "#cf9a9c",
    "Berry": "#7c2f45",
    "Moss": "#4d5640",
    "Pine": "#24483c",
    "Lake": "#2f5577",
    "Night": "#232b44",
    "Slate": "#565b62",
    "Coal": "#33343a",
    "Black": "#1a1a1c",
}
PRINT_MM = (12 * 25.4, 14 * 25.4)
TOP_MM = {"front": 128.0, "back": 84.0}
"""From the highest point of the shoulder down to the print."""

CANVAS = Canvas(
    (1880.0, 800.0),
    {
        "front": (300.0, 30.0),
        "back": (900.0, 30.0),
        "sleeve-left": (1420.0, 30.0),
        "sleeve-right": (1420.0, 330.0),
        "collar-front": (1420.0, 640.0),
        "collar-back": (1420.0, 720.0),
    },
)

TWILL_CM = 6.0
"""Of the trousers' weave, before it repeats."""


def printed(panel: str) -> list[dict[str, Any]]:
    """Return the pack's entries of a shirt whose front or back is printed."""
    (x, y), (w, h) = CANVAS.places[panel], PRINT_MM
    box = [round(v, 2) for v in (x - w / 2, y + TOP_MM[panel], w, h)]
    print_ = {"id": panel, "title": f"{panel.title()} print", "panel": panel, "on": "garment", "box_mm": box}
    garment = {"id": "garment", "title": "Garment", "size_mm": list(CANVAS.size), "surface": "jersey", "default": "White"}
    return [print_, {**garment, "colours": CLOTHS}]


def sewing(shirt: Cut) -> list[Sewn]:
    """Hems of two rows, and seams at the shoulders, armholes and the collar."""
    rows: list[Sewn] = []
    for name in ("front", "back"):
        sides = tshirt.body_sides(shirt, name)
        rows.append(Sewn(name, sides["hem"], (17.0, 20.0), 21.0))
        rows.append(Sewn(name, sides["neck"], (2.0, 5.0), 3.0, 0.4))
        rows += [
            Sewn(name, sides[f"{edge}-{side}"], (), 4.0, 0.5) for edge in ("armhole", "shoulder") for side in ("left", "right")
        ]
    for name in ("sleeve-left", "sleeve-right"):
        rows.append(Sewn(name, tshirt.sleeve_sides(shirt)["hem"], (17.0, 20.0), 21.0))
    return rows


@cache
def relief(shirt: Cut) -> NDArray[np.float32]:
    half = {name: tshirt.COLLAR_PULL * tshirt.length_of(tshirt.body_sides(shirt, name)["neck"]) / 2 for name in tshirt.DIPS}
    ribbed = {f"collar-{name}": (-wide, 0.0, wide, tshirt.COLLAR) for name, wide in half.items()}
    return clothing.relief(CANVAS, sewing(shirt), ribbed)


@dataclass(frozen=True)
class Wearing:
    """A person in a pose.

    Attributes:
        person: of ``studio.people``.
        pose: how the person stands.
        size: of the person against the garment's usual wearer: a garment that is drawn in one size fits everybody.
    """

    person: str
    pose: Callable[[Body], Pose]
    size: float = field(default=1.0, kw_only=True)

    @property
    def body(self) -> Body:
        return Body(self.person, self.size)

    @property
    def posed(self) -> str:
        """The name of the pose, as it stands in names of files."""
        return self.pose.__name__.replace("_", "-")


@dataclass(frozen=True)
class Worn(Wearing):
    """A shirt of a cut on a person."""

    shirt: Cut

    def surface(self) -> Surface:
        """Return the settled shirt."""
        return kept_surface(
            f"t-shirt-{self.person}-{self.posed}",
            (tshirt, tshirt_worn),
            lambda: Surface.of(tshirt_worn.worn(self.shirt, self.body, self.pose(self.body))),
            repr((self.person, self.pose.__name__, self.shirt)),
        )

    def put(self, stage: Stage, trouser: tuple[float, float, float]) -> None:
        """Put the person on the stage: shirt, skin and trousers of a colour."""
        settled, pose = self.surface(), self.pose(self.body)
        clothing.put_garment(stage, settled, CANVAS, relief(self.shirt))
        put_body(stage, self.body, pose, [(settled, TUCKED_CM)])
        put_trousers(stage, self, settled, trouser)


@dataclass(frozen=True)
class Under:
    """How trousers lie under a garment: drawn in by ``depth`` cm from ``beyond`` its edge to ``edge`` cm inside; their waist's ``rise``."""

    depth: float = 1.2
    edge: float = 0.8
    beyond: float = -0.1
    rise: float = trousers.RISE


def put_trousers(
    stage: Stage, who: Wearing, garment: Surface, colour: tuple[float, float, float], under: Under = Under()
) -> Surface:
    """Put trousers of a colour under a garment on the stage, and return them as they lie."""
    named = (who.person, who.pose.__name__)
    below = kept_surface(
        f"trousers-{who.person}-{who.posed}",
        trousers,
        lambda: Surface.of(trousers.worn(who.body, who.pose(who.body), float(garment.rims()[:, 2].min()) - 30, under.rise)),
        repr(named if who.size == 1 and under.rise == trousers.RISE else (*named, who.size, under.rise)),
    )
    piece = below.smoothed(1)["trousers"]
    at = tucked(piece.at, piece.normal, garment, under.depth, under.edge, under.beyond)
    uv = np.column_stack([piece.at[:, 0] + piece.at[:, 1], piece.at[:, 2]]) / TWILL_CM
    cloth = stage.cloth(rgb(*colour), relief_of(surfaces.weave(512, 60)), 0.03, sheen=0.1)
    put_piece(stage, "trousers", piece.moved(at), uv, cloth)
    return Surface({"trousers": (piece.flat, at)}, {"trousers": piece.triangles})


def turned_round(stage: Stage, put: Callable[[], None]) -> None:
    """Let somebody be put on the stage who looks away from the camera."""
    before = set(stage.parts)
    put()
    for name in set(stage.parts) - before:
        stage.parts[name]["to_world"] = stage.to.rotate([0, 0, 1], 180)


ASH = Worn("ash", poses.hands_behind, Cut(27.0, 73.0, spacing=1.4))
BIRCH = Worn("birch", poses.hands_down, Cut(26.0, 69.0, sleeve=20.5, spacing=1.4))
DAMSON = Worn("damson", poses.hands_behind, Cut(28.0, 70.0, sleeve=20.5, opening=17.4, spacing=1.4))
ELM = Worn("elm", poses.hands_before, Cut(28.5, 76.0, spacing=1.4))
