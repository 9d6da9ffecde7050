"""Adjustments of light: exposure, warmth, vignette, and a blurred backdrop behind a sharp product."""

from typing import Any

import numpy as np
import pytest

from improva.core.errors import SceneError
from improva.core.mockup.composite import ShadedView, composite, shade_plain_parts
from improva.core.mockup.grade import WARM, Grade, graded, softened
from improva.core.mockup.scene import Lens
from improva.core.mockup.view import make_view
from tests.scenery import PX, SQUARE, standing

GREY = {"wrap": np.full((8, 8, 3), 0.4, np.float32)}


def shaded(lens: Lens | None = None) -> ShadedView:
    return shade_plain_parts(make_view(*standing(lens), PX), {"table": "Grey"})


def test_one_stop_doubles_the_light() -> None:
    plain = shaded()
    brighter = graded(plain, Grade(exposure=1))
    assert np.allclose(brighter.plain, 2 * plain.plain) and np.allclose(
        brighter.view.basis["wrap"], 2 * plain.view.basis["wrap"]
    )
    assert graded(plain, Grade()) is plain


def test_warmth_keeps_the_brightness_of_grey() -> None:
    # Luminance weights of ITU-R BT.709
    assert abs(WARM @ np.array([0.0722, 0.7152, 0.2126])) < 0.015
    warm, cool = (composite(graded(shaded(), Grade(warmth=w)), GREY)[36, 48].astype(int) for w in (1, -1))
    assert warm[2] > warm[1] > warm[0] and cool[2] < cool[1] < cool[0]


def test_a_vignette_darkens_all_corners_equally_and_not_the_centre() -> None:
    plain, dark = (composite(graded(shaded(), Grade(vignette=v)), GREY).astype(int) for v in (0, 1))
    assert np.array_equal(dark[36, 48], plain[36, 48])
    corners = [dark[0, 0], dark[0, -1], dark[-1, 0], dark[-1, -1]]
    assert all(np.array_equal(c, corners[0]) for c in corners) and corners[0].max() < plain[0, 0].min() - 30


def test_blur_affects_the_background_and_not_the_product() -> None:
    plain = shaded(Lens(100.0, 1.0, 10.0))
    plain.plain[:, ::8] *= 0.5  # lines on the ground
    soft = softened(plain.plain, plain.view, 1.0)
    assert np.array_equal(soft[SQUARE], plain.plain[SQUARE])
    outside = np.ones(PX[::-1], bool)
    outside[14:58, 26:70] = False
    assert soft[outside].std() < 0.35 * plain.plain[outside].std()
    assert soft[outside].mean() == pytest.approx(plain.plain[outside].mean(), rel=0.05)


def test_the_product_does_not_leak_into_a_blurred_backdrop() -> None:
    plain = shaded()
    plain.plain[SQUARE] = 60_000  # far brighter than the ground
    before = plain.plain[10, 48].copy()
    soft = softened(plain.plain, plain.view, 1.0)
    assert np.allclose(soft[16, 48], before, rtol=0.03)  # two pixels off its edge


def test_a_scene_without_cover_keeps_its_backdrop() -> None:
    from dataclasses import replace

    plain = shaded()
    assert softened(plain.plain, replace(plain.view, cover=None), 1.0) is plain.plain


@pytest.mark.parametrize(
    "wrong", [{"exposure": 3}, {"warmth": -2}, {"vignette": 1.5}, {"softness": -0.1}, {"exposure": float("nan")}]
)
def test_light_settings_out_of_range_are_reported(wrong: dict[str, Any]) -> None:
    with pytest.raises(SceneError, match="out of reach"):
        Grade(**wrong)
