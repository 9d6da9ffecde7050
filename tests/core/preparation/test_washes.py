"""See-through washes, against paintings with known colour and alpha."""

import cv2
import numpy as np
import pytest
from skimage.color import deltaE_ciede2000

from improva.core.colour import lab
from improva.core.preparation.cut import cut
from improva.core.preparation.picture import Picture

PAPER = (243, 236, 220)
PAINTS = ((40, 90, 160), (190, 60, 50), (70, 140, 120), (220, 180, 40), (60, 40, 90))
PALEST = 0.15


def soft(seed: int, size: tuple[int, int], px: float) -> np.ndarray:
    noise = cv2.GaussianBlur(np.random.default_rng(seed).normal(size=size).astype(np.float32), (0, 0), px)
    return np.asarray(noise / noise.std())


def painting(height: int = 600, width: int = 800) -> tuple[np.ndarray, np.ndarray]:
    """Five blots of paint, solid in the middle and thin outside, and a strip of each at :data:`PALEST`: colour and alpha."""
    alpha, colour = np.zeros((height, width)), np.full((height, width, 3), 255.0)
    y, x = np.mgrid[:height, :width]
    for i, paint in enumerate(PAINTS):
        far = np.hypot(x - 110 - 145 * i, y - 170 - 220 * (i % 2))
        ragged = far + 12 * soft(i, alpha.shape, 12)
        thick = np.clip(0.1 + 0.9 * np.clip(1 - ragged / 90, 0, 1) ** 1.3, 0, 1)
        edge = np.clip((90 - ragged) / 3, 0, 1)
        blot = edge * np.where(far < 25, 1, thick)
        alpha[blot > 0.001], colour[blot > 0.001] = blot[blot > 0.001], paint
        strip = np.s_[520:580, 20 + 145 * i : 120 + 145 * i]
        alpha[strip], colour[strip] = PALEST, paint
    return colour, alpha


def on_paper(colour: np.ndarray, alpha: np.ndarray, grain: float, light: float = 0.0) -> Picture:
    """A scan: the paint on white, seen through the paper's colour, with grain, under light that falls off to the right."""
    white = colour * alpha[..., None] + 255 * (1 - alpha[..., None])
    fall = 1 - light * np.linspace(0, 1, alpha.shape[1])[None, :, None]
    random = np.random.default_rng(3)
    noise = random.normal(0, grain, (*alpha.shape, 1)) + random.normal(0, grain / 2, colour.shape)
    seen = white * np.array(PAPER) / 255 * fall + noise
    return Picture(np.dstack([seen.round().clip(0, 255), np.full(alpha.shape, 255)]).astype(np.uint8), 10.0)


@pytest.mark.parametrize(("grain", "light"), [(0.0, 0.0), (1.5, 0.0), (1.5, 0.08)])
def test_washes_come_back_as_colour_and_alpha(grain: float, light: float) -> None:
    colour, alpha = painting()
    out = cut(on_paper(colour, alpha, grain, light))
    assert "washes" in out.notes[-1]
    found = out.alpha / 255
    painted = alpha > 0.02
    assert np.abs(found - alpha)[painted].mean() < 0.03
    assert (found[~painted] > 0.05).mean() < 0.002
    for i in range(len(PAINTS)):
        assert abs(found[530:570, 30 + 145 * i : 110 + 145 * i].mean() - PALEST) < 0.05
    apart = deltaE_ciede2000(lab(np.ascontiguousarray(out.pixels[..., :3])), lab(colour.astype(np.uint8)))
    assert apart[alpha > 0.2].mean() < 3


def test_a_cut_wash_laid_on_white_is_the_picture_again() -> None:
    colour, alpha = painting()
    out = cut(on_paper(colour, alpha, 0.0)).pixels.astype(np.float64)
    share = out[..., 3:] / 255
    again = out[..., :3] * share + 255 * (1 - share)
    white = colour * alpha[..., None] + 255 * (1 - alpha[..., None])
    assert np.abs(again - white).mean() < 1


def test_a_lone_pale_wash_is_thin_paint() -> None:
    """No solid paint of its colour is in the picture: the least alpha that can give it is taken."""
    alpha = np.zeros((300, 300))
    alpha[60:240, 60:240] = PALEST
    found = cut(on_paper(np.full((300, 300, 3), (30, 80, 150.0)), alpha, 1.0), paint="washes").alpha / 255
    assert abs(found[80:220, 80:220].mean() - PALEST) < 0.05


def test_solid_art_is_not_made_see_through() -> None:
    alpha = np.zeros((300, 300))
    alpha[60:240, 60:240] = 1
    out = cut(on_paper(np.full((300, 300, 3), (70, 140, 120.0)), alpha, 1.0))
    assert (out.alpha[62:238, 62:238] == 255).all() and "washes" not in out.notes[-1]
    assert (
        cut(on_paper(np.full((300, 300, 3), (70, 140, 120.0)), alpha, 1.0), paint="washes").alpha[64:236, 64:236] > 245
    ).mean() > 0.97


def test_a_kept_place_stays_paper() -> None:
    colour, alpha = painting()
    alpha[160:180, 100:120] = 0  # bare paper in the middle of the first blot
    picture = on_paper(colour, alpha, 0.0)
    assert cut(picture).alpha[170, 110] == 0
    assert cut(picture, spare=((110.5 / 800, 170.5 / 600),)).alpha[170, 110] == 255
