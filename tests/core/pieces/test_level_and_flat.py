"""Pieces on tapered walls, on outlines and in print files: their position is the same in every kind of output."""

from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pytest
from PIL import Image

from improva.catalogue import template
from improva.core.artwork.pixels import as_array
from improva.core.design import Design, Piece, Placement
from improva.core.output import PrintSettings
from improva.core.pieces import Band, Lettering, lettering_shape, piece_box
from improva.core.render import render, render_level
from improva.core.words.font import open_font
from improva.fonts import font_bytes
from improva.io.print_file import write_print_file
from tests.conftest import BLANK, art_of, quadrants
from tests.pictures import pdf_image

FONTS = {"poster": font_bytes("poster")}
ART = art_of(quadrants(400, 300))
WORDS = Lettering("UP", "poster", sizing="width", width_mm=40, shift_mm=(30, -20), fill="#00ffff")


def design(blank: str, *extras: object, **placement: Any) -> Design:
    found = template(blank)
    pieces = (Piece("art", ART.facts.size, Placement(**placement)),)
    return Design(found, found.panel(), pieces, extras, FONTS)  # type: ignore[arg-type]


def ink_middle(image: np.ndarray) -> tuple[float, float]:
    ys, xs = np.nonzero(np.abs(image[..., :3].astype(int) - (0, 255, 255)).max(axis=2) < 60)
    return float(xs.mean()), float(ys.mean())


@pytest.mark.parametrize("lay", ["bent", "flat"])
def test_words_on_a_tapered_wall_are_bent_with_it(lay: str) -> None:
    """The centre of the words on the template is their centre on the wall, by the cone's closed form, however the artwork is
    placed.
    """
    held = design("tumbler-20oz-tapered", WORDS, fit="cover", lay=lay)
    panel, density = held.panel, 4.0
    level = panel.level()
    drawn = as_array(render_level(held, lambda _: ART, (round(level.file_mm[0] * density), round(level.file_mm[1] * density))))
    flat = as_array(render(held, lambda _: ART, (round(panel.file_mm[0] * density), round(panel.file_mm[1] * density))))
    x, y = (v / density - panel.bleed_mm for v in ink_middle(drawn))
    assert panel.cone is not None
    fx, fy = panel.cone.to_flat(x, y)
    got = tuple(v / density - panel.bleed_mm for v in ink_middle(flat))
    assert got == pytest.approx((float(fx), float(fy)), abs=0.6)


def test_the_box_of_a_piece_is_where_it_is_drawn() -> None:
    held = design(BLANK, WORDS)
    image = as_array(render(held, lambda _: ART, (945, 833)))
    ys, xs = np.nonzero(np.abs(image[..., :3].astype(int) - (0, 255, 255)).max(axis=2) < 60)
    box = piece_box(WORDS, held.panel, FONTS)
    assert box is not None
    density = 945 / held.panel.file_mm[0]
    assert (xs.min() / density, ys.min() / density) == pytest.approx(box[:2], abs=0.5)
    assert ((xs.max() + 1 - xs.min()) / density, (ys.max() + 1 - ys.min()) / density) == pytest.approx(box[2:], abs=0.5)


@pytest.mark.parametrize("ending", [".png", ".tif", ".pdf"])
def test_print_files_contain_pieces_mirrored_for_pressing(ending: str, tmp_path: Path) -> None:
    path = tmp_path / f"wrap{ending}"
    write_print_file(
        design(BLANK, WORDS, Band("level", 12, "#102030", None, 25, 0)), lambda _: ART, path, PrintSettings(100, mirror=True)
    )
    if ending == ".pdf":
        with pikepdf.open(path) as document:
            image = np.asarray(pdf_image(document.pages[0]).as_pil_image().convert("RGB"))
    else:
        image = np.asarray(Image.open(path).convert("RGB"))
    assert image.shape == (820, 930, 3)
    assert tuple(image[10, 400]) == pytest.approx((0x10, 0x20, 0x30), abs=2)
    xs = np.nonzero(np.abs(image.astype(int) - (0, 255, 255)).max(axis=2) < 60)[1]
    x = (int(xs.min()) + int(xs.max()) + 1) / 2
    assert x / 100 * 25.4 == pytest.approx(236.22 / 2 - 30, abs=0.6), "30 mm right of the middle is left of it in the mirror"


def test_the_same_design_gives_the_same_pixels_at_every_density() -> None:
    held = design(BLANK, WORDS, Band("all", 20, "#102030", None, 25, 2))
    fine = as_array(render(held, lambda _: ART, (1890, 1666))).astype(float)
    coarse = as_array(render(held, lambda _: ART, (945, 833))).astype(float)
    halved = fine.reshape(833, 2, 945, 2, -1).mean(axis=(1, 3))
    assert np.abs(halved - coarse)[..., :3].mean() < 1.5


def test_an_outline_grows_words_and_leaves_their_letters_in_place() -> None:
    font = open_font(FONTS["poster"])
    plain, lined = (
        lettering_shape(w, font)
        for w in (WORDS, Lettering("UP", "poster", sizing="width", width_mm=40, outline="#000000", outline_mm=3))
    )
    assert plain.words == pytest.approx(lined.words)
    assert lined.whole == pytest.approx((lined.words[0] + 6, lined.words[1] + 6))
