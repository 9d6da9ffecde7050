"""Shapes that are cut along their artwork: sewn on its contour, cut with an allowance; pictures and print files agree."""

import cv2
import numpy as np
import pytest
import shapely
from PIL import Image, ImageDraw

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork, as_array
from improva.core.design import Design, Piece, Placement
from improva.core.mockup.drawn import CUT_PX, cut_mask
from improva.core.output import make_print
from improva.core.output.settings import PrintSettings
from improva.core.render.contour import border_width, cut_shape, mask_of, within_border
from tests.conftest import encoded

PILLOW = template("pillow-shaped")
PANEL = PILLOW.panels[0]
PX_MM = 4.0
"""Of the test's pictures, which fill the panel: px for each mm."""

SIDE = round(400 * PX_MM)


def disc(radius_mm: float, rim_mm: float = 0.0, rim: tuple[int, int, int] = (255, 255, 255)) -> Artwork:
    """Return a striped disc in the middle of a transparent square, perhaps with a border of one colour."""
    y, x = (np.mgrid[:SIDE, :SIDE] + 0.5) / PX_MM - 200
    away = np.hypot(x, y)
    pixels = np.zeros((SIDE, SIDE, 4), np.uint8)
    pixels[..., :3] = np.where((x // 5 % 2 == 0)[..., None], (200, 60, 40), (30, 90, 160))
    pixels[(away > radius_mm), :3] = rim
    pixels[..., 3] = (away <= radius_mm + rim_mm) * 255
    return Artwork.read(encoded(Image.fromarray(pixels)))


def laid(art: Artwork) -> Design:
    return Design(PILLOW, PANEL, (Piece("art", art.facts.size, Placement("contain")),))


def shape_of(art: Artwork) -> tuple[shapely.Geometry, shapely.Geometry]:
    found = cut_shape(laid(art), lambda _: art)
    return found.sewn, found.cut


def test_a_disc_without_a_border_gets_one_and_is_cut_with_the_allowance() -> None:
    """Areas by Steiner's formula for a convex shape that is grown by r: A + P r + pi r^2."""
    sewn, cut = shape_of(disc(120))
    radius, grown = 120.0, PANEL.safe_mm
    area = np.pi * radius**2 + 2 * np.pi * radius * grown + np.pi * grown**2
    assert sewn.area == pytest.approx(area, rel=0.004)
    assert cut.area == pytest.approx(sewn.area + sewn.length * PANEL.allowance_mm + np.pi * PANEL.allowance_mm**2, rel=1e-3)
    circle = shapely.Point(200, 200).buffer(radius + grown, quad_segs=256)
    assert sewn.hausdorff_distance(circle) < 0.5


@pytest.mark.parametrize("rim", [(255, 255, 255), (40, 60, 50)])
def test_an_artwork_with_its_own_border_is_sewn_on_its_contour(rim: tuple[int, int, int]) -> None:
    sewn, cut = shape_of(disc(110, 10, rim))
    assert sewn.hausdorff_distance(shapely.Point(200, 200).buffer(120, quad_segs=256)) < 0.4
    assert cut.hausdorff_distance(shapely.Point(200, 200).buffer(120 + PANEL.allowance_mm, quad_segs=256)) < 0.4


def test_the_border_is_measured_in_mm() -> None:
    for wide in (6.0, 12.0):
        pixels = as_array(disc(100, wide).image())
        colours = np.asarray(cv2.cvtColor(pixels[..., :3].astype(np.float32) / 255, cv2.COLOR_RGB2LAB), np.float32)
        solid = pixels[..., 3] > 127
        assert border_width(colours, solid, PX_MM) == pytest.approx(wide, abs=0.5)
        left = within_border(colours, solid, PX_MM)
        assert np.sqrt(left.sum() / np.pi) / PX_MM == pytest.approx(100, abs=0.8)


def test_a_shape_of_one_colour_has_no_inside_and_stays_whole() -> None:
    solid = np.zeros((200, 200), bool)
    solid[40:160, 40:160] = True
    white = np.full((200, 200, 3), (100.0, 0.0, 0.0), np.float32)
    assert (within_border(white, solid, 2.0) == solid).all()


def test_a_picture_without_bare_parts_is_cut_along_the_panel() -> None:
    art = Artwork.read(encoded(Image.new("RGB", (800, 800), (90, 120, 60))))
    sewn, cut = shape_of(art)
    assert sewn.equals(shapely.box(0, 0, *PANEL.trim_mm)) and cut.equals(sewn)


def test_two_parts_are_two_shapes_and_holes_are_filled() -> None:
    image = Image.new("RGBA", (SIDE, SIDE))
    draw = ImageDraw.Draw(image)
    draw.ellipse((200, 600, 600, 1000), fill=(90, 30, 30, 255))
    draw.ellipse((350, 750, 450, 850), fill=(0, 0, 0, 0))
    draw.rectangle((1000, 600, 1400, 1000), fill=(30, 30, 90, 255))
    sewn, _ = shape_of(Artwork.read(encoded(image)))
    parts = list(sewn.geoms)
    assert len(parts) == 2 and all(not part.interiors for part in parts)


def test_picture_and_print_show_the_same_outline() -> None:
    art = disc(110, 10)
    design = laid(art)
    sewn, cut = shape_of(art)
    assert (cut_mask(design, lambda _: art) == mask_of(sewn, PANEL, CUT_PX)).all()
    made = make_print(design, lambda _: art, PrintSettings(100, False, cut_line=True))
    plain = make_print(design, lambda _: art, PrintSettings(100, False))
    with_line, without = (as_array(each.image).astype(float) for each in (made, plain))
    for image in (with_line, without):  # what is transparent has no colour
        image[..., :3] *= image[..., 3:] / 255
    drawn = (np.abs(with_line - without) > 3).any(axis=2)
    row, column = np.nonzero(drawn)
    assert len(row) > 1000, "a line is drawn"
    at = shapely.points((np.stack([column, row], -1) + 0.5) * 25.4 / 100)
    assert shapely.distance(at, cut.boundary).max() < 0.6, "it lies on the cutting line, one px wide"
    assert shapely.distance(at, shapely.box(0, 0, 400, 400).boundary).min() > 50
