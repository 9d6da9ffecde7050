"""Mirrored pieces and mirrored copies, stacked words, and a piece clipped into a border."""

from dataclasses import replace

import numpy as np
import pytest

from improva.core.artwork.pixels import Artwork, as_array, with_alpha
from improva.core.design import Design, Placement
from improva.core.errors import PieceError
from improva.core.pieces import ArtRef, Band, Lettering, Mixing, Overlay
from improva.core.pieces.text import Shadow, lettering_shape
from improva.core.render import render
from improva.core.template import Panel, Template
from improva.core.words import Setting
from improva.core.words.font import open_font
from improva.fonts import font_bytes
from tests.conftest import art_of

PANEL = Panel("front", "Front", (120.0, 80.0), bleed_mm=3.0)
BLANK = Template("blank", "Blank", "flag", "upload", "cover", (PANEL,))
SIZE = (504, 344)
FONT = {"poster": font_bytes("poster")}


def ornament() -> Artwork:
    """A picture without any symmetry: a red corner, a blue foot, and clear elsewhere."""
    pixels = np.zeros((60, 90, 4), np.uint8)
    pixels[:20, :30] = (200, 30, 40, 255)
    pixels[40:, :] = (30, 60, 160, 255)
    return art_of(pixels)


def drawn(*extras: Overlay | Lettering | Band, art: Artwork | None = None) -> np.ndarray:
    design = Design(BLANK, PANEL, (), extras, FONT)
    return as_array(with_alpha(render(design, lambda _: art or ornament(), SIZE)))


def laid(**mixing: str) -> Overlay:
    placement = Placement("contain", (-40.0, 24.0), 0.25, 30.0)
    return Overlay(ArtRef("a", ornament().facts.size), placement, Mixing(**mixing))  # type: ignore[arg-type]


WORDS = Lettering("Up hill", "poster", sizing="width", width_mm=40, shift_mm=(-25, -15), rotate_deg=20)


@pytest.mark.parametrize("piece", [laid(), WORDS], ids=["picture", "words"])
@pytest.mark.parametrize(("way", "axes"), [("across", (1,)), ("down", (0,)), ("both", (0, 1))])
def test_a_copy_is_the_mirror_image_past_the_middle(piece: Overlay | Lettering, way: str, axes: tuple[int, ...]) -> None:
    alone = drawn(piece)
    pair = drawn(replace(piece, mixing=Mixing(twin=way)))  # type: ignore[arg-type]
    assert (alone[..., 3] > 0).mean() < (pair[..., 3] > 0).mean()
    for axis in axes:
        assert np.array_equal(pair, np.flip(pair, axis)), "both sides are alike to the pixel"
    assert np.array_equal(pair[alone[..., 3] == 255], alone[alone[..., 3] == 255])


@pytest.mark.parametrize("piece", [laid(), WORDS], ids=["picture", "words"])
@pytest.mark.parametrize(("way", "axis"), [("across", 1), ("down", 0)])
def test_a_flip_mirrors_a_piece_where_it_lies(piece: Overlay | Lettering, way: str, axis: int) -> None:
    def middle(pixels: np.ndarray) -> np.ndarray:
        ys, xs = np.nonzero(pixels[..., 3] > 127)
        return np.array([(xs.min() + xs.max()) / 2, (ys.min() + ys.max()) / 2])

    alone, flipped = drawn(piece), drawn(replace(piece, mixing=Mixing(flip=way)))  # type: ignore[arg-type]
    assert np.abs(middle(alone) - middle(flipped)).max() < 30
    level = (
        replace(piece, rotate_deg=0.0)
        if isinstance(piece, Lettering)
        else replace(piece, placement=piece.placement.changed(rotate_deg=0))
    )
    one, other = drawn(level), drawn(replace(level, mixing=Mixing(flip=way)))  # type: ignore[arg-type]
    assert np.abs(middle(one) - middle(other)).max() <= 1
    ys, xs = np.nonzero(one[..., 3])
    box = np.s_[ys.min() : ys.max() + 1, xs.min() : xs.max() + 1]
    ys, xs = np.nonzero(other[..., 3])
    there = np.s_[ys.min() : ys.max() + 1, xs.min() : xs.max() + 1]
    assert one[box].shape == other[there].shape
    assert np.abs(np.flip(one[box], axis).astype(int) - other[there]).mean() < 2
    assert np.abs(one[box].astype(int) - other[there]).mean() > 8, "it was mirrored"


def test_the_shadow_of_flipped_words_falls_where_it_fell() -> None:
    shaded = replace(WORDS, rotate_deg=0.0, shadow=Shadow("#000000", (4, 0), 0, 1), mixing=Mixing(flip="across"))

    def beyond(piece: Lettering) -> tuple[int, int]:
        ink = np.flatnonzero((drawn(replace(piece, shadow=None))[..., 3] > 127).any(axis=0))
        both = np.flatnonzero((drawn(piece)[..., 3] > 127).any(axis=0))
        return int(ink[0] - both[0]), int(both[-1] - ink[-1])

    assert beyond(shaded) == pytest.approx((0, 16), abs=1)  # 4 px to a mm


def test_an_unknown_way_is_refused() -> None:
    with pytest.raises(PieceError, match="mirrored across"):
        Mixing(flip="sideways")  # type: ignore[arg-type]


def test_a_picture_is_clipped_into_the_border_before_it() -> None:
    border = Band("all", 10, "#24405a", line_mm=0)
    band = drawn(border)[..., 3] > 0
    clipped = drawn(border, laid(clipped="beneath"))
    assert ((clipped[..., 3] > 0) == band).all(), "nothing lies outside the border"
    changed = np.abs(clipped.astype(int) - drawn(border)).sum(axis=2) > 0
    assert 0.001 < changed.mean() < band.mean()


def test_stacked_letters_stand_one_below_another() -> None:
    """Against the same letters set one by one: each column is as wide as its widest letter, each step one leading."""
    font = open_font(FONT["poster"])
    stacked = lettering_shape(
        replace(WORDS, text="TARN", sizing="size", size_mm=10, setting=Setting(leading=1.0, stacked=True)), font
    )
    single = [lettering_shape(replace(WORDS, text=letter, sizing="size", size_mm=10), font).words for letter in "TARN"]
    assert stacked.words[0] == pytest.approx(max(w for w, _ in single), abs=0.3)
    assert stacked.words[1] == pytest.approx(3 * 10 + single[0][1], abs=0.3)
    two = lettering_shape(
        replace(WORDS, text="TARN\nUP", sizing="size", size_mm=10, setting=Setting(leading=1.0, stacked=True)), font
    )
    assert two.words[1] == pytest.approx(stacked.words[1], abs=0.1) and two.words[0] > 1.9 * stacked.words[0]
