"""Cut-out borders against Shapely's buffer and Steiner's formula; thin necks against shapes of known width."""

import math
from collections.abc import Sequence
from typing import Any

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from improva.core.errors import StepError
from improva.core.preparation.border import border, find_necks
from improva.core.preparation.picture import Picture

PX_MM = 10.0


def cutout(*polygons: Sequence[tuple[float, float]], size: int = 400, colour: tuple[int, int, int] = (180, 60, 40)) -> Picture:
    """Draw polygons, in px from the picture's corner, with exact edges."""
    fine = np.zeros((size * 4, size * 4), np.uint8)
    for polygon in polygons:
        cv2.fillPoly(fine, [(np.array(polygon) * 4).round().astype(np.int32)], 255)
    alpha = cv2.resize(fine, (size, size), interpolation=cv2.INTER_AREA)
    return Picture(np.dstack([np.full((size, size, 3), colour, np.uint8), alpha]), PX_MM)


TRIANGLE = [(120, 280), (290, 250), (180, 110)]
SQUARE = [(150, 150), (250, 150), (250, 250), (150, 250)]


def area_of(picture: Picture) -> float:
    return float(picture.alpha.sum() / 255)


@settings(max_examples=12)
@given(st.floats(0.5, 9.5))
def test_area_of_a_convex_shape_s_border_by_steiner(mm: float) -> None:
    """A + P·r + π·r² (J. Steiner 1840)."""
    shape, r = Polygon(TRIANGLE), mm * PX_MM
    expected = shape.area + shape.length * r + math.pi * r**2
    outline = shape.length + 2 * math.pi * r
    assert abs(area_of(border(cutout(TRIANGLE), mm=mm)) - expected) < 0.4 * outline, "off by 0.4 px along the outline"


@pytest.mark.parametrize("mm", [1.0, 4.0])
def test_a_concave_shape_s_border_covers_shapely_s_buffer(mm: float) -> None:
    arrow = [(100, 100), (300, 200), (100, 300), (170, 200)]
    out = border(cutout(arrow), mm=mm)
    grown = out.pixels.shape[0] - 400
    expected = np.zeros(out.pixels.shape[:2], np.uint8)
    outline = np.array(Polygon(arrow).buffer(mm * PX_MM, quad_segs=32).exterior.coords) + grown / 2
    cv2.fillPoly(expected, [((outline - 0.5) * 256).round().astype(np.int32)], 1, shift=8)
    got = out.alpha >= 128
    differ = (got != (expected > 0)).sum()
    assert differ < 0.6 * Polygon(outline).length, "half a pixel along the outline"


def test_the_border_is_white_or_a_colour_or_the_colour_of_the_edge() -> None:
    cases: list[tuple[tuple[int, int, int], dict[str, Any]]]
    cases = [((255, 255, 255), {}), ((18, 52, 86), {"colour": "#123456"}), ((180, 60, 40), {"fill": "edge"})]
    for wanted, values in cases:
        out = border(cutout(SQUARE), mm=3, **values)
        grown = (out.pixels.shape[0] - 400) // 2
        x, y = 200 + grown, 150 - 15 + grown  # 1.5 mm above the square
        assert tuple(out.pixels[y, x]) == (*wanted, 255)
        assert tuple(out.pixels[200 + grown, 200 + grown]) == (180, 60, 40, 255)


def ring() -> Picture:
    picture = cutout([(50, 50), (350, 50), (350, 350), (50, 350)])
    picture.pixels[150:250, 150:250, 3] = 0
    return picture


def test_holes_are_filled_or_kept() -> None:
    middle = {}
    for holes in ("filled", "kept"):
        out = border(ring(), mm=2, holes=holes)
        centre = out.pixels.shape[0] // 2
        middle[holes] = out.pixels[centre, centre, 3], out.pixels[centre - 40, centre, 3]
    assert middle == {"filled": (255, 255), "kept": (0, 255)}, "a kept hole has a border inside it"


def test_the_size_in_print_grows_by_the_border_on_every_side() -> None:
    out = border(cutout(SQUARE), mm=5)
    x, y, w, h = cv2.boundingRect((out.alpha > 127).astype(np.uint8))
    assert (w / PX_MM, h / PX_MM) == pytest.approx((20, 20), abs=0.2)
    assert min(x, y) > 0


def dumbbell(neck_px: int) -> Picture:
    """Two squares of 10 mm joined by a bar."""
    half = neck_px / 2
    return cutout(
        [(50, 150), (150, 150), (150, 250), (50, 250)],
        [(250, 150), (350, 150), (350, 250), (250, 250)],
        [(140, 200 - half), (260, 200 - half), (260, 200 + half), (140, 200 + half)],
    )


def test_a_thin_neck_is_found_with_its_width() -> None:
    (neck,) = find_necks(dumbbell(20), 4)
    assert neck.width_mm == pytest.approx(2, abs=0.15)
    assert neck.at == pytest.approx((0.5, 0.5), abs=0.01)
    assert find_necks(dumbbell(50), 4) == []


def test_an_arm_counts_as_thin_and_a_corner_does_not() -> None:
    arm = cutout(SQUARE, [(245, 194), (345, 194), (345, 206), (245, 206)])
    assert [neck.width_mm for neck in find_necks(arm, 4)] == pytest.approx([1.2], abs=0.15)
    assert find_necks(cutout(TRIANGLE), 4) == []


def test_necks_are_thickened_to_the_limit_on_request() -> None:
    thin = border(dumbbell(12), mm=1)
    assert find_necks(thin, 6)[0].width_mm == pytest.approx(3.2, abs=0.2)
    thick = border(dumbbell(12), mm=1, necks=6)
    assert [neck for neck in find_necks(thick, 6) if neck.width_mm < 5.7] == []
    middle = thick.pixels.shape[1] // 2
    assert (thick.alpha[:, middle] > 127).sum() / PX_MM == pytest.approx(6.1, abs=0.2)


def test_art_without_alpha_gets_a_message_with_the_remedy() -> None:
    with pytest.raises(StepError, match="cut it from its paper first"):
        border(Picture(np.full((50, 50, 4), 255, np.uint8), 10.0))
    with pytest.raises(StepError, match="transparent all over"):
        border(Picture(np.zeros((50, 50, 4), np.uint8), 10.0))
