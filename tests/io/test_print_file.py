"""Print files, read back by independent readers."""

import io
import subprocess
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pytest
import pyvips
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, ImageCms

from improva.core.design import Design
from improva.core.errors import OutputError
from improva.core.output import PrintSettings, print_name
from improva.core.output.file_names import slug
from improva.core.template import Panel, Template
from improva.io.atomic import atomic_path
from improva.io.print_file import write_print_file
from tests.conftest import art_of, quadrants
from tests.pictures import pdf_image

Make = Callable[..., Path]


@pytest.fixture
def make(design_of: Callable[..., Design], tmp_path: Path) -> Make:
    def written(name: str, dpi: float = 100, mirror: bool = False, pixels: np.ndarray | None = None, **placement: Any) -> Path:
        art = art_of(quadrants() if pixels is None else pixels)
        write_print_file(design_of(art, **placement), lambda _: art, tmp_path / name, PrintSettings(dpi, mirror))
        return tmp_path / name

    return written


def test_png_has_true_size_density_and_profile(make: Make) -> None:
    path = make("wrap.png", dpi=300)
    with Image.open(path) as picture:
        assert picture.size == (2790, 2460) and picture.mode == "RGB"
        assert picture.info["dpi"] == pytest.approx((300, 300), abs=0.02)
        profile = ImageCms.ImageCmsProfile(io.BytesIO(picture.info["icc_profile"]))
        assert "sRGB" in ImageCms.getProfileDescription(profile)
    # W3C PNG, pHYs chunk: 11811 px a metre, unit 1
    assert b"pHYs\x00\x00\x2e\x23\x00\x00\x2e\x23\x01" in path.read_bytes()
    read = pyvips.Image.new_from_file(str(path))
    assert read.xres == pytest.approx(11.811, abs=1e-3)


def test_tiff_has_true_size_density_and_profile(make: Make) -> None:
    with Image.open(make("wrap.tif", dpi=300)) as picture:
        assert picture.size == (2790, 2460)
        assert picture.info["dpi"] == pytest.approx((300, 300), abs=0.01)
        assert picture.info["icc_profile"] and getattr(picture, "tag_v2", {})[296] == 2  # TIFF 6.0: ResolutionUnit inch


def test_pdf_has_the_wraps_size_and_boxes(make: Make) -> None:
    path = make("wrap.pdf", dpi=300)
    # ISO 32000-1, 8.3.2.3 and 14.11.2: 9.3 in is 669.6 pt, 8.2 in 590.4 pt
    with pikepdf.open(path) as pdf:
        page = pdf.pages[0]
        for box in (page.mediabox, page.trimbox, page.BleedBox):
            assert [float(v) for v in box] == pytest.approx([0, 0, 669.6, 590.4], abs=1e-3)
        image = pdf_image(page, "/P0")
        assert (image.width, image.height) == (2790, 2460)
        assert np.array_equal(
            np.asarray(image.as_pil_image().convert("RGB"))[::600, ::900], quadrants(2790, 2460)[::600, ::900]
        )
        assert image.icc is not None
    told = subprocess.run(["pdfinfo", "-box", str(path)], capture_output=True, text=True, check=True).stdout
    assert "669.6 x 590.4 pts" in told
    assert not subprocess.run(["pdfimages", "-list", str(path)], capture_output=True, text=True, check=True).stderr


def test_the_pdf_shows_the_picture_the_right_way_up(make: Make, tmp_path: Path) -> None:
    subprocess.run(["pdftoppm", "-r", "50", "-png", "-singlefile", str(make("wrap.pdf")), str(tmp_path / "page")], check=True)
    page = np.asarray(Image.open(tmp_path / "page.png").convert("RGB")).astype(int)
    assert np.abs(page[100, 100] - (220, 30, 30)).max() < 12 and np.abs(page[300, 100] - (30, 60, 200)).max() < 12


