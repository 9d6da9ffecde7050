"""Furnished rooms: floors at their scale, plants, crockery, and where things stand."""

from pathlib import Path

import numpy as np
import pytest

from improva.surfaces import SURFACES
from studio import bodies, crockery, places, things
from studio.scenes import SCENES
from studio.stage import Stage

WHITE = 0.95
"""No material reflects more."""


@pytest.fixture
def stage(tmp_path: Path) -> Stage:
    return Stage((64, 48), {}, tmp_path)


def test_a_leaf_is_pointed_at_both_ends_droops_and_is_folded_along_its_middle() -> None:
    grid = things.leaf(20.0, 8.0, 0.3, 0.2)
    width = np.ptp(grid[..., 1], axis=1)
    assert width[0] < 0.2 and width[-1] < 0.2 and 6 < width.max() < 8.5
    assert grid[-1, 4, 2] == pytest.approx(-0.3 * 20, abs=0.5)
    assert (grid[5:15, 0, 2] > grid[5:15, 4, 2]).all() and (grid[5:15, -1, 2] > grid[5:15, 4, 2]).all()


def test_a_plant_stands_in_its_pot_and_is_the_same_again(stage: Stage) -> None:
    things.plant(stage, (10, 20, 0), 100, 30, seed=4)
    names = set(stage.parts) - {"type"}
    assert {"plant@pot", "plant@soil", "plant@leaves", "plant@stem0"} <= names
    first = (stage.folder / "plantleaves.ply").read_bytes()
    things.plant(stage, (10, 20, 0), 100, 30, seed=4)
    assert (stage.folder / "plantleaves.ply").read_bytes() == first


@pytest.mark.parametrize("fixed", [None, ("oak", (0.5, 0.5, 0.5))])
def test_a_rooms_floor_has_its_true_scale(stage: Stage, fixed: tuple[str, tuple[float, float, float]] | None) -> None:
    """Boards repeat after the surface's own size, whether the floor can be chosen or not."""
    places.daylight_room(stage, 100.0, fixed)
    floor = stage.parts["table"]["bsdf"]["bsdf"]["base_color"]
    if fixed is None:
        assert floor == {"type": "rgb", "value": [0.0, 0.0, 0.0]}  # black until it is its turn
        assert places.room_grounds("oak", "Sand")[0]["size_mm"] == [10 * side for side in places.FLOOR]
    else:
        times = np.array(floor["to_uv"].matrix)[:2, :2].diagonal()
        assert times == pytest.approx(np.array(places.FLOOR) * 10 / SURFACES["oak"].size_mm, rel=1e-5)


def test_foam_is_brown_with_a_pale_swirl_and_ends_at_the_rim() -> None:
    colour, height = crockery.foam()
    assert colour.shape[:2] == height.shape and colour.min() > 0 and colour.max() < WHITE
    assert (colour[..., 0] > colour[..., 2]).all()  # nowhere bluer than red
    middle = colour[200:560, 200:560].mean(axis=2)
    assert middle.max() > 2.5 * np.median(middle)


@pytest.mark.parametrize("mug", [bodies.MUG_11, bodies.MUG_15])
def test_coffee_fills_a_mug_to_its_wall_and_not_over_its_rim(stage: Stage, mug: bodies.Mug) -> None:
    level, r = mug.height - 1.2, mug.r - bodies.WALL_CM
    crockery.coffee(stage, (0, 0, level), r)
    at = _vertices(stage.folder / "coffee.ply")
    assert np.hypot(at[:, 0], at[:, 1]).max() == pytest.approx(r + 0.02, abs=0.01)
    assert level - 0.01 <= at[:, 2].min() and at[:, 2].max() < mug.height - 0.4


def test_a_notebook_has_boards_that_stand_over_its_pages(stage: Stage) -> None:
    crockery.notebook(stage, (0, 0, 0), 10)
    assert {f"notebook@{part}" for part in ("below", "above", "pages", "spine", "band")} <= set(stage.parts)


PROPS = {
    "table",
    "wall",
    "slab",
    "skirting",
    "chair",
    "bed",
    "mattress",
    "duvet",
    "cushion",
    "plant",
    "stand",
    "notebook",
    "jug",
    "coffee",
    "book",
}
"""Every kind of shape that furnishes a scene."""


@pytest.mark.parametrize("name", ["blanket-upright-armchair", "mug-11oz-desk", "pen-notebook"])
def test_what_stands_around_a_product_is_named_as_its_surroundings(name: str, stage: Stage) -> None:
    """Shapes that belong to no product are left standing when its shadow is measured."""
    SCENES[name].build(stage)
    shapes_ = {each.split("@")[0] for each, part in stage.parts.items() if isinstance(part, dict) and part["type"] == "ply"}
    assert shapes_ & PROPS == shapes_ & set(SCENES[name].surroundings)


def _vertices(file: Path) -> np.ndarray:
    """Read the points (n, 3) of a PLY file as ``shapes.write_ply`` writes it."""
    data = file.read_bytes()
    head = data.index(b"end_header\n") + len(b"end_header\n")
    count = int(data[:head].split(b"element vertex ")[1].split()[0])
    return np.frombuffer(data[head : head + count * 32], "<f4").reshape(-1, 8)[:, :3]


def test_a_bench_and_a_table_stand_on_the_floor_at_their_height(stage: Stage) -> None:
    things.bench(stage, 43.0)
    things.side_table(stage, (80, 0, 0), 48.0)
    for name, high in (("board0", 43.0), ("stand@top", 48.0)):
        assert _vertices(stage.folder / f"{name}.ply")[:, 2].max() == pytest.approx(high, abs=0.01), name
    assert _vertices(stage.folder / "benchleg0.ply")[:, 2].min() == pytest.approx(0, abs=0.01)
