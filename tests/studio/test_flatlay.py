"""Garments lying flat: outlines by their true distances, layers that rest on one another, holes, halves and maps."""

import numpy as np
import pytest
from shapely import Point, Polygon

from studio.flatlay import CELL, Crease, Lay, Layer, arch, both, curve, joined, mirrored

SQUARE = np.array([(-60.0, 20.0), (60.0, 20.0), (60.0, 140.0), (-60.0, 140.0)])


def lay() -> Lay:
    return Lay((300.0, 260.0), -20.0, seed=3)


def area(vertex: np.ndarray, faces: np.ndarray) -> float:
    """Return the area of a mesh seen from above, in mm²."""
    a, b, c = (vertex[faces[:, i], :2].astype(float) * 10 for i in range(3))
    return float(np.abs((b - a)[:, 0] * (c - a)[:, 1] - (b - a)[:, 1] * (c - a)[:, 0]).sum() / 2)


def test_distances_to_an_outline_match_shapely() -> None:
    outline = joined(curve((0, 10), (70, 40), (90, 120)), [(20, 200)], [(-60, 150)])
    canvas = lay()
    found, shape = canvas.inside(outline), Polygon(outline)
    rng = np.random.default_rng(1)
    for row, column in rng.integers((5, 5), (canvas.z.shape[0] - 5, canvas.z.shape[1] - 5), (60, 2)):
        point = Point(canvas.x[row, column], canvas.y[row, column])
        away = shape.exterior.distance(point) * (1 if shape.contains(point) else -1)
        assert found[row, column] == pytest.approx(away, abs=0.8 * CELL, rel=0.02)


def test_distances_to_a_line_match_shapely() -> None:
    canvas = lay()
    found = canvas.line(np.array([(-50.0, 30.0), (80.0, 160.0)]))
    assert found[canvas.y.shape[0] // 2].min() < CELL
    row, column = 70, 130
    x, y = canvas.x[row, column], canvas.y[row, column]
    assert found[row, column] == pytest.approx(abs((x + 50) - (y - 30)) / np.sqrt(2), abs=1.2)


def test_a_layer_covers_its_outline_and_no_more() -> None:
    vertex, faces = lay().lay(Layer("cloth", SQUARE))
    assert area(vertex, faces) == pytest.approx(120 * 120, rel=0.01)
    x, y = vertex[np.unique(faces), 0] * 10, -vertex[np.unique(faces), 1] * 10
    assert x.min() == pytest.approx(-60, abs=0.4) and x.max() == pytest.approx(60, abs=0.4)
    assert y.min() == pytest.approx(20, abs=0.4) and y.max() == pytest.approx(140, abs=0.4)


def test_the_edge_of_a_layer_touches_the_table_and_its_middle_rises() -> None:
    vertex, faces = lay().lay(Layer("cloth", SQUARE, puff=6, soft=20, folds=0))
    used = vertex[np.unique(faces)]
    rim = np.abs(used[:, 0] * 10) > 59.9
    assert used[rim, 2].max() < 0.05 and used[:, 2].max() * 10 == pytest.approx(1.6 + 6, abs=0.6)


def test_an_upper_layer_rests_on_the_lower() -> None:
    canvas = lay()
    canvas.lay(Layer("lower", SQUARE, folds=0))
    before = canvas.z.copy()
    upper = SQUARE * 0.5 + np.array([10.0, 40.0])
    canvas.lay(Layer("upper", upper, folds=0))
    inside = canvas.inside(upper) > 8
    assert (canvas.z[inside] > before[inside] + 1.0).all() and np.array_equal(
        canvas.z[canvas.inside(upper) < -1], before[canvas.inside(upper) < -1]
    )


def test_a_hole_is_open_and_its_rim_is_raised() -> None:
    hole = SQUARE * 0.4 + np.array([0.0, 48.0])
    vertex, faces = lay().lay(Layer("hood", SQUARE, puff=20, soft=20, folds=0, hole=hole))
    assert area(vertex, faces) == pytest.approx(120 * 120 * (1 - 0.16), rel=0.015)
    middle = vertex[faces].mean(axis=1)[:, :2] * [10, -10]
    opening = Polygon(hole).buffer(-1.0)
    assert not any(opening.contains(Point(p)) for p in middle[:: max(1, len(middle) // 400)])
    near = np.abs(np.array([Polygon(hole).exterior.distance(Point(p)) for p in vertex[:, :2] * [10, -10]]) - 5) < 1
    inner = near & (np.abs(vertex[:, 0] * 10) < 40)
    assert vertex[inner, 2].max() * 10 > 12  # not rolled down to the table, as its outer edge is


def test_half_of_a_layer_is_kept_on_its_own_side() -> None:
    for keep in (1.0, -1.0):
        vertex, faces = lay().lay(Layer("hood", SQUARE, keep=keep))
        assert (vertex[faces, 0].mean(axis=1) * keep >= 0).all()
        assert area(vertex, faces) == pytest.approx(120 * 60, rel=0.02)


def test_a_crease_has_its_given_height_and_length() -> None:
    canvas = lay()
    found = canvas._crease(Crease((-40.0, 80.0), (40.0, 80.0), 8, 3.0))
    assert found.max() == pytest.approx(3.0, rel=0.1) and found.min() < -0.5  # a valley beside the ridge
    assert np.abs(found[:, np.abs(canvas.x[0]) > 75]).max() < 0.05


def test_uv_on_the_cloth_is_that_of_the_canvas_or_its_own() -> None:
    vertex, _ = lay().lay(Layer("cloth", SQUARE))
    assert np.allclose(vertex[:, 6], (vertex[:, 0] * 10 + 150) / 300, atol=1e-4)
    assert np.allclose(vertex[:, 7], (-vertex[:, 1] * 10 + 20) / 260, atol=1e-4)
    own, _ = lay().lay(Layer("panel", SQUARE, uv=lambda at: (at - SQUARE[0]) / 120))
    inner = (own[:, 6] > 0.1) & (own[:, 6] < 0.9)
    assert np.allclose(own[inner, 6], (own[inner, 0] * 10 + 60) / 120, atol=1e-4)


def test_outlines_are_joined() -> None:
    right = arch((0, -10), (30, 0), (40, 30))
    assert np.allclose(right[0], (0, -10)) and np.allclose(right[-1], (40, 30), atol=1e-6)
    slope = (right[1] - right[0])[1] / (right[1] - right[0])[0]
    assert abs(slope) < 0.1  # smooth across the middle: no notch in a hood
    assert np.allclose(mirrored(right)[0], (-40, 30), atol=1e-6)
    whole = Polygon(both(joined(right, [(0, 60)])))
    assert whole.is_valid and whole.centroid.x == pytest.approx(0, abs=1e-6)
