"""The rendered template: what is where, at any size, rotation and transparency."""

from collections.abc import Callable

import numpy as np
import pytest
import pyvips
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from improva.core.artwork.pixels import Artwork, as_array, resized
from improva.core.design import Design, Piece, Placement
from improva.core.fit import place
from improva.core.render import on_blank, render
from improva.core.template import Panel, Template
from tests.conftest import H, W, art_of, encoded, quadrants


def pixels(design: Design, art: Artwork, size: tuple[int, int] = (W, H)) -> np.ndarray:
    return as_array(render(design, lambda _: art, size))


def test_a_picture_that_fits_exactly_is_not_changed(design_of: Callable[..., Design]) -> None:
    art = art_of(quadrants())
    assert np.array_equal(pixels(design_of(art), art), quadrants())


@pytest.mark.parametrize(("turn", "corner"), [(90, "bottom left"), (180, "bottom right"), (270, "top right")])
def test_rotation_is_clockwise(design_of: Callable[..., Design], turn: int, corner: str) -> None:
    art = art_of(quadrants(400, 400))
    first = pixels(design_of(art, rotate_deg=turn), art)[30, 30, :3]
    expected = {"bottom left": (30, 60, 200), "bottom right": (255, 255, 255), "top right": (30, 160, 60)}[corner]
    assert tuple(first) == expected


def test_rotation_by_any_angle_matches_the_geometry(design_of: Callable[..., Design]) -> None:
    art = art_of(quadrants(400, 400))
    design = design_of(art, fit="contain", rotate_deg=30)
    placed = place(design.panel, art.facts.size, design.pieces[0].placement)
    got = pixels(design, art, (930, 820))
    colours = {
        (False, False): (220, 30, 30),
        (True, False): (30, 160, 60),
        (False, True): (30, 60, 200),
        (True, True): (255, 255, 255),
    }
    for x in range(5, 930, 37):
        for y in range(5, 820, 37):
            u, v = placed.to_art((x + 0.5) / 930 * 236.22, (y + 0.5) / 820 * 208.28)
            if min(abs(u), abs(v), abs(u - 1), abs(v - 1), abs(u - 0.5), abs(v - 0.5)) < 0.01:
                continue  # within two pixels of an edge, where it is blended
            inside = 0 < u < 1 and 0 < v < 1
            assert got[y, x, 3] == (255 if inside else 0)
            if inside:
                assert np.abs(got[y, x, :3].astype(int) - colours[u > 0.5, v > 0.5]).max() <= 2


@settings(max_examples=25)
@given(st.integers(40, 900), st.integers(40, 900), st.floats(-180, 180), st.integers(50, 700))
def test_cover_leaves_no_pixel_bare_at_any_output_size(w: int, h: int, turn: float, out: int) -> None:
    art = Artwork.read(encoded(Image.new("RGB", (w, h), (200, 100, 50))))
    panel = Panel("p", "P", (120.0, 90.0), bleed_mm=3.0)
    template = Template("t", "T", "test", "press", "cover", (panel,))
    for angle in (0.0, turn):
        design = Design(template, panel, (Piece("a", art.facts.size, Placement("cover", rotate_deg=angle)),))
        got = pixels(design, art, (out, max(8, out * 3 // 4)))
        assert got.shape[2] == 3 or got[..., 3].min() == 255
        assert np.abs(got[..., :3].astype(int) - (200, 100, 50)).max() <= 1


def test_uncovered_pixels_stay_bare_or_take_the_background(design_of: Callable[..., Design]) -> None:
    art = art_of(quadrants(400, 400))
    bare = pixels(design_of(art, fit="contain"), art)
    assert bare[H // 2, 2, 3] == 0 and bare[H // 2, W // 2, 3] == 255
    ground = pixels(design_of(art, fit="contain", background="#102030"), art)
    assert ground.shape[2] == 3 and tuple(ground[H // 2, 2]) == (0x10, 0x20, 0x30)


def test_hidden_colour_does_not_bleed_out_of_transparency(design_of: Callable[..., Design]) -> None:
    cut = np.dstack([quadrants(800, 800), np.zeros((800, 800), np.uint8)])
    cut[..., :3] = (0, 255, 0)  # garish colour under what is transparent
    cut[200:600, 200:600] = (200, 40, 40, 255)
    art = art_of(cut)
    got = pixels(design_of(art, fit="contain"), art)
    seen = got[got[..., 3] > 20]
    assert seen[:, 1].max() < 60


def test_one_pixel_pictures_and_very_wide_ones_are_rendered(design_of: Callable[..., Design]) -> None:
    for size in ((1, 1), (4000, 3), (3, 4000)):
        art = Artwork.read(encoded(Image.new("RGB", size, (9, 99, 199))))
        for fit in ("cover", "contain", "stretch"):
            got = pixels(design_of(art, fit=fit), art)
            assert got.shape[:2] == (H, W) and np.abs(got[H // 2, W // 2, :3].astype(int) - (9, 99, 199)).max() <= 1


@pytest.mark.parametrize("rotate_deg", [0, 90, 33])
@pytest.mark.parametrize("shift_mm", [(5000, 0), (-5000, 0), (0, 5000), (0, -5000)])
def test_a_picture_outside_its_panel_is_an_empty_layer(
    design_of: Callable[..., Design], shift_mm: tuple[float, float], rotate_deg: float
) -> None:
    art = art_of(quadrants(60, 50))
    got = pixels(design_of(art, fit="contain", shift_mm=shift_mm, rotate_deg=rotate_deg), art)
    assert got.shape == (H, W, 4) and not got[..., 3].any()


def test_pieces_are_composited_in_order(tumbler: Template) -> None:
    # Porter and Duff 1984, "over": a half-transparent white over red is half way between them.
    ground = Artwork.read(encoded(Image.new("RGB", (50, 44), (200, 0, 0))))
    veil = Artwork.read(encoded(Image.new("RGBA", (50, 44), (255, 255, 255, 128))))
    arts = {"ground": ground, "veil": veil}
    pieces = tuple(Piece(name, art.facts.size, Placement()) for name, art in arts.items())
    got = as_array(render(Design(tumbler, tumbler.panel(), pieces), arts.__getitem__, (W, H)))
    assert np.abs(got[100, 100, :3].astype(int) - (228, 128, 128)).max() <= 2


def test_an_empty_design_prints_nothing(tumbler: Template) -> None:
    got = render(Design(tumbler, tumbler.panel(), ()), lambda _: pytest.fail("nothing to open"), (40, 30))
    assert as_array(got)[..., 3].max() == 0
    assert as_array(on_blank(got, "#abcdef"))[0, 0].tolist() == [0xAB, 0xCD, 0xEF]


@pytest.mark.parametrize("factor", [0.3, 0.5, 2, 3, 3.7])
def test_resampling_leaves_every_point_where_it_was(factor: float) -> None:
    """A ramp that rises by 4 per pixel has the value 4·((i + ½) / factor − ½) at the centre of the result's pixel i."""
    ramp = np.repeat(np.arange(0, 250, 4, dtype=np.uint8)[None], 60, axis=0)
    got = as_array(resized(pyvips.Image.new_from_array(ramp).copy(interpretation="b-w"), factor, factor))[..., 0]
    w = got.shape[1]
    expected = 4 * ((np.arange(w) + 0.5) * len(ramp[0]) / w - 0.5)
    inside = slice(round(6 * max(1, factor)), -round(6 * max(1, factor)))
    assert abs((got[got.shape[0] // 2] - expected)[inside].mean()) < 0.1
