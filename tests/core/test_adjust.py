"""Brightness, saturation and white point on one blank: as the preparation step of the same names, to one step of 255."""

import numpy as np
import pytest
from skimage import data

from improva.core.artwork.pixels import as_array
from improva.core.design import Design, Piece, Placement
from improva.core.errors import PlacementError
from improva.core.preparation.picture import Picture
from improva.core.preparation.tone import tone
from improva.core.render import render
from improva.core.template import Panel, Template
from tests.conftest import art_of

PANEL = Panel("front", "Front", (60.0, 40.0))
BLANK = Template("blank", "Blank", "flag", "upload", "cover", (PANEL,))


def shown(pixels: np.ndarray, **light: float) -> np.ndarray:
    art = art_of(pixels)
    h, w = pixels.shape[:2]
    piece = Piece("a", art.facts.size, Placement("stretch").changed(**light))
    return as_array(render(Design(BLANK, PANEL, (piece,)), lambda _: art, (w, h)))


@pytest.mark.parametrize(
    "light", [{"brightness": 30}, {"brightness": -40}, {"saturation": -60}, {"saturation": 40}, {"white_point": 200}]
)
def test_light_on_one_blank_is_what_the_preparation_step_makes(light: dict[str, float]) -> None:
    """The step uses a cube of 33 points a side; the difference is its interpolation."""
    photograph = np.ascontiguousarray(data.chelsea()[:240, :360])
    step = {"white" if name == "white_point" else name: value for name, value in light.items()}
    solid = np.dstack([photograph, np.full(photograph.shape[:2], 255, np.uint8)])
    wanted = tone(Picture(solid, 10.0), **step).pixels[..., :3].astype(int)
    got = shown(photograph, **light)[..., :3].astype(int)
    assert np.abs(got - wanted).mean() < 1
    assert np.abs(got - photograph).mean() > 3


def test_alpha_and_the_artwork_stay() -> None:
    cut = np.zeros((40, 60, 4), np.uint8)
    cut[10:30, 10:50] = (90, 120, 150, 255)
    out = shown(cut, brightness=40.0)
    assert np.array_equal(out[..., 3], shown(cut)[..., 3])
    assert np.array_equal(shown(cut)[20, 20], (90, 120, 150, 255))


@pytest.mark.parametrize("light", [{"brightness": 101}, {"saturation": -101}, {"white_point": 0}, {"brightness": float("nan")}])
def test_out_of_range_is_refused(light: dict[str, float]) -> None:
    with pytest.raises(PlacementError):
        Placement("cover").changed(**light)