@pytest.mark.parametrize("name", ["wrap.png", "wrap.tif"])
def test_a_mirrored_file_is_the_flipped_picture(make: Make, name: str, tmp_path: Path) -> None:
    plain = np.asarray(Image.open(make(name)))
    mirrored = np.asarray(Image.open(make("m" + name, mirror=True)))
    assert np.array_equal(mirrored, plain[:, ::-1]) and not np.array_equal(mirrored, plain)


def test_bare_parts_stay_transparent_and_white_on_paper(make: Make) -> None:
    square = quadrants(410, 410)
    with Image.open(make("bare.png", pixels=square, fit="contain")) as picture:
        assert picture.mode == "RGBA" and picture.getpixel((3, 300)) == (0, 0, 0, 0)
    with pikepdf.open(make("bare.pdf", pixels=square, fit="contain")) as pdf:
        shown = pdf_image(pdf.pages[0], "/P0").as_pil_image()
        assert shown.convert("RGB").getpixel((3, 300)) == (255, 255, 255)


def test_the_file_includes_the_bleed_and_the_trim_box_is_inside_it(tmp_path: Path, design_of: Callable[..., Design]) -> None:
    from dataclasses import replace

    art = art_of(quadrants())
    panel = Panel("p", "P", (100.0, 80.0), bleed_mm=5.0)
    design = replace(design_of(art), panel=panel)
    write_print_file(design, lambda _: art, tmp_path / "b.pdf", PrintSettings(254))
    with pikepdf.open(tmp_path / "b.pdf") as pdf:
        page, mm = pdf.pages[0], 72 / 25.4
        assert [float(v) for v in page.mediabox] == pytest.approx([0, 0, 110 * mm, 90 * mm], abs=1e-3)
        assert [float(v) for v in page.trimbox] == pytest.approx([5 * mm, 5 * mm, 105 * mm, 85 * mm], abs=1e-3)
        assert pdf_image(page, "/P0").width == 1100


@pytest.mark.parametrize(
    ("name", "dpi", "says"),
    [("wrap.gif", 300, ".png, .tif, .pdf or .jpg"), ("wrap", 300, ".png"), ("w.png", 5, "dpi"), ("w.png", 9000, "dpi")],
)
def test_impossible_files_are_reported_and_nothing_is_left(
    make: Make, tmp_path: Path, name: str, dpi: float, says: str
) -> None:
    with pytest.raises(OutputError, match=says):
        make(name, dpi=dpi)
    assert list(tmp_path.iterdir()) == []


def test_a_missing_folder_is_reported(make: Make) -> None:
    with pytest.raises(OutputError, match="another folder"):
        make("no/such/folder/wrap.png")


def test_a_failure_leaves_the_old_file_as_it_was(tmp_path: Path) -> None:
    path = tmp_path / "wrap.png"
    path.write_bytes(b"the old one")

    def fail_half_way() -> None:
        with atomic_path(path) as temporary:
            temporary.write_bytes(b"half of the new one")
            raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        fail_half_way()
    assert path.read_bytes() == b"the old one" and [p.name for p in tmp_path.iterdir()] == ["wrap.png"]


def test_file_names_say_what_a_file_is(tumbler: Template) -> None:
    panel = Panel("wrap", "Wrap", (9.3 * 25.4, 8.2 * 25.4))
    assert (
        print_name("Summit Line", tumbler, panel, 300, True, "png")
        == "summit-line_tumbler-20oz-straight_9.3x8.2in_300dpi_mirrored.png"
    )
    assert (
        print_name("Summit Line", tumbler, panel, 150, False, "pdf") == "summit-line_tumbler-20oz-straight_9.3x8.2in_150dpi.pdf"
    )


@given(st.text())
def test_any_title_makes_a_safe_name(title: str) -> None:
    name = slug(title)
    assert name and len(name) <= 60 and set(name) <= set("abcdefghijklmnopqrstuvwxyz0123456789-")
