"""Repeats: whole numbers around a wrap, no gap at any size, and edges that match or are reported."""

from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from improva.core.artwork.pixels import Artwork, as_array
from improva.core.artwork.seamless import blended_edges
from improva.core.artwork.traits import find_traits
from improva.core.design import Design, Piece, Placement
from improva.core.errors import PlacementError
from improva.core.fit import place
from improva.core.render import render
from improva.core.template import Panel, Template
from improva.core.tiling import nearest_count, offered_counts, step_of, tiling_of
from tests.conftest import art_of

WRAP = Panel("wrap", "Wrap", (240.0, 200.0), closes=True)
CLOTH = Panel("front", "Front", (240.0, 200.0), bleed_mm=10.0)
KINDS = ["grid", "half-drop", "brick", "mirror"]


def noise(w: int, h: int, seed: int = 0) -> np.ndarray:
    return np.random.default_rng(seed).integers(0, 256, (h, w, 3), dtype=np.uint8)


def laid(panel: Panel, art: Artwork, size: tuple[int, int], **placement: Any) -> np.ndarray:
    template = Template("t", "T", "tumbler", "press", "repeat", (panel,))
    piece = Piece("art", art.facts.size, Placement(fit="repeat", **placement))
    return as_array(render(Design(template, panel, (piece,)), lambda _: art, size))


def test_a_repeat_around_a_cylinder_equals_numpy_tile() -> None:
    """Compared with np.tile: the same pixels, five times across and four times down."""
    tile = noise(48, 50)
    out = laid(WRAP, art_of(tile), (240, 200), repeats_around=5)
    assert np.array_equal(out, np.tile(tile, (4, 5, 1)))


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_repeat_equals_tiles_pasted_one_by_one(kind: str) -> None:
    tile = noise(60, 50)
    out = laid(WRAP, art_of(tile), (240, 200), repeats_around=4, repeat_kind=kind)
    rows = []
    for j in range(4):
        row = []
        for i in range(4):
            t = tile
            if kind == "mirror":
                t = t[:: -1 if j % 2 else 1, :: -1 if i % 2 else 1]
            if kind == "half-drop" and i % 2:
                t = np.roll(t, 25, axis=0)
            if kind == "brick" and j % 2:
                t = np.roll(t, 30, axis=1)
            row.append(t)
        rows.append(np.hstack(row))
    assert np.array_equal(out, np.vstack(rows))


@settings(max_examples=40)
@given(
    st.integers(40, 900),
    st.integers(40, 700),
    st.integers(1, 9),
    st.sampled_from(KINDS),
    st.floats(-200, 200),
    st.floats(-200, 200),
    st.integers(1, 90),
    st.integers(1, 70),
)
def test_a_repeat_has_no_gap_at_any_size(w: int, h: int, around: int, kind: str, x: float, y: float, tw: int, th: int) -> None:
    """A tile of one colour gives that colour everywhere: any gap, seam or blend with nothing would differ."""
    around = around + around % 2 if kind in ("half-drop", "mirror") else around
    tile = np.full((th, tw, 3), (200, 40, 90), np.uint8)
    try:
        out = laid(WRAP, art_of(tile), (w, h), repeats_around=around, repeat_kind=kind, shift_mm=(x, y))
    except PlacementError:
        assume(False)
    assert out.shape == (h, w, 3) and (out == (200, 40, 90)).all()


@pytest.mark.parametrize("size", [(240, 200), (371, 327), (1000, 833), (97, 81)])
@pytest.mark.parametrize(("kind", "around"), [("grid", 3), ("grid", 7), ("brick", 5), ("half-drop", 4), ("mirror", 6)])
def test_a_repeat_closes_at_any_size(size: tuple[int, int], kind: str, around: int) -> None:
    """Shifted around the cup by a whole period, the print is the same: so the last column continues into the first."""
    smooth = np.stack([np.outer(np.ones(60), 128 + 100 * np.sin(np.arange(60) * 2 * np.pi / 60 + k)) for k in range(3)], -1)
    out = laid(WRAP, art_of(smooth.astype(np.uint8)), size, repeat_kind=kind, repeats_around=around).astype(int)
    across = np.abs(out[:, 0] - out[:, -1]).max()
    inside = np.abs(np.diff(out, axis=1)).max()
    assert across <= inside + 2


@given(st.floats(30, 900), st.floats(1, 400), st.sampled_from([1, 2]))
def test_the_offered_count_is_the_nearest_whole_number(width: float, pitch: float, step: int) -> None:
    n = nearest_count(width, pitch, step)
    assert n >= step and n % step == 0
    assert all(abs(width / n - pitch) <= abs(width / m - pitch) + 1e-9 for m in range(step, n + 4 * step, step))


