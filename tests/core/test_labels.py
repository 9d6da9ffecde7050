"""Captions and dimensions on pictures: their position, that they avoid the product, that they are readable."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from improva.core.errors import ImprovaError, OutputError
from improva.core.mockup.labels import PLACES, Caption, captioned, free_place, measure_text, measured
from improva.core.mockup.scene import Measure
from improva.core.mockup.view import make_view
from improva.fonts import font_bytes
from tests.scenery import PX, standing

GREY = np.full((300, 400, 3), 128, np.uint8)


def changed(picture: np.ndarray, ground: np.ndarray = GREY) -> tuple[np.ndarray, np.ndarray]:
    ys, xs = np.nonzero(np.abs(picture[..., :3].astype(int) - ground[..., :3]).max(axis=2) > 20)
    return ys, xs


@pytest.mark.parametrize("place", PLACES)
def test_a_caption_is_at_its_position_and_inside_the_picture(place: str) -> None:
    ys, xs = changed(captioned(GREY, [Caption("New", place=place)], None, font_bytes))  # type: ignore[arg-type]
    fx, fy = PLACES[place]  # type: ignore[index]
    assert xs.min() >= 8 and xs.max() < 392 and ys.min() >= 8 and ys.max() < 292
    assert (
        abs((xs.min() + xs.max()) / 800 - (0.12 + 0.76 * fx)) < 0.1
        and abs((ys.min() + ys.max()) / 600 - (0.1 + 0.8 * fy)) < 0.1
    )


def test_a_caption_avoids_the_product_and_other_captions() -> None:
    cover = np.zeros((300, 400), np.float32)
    cover[:, :200] = 1
    first = free_place((80, 30), "top-left", (400, 300), cover, [], False)
    assert first is not None and first[0] >= 200
    second = free_place((80, 30), "top-left", (400, 300), cover, [first], False)
    assert second is not None and second[0] >= 200 and (second[1] >= first[3] or second[0] >= first[2] or second[2] <= first[0])
    over = free_place((80, 30), "top-left", (400, 300), cover, [], True)
    assert over is not None and over[0] < 50  # it may lie over it


def test_captions_shrink_where_there_is_little_room() -> None:
    cover = np.zeros((300, 400), np.float32)
    cover[:, 90:] = 1
    ys, xs = changed(captioned(GREY, [Caption("Soft cotton", size=0.06)], cover, font_bytes))
    assert xs.max() < 96 and len(ys) > 100


def test_a_lack_of_room_is_reported() -> None:
    assert free_place((80, 30), "top", (400, 300), np.ones((300, 400), np.float32), [], False) is None
    with pytest.raises(OutputError, match="no room"):
        captioned(GREY, [Caption("Much too long for a picture this small, in letters so tall", size=0.3)], None, font_bytes)


def test_a_badge_is_round_and_keeps_its_colour() -> None:
    ys, xs = changed(captioned(GREY, [Caption("7", plate="#aa2222", round_=True, size=0.1)], None, font_bytes))
    w, h = np.ptp(xs) + 1, np.ptp(ys) + 1
    assert abs(w - h) <= 2 and len(xs) == pytest.approx(np.pi / 4 * w * h, rel=0.05)  # a disc, not a square


def test_a_transparent_picture_stays_transparent_beside_its_captions() -> None:
    clear = np.zeros((300, 400, 4), np.uint8)
    made = captioned(clear, [Caption("Summit")], None, font_bytes)
    assert made.shape == (300, 400, 4) and made[250, 350, 3] == 0 and (made[..., 3] == 255).sum() > 500


def test_lengths_are_written_in_cm_and_inches() -> None:
    # 1 in = 25.4 mm exactly: international yard and pound agreement, 1959
    assert measure_text(254.0) == "10.0 in · 25.4 cm" and measure_text(208.28) == "8.2 in · 20.8 cm"


def test_measures_are_drawn_from_end_to_end() -> None:
    info, passes = standing()
    tall = replace(info, measures=(Measure("Height", 360.0, (72.0, 18.0), (72.0, 54.0)),))
    size = (384, 288)  # four times as large
    for mirrored, column in ((False, 288), (True, 96)):
        view = make_view(tall, passes, size, mirrored=mirrored)
        plain = np.full((288, 384, 3), 128, np.uint8)
        picture, boxes = measured(plain, view, mirrored, font_bytes)
        ys, xs = changed(picture, plain)
        assert abs(ys.min() - 72) <= 6 and abs(ys.max() - 216) <= 6 and abs((xs.min() + xs.max()) / 2 - column) <= 4
        assert len(boxes) == 1 and boxes[0][0] < column < boxes[0][2]
        labelled = captioned(picture, [Caption("Tall", place="right" if column > 200 else "left")], None, font_bytes, boxes)
        assert np.array_equal(
            labelled[boxes[0][1] : boxes[0][3], boxes[0][0] : boxes[0][2]],
            picture[boxes[0][1] : boxes[0][3], boxes[0][0] : boxes[0][2]],
        )


def test_a_scene_without_measurements_is_reported() -> None:
    with pytest.raises(OutputError, match="no measures"):
        measured(GREY, make_view(*standing(), PX), False, font_bytes)


@pytest.mark.parametrize("wrong", [{"text": " "}, {"text": "x" * 200}, {"size": 0.9}, {"colour": "ink"}, {"plate": "#12"}])
def test_impossible_captions_are_reported(wrong: dict[str, Any]) -> None:
    with pytest.raises(ImprovaError):
        Caption(**{"text": "New", **wrong})
