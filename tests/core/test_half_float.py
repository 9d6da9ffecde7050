"""Half floats converted to single precision, compared with NumPy's own conversion (IEEE 754)."""

import numpy as np

from improva.core.mockup.half_float import mapped, whole

EVERY = np.arange(65536, dtype=np.uint16).view(np.float16).reshape(256, 256)


def test_every_half_float_converts_to_the_same_number() -> None:
    assert np.array_equal(whole(EVERY), EVERY.astype(np.float32), equal_nan=True)
    with np.errstate(invalid="ignore"):
        assert np.array_equal(whole(EVERY, 1.7), EVERY.astype(np.float32) * np.float32(1.7), equal_nan=True)


def test_views_of_a_plane_and_full_floats_are_accepted_too() -> None:
    colours = np.arange(6 * 8 * 3, dtype=np.float16).reshape(6, 8, 3)
    assert np.array_equal(whole(colours[1:4, 2:5], 0.5), colours[1:4, 2:5].astype(np.float32) / 2)
    own = colours.astype(np.float32)
    assert np.array_equal(whole(own, 2.0), own * 2) and np.array_equal(own, colours), "its own memory is left alone"


def test_half_and_full_floats_are_changed_by_the_same_rule() -> None:
    plane = np.linspace(-3, 3, 200 * 40, dtype=np.float16).reshape(200, 40)
    for own in (plane, plane.astype(np.float32)):
        found = mapped(own[3:, 5:], lambda values: np.abs(values) + 1)
        assert found.dtype == np.float32
        assert np.array_equal(found, np.abs(plane[3:, 5:].astype(np.float32)) + 1)
