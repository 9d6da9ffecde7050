import warnings
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.core.colour import BLOCK, LINEAR_OF_BYTE, delta_e_2000, lab, linear_from_srgb, parse_hex, srgb_from_linear
from improva.core.errors import PlacementError

# Sharma, Wu, Dalal 2005, table 1: pairs that tell a right CIEDE2000 from a nearly right one.
SHARMA = [
    ((50, 2.6772, -79.7751), (50, 0, -82.7485), 2.0425),
    ((50, 3.1571, -77.2803), (50, 0, -82.7485), 2.8615),
    ((50, 2.8361, -74.0200), (50, 0, -82.7485), 3.4412),
    ((50, -1.3802, -84.2814), (50, 0, -82.7485), 1.0000),
    ((50, 0, 0), (50, -1, 2), 2.3669),
    ((50, 2.4900, -0.0010), (50, -2.4900, 0.0009), 7.1792),
    ((50, 2.4900, -0.0010), (50, -2.4900, 0.0011), 7.2195),
    ((50, -0.0010, 2.4900), (50, 0.0009, -2.4900), 4.8045),
    ((50, -0.0010, 2.4900), (50, 0.0011, -2.4900), 4.7461),
    ((50, 2.5, 0), (73, 25, -18), 27.1492),
    ((50, 2.5, 0), (61, -5, 29), 22.8977),
    ((50, 2.5, 0), (56, -27, -3), 31.9030),
    ((60.2574, -34.0099, 36.2677), (60.4626, -34.1751, 39.4387), 1.2644),
    ((22.7233, 20.0904, -46.6940), (23.0331, 14.9730, -42.5619), 2.0373),
    ((90.9257, -0.5406, -0.9208), (88.6381, -0.8985, -0.7239), 1.5381),
    ((2.0776, 0.0795, -1.1350), (0.9033, -0.0636, -0.5514), 0.9082),
]


@pytest.mark.parametrize(("one", "two", "expected"), SHARMA)
def test_ciede2000_matches_the_published_pairs(one: tuple[Any, ...], two: tuple[Any, ...], expected: float) -> None:
    assert delta_e_2000(np.array(one, float), np.array(two, float)) == pytest.approx(expected, abs=1e-4)
    assert delta_e_2000(np.array(two, float), np.array(one, float)) == pytest.approx(expected, abs=1e-4)


def test_ciede2000_agrees_with_the_reference_library() -> None:
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import colour

    rng = np.random.default_rng(2)
    one, two = (rng.uniform((0, -100, -100), (100, 100, 100), (500, 3)) for _ in range(2))
    assert np.allclose(delta_e_2000(one, two), colour.delta_E(one, two, method="CIE 2000"), atol=1e-3)
    rgb = rng.integers(0, 256, (1, 200, 3), dtype=np.uint8)
    expected = colour.XYZ_to_Lab(
        colour.sRGB_to_XYZ(rgb / 255.0), colour.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"]["D65"]
    )
    assert np.abs(lab(rgb) - expected).max() < 0.15


@pytest.mark.parametrize("shape", [(3,), (1, 3), (7, 5, 3), (BLOCK - 1, 3), (BLOCK, 3), (2 * BLOCK + 1, 3)])
def test_many_colours_at_once_give_the_differences_of_each_alone(shape: tuple[int, ...]) -> None:
    """Colours are compared in blocks: the result must not depend on the end of a block or on the array's shape."""
    rng = np.random.default_rng(9)
    one, two = (rng.uniform((0, -90, -90), (100, 90, 90), shape) for _ in range(2))
    found = delta_e_2000(one, two)
    assert found.shape == shape[:-1]
    flat, pairs = found.reshape(-1), [a.reshape(-1, 3) for a in (one, two)]
    for i in {0, len(flat) // 2, len(flat) - 1}:
        assert flat[i] == pytest.approx(float(delta_e_2000(pairs[0][i], pairs[1][i])), rel=1e-6)
    assert np.allclose(delta_e_2000(two, one), found, rtol=1e-5), "a difference is the same from either side"
    assert np.allclose(delta_e_2000(one, one), 0)


def test_one_colour_is_compared_with_many() -> None:
    many = np.random.default_rng(1).uniform((0, -90, -90), (100, 90, 90), (BLOCK + 3, 3))
    ground = np.array([96.0, 0.0, 2.0])
    against = delta_e_2000(many, np.broadcast_to(ground, many.shape))
    assert np.array_equal(delta_e_2000(many, ground), against) and np.array_equal(delta_e_2000(ground, many), against)
    assert delta_e_2000(np.zeros((0, 3)), ground).shape == (0,)


def test_srgb_transfer_matches_its_published_points() -> None:
    # IEC 61966-2-1: the linear part ends at 0.04045, and mid grey 0.5 is 0.21404 in light.
    assert linear_from_srgb(np.array([0.04045]))[0] == pytest.approx(0.04045 / 12.92, rel=1e-4)
    assert linear_from_srgb(np.array([0.5]))[0] == pytest.approx(0.21404114, rel=1e-5)
    assert LINEAR_OF_BYTE[0] == 0 and LINEAR_OF_BYTE[255] == pytest.approx(1)


@given(st.floats(0, 1))
def test_srgb_transfer_is_undone_by_its_inverse(value: float) -> None:
    assert srgb_from_linear(linear_from_srgb(np.array([value])))[0] == pytest.approx(value, abs=2e-6)


def test_hex_colours_are_read() -> None:
    assert parse_hex("#1d4Ef0") == (29, 78, 240)
    for wrong in ("1d4ef0", "#1d4ef", "#gggggg", "red", "#1d4ef0 "):
        with pytest.raises(PlacementError, match="#rrggbb"):
            parse_hex(wrong)
