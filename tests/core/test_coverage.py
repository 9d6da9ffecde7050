"""How much of each pixel a shape covers, compared with Shapely's areas."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import MultiPolygon, Point, Polygon, box

from improva.core.pieces import Band
from improva.core.render.coverage import coverage
from improva.core.template import Panel

PANEL = Panel("p", "P", (30.0, 20.0), bleed_mm=2.0)
PX = (68, 48)
PLACE = st.floats(-3, 33)


def exact(shape: object, region: tuple[int, int, int, int]) -> np.ndarray:
    """Return the share of every pixel's area inside a shape, by Shapely: (h, w), 0…255."""
    left, top, w, h = region
    found = np.zeros((h, w))
    for j in range(h):
        for i in range(w):
            x, y = ((left + i) / 2 - 2, (top + j) / 2 - 2)
            found[j, i] = shape.intersection(box(x, y, x + 0.5, y + 0.5)).area / 0.25 * 255  # type: ignore[attr-defined]
    return found


@settings(max_examples=15)
@given(
    st.lists(PLACE, min_size=2, max_size=2, unique=True).map(sorted),
    st.lists(PLACE, min_size=2, max_size=2, unique=True).map(sorted),
)
def test_a_box_covers_pixels_by_their_area(x: list[float], y: list[float]) -> None:
    shape, region = box(x[0], y[0], x[1], y[1]), (3, 5, 30, 20)
    ours = coverage(shape, region, PANEL, PX).numpy().reshape(20, 30)
    assert np.abs(ours - exact(shape, region)).max() <= 0.51


def test_rings_and_several_boxes_are_exact_too() -> None:
    ring = box(-2, -2, 32, 22).difference(box(3.2, 4.1, 26.7, 15.3))
    several = MultiPolygon([box(0, 0, 5.3, 4.4), box(8.2, 1.1, 20.9, 9.9)])
    for shape in (ring, several):
        ours = coverage(shape, (0, 0, *PX), PANEL, PX).numpy().reshape(*PX[::-1])
        assert np.abs(ours - exact(shape, (0, 0, *PX))).max() <= 0.51


def test_other_shapes_are_covered_to_a_tolerance() -> None:
    disc = Point(15, 10).buffer(7)
    ours = coverage(disc, (0, 0, *PX), PANEL, PX).numpy().reshape(*PX[::-1])
    assert np.abs(ours - exact(disc, (0, 0, *PX))).max() <= 12  # librsvg's own edges
    assert not coverage(Polygon(), (0, 0, *PX), PANEL, PX).numpy().any()


@pytest.mark.parametrize("sides", ["all", "level", "ends"])
def test_a_border_gives_the_area_that_it_leaves_free(sides: str) -> None:
    band = Band(sides, 4, "#102030", None, 25, 0.5, 1)  # type: ignore[arg-type]
    hollow = band.hollow(PANEL)
    assert hollow is not None
    x, y, w, h = hollow
    free = box(x, y, x + w, y + h)
    assert free.intersection(band.shape(PANEL)).area < 1e-9 and free.intersection(band.line(PANEL)).area < 1e-9
    assert free.area > 0.25 * 30 * 20
    cut = Panel("c", "C", (30.0, 20.0), shape="outline", outline_mm=((0, 10), (15, 0), (30, 10), (15, 20)))
    assert band.hollow(cut) is None or sides != "all"
