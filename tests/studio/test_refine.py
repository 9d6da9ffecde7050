"""Loop subdivision: what is flat stays as it is, what is round gets rounder, and panels keep their own borders."""

import numpy as np
import pytest

from studio.cloth.material import JERSEY
from studio.cloth.mesh import finer, sew
from studio.cloth.panels import rectangle
from studio.cloth.refine import loop
from studio.cloth.surface import Surface, normals


def test_an_affine_map_of_a_flat_mesh_stays_affine() -> None:
    """Where places on the flat and in space follow the same rule, a print does not waver."""
    panel = rectangle("sheet", 12.0, 9.0, 1.0, seed=3)
    matrix, triangles = loop(panel.triangles, len(panel.flat))
    assert np.asarray(matrix.sum(axis=1)).ravel() == pytest.approx(1)
    flat = matrix @ panel.flat
    tilted = panel.flat @ np.array([[0.8, 0.1, 0.3], [-0.2, 0.9, 0.1]])
    assert matrix @ tilted == pytest.approx(flat @ np.array([[0.8, 0.1, 0.3], [-0.2, 0.9, 0.1]]))
    assert len(triangles) == 4 * len(panel.triangles)


def test_an_octahedron_becomes_round() -> None:
    at = np.array([[1.0, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]])
    triangles = np.array([[0, 2, 4], [2, 1, 4], [1, 3, 4], [3, 0, 4], [2, 0, 5], [1, 2, 5], [3, 1, 5], [0, 3, 5]])
    for _ in range(4):
        matrix, triangles = loop(triangles, len(at))
        at = matrix @ at
    away = np.linalg.norm(at, axis=1)
    assert away.max() / away.min() < 1.25
    assert np.einsum("ij,ij->i", normals(at, triangles), at / away[:, None]).min() > 0.94


def test_panels_meet_at_their_seam_and_keep_their_places_on_the_flat() -> None:
    left, right = rectangle("left", 6.0, 8.0, 1.0, seed=1), rectangle("right", 6.0, 8.0, 1.0, seed=2)
    places = {"left": np.column_stack([left.flat[:, 0], 0 * left.flat[:, 0], left.flat[:, 1]])}
    places["right"] = np.column_stack([right.flat[:, 0] + 6, 0 * right.flat[:, 0], right.flat[:, 1]])
    cloth = finer(sew([left, right], places, [(("left", "right"), ("right", "left"))], JERSEY))
    assert cloth.stretch() == pytest.approx(1)
    pieces = Surface.of(cloth).smoothed(1)
    one, other = (pieces[name].at[np.isclose(pieces[name].flat[:, 0], x)] for name, x in (("left", 6.0), ("right", 0.0)))
    one, other = one[np.argsort(one[:, 2])], other[np.argsort(other[:, 2])]
    assert len(one) > 20 and one == pytest.approx(other)
    for name, shift in (("left", 0.0), ("right", 6.0)):
        inside = (pieces[name].at[:, 2] > 1.5) & (pieces[name].at[:, 2] < 6.5) & (np.abs(pieces[name].flat[:, 0] - 3) < 1.5)
        assert pieces[name].at[inside, 0] == pytest.approx(pieces[name].flat[inside, 0] + shift, abs=0.06)


def test_a_side_that_is_sewn_to_itself_has_two_places_on_the_flat() -> None:
    sheet = rectangle("tube", 12.0, 6.0, 1.0, seed=4)
    turn = sheet.flat[:, 0] / 12 * 2 * np.pi
    at = {"tube": np.column_stack([1.9 * np.cos(turn), 1.9 * np.sin(turn), sheet.flat[:, 1]])}
    surface = Surface.of(sew([sheet], at, [(("tube", "left"), ("tube", "right"))], JERSEY))
    flat, triangles = surface.panels["tube"][0], surface.triangles["tube"]
    sides = flat[triangles] - flat[np.roll(triangles, 1, axis=1)]
    assert np.linalg.norm(sides, axis=2).max() < 2.5  # no triangle runs across the sheet
    assert len(surface.rims()) > 20 and set(np.round(surface.rims()[:, 2], 3)) <= {0.0, 6.0}
