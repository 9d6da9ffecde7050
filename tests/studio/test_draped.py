"""Arrangements of cloth: what each one must have, whatever it looks like."""

import numpy as np
import pytest

from studio.cloth.crossings import crossings
from studio.cloth.obstacles import Obstacle, box
from studio.draped import garden_flag, pillow
from studio.scenes import flags


def test_a_cover_is_sewn_on_all_sides() -> None:
    cloth = pillow.cover(40.0)
    assert cloth.volume() > 500  # both halves look outwards
    assert len(cloth.at) < 2 * len(np.unique(cloth.triangles[cloth.panel == 0]))
    front = cloth.at[np.unique(cloth.triangles[cloth.panel == 0])]
    back = cloth.at[np.unique(cloth.triangles[cloth.panel == 1])]
    assert front[:, 1].max() == pytest.approx(0, abs=1e-9) and back[:, 1].min() == pytest.approx(0, abs=1e-9)


def test_a_pillow_is_filled_draws_in_its_sides_and_lies_on_the_floor(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(pillow, "SPACING", 2.5)
    floor = Obstacle.of(box((0, 0, -4), (120, 120, 8)), (-32, -32, -5), (32, 32, 3), 1.0, 0.5)
    flat = np.array([[1.0, 0, 0], [0, 0, 1], [0, -1, 0]])  # its front looks up
    surface = pillow.put_down(40.0, flat, np.array([0.0, 0.0, 10.0]), [floor])
    u, v = np.meshgrid(np.linspace(0, 40, 41), np.linspace(0, 40, 41))
    front, back = (surface.over(name, np.stack([u, v], -1)) for name in ("front", "back"))
    assert 8 < front[..., 2].max() < 18 and -0.2 < back[..., 2].min() < 0.5
    corner, side = abs(front[0, 0, 0] - front[0, -1, 0]), abs(front[20, 0, 0] - front[20, -1, 0])
    assert side < corner - 0.5 < 40  # its corners stand out
    assert np.abs(front[:, -1] - back[:, 0]).max() < 0.15  # the halves meet at the seam; between points their slopes differ


def test_a_flag_hangs_over_the_front_of_its_sleeve() -> None:
    cloth = garden_flag.hung(20.0, 30.0, 88.0)
    held = np.isinf(cloth.mass)
    assert cloth.at[held, 2].max() == pytest.approx(88.0 + garden_flag.SLEEVE)
    assert np.isfinite(cloth.mass[~held]).all() and cloth.at[:, 2].min() == pytest.approx(
        88.0 - (30.0 - garden_flag.SLEEVE * np.pi / 2)
    )
    assert len(crossings(cloth.at, cloth.triangles, cloth.edges)) == 0


def test_the_flag_hangs_from_its_sleeve_and_keeps_its_size() -> None:
    u, v = np.meshgrid(np.linspace(0, 1, 120), np.linspace(0, 1, 160))
    at = flags.cloth_at(u, v)
    assert np.allclose(at[0, :, 2], flags.BAR_Z + garden_flag.SLEEVE, atol=0.01) and np.abs(at[0, :, 1]).max() < 0.01
    along = np.linalg.norm(np.diff(at, axis=0), axis=-1).sum(axis=0).mean()
    across = np.linalg.norm(np.diff(at, axis=1), axis=-1).sum(axis=1)
    assert along == pytest.approx(18 * 2.54, rel=0.06) and across.max() < 12.5 * 2.54 * 1.25
    assert np.abs(at[-1, :, 1]).max() > 1  # it waves at its foot
