"""The T-shirt's pattern, what is printed on it, and how it is put on."""

import numpy as np
import pytest
from shapely import Polygon

from improva.catalogue import template
from studio import wardrobe
from studio.cloth.material import JERSEY
from studio.draped import laid, tshirt, tshirt_flat, tshirt_hung, tshirt_worn, worn
from studio.draped.tshirt import Cut
from studio.draped.worn import Motion
from studio.people import poses
from studio.people.body import Body
from studio.scenes import tshirts

from .settled_cloth import crossed_edges

COARSE = Cut(spacing=3.6)


def test_sides_that_are_sewn_together_are_as_long_as_each_other() -> None:
    lengths: dict[tuple[str, str], float] = {}
    for name in ("front", "back"):
        lengths |= {(name, side): tshirt.length_of(line) for side, line in tshirt.body_sides(Cut(), name).items()}
    for name in ("sleeve-left", "sleeve-right"):
        lengths |= {(name, side): tshirt.length_of(line) for side, line in tshirt.sleeve_sides(Cut()).items()}
    for one, other in tshirt.SEAMS:
        if one in lengths and other in lengths:
            assert lengths[one] == pytest.approx(lengths[other], rel=0.01), (one, other)


def test_the_collar_is_stretched_when_it_is_sewn_on() -> None:
    neck = tshirt.body_sides(Cut(), "front")["neck"]
    sewn = tshirt.collar_sides(neck)["sewn"]
    assert 0.9 < tshirt.length_of(sewn) / tshirt.length_of(neck) < 1


@pytest.mark.parametrize("panel", ["front", "back"])
def test_the_print_lies_on_its_panel_at_its_true_size(panel: str) -> None:
    print_, garment = wardrobe.printed(panel)
    x, y, w, h = print_["box_mm"]
    assert (w, h) == pytest.approx(template("t-shirt").panel(panel).trim_mm, rel=1e-3)
    cut = np.concatenate(list(tshirt.body_sides(Cut(), panel).values()))
    outline = Polygon(wardrobe.CANVAS.on(panel, cut))
    assert outline.contains(Polygon([(x, y), (x + w, y), (x + w, y + h), (x, y + h)]))
    assert outline.bounds[2] < garment["size_mm"][0] and outline.bounds[3] < garment["size_mm"][1]


def test_panels_lie_apart_on_their_canvas() -> None:
    boxes = []
    for made in tshirt.panels(COARSE):
        at = wardrobe.CANVAS.on(made.name, made.flat)
        assert at.min() >= 0 and (at <= wardrobe.CANVAS.size).all(), made.name
        boxes.append(Polygon(at[: max(side.max() for side in made.sides.values()) + 1]))
    assert all(one.disjoint(other) for i, one in enumerate(boxes) for other in boxes[:i])


SETTLED = {
    **{who.person: who.surface for who in (wardrobe.ASH, wardrobe.BIRCH, wardrobe.DAMSON, wardrobe.ELM)},
    "front up": lambda: tshirts.settled(False),
    "back up": lambda: tshirts.settled(True),
    "hung": tshirts.hung,
}


@pytest.mark.parametrize("name", SETTLED)
def test_a_settled_shirt_is_kept_and_keeps_its_cloth(name: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """Its edges are hardly stretched, its area is that of its panels, and it does not pass through itself."""
    for module, make in ((tshirt_worn, "worn"), (tshirt_flat, "flat"), (tshirt_hung, "hung")):
        monkeypatch.setattr(module, make, lambda *_: pytest.fail("not in studio/shapes_kept: bake a scene that shows it"))
    # behind the back, where arms press a sleeve and the body together, some edges pass through; nobody sees them
    crossed = crossed_edges(SETTLED[name](), JERSEY)
    assert (crossed[:, 1] > 1).all()
    assert len(crossed) == 0 or name in {"ash", "damson"}


def test_a_person_wears_a_shirt(monkeypatch: pytest.MonkeyPatch) -> None:
    """A body grows into a coarse shirt and lowers its arms: the shirt hangs from the shoulders, and sleeves lie round the arms."""
    monkeypatch.setattr(worn, "GRID_CM", 1.6)
    body = Body("ash")
    cloth = tshirt_worn.worn(COARSE, body, poses.hands_down(body), Motion(growing=16, moving=16, settling=1, resting=1))
    assert np.percentile(cloth.stretch(), 99) < 1.2
    shoulder, hip = body.joint("upperarm01.L")[2], body.joint("root")[2]
    assert cloth.at[:, 2].max() > shoulder and hip - 25 < cloth.at[:, 2].min() < hip + 5
    sleeve = cloth.at[np.unique(cloth.triangles[cloth.panel == cloth.names.index("sleeve-left")])]
    elbow = body.frames(poses.hands_down(body))[1][body.bones.index("lowerarm01.L")]
    assert np.linalg.norm(sleeve.mean(axis=0)[:2] - elbow[:2]) < 12


def test_a_shirt_lies_flat_on_a_table(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(laid, "FINE", 2)
    monkeypatch.setattr(laid, "RESTING", 1)
    cloth = tshirt_flat.flat(COARSE, back=False, seed=5)
    assert cloth.at[:, 2].min() > 0 and cloth.at[:, 2].max() < 9
    assert np.ptp(cloth.at[:, 1]) == pytest.approx(COARSE.length, rel=0.06)
    front, back = (cloth.at[np.unique(cloth.triangles[cloth.panel == cloth.names.index(n)])] for n in ("front", "back"))
    assert front[:, 2].mean() > back[:, 2].mean()
