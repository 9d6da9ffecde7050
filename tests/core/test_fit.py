import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.core.design import ArtSize, Placement
from improva.core.errors import PlacementError
from improva.core.fit import place, turned_extent
from improva.core.template import Panel

sides = st.integers(16, 12_000)
lengths = st.floats(5, 2000)
panels = st.builds(
    lambda w, h, bleed, safe: Panel("p", "P", (w, h), bleed, safe * min(w, h)),
    lengths,
    lengths,
    st.floats(0, 40),
    st.floats(0, 0.4),
)
arts = st.builds(lambda w, h: ArtSize((w, h), (w / 300 * 25.4, h / 300 * 25.4)), sides, sides)
WRAP = Panel("wrap", "Wrap", (236.22, 208.28), closes=True)


@given(panels, arts, st.floats(-720, 720), st.floats(1, 20))
def test_cover_never_leaves_an_edge_bare(panel: Panel, art: ArtSize, turn: float, scale: float) -> None:
    assert place(panel, art, Placement("cover", rotate_deg=turn, scale=scale)).covers(panel.file_box)


@given(panels, arts, st.floats(-720, 720))
def test_cover_is_the_smallest_that_covers(panel: Panel, art: ArtSize, turn: float) -> None:
    assert not place(panel, art, Placement("cover", rotate_deg=turn, scale=0.99)).covers(panel.file_box)


@given(panels, arts, st.floats(-720, 720))
def test_contain_shows_the_whole_picture_and_touches_the_edge(panel: Panel, art: ArtSize, turn: float) -> None:
    xs, ys = zip(*place(panel, art, Placement("contain", rotate_deg=turn)).corners(), strict=True)
    w, h = panel.trim_mm
    assert min(xs) >= -1e-6 and max(xs) <= w + 1e-6 and min(ys) >= -1e-6 and max(ys) <= h + 1e-6
    assert math.isclose(max(xs) - min(xs), w, rel_tol=1e-6) or math.isclose(max(ys) - min(ys), h, rel_tol=1e-6)


@given(panels, arts, st.sampled_from(["cover", "contain", "actual"]), st.floats(-180, 180), st.floats(0.05, 20))
def test_only_stretch_changes_proportions(panel: Panel, art: ArtSize, fit: str, turn: float, scale: float) -> None:
    across, down = place(panel, art, Placement(fit, rotate_deg=turn, scale=scale)).dpi  # type: ignore[arg-type]
    assert math.isclose(across, down, rel_tol=1e-9)


@given(arts, st.floats(-180, 180), st.floats(-80, 80), st.floats(-80, 80), st.floats(0.1, 5))
def test_every_corner_survives_the_round_trip(art: ArtSize, turn: float, x: float, y: float, scale: float) -> None:
    placed = place(WRAP, art, Placement("contain", (x, y), scale, turn))
    found = [placed.to_art(*corner) for corner in placed.corners()]
    for (u, v), expected in zip(found, [(0, 0), (1, 0), (1, 1), (0, 1)], strict=True):
        assert (u, v) == pytest.approx(expected, abs=1e-6)


def test_known_points_land_at_known_places_on_the_wrap() -> None:
    square = ArtSize((3000, 3000), (254, 254))
    assert place(WRAP, square, Placement("cover")).box == pytest.approx((0, -13.97, 236.22, 236.22))
    assert place(WRAP, square, Placement("contain")).box == pytest.approx((13.97, 0, 208.28, 208.28))
    assert place(WRAP, square, Placement("actual", (10, -5))).box == pytest.approx((1.11, -27.86, 254, 254))
    assert place(WRAP, square, Placement("stretch")).box == pytest.approx((0, 0, 236.22, 208.28))
    assert place(WRAP, square, Placement("contain", scale=0.5)).dpi == pytest.approx((3000 / 4.1, 3000 / 4.1))


def test_more_pixels_never_lower_the_resolution() -> None:
    dpi = [min(place(WRAP, ArtSize((n, n), (n, n)), Placement("cover")).dpi) for n in range(100, 4000, 100)]
    assert dpi == sorted(dpi)


def test_a_quarter_turn_swaps_width_and_height() -> None:
    assert turned_extent(30, 10, 90) == pytest.approx((10, 30))
    assert turned_extent(30, 10, 180) == pytest.approx((30, 10))
    assert turned_extent(10, 10, 45) == pytest.approx((10 * math.sqrt(2),) * 2)


@pytest.mark.parametrize(
    "wrong",
    [
        {"fit": "fill"},
        {"scale": 0},
        {"scale": float("nan")},
        {"scale": 1e9},
        {"shift_mm": (1e9, 0)},
        {"shift_mm": (0, float("inf"))},
        {"rotate_deg": float("inf")},
        {"background": "sky"},
    ],
)
def test_impossible_placements_are_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(PlacementError):
        Placement(**wrong)


def test_a_picture_without_pixels_is_refused() -> None:
    with pytest.raises(PlacementError, match="no pixels"):
        place(WRAP, ArtSize((0, 10), (1, 1)), Placement())
