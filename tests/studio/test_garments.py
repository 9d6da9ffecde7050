"""Outlines and maps of sewn garments: valid shapes, layer order, and panels that continue where they overlap."""

import numpy as np
import pytest
from shapely import LineString, Point, Polygon

from improva.catalogue import template
from studio.draped import garden_flag
from studio.flatlay import Lay, Layer
from studio.scenes import all_over, flags, garments
from studio.scenes.hood import lying_points

IN_MM = 25.4
EVERY = [(garments.hoodie, back) for back in (False, True)]


def named(layers: list[Layer]) -> dict[str, Polygon]:
    return {layer.name.split("@")[-1]: Polygon(layer.outline).buffer(0) for layer in layers}  # points met twice are joined


@pytest.mark.parametrize(("make", "back"), EVERY)
def test_outlines_are_simple_shapes_of_a_persons_size(make: object, back: bool) -> None:
    for name, shape in named(make(back)).items():  # type: ignore[operator]
        assert shape.geom_type == "Polygon" and shape.is_valid and shape.area > 500, name
    body = named(make(back))["body"]  # type: ignore[operator]
    left, top, right, foot = body.bounds
    assert 480 < right - left < 640 and 600 < foot - top < 760


@pytest.mark.parametrize(("make", "back"), EVERY)
def test_a_garment_is_symmetric(make: object, back: bool) -> None:
    found = named(make(back))  # type: ignore[operator]
    right, left = found["sleeve-r"], found["sleeve-l"]
    assert right.area == pytest.approx(left.area, rel=1e-6) and right.centroid.x == pytest.approx(-left.centroid.x, abs=1e-6)
    body = np.array(found["body"].exterior.coords) * [-1, 1]
    assert Polygon(body).symmetric_difference(found["body"]).area < 1


@pytest.mark.parametrize(("make", "back"), EVERY)
def test_sleeves_reach_under_the_body_without_a_gap(make: object, back: bool) -> None:
    layers = make(back)  # type: ignore[operator]
    order = [layer.name.split("@")[-1] for layer in layers]
    found = named(layers)
    assert order.index("sleeve-r") < order.index("body") and found["sleeve-r"].intersection(found["body"]).area > 400
    assert found["body"].union(found["sleeve-r"]).union(found["sleeve-l"]).geom_type == "Polygon"


def test_the_print_lies_on_the_body_at_its_true_size() -> None:
    for scene in garments.SCENES:
        print_ = next(r for r in scene.regions if "panel" in r)
        panel = template("hoodie").panel(print_["panel"])
        x, y, w, h = print_["box_mm"]
        assert (w, h) == pytest.approx(panel.trim_mm, rel=1e-6)
        body = named(garments.hoodie(print_["panel"] == "back"))["body"]
        corners = [(x - garments.CANVAS[0] / 2 + dx * w, y + garments.TOP + dy * h) for dx in (0, 1) for dy in (0, 1)]
        assert body.buffer(2).contains(Polygon([corners[0], corners[1], corners[3], corners[2]]))


def test_the_all_over_hoodie_is_cut_from_its_template() -> None:
    """Lying flat, its front is as large as the panel, less the seam allowance."""
    panel = template("hoodie-all-over").panel("front")
    front = next(layer for layer in all_over.layers(False) if layer.name == "front")
    assert Polygon(front.outline).area == pytest.approx(Polygon(panel.outline_mm).area * all_over.SCALE**2, rel=1e-6)


def test_the_pocket_shows_the_front_where_it_lies_on_it() -> None:
    """A point on the pocket and the point of the front beneath it differ by the pocket's place in the template, nothing else."""
    layers = {layer.name: layer for layer in all_over.layers(False)}
    pocket, front = layers["pocket"], layers["front"]
    assert pocket.uv and front.uv
    shape = Polygon(pocket.outline)
    x0, y0, x1, y1 = shape.buffer(-6).bounds
    at = np.stack(np.meshgrid(np.linspace(x0, x1, 12), np.linspace(y0, y1, 9)), -1)
    panels = {name: np.array(template("hoodie-all-over").panel(name).trim_mm) for name in ("front", "pocket")}
    away = front.uv(at) * panels["front"] - pocket.uv(at) * panels["pocket"]
    assert np.allclose(away, all_over.POCKET, atol=0.15)  # in mm
    keep_out = template("hoodie-all-over").panel("front").keep_out[0].box
    assert keep_out[:2] == all_over.POCKET and keep_out[2:] == tuple(panels["pocket"])


