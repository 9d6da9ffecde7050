"""Motions against their matrices, and fits that recover a known motion."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.core.sewing.motion import Motion, fitted

lengths = st.floats(-900, 900)
motions = st.builds(Motion, st.floats(-360, 360), st.tuples(lengths, lengths), st.booleans())
POINTS = np.array([(0, 0), (120, 0), (30, 75), (-40, 200)], float)


def test_a_quarter_turn_is_clockwise_where_y_points_down() -> None:
    assert Motion(90)([(1, 0)])[0] == pytest.approx((0, 1))
    assert Motion(0, (5, 6), flipped=True)([(1, 2)])[0] == pytest.approx((4, 8))


@given(motions, motions)
def test_motions_compose(first: Motion, second: Motion) -> None:
    assert np.allclose(first.then(second)(POINTS), second(first(POINTS)), atol=1e-6)
    assert np.linalg.det(first.then(second).matrix) == pytest.approx(-1 if first.flipped != second.flipped else 1)


@given(motions)
def test_the_inverse_undoes_a_motion(motion: Motion) -> None:
    assert np.allclose(motion.back()(motion(POINTS)), POINTS, atol=1e-6)
    assert np.allclose(motion.then(motion.back()).matrix, np.eye(2), atol=1e-9)


@given(motions)
def test_a_fit_finds_the_motion(motion: Motion) -> None:
    found = fitted(POINTS, motion(POINTS), motion.flipped)
    assert np.allclose(found(POINTS), motion(POINTS), atol=1e-6)


def test_only_a_translation_counts_as_a_translation() -> None:
    assert Motion(0, (3, 4)).is_shift and Motion(360, (3, 4)).is_shift
    assert not Motion(1).is_shift and not Motion(flipped=True).is_shift


def test_no_other_motion_fits_better() -> None:
    """For points that do not match exactly, no nearby motion has a smaller error."""
    rng = np.random.default_rng(1)
    target = Motion(33, (10, -4))(POINTS) + rng.normal(0, 3, POINTS.shape)
    best = fitted(POINTS, target)
    error = ((best(POINTS) - target) ** 2).sum()
    for turn, right, down in rng.normal(0, 1, (200, 3)):
        other = Motion(best.turn_deg + turn, (best.shift_mm[0] + right, best.shift_mm[1] + down))
        assert ((other(POINTS) - target) ** 2).sum() >= error
