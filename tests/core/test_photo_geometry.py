"""The camera and a round body: projection and ray casting are inverse; marks at their limits."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from improva.catalogue import template
from improva.core.errors import SceneError
from improva.core.mockup.photo import Dab, Marks, names_of, suggested
from improva.core.mockup.photo.camera import Camera, body_of, on_body, outline_of, rims
from improva.core.mockup.photo.marks import MOST_DABS, goes_round, on_cloth
from improva.core.mockup.photo.masks import front_mask, refined, rough_box

TAPERED = template("tumbler-20oz-tapered")
PANEL = TAPERED.panels[0]
FLAT = template("pillow-square").panels[0]
MARKS = Marks(suggested(FLAT))


def camera(high: float = 200.0, roll: float = 0.0, aside: float = 0.0) -> Camera:
    return Camera(700.0, high, (-0.12, aside, roll), 1600.0, (400.0, 300.0))


@settings(max_examples=60)
@given(
    turn=st.floats(-55, 55),
    share=st.floats(0.02, 0.98),
    high=st.floats(60, 420),
    roll=st.floats(-0.5, 0.5),
    aside=st.floats(-0.1, 0.1),
)
def test_a_ray_through_a_projected_point_hits_that_point(
    turn: float, share: float, high: float, roll: float, aside: float
) -> None:
    body, held = body_of(PANEL), camera(high, roll, aside)
    r = body.foot_r + (body.top_r - body.foot_r) * share
    a = math.radians(turn - 90)
    seen = held.seen(np.array([[r * math.cos(a), r * math.sin(a), share * body.height]]))
    u, v = on_body(PANEL, body, held, held.rays(seen), 0.0)[0]
    assert v == pytest.approx(1 - share, abs=1e-6)
    assert u == pytest.approx(0.5 + turn / 360, abs=1e-6), "a full wrap: a turn is its whole width"


def test_rays_beside_the_body_miss_it() -> None:
    body, held = body_of(PANEL), camera()
    ends = rims(body, held)
    outside = ends + np.array([[-3, 0], [3, 0], [-3, 0], [3, 0]])
    within = ends + np.array([[3, 0], [-3, 0], [3, 0], [-3, 0]])
    assert np.isnan(on_body(PANEL, body, held, held.rays(outside), 0.0)).all()
    assert not np.isnan(on_body(PANEL, body, held, held.rays(within), 0.0)).any()


def test_the_outline_passes_through_the_ends_of_the_rims() -> None:
    body, held = body_of(PANEL), camera()
    ring, ends = np.array(outline_of(body, held)), rims(body, held)
    for end in ends:
        assert np.hypot(*(ring - end).T).min() < 1e-6
    area = 0.5 * abs(np.sum(ring[:, 0] * np.roll(ring[:, 1], -1) - ring[:, 1] * np.roll(ring[:, 0], -1)))
    assert 0.5 * np.ptp(ring[:, 0]) * np.ptp(ring[:, 1]) < area < np.ptp(ring[:, 0]) * np.ptp(ring[:, 1])


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"size_mm": (0.2, 100.0)}, "between 1 mm and 10 m"),
        ({"plain": (9.0, 0.5)}, "far outside"),
        ({"plain": (float("nan"), 0.5)}, "far outside"),
        ({"product": tuple(Dab((0.5, 0.5), 0.1, True) for _ in range(MOST_DABS + 1))}, "start the mask anew"),
    ],
)
def test_marks_beyond_their_limits_are_refused(change: dict[str, Any], says: str) -> None:
    MARKS.check(FLAT)
    with pytest.raises(SceneError, match=says):
        replace(MARKS, **change).check(FLAT)


def test_round_blanks_and_cloth_blanks_are_recognised() -> None:
    assert goes_round(PANEL) and not goes_round(FLAT) and len(names_of(PANEL)) == 6 and len(names_of(FLAT)) == 4
    assert on_cloth(template("t-shirt")) and not on_cloth(template("mug-11oz")) and not on_cloth(template("hoodie-all-over"))


def test_the_box_encloses_the_points_unless_one_is_drawn() -> None:
    left, top, right, foot = rough_box(MARKS)
    assert left < 0.3 < 0.7 < right and top < 0.25 < 0.75 < foot  # noqa: PLR0133
    assert rough_box(replace(MARKS, box=(0.1, 0.2, 0.3, 0.4))) == (0.1, 0.2, 0.3, 0.4)
    near_edge = replace(MARKS, points=((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)))
    assert rough_box(near_edge) == (0.0, 0.0, 1.0, 1.0)


def test_strokes_that_only_remove_put_nothing_in_front() -> None:
    photo = np.random.default_rng(0).integers(0, 255, (60, 80, 3)).astype(np.uint8)
    assert not front_mask(photo, (Dab((0.5, 0.5), 0.1, False),)).any()


def test_an_edge_is_moved_to_the_edge_in_the_photograph() -> None:
    """A coarse mask that is off by one of its pixels is moved to the edge in the photograph."""
    photo = np.zeros((400, 600, 3), np.uint8)
    photo[:, 303:] = 220
    coarse = np.zeros((100, 150), bool)
    coarse[:, 76:] = True  # its edge at 304
    alpha = refined(photo, coarse)
    assert alpha[200, 310] > 0.95 and alpha[200, 296] < 0.05
    assert abs(int(np.argmax(alpha[200] > 0.5)) - 303) <= 2
