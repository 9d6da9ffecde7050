"""Blankets: thrown, spread and folded; what they lie on; and their thickness."""

import numpy as np
import pytest

from studio import armchair, bed, throws
from studio.bodies import IN
from studio.cloth.material import FLEECE
from studio.cloth.obstacles import Obstacle, box
from studio.draped import throw
from studio.upholstery import Dent, Padded

from .settled_cloth import crossed_edges

SIZES = {"blanket-upright": (50 * IN, 60 * IN), "blanket-lying": (60 * IN, 50 * IN)}
LIES = {name: getattr(throws, name) for name in ("over_armchair", "on_floor", "on_bed", "folded")}


@pytest.fixture
def kept_only(monkeypatch: pytest.MonkeyPatch) -> None:
    for make in ("hung", "spread", "folded"):
        monkeypatch.setattr(throw, make, lambda *_, **__: pytest.fail("not in studio/shapes_kept: bake a scene that shows it"))


@pytest.mark.usefixtures("kept_only")
@pytest.mark.parametrize("lies", LIES)
@pytest.mark.parametrize("name", SIZES)
def test_a_blanket_is_kept_and_keeps_its_cloth(name: str, lies: str) -> None:
    assert len(crossed_edges(LIES[lies](name, *SIZES[name]), FLEECE)) <= 10  # deep in the folds of a folded one


@pytest.mark.usefixtures("kept_only")
@pytest.mark.parametrize("name", SIZES)
def test_a_blanket_lies_on_the_armchair_and_not_in_it(name: str) -> None:
    _, at = throws.over_armchair(name, *SIZES[name]).panels["front"]
    inside = np.minimum.reduce([part.distance(at) for part in armchair.PARTS])
    assert inside.min() > 0.2 and (inside < 1.5).mean() > 0.25
    assert at[:, 2].max() > 88 and at[at[:, 1] < 0][:, 2].min() < 62  # over the back, and down on the seat


@pytest.mark.usefixtures("kept_only")
def test_a_blanket_lies_over_the_duvet() -> None:
    _, at = throws.on_bed("blanket-upright", *SIZES["blanket-upright"]).panels["front"]
    assert at[:, 2].min() > bed.TOP and np.abs(at[:, 0]).max() < bed.WIDE / 2


def test_folding_changes_no_length() -> None:
    """Of either of two layers that lie flat on each other."""
    count = 6001
    along, z = np.tile(np.linspace(0, 30, count), 2), np.repeat([0.0, -0.62], count)
    folded = np.column_stack(throw._under(along, z, 15.0))
    upper, lower = folded[:count], folded[count:]
    for line in (upper, lower):
        assert np.linalg.norm(np.diff(line, axis=0), axis=1).sum() == pytest.approx(30, rel=1e-4)
    assert lower[:, 0].max() == pytest.approx(15 + 0.62 * throw.PLIED.thickness, abs=0.01)
    assert upper[-1, 1] < lower[-1, 1] < lower[0, 1] < upper[0, 1]  # what lay on top lies below


def test_a_blanket_that_is_spread_out_comes_to_rest_on_the_ground(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(throw, "SPACING", 6.0)
    ground = Obstacle.of(box((0, 0, -5), (120, 120, 10)), (-50, -50, -6), (50, 50, 8), 2.0, 0.6)
    cloth = throw.spread(60.0, 50.0, ground, (0.0, 0.0, 0.4))
    assert cloth.at[:, 2].min() > 0.05 and cloth.at[:, 2].max() < 8
    assert np.median(cloth.stretch()) == pytest.approx(1, abs=0.01)


def test_a_blanket_is_thinner_at_its_hem_and_closed_at_its_rim() -> None:
    flat = np.array([[0.0, 50.0], [0.1, 50.0], [throws.HEM, 50.0], [20.0, 50.0]])
    rim, near, hem, middle = throws.half_thickness(flat, 100.0, 100.0, throws.THICK)
    assert rim < 0.02 < near < hem < middle == pytest.approx(throws.THICK / 2 + 0.01, abs=0.001)


def test_a_padded_box_bulges_is_dented_and_closed() -> None:
    plain = Padded((40.0, 30.0, 12.0), (0, 0, 0), 3.0)
    at, _, triangles = plain.mesh()
    assert np.allclose(np.abs(at).max(axis=0), [20, 15, 6], atol=0.4)  # small unevenness
    volume = np.einsum("ij,ij->", at[triangles[:, 0]], np.cross(at[triangles[:, 1]], at[triangles[:, 2]])) / 6
    assert 0.93 * 40 * 30 * 12 < volume < 1.02 * 40 * 30 * 12  # its sides look outwards
    full = Padded((40.0, 30.0, 12.0), (0, 0, 0), 3.0, (0, 0, 2.0))
    sat = Padded((40.0, 30.0, 12.0), (0, 0, 0), 3.0, (0, 0, 2.0), dents=[Dent((0, 0, 6), (8, 8, 8), 1.5)])
    middle = np.array([[0.0, 0.0, 6.0]])
    assert full.placed(middle)[0, 2] == pytest.approx(8, abs=0.3) and sat.placed(middle)[0, 2] < full.placed(middle)[0, 2] - 1
    assert plain.distance(np.zeros((1, 3)))[0] < -5 and plain.distance(np.array([[0, 0, 9.0]]))[0] == pytest.approx(3, abs=0.3)


def test_piping_follows_the_edges() -> None:
    part = Padded((40.0, 30.0, 12.0), (1, 2, 3), 3.0, piped=2)
    upper, lower = sorted(part.pipings(), key=lambda line: -line[:, 2].mean())
    for line in (upper, lower):
        assert np.allclose(line[0], line[-1])
        assert np.abs(part.distance(line)).max() < 0.35
