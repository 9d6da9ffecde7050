"""Repeating tiles: seamless pictures and scattered motifs; and enlarging."""

import numpy as np
import pytest
from shapely.geometry import MultiPoint
from skimage import data
from skimage.metrics import peak_signal_noise_ratio, structural_similarity

from improva.core.errors import StepError
from improva.core.preparation.enlarge import enlarge
from improva.core.preparation.picture import Picture
from improva.core.preparation.scatter import arranged, scatter
from improva.core.preparation.seamless import seamless
from tests.conftest import closed_wave
from tests.core.preparation.test_border import SQUARE, TRIANGLE, cutout


def opaque(rgb: np.ndarray) -> Picture:
    return Picture(np.dstack([rgb, np.full(rgb.shape[:2], 255)]).astype(np.uint8), 10.0)


def step_across(pixels: np.ndarray) -> float:
    return float(np.abs(pixels[:, 0].astype(int) - pixels[:, -1]).mean())


def test_a_mirrored_tile_matches_at_its_edges_exactly() -> None:
    tile = seamless(opaque(closed_wave(broken=True)), method="mirror").pixels
    assert (tile[:, 0] == tile[:, -1]).all()
    assert (tile[0] == tile[-1]).all()


def test_a_blended_tile_matches_at_its_edges_and_is_smaller() -> None:
    wave = opaque(closed_wave(broken=True))
    tile = seamless(wave, share=20).pixels
    assert tile.shape[1] == pytest.approx(wave.pixels.shape[1] * 0.8, abs=1)
    assert step_across(tile) < step_across(wave.pixels) / 10


def test_scattered_motifs_never_overlap_and_continue_across_the_edges() -> None:
    out = scatter(cutout(SQUARE), width=60, height=50, count=12, least=6, most=6, turned=180, gap=2)
    assert out.size_mm == pytest.approx((60, 50), abs=0.1)
    area = float(out.alpha.sum()) / 255 / out.px_per_mm**2
    assert area == pytest.approx(12 * 36, rel=0.02), "were any overlapping, their common area would be less"
    seam = np.concatenate([out.alpha[:, -1:], out.alpha[:, :1]], axis=1)
    cut_off = (seam[:, 0] > 127) != (seam[:, 1] > 127)
    assert cut_off.mean() < 0.05, "what leaves on the right comes in on the left"


def test_motifs_keep_apart_across_the_edges_at_any_count() -> None:
    stamp = np.ones((9, 14), bool)
    shape = (60, 70)
    places = arranged([stamp] * 40, shape, np.random.default_rng(3))
    taken = np.zeros(shape, int)
    for place in places:
        if place:
            ys, xs = np.nonzero(stamp)
            np.add.at(taken, ((ys + place[0]) % shape[0], (xs + place[1]) % shape[1]), 1)
    assert taken.max() == 1
    assert sum(place is None for place in places) > 0, "more than fit were asked for"


def test_scattered_motifs_are_spread_evenly() -> None:
    """Nearest neighbours of an even spread are at least 60 % as far apart as in a hexagonal lattice (Thue 1910)."""
    shape, count = (120, 120), 16
    places = arranged([np.ones((5, 5), bool)] * count, shape, np.random.default_rng(5))
    points = [(y + 120 * i, x + 120 * j) for y, x in filter(None, places) for i in (-1, 0, 1) for j in (-1, 0, 1)]
    lattice = (2 / 3**0.5 * shape[0] * shape[1] / count) ** 0.5
    for y, x in filter(None, places):
        others = MultiPoint([p for p in points if p != (y, x)])
        assert others.distance(MultiPoint([(y, x)])) > 0.6 * lattice


def test_equal_seeds_give_equal_tiles() -> None:
    motif = cutout(TRIANGLE)
    one, same, other = (scatter(motif, width=60, height=60, count=5, least=8, most=14, seed=s).pixels for s in (1, 1, 2))
    assert (one == same).all()
    assert (one != other).any()


def test_impossible_scattering_is_reported() -> None:
    with pytest.raises(StepError, match="cut it from its paper"):
        scatter(opaque(closed_wave()))
    with pytest.raises(StepError, match="make the tile larger"):
        scatter(cutout(SQUARE), width=20, height=20)
    with pytest.raises(StepError, match="smaller than the smallest"):
        scatter(cutout(SQUARE), least=30, most=20)
    assert "no more found room" in scatter(cutout(SQUARE), width=40, height=40, count=30, least=15, most=15).notes[0]


def test_enlarging_keeps_the_print_size_and_counts_original_pixels() -> None:
    small = opaque(closed_wave())
    out = enlarge(small, factor=2.1)
    assert out.size_mm == pytest.approx(small.size_mm, rel=0.002)
    assert out.enlarged == 2.1
    assert "no more detail" in out.notes[0]
    with pytest.raises(StepError, match="use 5"):
        enlarge(opaque(np.zeros((2400, 2400, 3), np.uint8)), factor=8)


def test_edge_keeping_enlargement_is_closer_to_the_drawing_than_repeated_pixels() -> None:
    """A page of text and a chessboard from scikit-image, halved and enlarged again."""
    for name, factor in (("page", 2), ("text", 2)):
        true = getattr(data, name)()
        true = true[: true.shape[0] // factor * factor, : true.shape[1] // factor * factor]
        small = true.reshape(true.shape[0] // factor, factor, -1, factor).mean(axis=(1, 3)).astype(np.uint8)
        got = enlarge(opaque(np.repeat(small[..., None], 3, axis=2)), factor=factor).pixels[..., 0]
        blocks = small.repeat(factor, axis=0).repeat(factor, axis=1)
        assert peak_signal_noise_ratio(true, got) > peak_signal_noise_ratio(true, blocks), name
        assert structural_similarity(true, got) > structural_similarity(true, blocks), name


def test_edge_keeping_enlargement_has_no_halos() -> None:
    step = np.full((40, 40, 3), 200, np.uint8)
    step[:, :20] = 60
    assert enlarge(opaque(step), factor=4, method="lanczos").pixels[..., 0].max() > 205
    out = enlarge(opaque(step), factor=4).pixels[..., 0]
    assert (out.min(), out.max()) == (60, 200)
