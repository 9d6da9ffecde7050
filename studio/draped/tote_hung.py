"""A bag with a gusset that hangs from a hook with something heavy in it. Lengths in cm; x right, y away from the viewer, z up, from where its floor hangs."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from improva.catalogue import template
from studio.cloth.material import CANVAS
from studio.cloth.mesh import Cloth, finer, sew
from studio.cloth.obstacles import Obstacle, box, joined
from studio.cloth.panels import Panel
from studio.cloth.simulation import Simulation
from studio.draped.from_template import cut_from

Points = NDArray[np.float64]

BLANK = template("tote-gusset")
CUT = ("front", "back", "gusset")
W, H = (mm / 10 for mm in BLANK.panel("front").trim_mm)
DEEP = BLANK.panel("gusset").trim_mm[1] / 10
SPACING = 1.9

STRAPS, PATCH = 8.5, (1.4, 6.5)
"""Of the handles: their distance from the middle; half the width and the height of where they are sewn on."""

DRAWN_IN, APART = 1.1, 1.5
"""How far the handles draw their ends towards the middle, and how far front and back stay from it."""

LOWERED = 0.35
"""How far what is in the bag stretches it."""

FOLDED_IN = 2.4
"""How far the gusset's middle begins to fold inwards at the opening."""

CLOSING, SETTLING, RESTING = 70, 60, 40


def placed(made: list[Panel]) -> dict[str, Points]:
    """Return where each panel's points lie before the bag is hung: an open box."""
    found = {}
    for panel in made:
        x, y = panel.flat.T
        if panel.name == "gusset":
            across = -y - DEEP / 2
            fold = FOLDED_IN * (1 - np.abs(across) / (DEEP / 2))
            left, right = np.clip(H - x, 0, H), np.clip(x - H - W, 0, H)
            side = np.where(x < H, -W / 2 + fold * left / H, np.where(x > H + W, W / 2 - fold * right / H, x - H - W / 2))
            found[panel.name] = np.column_stack([side, across, np.where(x < H, left, right)])
        else:
            sign = -1.0 if panel.name == "front" else 1.0
            found[panel.name] = np.column_stack([-sign * (x - W / 2), np.full_like(x, sign * DEEP / 2), H + y])
    return found


def contents() -> Obstacle:
    """Return what is in the bag: books on end, and something round beside them."""
    books = box((-4.5, 0.3, 12.6 - LOWERED), (22.0, 6.6, 25.2), 0.8)
    round_one = box((11.0, -0.2, 8.0 - LOWERED), (9.4, 8.8, 16.0), 4.2)
    return Obstacle.of(joined(books, round_one, soft=1.0), (-20.0, -8.0, -3.0), (20.0, 8.0, 30.0), 0.5, 0.3)


def _patches(cloth: Cloth) -> tuple[NDArray[np.bool_], Points]:
    """Return which points the handles are sewn to, and where these go when the bag is hung, (n, 3)."""
    x, y, z = cloth.at.T
    on_sides = np.zeros(len(cloth.at), bool)
    for name in ("front", "back"):
        on_sides[cloth.triangles[cloth.panel == cloth.names.index(name)]] = True
    sewn = on_sides & (np.abs(np.abs(x) - STRAPS) < PATCH[0]) & (z > H - PATCH[1])
    return sewn, np.column_stack([-np.sign(x) * DRAWN_IN, -np.sign(y) * (DEEP / 2 - APART), 0 * z])


def finished(cloth: Cloth) -> None:
    """Give the bag its hem and stiff seams."""
    doubled = np.zeros(len(cloth.at), bool)
    for number, name in enumerate(cloth.names):
        chosen = cloth.panel == number
        flat = cloth.flat[chosen]
        hem = (flat[..., 0] < 2.5) | (flat[..., 0] > 2 * H + W - 2.5) if name == "gusset" else flat[..., 1] > -2.5
        doubled[cloth.triangles[chosen][hem]] = True
    cloth.double(doubled, 1.8)


def hung() -> Cloth:
    """Return the bag as it hangs still."""
    made, seams = cut_from(BLANK, CUT, 1.0, SPACING)
    cloth = sew(made, placed(made), seams, CANVAS)
    finished(cloth)
    sewn, way = _patches(cloth)
    cloth.hold(sewn)
    inside = [contents()]
    simulation = Simulation(cloth, inside, damping=4.0, fastest=60.0)
    for _ in range(CLOSING):
        cloth.at[sewn] += way[sewn] / CLOSING
        simulation.run(1)
    cloth = finer(cloth)
    finished(cloth)
    x, _, z = cloth.at.T
    cloth.hold((np.abs(np.abs(x) - STRAPS + DRAWN_IN) < PATCH[0]) & (z > H - PATCH[1]))
    simulation = Simulation(cloth, inside, damping=5.0, fastest=40.0)
    simulation.run(SETTLING)
    simulation.damping = 12.0
    simulation.run(RESTING)
    return cloth
