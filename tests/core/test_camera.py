"""What a camera adds: measured on plain pictures."""

from __future__ import annotations

import cv2
import numpy as np

from improva.core.mockup.camera import CORNER, GRAIN, as_camera


def plain(level: int) -> np.ndarray:
    return np.full((600, 800, 3), level, np.uint8)


def test_grain_has_its_deviation_is_grey_and_the_same_again() -> None:
    middle = as_camera(plain(120))[250:350, 350:450].astype(float)
    assert abs(middle[..., 0].std() - GRAIN) < 0.15
    assert (middle[..., 0] == middle[..., 2]).all()
    assert abs(middle.mean() - 120) < 0.4
    assert (as_camera(plain(120)) == as_camera(plain(120))).all()


def test_corners_are_darker_by_their_share_and_the_mean_stays() -> None:
    shown = as_camera(plain(200)).astype(float)
    corner, middle = shown[:12, :12].mean(), shown[290:310, 390:410].mean()
    assert abs(corner / middle - (1 - CORNER)) < 0.008
    assert abs(shown.mean() / 200 - 1) < 0.03


def test_light_spreads_from_a_bright_place_and_from_no_other() -> None:
    dark = plain(40)
    lamp = dark.copy()
    cv2.circle(lamp, (400, 300), 40, (255, 255, 255), -1)
    grey = dark.copy()
    cv2.circle(grey, (400, 300), 40, (180, 180, 180), -1)
    near = np.s_[295:305, 445:452]
    before = as_camera(dark)[near].astype(float).mean()
    assert as_camera(lamp)[near].astype(float).mean() > before + 4
    assert abs(as_camera(grey)[near].astype(float).mean() - before) < 0.5
    far = np.s_[20:40, 20:40]
    assert abs(as_camera(lamp)[far].astype(float).mean() - as_camera(dark)[far].astype(float).mean()) < 0.5
