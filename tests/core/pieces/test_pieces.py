"""Pieces on panels: sizes, frames, copies to other blanks, and their rendered position."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import box

from improva.catalogue import template, templates
from improva.core.artwork.pixels import Artwork, as_array
from improva.core.design import ArtSize, Design, Piece, Placement
from improva.core.errors import ImprovaError, PieceError
from improva.core.pieces import ArtRef, Band, Extra, Frames, Lettering, Mixing, Overlay, Slot, adapt_piece, lettering_shape
from improva.core.pieces.frames import covering, slot_dpi
from improva.core.pieces.text import Shadow, lettering_box
from improva.core.render import render, render_level
from improva.core.template import Panel
from improva.core.words import WordPath
from improva.core.words.font import open_font
from improva.fonts import font_bytes
from tests.conftest import art_of, quadrants

FONT = open_font(font_bytes("poster"))
FONTS = {"poster": font_bytes("poster")}
SHEET = Panel("sheet", "Sheet", (200.0, 150.0), bleed_mm=5.0, safe_mm=10.0)
BLANK = template("blanket-upright")
ART = art_of(quadrants(400, 300))
REF = ArtRef("art", ART.facts.size)


def pixels(*extras: Extra, art: Placement | None = None, panel: Panel = SHEET, density: float = 4.0) -> np.ndarray:
    pieces = (Piece("art", ART.facts.size, art),) if art else ()
    size = (round(panel.file_mm[0] * density), round(panel.file_mm[1] * density))
    image = as_array(render(Design(BLANK, panel, pieces, extras, FONTS), lambda _: ART, size))
    return image if image.shape[2] == 4 else np.dstack([image, np.full(image.shape[:2], 255, np.uint8)])


def at(image: np.ndarray, x_mm: float, y_mm: float, panel: Panel = SHEET, density: float = 4.0) -> tuple[int, ...]:
    return tuple(int(v) for v in image[int((y_mm + panel.bleed_mm) * density), int((x_mm + panel.bleed_mm) * density)])


def words(**values: Any) -> Lettering:
    return Lettering("SUMMIT LINE", "poster", **values)


@pytest.mark.parametrize(
    ("sizing", "expected"), [("width", (120, None)), ("box", (None, 20)), ("fill", (120, 20)), ("size", (None, None))]
)
def test_words_have_the_size_that_is_asked_for(sizing: str, expected: tuple[Any, ...]) -> None:
    lettering = words(sizing=sizing, size_mm=20, width_mm=120, height_mm=20 if sizing == "fill" else 12)
    shape = lettering_shape(lettering, FONT)
    if sizing == "box":
        assert (shape.words[0] <= 120 and shape.words[1] == pytest.approx(12)) or shape.words[0] == pytest.approx(120)
    else:
        for got, want in zip(shape.words, expected, strict=True):
            assert want is None or got == pytest.approx(want)
    if sizing == "size":
        assert shape.cap_mm == pytest.approx(20 * FONT.cap_height)
    ink = pixels(replace(lettering, shift_mm=(10, -20)))[..., 3] > 127
    ys, xs = np.nonzero(ink)
    box_mm = lettering_box(replace(lettering, shift_mm=(10, -20)), shape, SHEET.trim_mm)
    around = (xs.min() / 4 - 5, ys.min() / 4 - 5, (xs.max() + 1) / 4 - 5, (ys.max() + 1) / 4 - 5)
    assert around == pytest.approx((box_mm[0], box_mm[1], box_mm[0] + box_mm[2], box_mm[1] + box_mm[3]), abs=0.4)


def test_words_have_outline_shadow_and_plaque() -> None:
    lettering = words(
        sizing="width",
        width_mm=100,
        fill="#102030",
        outline="#ff0000",
        outline_mm=2,
        plaque="box",
        plaque_fill="#00ff00",
        plaque_margin_mm=6,
        shadow=Shadow("#0000ff", (0, 12), 0, 1),
    )
    image = pixels(lettering)
    shape = lettering_shape(lettering, FONT)
    colours = {tuple(int(v) for v in c) for c in image[::3, ::3].reshape(-1, 4)}
    assert {(16, 32, 48, 255), (255, 0, 0, 255), (0, 255, 0, 255), (0, 0, 255, 255)} <= colours
    assert shape.whole == pytest.approx((100 + 12, shape.words[1] + 12))
    below = 75 + shape.whole[1] / 2
    assert at(image, 100, below + 8) == (0, 0, 255, 255), "the plaque casts the shadow"
    assert at(image, 100, below + 14)[3] == 0
    soft = pixels(replace(lettering, shadow=Shadow("#0000ff", (0, 12), 3, 0.5)))
    assert 100 <= at(soft, 100, below + 6)[3] <= 130
    assert 0 < at(soft, 100, below + 13)[3] < 60


@pytest.mark.parametrize("plaque", ["oval", "box", "banner"])
def test_a_plaque_encloses_its_words(plaque: str) -> None:
    lettering = words(sizing="width", width_mm=80, plaque=plaque, plaque_fill="#00ff00", fill="#102030", plaque_margin_mm=3)
    image, bare = pixels(lettering), pixels(replace(lettering, plaque="none"))
    ink = bare[..., 3] > 0
    assert (image[ink][:, 3] == 255).all(), "no letter reaches past its plaque"
    xs = np.nonzero(image[..., 3] > 127)[1]
    assert (xs.max() - xs.min()) / 4 == pytest.approx(lettering_shape(lettering, FONT).whole[0], abs=1.5)


def test_words_rotate_clockwise_about_their_centre() -> None:
    image = pixels(words(sizing="width", width_mm=80, rotate_deg=90))
    ys, xs = np.nonzero(image[..., 3] > 127)
    assert (ys.max() - ys.min()) / 4 == pytest.approx(80, abs=0.6)
    assert (xs.min() + xs.max()) / 8 - 5 == pytest.approx(100, abs=0.5)


def test_a_circle_of_words_has_its_diameter_in_mm() -> None:
    ring = words(path=WordPath("circle", amount=1), size_mm=10, width_mm=60)
    shape = lettering_shape(ring, FONT)
    points = np.concatenate(shape.contours)
    centre_y = points[:, 1].min() + (60 / 2 + 10 * FONT.cap_height / 2)
    r = np.hypot(points[:, 0], points[:, 1] - centre_y)
    assert r.max() == pytest.approx(30 + 10 * FONT.cap_height / 2, abs=0.4)
    assert r.min() == pytest.approx(30 - 10 * FONT.cap_height / 2, abs=0.4)


def test_a_band_follows_the_trim_through_the_bleed_with_its_line() -> None:
    image = pixels(Band("all", 15, "#24405a", None, 25, 2, 3, "#ff0000"))
    assert at(image, -4, -4) == at(image, 100, 14) == (0x24, 0x40, 0x5A, 255)
    assert at(image, 100, 17)[3] == 0
    assert at(image, 100, 19) == at(image, 19, 75) == (255, 0, 0, 255)
    assert at(image, 100, 21)[3] == 0
    level = pixels(Band("level", 15, "#24405a", None, 25, 0))
    assert at(level, 3, 75)[3] == 0 and at(level, 3, 3)[3] == 255
    ends = pixels(Band("ends", 15, "#24405a", None, 25, 0))
    assert at(ends, 3, 75)[3] == 255 and at(ends, 100, 3)[3] == 0
    with pytest.raises(PieceError, match="leaves no room"):
        pixels(Band("all", 90))
    with pytest.raises(PieceError, match="neither colour nor pattern"):
        Band(colour=None)


def test_a_band_of_pattern_repeats_without_gaps() -> None:
    image = pixels(Band("all", 30, "#ff00ff", REF, 12.5, 0))
    ring = image[:100]
    assert (ring[..., 3] == 255).all()
    assert not ((ring[..., 0] > 240) & (ring[..., 1] < 20) & (ring[..., 2] > 240)).any(), "the ground shows between tiles"


def test_a_band_follows_a_tapered_wall_and_an_outline() -> None:
    taper = template("tumbler-20oz-tapered").panel()
    level = taper.level()
    size = (round(level.file_mm[0] * 3), round(level.file_mm[1] * 3))
    design = Design(BLANK, taper, (), (Band("level", 12, "#24405a", None, 25, 0),))
    drawn = as_array(render_level(design, lambda _: ART, size))
    assert drawn[3, :, 3].min() == 255 and drawn[size[1] // 2, :, 3].max() == 0
    hood = next(p for p in template("hoodie-all-over").panels if p.outline_mm)
    image = pixels(Band("all", 20, "#24405a", None, 25, 0), panel=hood, density=1.0)
    inside = np.array(hood.line(30))
    x, y = inside.mean(axis=0)
    assert at(image, x, y, panel=hood, density=1.0)[3] == 0


def test_pictures_cover_their_slots_centred_on_their_focus() -> None:
    frames = Frames("single", 2, 1, (100, 50), 4, 6, "#fffdf6", slots=(Slot(REF, (0.1, 0.1), 3), Slot(REF, (1, 1), 3)))
    image = pixels(frames)
    x0, y0, _, _ = frames.box(SHEET.trim_mm)
    (first, second) = frames.cells()
    for cell, colour in ((first, (220, 30, 30)), (second, (255, 255, 255))):
        x, y, w, h = cell.slot
        for u, v in ((0.05, 0.05), (0.95, 0.05), (0.5, 0.5), (0.05, 0.95), (0.95, 0.95)):
            assert at(image, x0 + x + u * w, y0 + y + v * h)[:3] == colour
        assert at(image, x0 + x - 2, y0 + y + h / 2) == (0xFF, 0xFD, 0xF6, 255)
    between = x0 + first.card[2] + 3
    assert at(image, between, 75)[3] == 0


@given(
    st.floats(0, 1),
    st.floats(0, 1),
    st.floats(1, 20),
    st.integers(50, 5000),
    st.integers(50, 5000),
    st.floats(5, 200),
    st.floats(5, 200),
)
def test_no_focus_or_zoom_leaves_an_edge_bare(u: float, v: float, zoom: float, w: int, h: int, sw: float, sh: float) -> None:
    slot = Slot(ArtRef("a", ArtSize((w, h), (w / 10, h / 10))), (u, v), zoom)
    cell = Frames("single", size_mm=(sw + 2, sh + 2), across=1, rim_mm=1, gap_mm=0).cells()[0]
    x, y, pw, ph = covering(slot, cell)
    assert x >= -1e-9 and x + pw <= 1 + 1e-9 and y >= -1e-9 and y + ph <= 1 + 1e-9
    assert pw * w / (ph * h) == pytest.approx(cell.slot[2] / cell.slot[3])
    assert slot_dpi(slot, cell) == pytest.approx(pw * w / cell.slot[2] * 25.4)


@pytest.mark.parametrize("layout", ["single", "instant", "strip", "grid", "round"])
def test_slots_never_overlap_and_stay_on_their_cards(layout: str) -> None:
    frames = Frames(layout, 3, 2, (150, 110), 4, 5)  # type: ignore[arg-type]
    cells = frames.cells()
    slots = [box(x, y, x + w, y + h) for x, y, w, h in (cell.slot for cell in cells)]
    assert len(slots) == 6
    assert all(one.distance(other) > 3 for i, one in enumerate(slots) for other in slots[:i])
    for cell, slot in zip(cells, slots, strict=True):
        x, y, w, h = cell.card
        assert box(x, y, x + w, y + h).covers(slot)
        assert x >= 0 and x + w <= 150 + 1e-9 and y + h <= 110 + 1e-9
    with pytest.raises(PieceError, match="leave no room"):
        Frames(layout, 20, 3, (100, 80), 4, 5)  # type: ignore[arg-type]
    with pytest.raises(PieceError, match="64 at most"):
        Frames(layout, 20, 20, (1000, 1000))  # type: ignore[arg-type]


def test_a_round_frame_is_round_and_an_empty_slot_is_visible() -> None:
    image = pixels(Frames("round", 1, 1, (80, 80), 5, 0, "#24405a", slots=(Slot(REF, (0, 0), 3),)))
    assert at(image, 100, 75)[:3] == (220, 30, 30)
    assert at(image, 62, 37)[3] == 0, "the corner of its square"
    assert at(pixels(Frames("single", 1, 1, (80, 80))), 100, 70)[3] == 255


def test_a_second_artwork_lies_behind_blends_and_is_clipped() -> None:
    behind = pixels(Overlay(REF, Placement("stretch"), Mixing(behind=True)), art=Placement("contain", scale=0.4))
    assert at(behind, 3, 3)[:3] == (220, 30, 30) and at(behind, 95, 70)[:3] == (220, 30, 30)
    front = pixels(Overlay(REF, Placement("stretch"), Mixing(blend="multiply")), art=Placement("contain", scale=0.4))
    assert at(front, 95, 70)[:3] == pytest.approx((round(220 * 220 / 255), round(30 * 30 / 255), round(30 * 30 / 255)), abs=1)
    clipped = pixels(
        Overlay(REF, Placement("stretch"), Mixing(clipped="artwork", opacity=0.5)), art=Placement("contain", scale=0.4)
    )
    assert at(clipped, 3, 3)[3] == 0, "where the artwork has no ink, nothing of it is seen"
    grounded = pixels(
        Overlay(REF, Placement("contain", scale=0.2), Mixing(behind=True)),
        art=Placement("contain", scale=0.1, background="#102030"),
    )
    assert at(grounded, 3, 3)[:3] == (16, 32, 48), "the ground lies beneath what lies behind"


def test_a_piece_is_clipped_to_the_one_beneath_it() -> None:
    """A picture that fills letters is visible where the words have ink, and nowhere else."""
    letters = words(sizing="width", width_mm=150, fill="#000000")
    filling = Overlay(REF, Placement("stretch"), Mixing(clipped="beneath"))
    plain, filled = pixels(letters), pixels(letters, filling)
    assert (plain[..., 3] == filled[..., 3]).all()
    ink = plain[..., 3] == 255
    fields = np.array([(220, 30, 30), (30, 160, 60), (30, 60, 200), (255, 255, 255)])
    nearest = np.abs(filled[ink][:, None, :3].astype(int) - fields).max(axis=2)
    assert (nearest.min(axis=1) < 30).mean() > 0.95 and set(nearest.argmin(axis=1)) == {0, 1, 2, 3}
    alone = pixels(filling)
    assert alone[..., 3].min() == 255, "with nothing beneath it, it is not clipped"


PANELS = [p for t in templates().values() for p in t.panels if p.shape != "cone" and not p.outline_mm]


@settings(max_examples=60)
@given(st.sampled_from(PANELS), st.sampled_from(PANELS), st.floats(-1, 1), st.floats(-1, 1), st.floats(0.05, 1))
def test_words_in_the_safe_area_stay_in_it_on_another_blank(
    source: Panel, target: Panel, u: float, v: float, size: float
) -> None:
    _, _, w, h = source.safe_box
    lettering = words(sizing="box", width_mm=max(1, w * size), height_mm=max(1, h * size / 4), plaque="none")
    held = lettering_shape(lettering, FONT).words
    lettering = replace(lettering, shift_mm=(u * (w - held[0]) / 2, v * (h - held[1]) / 2))
    moved = adapt_piece(lettering, source, target)
    assert isinstance(moved, Lettering)
    x, y, bw, bh = lettering_box(moved, lettering_shape(moved, FONT), target.trim_mm)
    sx, sy, sw, sh = target.safe_box
    assert x >= sx - 0.01 and y >= sy - 0.01 and x + bw <= sx + sw + 0.01 and y + bh <= sy + sh + 0.01


def test_bands_frames_and_overlays_are_copied_by_their_rules() -> None:
    source, target = template("blanket-upright").panel(), template("pillow-square").panel()
    band = adapt_piece(Band(width_mm=127), source, target)
    assert isinstance(band, Band) and band.width_mm == pytest.approx(127 * min(target.trim_mm) / min(source.trim_mm))
    frames = adapt_piece(Frames("grid", 3, 2, (600, 400), 20, 20, slots=(Slot(REF),)), source, target)
    assert isinstance(frames, Frames) and (frames.across, frames.down, len(frames.slots)) == (3, 2, 1)
    assert frames.size_mm[0] / frames.size_mm[1] == pytest.approx(1.5)
    overlay = adapt_piece(Overlay(REF, Placement("contain", shift_mm=(127, 0))), source, target)
    assert isinstance(overlay, Overlay) and overlay.placement.shift_mm[0] == pytest.approx(0.1 * target.trim_mm[0])


@pytest.mark.parametrize(
    "wrong", [{"size_mm": 0}, {"outline_mm": 90}, {"fill": "red"}, {"sizing": "big"}, {"rotate_deg": float("nan")}]
)
def test_values_out_of_range_are_reported(wrong: dict[str, Any]) -> None:
    with pytest.raises(ImprovaError, match=r"use|write|sized|number"):
        words(**wrong)


def test_an_artwork_is_opened_by_its_own_hash() -> None:
    opened: list[str] = []

    def open_art(key: str) -> Artwork:
        opened.append(key)
        return ART

    extras = (
        Overlay(ArtRef("second", ART.facts.size)),
        Band(pattern=ArtRef("third", ART.facts.size)),
        Frames(slots=(Slot(ArtRef("fourth", ART.facts.size)),)),
    )
    render(Design(BLANK, SHEET, (Piece("first", ART.facts.size, Placement()),), extras), open_art, (210, 160))
    assert set(opened) == {"first", "second", "third", "fourth"}
