"""Specks and holes: found with position and size, and removed in one go."""

import cv2
import numpy as np

from improva.core.preparation.picture import Picture
from improva.core.preparation.specks import clean, find_specks


def sheet() -> Picture:
    """A square of 40 mm with a hole of 1 mm, and specks of 0.6 and 3 mm beside it; 10 px per mm."""
    pixels = np.zeros((600, 600, 4), np.uint8)
    pixels[..., :3] = 200
    pixels[100:500, 100:500] = (40, 60, 90, 255)
    cv2.circle(pixels, (300, 300), 5, (210, 210, 210, 0), -1)
    cv2.circle(pixels, (50, 60), 3, (90, 90, 90, 255), -1)
    cv2.circle(pixels, (550, 300), 15, (90, 90, 90, 255), -1)
    return Picture(pixels, 10.0)


def test_specks_and_holes_are_found_with_position_and_size() -> None:
    found = find_specks(sheet(), 2)
    assert [(spot.kind, round(spot.size_mm, 1)) for spot in found] == [("hole", 1.0), ("speck", 0.6)]
    hole, speck = found
    assert np.allclose(hole.at, 300.5 / 600, atol=0.002)
    assert np.allclose(speck.at, (50.5 / 600, 60.5 / 600), atol=0.002)
    assert len(find_specks(sheet(), 4)) == 3


def test_specks_and_holes_below_the_given_sizes_are_removed_and_nothing_else() -> None:
    before = sheet()
    out = clean(before, specks=2, holes=2)
    assert find_specks(out, 2) == []
    assert out.pixels[60, 50, 3] == 0
    assert tuple(out.pixels[300, 300]) == (210, 210, 210, 255), "a hole is filled with the colour that was there"
    assert out.pixels[300, 550, 3] == 255
    assert (out.pixels[105:290, 105:495] == before.pixels[105:290, 105:495]).all()
    assert out.notes == ("1 specks were cleared and 1 holes filled.",)


def test_a_background_that_reaches_the_edge_is_not_a_hole() -> None:
    picture = Picture(np.full((100, 100, 4), 255, np.uint8), 10.0)
    picture.pixels[:5, :5, 3] = 0
    assert find_specks(picture, 3) == []
    assert clean(picture, holes=3).pixels[2, 2, 3] == 0


def test_a_picture_without_transparency_has_none() -> None:
    assert find_specks(Picture(np.full((50, 50, 4), 255, np.uint8), 10.0), 5) == []
