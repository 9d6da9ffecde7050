"""Evening out light: a known falloff is divided out, and a photographed page becomes evenly white."""

import cv2
import numpy as np
import pytest
from skimage import data

from improva.core.errors import StepError
from improva.core.preparation.cut import cut
from improva.core.preparation.light import even_light, light_of
from improva.core.preparation.picture import Picture

PAPER = (242, 236, 224)


def falling(h: int, w: int, share: float) -> np.ndarray:
    """Light of a scan that falls off towards one side and its corners, (h, w, 1)."""
    y, x = np.mgrid[-1 : 1 : h * 1j, -1 : 1 : w * 1j]
    return (1 - share * (0.6 * (x + 1) / 2 + 0.4 * (x * x + y * y) / 2))[..., None]


def scan(share: float) -> tuple[Picture, np.ndarray, np.ndarray]:
    """A photograph (scikit-image's cat) on grainy paper under falling light, the mask of paper, and the light."""
    h, w = 700, 900
    clean = np.full((h, w, 3), PAPER, np.float64)
    art = data.chelsea()[20:280, 60:420].astype(np.float64)
    clean[220:480, 270:630] = np.minimum(art, 215)
    light = falling(h, w, share)
    seen = clean * light + np.random.default_rng(5).normal(0, 1.2, (h, w, 1))
    bare = np.ones((h, w), bool)
    bare[216:484, 266:634] = False
    pixels = np.dstack([seen.round().clip(0, 255), np.full((h, w), 255)]).astype(np.uint8)
    return Picture(pixels, 10.0), bare, light


@pytest.mark.parametrize("share", [0.08, 0.3])
def test_light_that_falls_off_leaves_no_bare_paper_behind(share: float) -> None:
    picture, bare, _ = scan(share)
    left = cut(picture, even=False).alpha[bare] > 0
    assert left.mean() > 0.05, "without evening out the test shows nothing"
    out = cut(picture)
    assert (out.alpha[bare] > 0).mean() < 0.005
    assert (out.alpha[240:460, 290:610] > 250).mean() > 0.98, "the picture itself stays solid"


def test_the_light_is_found_within_one_per_cent() -> None:
    picture, _, light = scan(0.3)
    found = light_of(picture.pixels)
    assert found is not None
    small = cv2.resize(np.asarray(light[..., 0], np.float32), found.shape[1::-1], interpolation=cv2.INTER_AREA)
    ratio = found[..., 1] / small / PAPER[1]
    assert np.abs(ratio - 1).max() < 0.01


def test_a_photographed_page_becomes_evenly_white() -> None:
    """scikit-image's page, a photograph whose left side lies in shadow."""
    grey = data.page()
    picture = Picture(np.dstack([grey, grey, grey, np.full_like(grey, 255)]), 10.0)

    def paper(pixels: np.ndarray) -> np.ndarray:
        return np.array([np.percentile(part, 80) for part in np.array_split(pixels[..., 0], 8, axis=1)])

    before, out = paper(picture.pixels), even_light(picture)
    after = paper(out.pixels)
    assert before.max() - before.min() > 100
    assert after.max() - after.min() < 25
    assert "darker in places" in out.notes[0]
    assert (out.pixels[..., 3] == 255).all()


def test_even_light_changes_nothing() -> None:
    flat = Picture(np.full((300, 300, 4), (*PAPER, 255), np.uint8), 10.0)
    flat.pixels[100:200, 100:200, :3] = (40, 80, 60)
    assert np.abs(even_light(flat).pixels.astype(int) - flat.pixels).max() <= 1


def test_a_picture_without_paper_is_refused() -> None:
    noise = np.random.default_rng(1).integers(0, 255, (200, 200, 4)).astype(np.uint8)
    with pytest.raises(StepError, match="Too little bare paper"):
        even_light(Picture(noise, 10.0))