def test_the_offered_sizes_close() -> None:
    assert [n for n, _ in offered_counts(WRAP, "grid", 4)] == [2, 3, 4, 5, 6]
    assert [n for n, _ in offered_counts(WRAP, "half-drop", 4)] == [2, 4, 6, 8][: len(offered_counts(WRAP, "half-drop", 4))]
    assert all(n * pitch == pytest.approx(240) for n, pitch in offered_counts(WRAP, "mirror", 6))
    assert [n for n, _ in offered_counts(CLOTH, "mirror", 3)] == [1, 2, 3, 4, 5]


def test_an_odd_number_of_a_half_drop_does_not_close_and_is_refused() -> None:
    with pytest.raises(PlacementError, match=r"use 4 or 6"):
        tiling_of(WRAP, (40, 40), Placement("repeat", repeat_kind="half-drop", repeats_around=5))
    assert tiling_of(CLOTH, (40, 40), Placement("repeat", repeat_kind="half-drop", repeats_around=5)).around == 5
    assert step_of(CLOTH, "mirror") == 1


def test_a_rotated_pattern_cannot_close_but_may_be_used_on_cloth() -> None:
    with pytest.raises(PlacementError, match="quarter turns"):
        tiling_of(WRAP, (40, 40), Placement("repeat", rotate_deg=10))
    out = laid(CLOTH, art_of(np.full((20, 20, 3), (10, 200, 60), np.uint8)), (260, 220), rotate_deg=33, repeats_around=6)
    assert (out == (10, 200, 60)).all()


def test_a_quarter_turn_rotates_the_tile() -> None:
    tile = noise(60, 48)
    out = laid(WRAP, art_of(tile), (240, 200), repeats_around=5, rotate_deg=90)
    assert np.array_equal(out[:60, :48], np.rot90(tile, -1))


def test_space_between_tiles_stays_bare() -> None:
    out = laid(WRAP, art_of(np.zeros((40, 40, 3), np.uint8)), (240, 200), repeats_around=4, spacing_mm=20)
    assert out.shape[2] == 4
    assert (out[5:35, 5:35, 3] == 255).all() and (out[:, 42:58, 3] == 0).all() and (out[42:58, :, 3] == 0).all()


@given(st.floats(5, 400), st.floats(5, 400), st.floats(0.2, 4), st.floats(0, 6), st.sampled_from(KINDS))
def test_pitch_times_count_is_the_circumference(w: float, h: float, scale: float, gap: float, kind: str) -> None:
    try:
        tiling = tiling_of(WRAP, (w, h), Placement("repeat", scale=scale, spacing_mm=gap, repeat_kind=kind))  # type: ignore[arg-type]
    except PlacementError:
        return
    assert tiling.around is not None and tiling.around * tiling.pitch_mm[0] == pytest.approx(240)
    assert tiling.tile_mm[0] / tiling.tile_mm[1] == pytest.approx(w / h)
    assert tiling.pitch_mm[0] - tiling.tile_mm[0] == pytest.approx(gap)


def test_resolution_is_that_of_one_tile() -> None:
    art = art_of(noise(300, 250))
    placed = place(WRAP, art.facts.size, Placement("repeat", repeats_around=4))
    assert placed.box[2] == pytest.approx(60) and placed.dpi[0] == pytest.approx(300 / (60 / 25.4))
    assert place(WRAP, art.facts.size, Placement("repeat", repeats_around=8)).dpi[0] == pytest.approx(2 * placed.dpi[0])


def seam_of(tile: np.ndarray) -> float:
    """Return the mean step across both joints of a tile, in 8-bit levels."""
    t = tile.astype(float)
    return max(np.abs(t[:, 0] - t[:, -1]).mean(), np.abs(t[0] - t[-1]).mean())


def ramp() -> np.ndarray:
    return np.stack(
        [
            np.outer(np.linspace(30, 220, 200), np.ones(240)),
            np.outer(np.ones(200), np.linspace(20, 240, 240)),
            np.full((200, 240), 90),
        ],
        -1,
    ).astype(np.uint8)


def test_blended_edges_match() -> None:
    """By construction, the blend starts with the pixel after the tile's last one."""
    tile = as_array(blended_edges(art_of(ramp()).image(), 0.2))
    assert tile.shape == (160, 192, 3)
    assert seam_of(ramp()) > 70 and seam_of(tile) < 4


def test_seamless_art_is_distinguished_from_other_art() -> None:
    x, y = np.meshgrid(np.arange(240) / 240, np.arange(200) / 200)
    waves = 128 + 60 * np.sin(2 * np.pi * 3 * x) + 50 * np.cos(2 * np.pi * 2 * y)
    seamless = np.stack([waves, 255 - waves, waves / 2], -1).clip(0, 255).astype(np.uint8)
    assert find_traits(art_of(seamless)).joint == 0
    assert find_traits(art_of(ramp())).joint > 10
    assert find_traits(art_of(seamless[:, :220])).joint > 2  # cut off in the middle of a wave
