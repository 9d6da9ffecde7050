"""Properties measured on the pixels of an artwork: background, words, lines, a faint veil left by cutting out."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import skimage.data
from PIL import Image, ImageDraw, ImageFilter

from improva.bench.lettering import LOW_PX, fonts, worded
from improva.core.artwork.content import boxes_of, find_content, without_specks
from improva.core.artwork.text_rows import find_rows, thinnest_px
from improva.core.artwork.traits import find_traits, traits_from_dict
from improva.core.colour import hex_of_lab, lab
from tests.conftest import art_of, quadrants


def page(w: int = 900, h: int = 600, colour: tuple[Any, ...] = (240, 232, 214)) -> tuple[Image.Image, ImageDraw.ImageDraw]:
    picture = Image.new("RGB", (w, h), colour)
    return picture, ImageDraw.Draw(picture)


def lightness(picture: Image.Image) -> np.ndarray:
    return np.ascontiguousarray(lab(np.asarray(picture))[..., 0])


@pytest.mark.parametrize("size", [16, 24, 40, 64])
def test_the_height_of_capitals_is_measured(size: int) -> None:
    """Compared with the bounding box of flat capitals, as drawn by Pillow and FreeType: round ones are a little higher."""
    picture, draw = page()
    draw.text((60, 100), "SIGNAL BOX", fill=(30, 30, 60), font_size=size)
    x0, _, x1, _ = draw.textbbox((60, 100), "SIGNAL BOX", font_size=size)
    _, y0, _, y1 = draw.textbbox((60, 100), "INLX", font_size=size)
    rows = find_rows(lightness(picture))
    assert len(rows) >= 1
    # letters of a word are one row; a space may part the words
    assert all(row.height_px == pytest.approx(y1 - y0, abs=2) for row in rows)
    left, right = min(r.box[0] for r in rows), max(r.box[0] + r.box[2] for r in rows)
    assert left == pytest.approx(x0, abs=3) and right == pytest.approx(x1, abs=3)


WORDLESS = (
    "brick",
    "camera",
    "cell",
    "chelsea",
    "coffee",
    "color",
    "grass",
    "gravel",
    "hubble_deep_field",
    "ihc",
    "moon",
    "retina",
    "rocket",
)
"""Photographs without words that ship in scikit-image. Its astronaut, coins and motorcycle have words on them."""


def shipped(name: str) -> np.ndarray:
    (path,) = Path(skimage.data.__file__).parent.glob(f"{name}.*g")
    return np.asarray(Image.open(path).convert("RGB"))


@pytest.mark.parametrize("name", WORDLESS)
def test_photographs_without_words_raise_no_alarm(name: str) -> None:
    assert find_rows(lightness(Image.fromarray(shipped(name)))) == []


def test_words_over_photographs_are_found_in_twenty_fonts() -> None:
    """At most 5 % may be missed; the bench measures it on more pictures (``improva bench``)."""
    pictures = {name: shipped(name) for name in ("chelsea", "coffee", "rocket", "retina", "moon", "camera")}
    lines = [line for line in worded(pictures, 90, seed=2) if line.height_px >= LOW_PX]
    assert len({*fonts()}) >= 20 and len(lines) >= 40
    missed = [line.source for line in lines if not line.found]
    assert len(missed) <= 0.05 * len(lines), missed


def test_light_words_on_dark_are_found_too() -> None:
    picture, draw = page(colour=(20, 24, 50))
    draw.text((60, 100), "LAST TRAIN UP", fill=(240, 220, 190), font_size=36)
    assert find_rows(lightness(picture))


def test_windows_and_fence_posts_are_not_mistaken_for_words() -> None:
    picture, draw = page()
    for i in range(14):
        draw.rectangle((80 + 40 * i, 200, 80 + 40 * i + 18, 226), fill=(30, 30, 60))
    assert find_rows(lightness(picture)) == []


def test_a_scene_without_words_has_none() -> None:
    rng = np.random.default_rng(4)
    soft = (
        Image.fromarray(rng.integers(0, 255, (60, 90, 3), dtype=np.uint8))
        .resize((900, 600))
        .filter(ImageFilter.GaussianBlur(9))
    )
    assert find_rows(lightness(soft)) == []


@pytest.mark.parametrize("width", [2, 3, 5, 9, 14])
def test_the_thinnest_stroke_is_measured(width: int) -> None:
    mask = np.zeros((200, 300), bool)
    mask[40:70, 20:280] = True  # a thick bar beside the thin one
    mask[120 : 120 + width, 20:280] = True
    assert thinnest_px(mask) == pytest.approx(width, abs=1)


def test_corners_do_not_count_as_thin() -> None:
    mask = np.zeros((200, 200), bool)
    mask[50:150, 50:150] = True
    assert thinnest_px(mask) > 60 or thinnest_px(mask) == 0


def test_content_is_distinguished_from_an_even_background() -> None:
    picture, draw = page()
    draw.ellipse((300, 200, 500, 400), fill=(160, 30, 40))
    truth = np.zeros((600, 900), bool)
    yy, xx = np.mgrid[:600, :900]
    truth[(xx - 400) ** 2 + (yy - 300) ** 2 <= 100**2] = True
    found = find_content(lab(np.asarray(picture)), None)
    assert found.kind == "drawing"
    assert (found.mask & truth).sum() / (found.mask | truth).sum() > 0.98  # IoU with the known disc
    assert found.ground is not None and hex_of_lab(found.ground) == "#f0e8d6"


def test_a_cut_out_is_recognised_by_alpha_and_a_picture_has_no_background() -> None:
    alpha = np.zeros((100, 120), np.uint8)
    alpha[20:80, 30:90] = 255
    cut = find_content(lab(quadrants(120, 100)), alpha)
    assert cut.kind == "cutout" and cut.mask.sum() == 60 * 60
    assert find_content(lab(quadrants(120, 100)), None).kind == "picture"
    assert find_content(lab(quadrants(120, 100)), np.full((100, 120), 255, np.uint8)).kind == "picture"


def test_specks_are_ignored_and_parts_get_boxes() -> None:
    mask = np.zeros((100, 100), bool)
    mask[10:30, 20:60] = True
    mask[80, 80] = True
    assert without_specks(mask).sum() == 800
    (box,) = boxes_of(without_specks(mask), 2.0)
    assert box == pytest.approx((10, 5, 20, 10), abs=2.1)


def test_a_pattern_reaches_all_edges_and_a_framed_page_does_not() -> None:
    picture, draw = page(400, 400)
    for x in range(0, 440, 40):
        for y in range(0, 440, 40):
            draw.ellipse((x - 14, y - 14, x + 14, y + 14), fill=(30, 90, 60))
    assert find_traits(art_of(np.asarray(picture))).all_over
    framed, draw = page(400, 400)
    draw.rectangle((12, 12, 388, 388), outline=(30, 30, 60), width=8)
    traits = find_traits(art_of(np.asarray(framed)))
    assert traits.kind == "drawing" and not traits.all_over
    assert traits.content_box == pytest.approx((0.03, 0.03, 0.94, 0.94), abs=0.01)


def haze(amount: int) -> np.ndarray:
    """A cut-out red square, with a near-white veil of low alpha over a part of the rest."""
    rgba = np.zeros((300, 300, 4), np.uint8)
    rgba[100:200, 100:200] = (180, 30, 40, 255)
    rgba[20:80, 20:280] = (250, 249, 246, amount)
    return rgba


def test_a_pale_haze_is_located_and_a_soft_edge_is_not_one() -> None:
    traits = find_traits(art_of(haze(40)))
    assert traits.haze == pytest.approx(60 * 260 / (60 * 260 + 100 * 100), abs=0.01)
    assert traits.haze_box == pytest.approx((20 / 300, 20 / 300, 260 / 300, 60 / 300), abs=0.02)
    clean = Image.fromarray(haze(0)).filter(ImageFilter.GaussianBlur(1.2))
    assert find_traits(art_of(np.asarray(clean))).haze == 0


def test_traits_survive_being_stored() -> None:
    picture, draw = page()
    draw.text((60, 100), "SIGNAL BOX", fill=(30, 30, 60), font_size=40)
    for art in (art_of(np.asarray(picture)), art_of(haze(40))):
        traits = find_traits(art)
        assert traits_from_dict(json.loads(json.dumps(traits.as_dict()))) == traits


@pytest.mark.parametrize("colour", ["#000000", "#ffffff", "#1f2a44", "#c2452f", "#f0e8d6", "#2f5a4a"])
def test_lab_survives_a_round_trip(colour: str) -> None:
    pixel = np.array([[[int(colour[i : i + 2], 16) for i in (1, 3, 5)]]], np.uint8)
    assert hex_of_lab(lab(pixel)[0, 0]) == colour