def test_sleeve_prints_keep_their_size_and_mirror_each_other() -> None:
    """Two points 50 mm apart on the canvas are 50 mm apart on the sleeve's panel; the other sleeve shows them mirrored."""
    layers = {layer.name: layer for layer in all_over.layers(False)}
    trim = np.array(template("hoodie-all-over").panel("sleeve-left").trim_mm)
    left, right = layers["sleeve-left"], layers["sleeve-right"]
    assert left.uv and right.uv
    side = np.sign(left.outline[:, 0].mean())
    at = np.array([[300.0, 300.0], [330.0, 340.0]]) * [side, 1]
    ends = left.uv(at) * trim
    assert np.linalg.norm(ends[1] - ends[0]) == pytest.approx(50 / all_over.SCALE)
    mirrored = right.uv(at * [-1, 1]) * trim
    assert np.allclose(mirrored[:, 1], ends[:, 1]) and np.allclose(mirrored[:, 0], trim[0] - ends[:, 0])


def test_a_pattern_has_the_same_scale_on_hood_and_body() -> None:
    """The flat ring cannot be exact everywhere: half of it is within 3 %, nine tenths of it within a seventh."""
    place, step = all_over._hood(1, False), 0.01
    at = lying_points(all_over._hood_outline(), all_over._hood_rim()[0])
    across = [(place(at + move) - place(at - move)) / (2 * step) for move in ([step, 0], [0, step])]
    larger = 1 / np.abs(np.linalg.det(np.stack(across, -1)) * all_over.SCALE**2)
    assert np.median(larger) == pytest.approx(1, abs=0.03)
    assert np.quantile(larger, 0.05) > 6 / 7 and np.quantile(larger, 0.95) < 8 / 7
    assert place(at)[:, 0].min() > -1, "the panel ends at its opening"


def test_the_halves_of_the_hood_meet_where_they_are_sewn() -> None:
    """Along the middle, the left half shows its seam at the canvas's distance from the opening; the right half shows the
    mirror image.
    """
    up = np.linspace(-118, -200, 30)
    at = np.stack([0 * up, up], -1)
    left, right = all_over._hood(1, False)(at), all_over._hood(-1, False)(at)
    assert np.allclose(left, right * [-1, 1] + [290, 0])
    edge = LineString(np.array(template("hoodie-all-over").panel("hood-left").outline_mm))
    assert max(edge.distance(Point(point)) for point in left) < 2.5  # mm
    assert np.linalg.norm(np.diff(left, axis=0), axis=1).sum() == pytest.approx(82 / all_over.SCALE, rel=0.08)


def test_the_fold_of_a_sleeve_is_its_centre_line() -> None:
    place = all_over._sleeve(1, -1.0)
    for share in (0.1, 0.5, 0.9):
        point = all_over.SHOULDER + share * (all_over.CUFF - all_over.SHOULDER)
        assert place(point[None])[0, 0] == pytest.approx(230)


def test_layers_of_a_garment_lie_over_one_another() -> None:
    lay = Lay(garments.CANVAS, garments.TOP, 5)
    heights = []
    for layer in garments.hoodie(False):
        lay.lay(layer)
        heights.append(lay.z.max())
    assert heights == sorted(heights) and 8 < heights[-1] < 90  # mm: cloth, not cushions


def test_the_flag_hangs_from_its_sleeve_and_keeps_its_size() -> None:
    u, v = np.meshgrid(np.linspace(0, 1, 120), np.linspace(0, 1, 160))
    at = flags.cloth_at(u, v)
    assert np.allclose(at[0, :, 2], flags.BAR_Z + garden_flag.SLEEVE, atol=0.01) and np.abs(at[0, :, 1]).max() < 0.01
    along = np.linalg.norm(np.diff(at, axis=0), axis=-1).sum(axis=0).mean()
    across = np.linalg.norm(np.diff(at, axis=1), axis=-1).sum(axis=1)
    assert along == pytest.approx(18 * 2.54, rel=0.06) and across.max() < 12.5 * 2.54 * 1.25
    assert np.abs(at[-1, :, 1]).max() > 1  # it waves at its foot
