"""The slope of a power spectrum: of noise whose slope is known, and of photographs."""

import cv2
import numpy as np
import pytest
from skimage import data

from improva.bench.spectrum import PHOTOGRAPHS, slope


def noise(power: float) -> np.ndarray:
    """A grey picture whose power falls as frequency to the given power."""
    rng = np.random.default_rng(3)
    frequency = np.hypot(np.fft.fftfreq(480)[:, None], np.fft.rfftfreq(640)[None, :])
    frequency[0, 0] = 1
    field = np.fft.irfft2(np.fft.rfft2(rng.standard_normal((480, 640))) * frequency ** (power / 2), s=(480, 640))
    levels = (128 + 30 * (field - field.mean()) / field.std()).clip(0, 255).astype(np.uint8)
    return np.repeat(levels[..., None], 3, axis=2)


@pytest.mark.parametrize("power", [-1.0, -2.0])
def test_noise_has_its_own_slope(power: float) -> None:
    assert slope(noise(power)) == pytest.approx(power, abs=0.12)


def test_a_blurred_picture_is_steeper_and_an_even_one_has_no_slope() -> None:
    sharp = noise(-2.0)
    assert slope(np.asarray(cv2.GaussianBlur(sharp, (0, 0), 1.5), np.uint8)) < slope(sharp) - 1
    assert slope(np.full((200, 300, 3), 90, np.uint8)) == 0.0


@pytest.mark.parametrize("name", PHOTOGRAPHS)
def test_photographs_have_the_slopes_that_are_named(name: str) -> None:
    """Photographs that ship in scikit-image."""
    assert slope(getattr(data, name)()) == pytest.approx(PHOTOGRAPHS[name], abs=0.01)
