"""Cutting from paper, against art with known alpha: our own, and open images that scikit-image ships."""

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from skimage import data

from improva.core.errors import StepError
from improva.core.preparation.cut import cut, paper_colour, with_white_point
from improva.core.preparation.picture import Picture

PAPER = (243, 236, 220)


def on_paper(rgba: np.ndarray, paper: tuple[int, int, int] = PAPER, grain: float = 0.0) -> Picture:
    """Composite art with known alpha on grainy paper, like a scan of it."""
    alpha = rgba[..., 3:].astype(float) / 255
    mixed = rgba[..., :3] * alpha + np.array(paper) * (1 - alpha)
    mixed += np.random.default_rng(7).normal(0, grain, (*mixed.shape[:2], 1))
    solid = np.full(mixed.shape[:2], 255)
    return Picture(np.dstack([mixed.round().clip(0, 255), solid]).astype(np.uint8), 10.0)


def disc(colour: tuple[int, int, int], size: int = 400, radius: int = 150) -> np.ndarray:
    """A disc with an exact antialiased edge: 8 × 8 samples per pixel."""
    fine = np.zeros((size * 8, size * 8), np.uint8)
    cv2.circle(fine, (size * 4, size * 4), radius * 8, 255, -1)
    alpha = cv2.resize(fine, (size, size), interpolation=cv2.INTER_AREA)
    return np.dstack([np.full((size, size, 3), colour, np.uint8), alpha])


def iou(one: np.ndarray, other: np.ndarray) -> float:
    return float((one & other).sum() / (one | other).sum())


@pytest.mark.parametrize("colour", [(20, 30, 60), (180, 40, 40), (70, 140, 120)])
def test_a_disc_gets_its_alpha_and_its_colour_back(colour: tuple[int, int, int]) -> None:
    art = disc(colour)
    out = cut(on_paper(art)).pixels
    assert np.abs(out[..., 3].astype(int) - art[..., 3]).mean() < 0.25  # of 255, over the whole picture
    edge = (art[..., 3] > 60) & (art[..., 3] < 200)
    assert np.abs(out[edge][:, 3].astype(int) - art[edge][:, 3]).mean() < 14
    white = np.array(colour) * 255 / np.array(PAPER)  # the colour under the white point
    assert np.abs(out[edge][:, :3] - white).mean() < 6, "a rim of paper stayed in the edge"


def test_without_taking_the_rim_out_the_edge_keeps_paper() -> None:
    art = disc((20, 30, 60))
    edge = (art[..., 3] > 60) & (art[..., 3] < 200)
    kept = cut(on_paper(art), decontaminate=False).pixels[edge][:, :3].mean()
    assert kept > cut(on_paper(art)).pixels[edge][:, :3].mean() + 40


def test_the_silhouette_of_a_horse_is_cut_out() -> None:
    """scikit-image's horse (public domain silhouette), painted on paper with grain."""
    mask = ~data.horse()
    art = np.dstack([np.full((*mask.shape, 3), (90, 60, 40)), mask * 255]).astype(np.uint8)
    out = cut(on_paper(art, grain=1.2), soften=0).pixels
    assert iou(out[..., 3] > 127, mask) > 0.999


def test_a_logo_with_many_colours_is_cut_out() -> None:
    """scikit-image's logo, which has alpha; its near-white parts cannot be distinguished from paper."""
    art = data.logo()
    out = cut(on_paper(art, paper=(255, 255, 255))).pixels
    told = art[..., :3].min(axis=2) < 200
    assert iou((out[..., 3] > 127) & told, (art[..., 3] > 127) & told) > 0.985
    assert np.abs(out[..., 3][told].astype(int) - art[..., 3][told]).mean() < 12


def test_contiguous_keeps_enclosed_areas_and_everywhere_does_not() -> None:
    art = disc((20, 30, 60))
    art[190:210, 190:210] = (*PAPER, 255)
    assert cut(on_paper(art)).pixels[200, 200, 3] == 255
    assert cut(on_paper(art), reach="everywhere").pixels[200, 200, 3] == 0
    at = ((200.5 / 400, 200.5 / 400),)
    assert cut(on_paper(art), add=at).pixels[200, 200, 3] == 0
    assert cut(on_paper(art), reach="everywhere", spare=at).pixels[200, 200, 3] == 255


def test_an_added_area_has_its_own_colour() -> None:
    art = disc((20, 30, 60))
    art[150:250, 150:250, :3] = (200, 60, 60)
    out = cut(on_paper(art), add=((0.5, 0.5),)).pixels
    assert out[200, 200, 3] == 0
    assert out[120, 200, 3] == 255


def test_a_pale_wash_at_the_paper_s_edge_is_kept_on_request() -> None:
    scan = on_paper(np.zeros((300, 300, 4), np.uint8), grain=1.5)
    scan.pixels[60:240, 60:240, :3] -= np.array([5, 4, 3], np.uint8)  # paler than the tolerance
    scan.pixels[140:160, 140:160, :3] = (60, 60, 90)
    assert (cut(scan).alpha[70:130, 70:230] > 0).mean() < 0.4, "without care most of the wash is eaten"
    kept = cut(scan, washes=2.5).pixels[..., 3]
    assert (kept[70:230, 70:230] > 0).mean() > 0.97
    assert (kept[:50] > 0).mean() < 0.01


def test_the_white_point_comes_from_the_patch() -> None:
    scan = on_paper(disc((20, 30, 60)))
    scan.pixels[:, :40, :3] = (120, 100, 90)  # a frame along one edge
    assert np.abs(np.array(paper_colour(scan.pixels, (0.15, 0.02, 0.1, 0.05))) - PAPER).max() <= 1
    white = with_white_point(scan.pixels, PAPER)
    assert (white[5, 200] == 255).all()
    assert (white[..., 3] == scan.pixels[..., 3]).all()


def test_a_coloured_background_is_removed_without_whitening_it() -> None:
    art = disc((230, 220, 90))
    out = cut(on_paper(art, paper=(20, 60, 40)), paper="#143c28").pixels
    assert out[3, 3, 3] == 0
    assert np.abs(out[200, 200, :3].astype(int) - (230, 220, 90)).max() <= 1


def test_a_tolerance_that_would_remove_everything_is_reported_first() -> None:
    pale = on_paper(disc((200, 196, 190)))
    with pytest.raises(StepError, match=r"would remove everything: use \d+ at most") as told:
        cut(pale, tolerance=120, reach="everywhere")
    usable = int(str(told.value).split("use ")[1].split(" ")[0])
    assert (cut(pale, tolerance=usable, reach="everywhere").alpha > 0).any()
    with pytest.raises(StepError, match="would remove everything: choose"):
        cut(Picture(np.full((50, 50, 4), 255, np.uint8), 10.0))


@settings(max_examples=25)
@given(st.integers(0, 60), st.integers(0, 60))
def test_more_tolerance_never_removes_less(one: int, other: int) -> None:
    scan = on_paper(disc((150, 120, 110), size=120, radius=40), grain=4)
    few, many = (cut(scan, tolerance=t, soften=0).alpha > 0 for t in sorted((one, other)))
    assert not (many & ~few).any()
