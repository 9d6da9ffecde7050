"""Print files with tab and marks, as JPEG, in a printer's own colours; and progress of long work."""

import io
import resource
import subprocess
import sys
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pytest
import pyvips
from PIL import Image, ImageCms
from shapely import Point, Polygon

from improva.catalogue import template
from improva.core.design import Design, Piece, Placement
from improva.core.errors import ArtworkError, OutputError, Stopped
from improva.core.output import Carrier, PrintSettings, make_print, marks_of, soft_proof, tab_of
from improva.core.output.carrier import MARKS_MM
from improva.core.progress import Progress
from improva.io.print_file import write_print_file
from tests.conftest import art_of, closed_wave, quadrants
from tests.pictures import little_cms_round_trip

TAB_MM = 6.35
RED, GREEN, BLUE = (220, 30, 30), (30, 160, 60), (30, 60, 200)


def rgb_profile(gamma: float = 1.8) -> bytes:
    """A printer's RGB profile: Display P3 primaries as Pillow ships none, so sRGB's with another curve, from libvips's own."""
    p3 = bytes(pyvips.Operation.call("profile_load", "p3"))
    assert ImageCms.ImageCmsProfile(io.BytesIO(p3)).profile.xcolor_space.strip() == "RGB"
    return p3


@pytest.fixture
def written(design_of: Callable[..., Design], tmp_path: Path) -> Callable[..., Path]:
    def make(
        name: str, pixels: np.ndarray | None = None, dpi: float = 100, progress: Progress | None = None, **settings: Any
    ) -> Path:
        art = art_of(quadrants() if pixels is None else pixels)
        asked = PrintSettings(dpi, **settings)
        write_print_file(design_of(art), lambda _: art, tmp_path / name, asked, progress or Progress())
        return tmp_path / name

    return make


def near(pixel: object, colour: tuple[int, int, int], most: int = 3) -> bool:
    return bool(np.abs(np.asarray(pixel, int)[:3] - colour).max() <= most)


def test_jpeg_has_true_size_density_and_profile(written: Callable[..., Path]) -> None:
    path = written("wrap.jpg", dpi=300)
    with Image.open(path) as picture:
        assert picture.size == (2790, 2460) and picture.mode == "RGB"
        assert picture.info["dpi"] == pytest.approx((300, 300), abs=0.5) and picture.info["jfif_unit"] == 1  # ITU-T T.871
        assert picture.info["icc_profile"]
    read = pyvips.Image.new_from_file(str(path))
    assert read.xres * 25.4 == pytest.approx(300, abs=0.5) and near(read(100, 100), RED, 6)


@pytest.mark.parametrize(
    ("tab", "mirror", "white_left"),
    [("left", False, True), ("right", False, False), ("left", True, False), ("right", True, True)],
)
def test_the_tab_is_white_on_its_side_and_the_other_end_is_flush(
    written: Callable[..., Path], tab: str, mirror: bool, white_left: bool
) -> None:
    path = written("wrap.png", mirror=mirror, carrier=Carrier(tab, TAB_MM))  # type: ignore[arg-type]
    picture = np.asarray(Image.open(path).convert("RGB"))
    assert picture.shape[:2] == (820, 930 + 25)
    white = (picture[200] > 250).all(axis=1)
    assert white.sum() == 25 and white[:25].all() == white_left and white[-25:].all() != white_left
    corner = picture[30, 40 if white_left else 10]
    assert near(corner, GREEN if mirror else RED)


def test_trim_marks_stand_outside_the_print_at_its_ends(written: Callable[..., Path]) -> None:
    path = written("wrap.png", dpi=254, carrier=Carrier("right", 10, True))
    picture = np.asarray(Image.open(path).convert("RGB")).astype(int)
    strip = round(MARKS_MM * 10)
    w, h = 2362, 2083
    assert picture.shape[:2] == (h + 2 * strip, w + 100)
    for row in (strip - 5, strip + h + 5):
        dark = np.flatnonzero(picture[row].max(axis=1) < 40)
        assert dark.tolist() == [0, 1, w, w + 1]
    assert near(picture[strip, 5], RED) and (picture[5] == 255).all()


def test_a_pdf_with_extra_paper_has_the_boxes_of_the_print(written: Callable[..., Path]) -> None:
    with pikepdf.open(written("wrap.pdf", carrier=Carrier("right", TAB_MM, True), mirror=True)) as pdf:
        page, pt = pdf.pages[0], 72 / 25.4
        media, bleed, trim = ([float(v) for v in box] for box in (page.mediabox, page.BleedBox, page.trimbox))
    assert media == pytest.approx([0, 0, 669.6 + TAB_MM * pt, 590.4 + 2 * MARKS_MM * pt], abs=1e-3)
    assert bleed == trim == pytest.approx([TAB_MM * pt, MARKS_MM * pt, 669.6 + TAB_MM * pt, 590.4 + MARKS_MM * pt], abs=1e-3)


def test_tabs_need_straight_ends(tmp_path: Path) -> None:
    art, pillow = art_of(quadrants()), template("pillow-shaped")
    design = Design(pillow, pillow.panel(), (Piece("art", art.facts.size, Placement()),))
    with pytest.raises(OutputError, match="straight ends"):
        write_print_file(design, lambda _: art, tmp_path / "a.png", PrintSettings(72, carrier=Carrier("left", 5)))
    with pytest.raises(OutputError, match="0 to 60"):
        Carrier("left", 500)
    assert list(tmp_path.iterdir()) == []


@pytest.mark.parametrize("mirror", [False, True])
def test_a_ring_has_its_tab_square_to_its_end(tmp_path: Path, mirror: bool) -> None:
    """The tab is a rectangle at the ring's straight end; the print is the same as without a tab."""
    art, cup = art_of(closed_wave()), template("tumbler-20oz-tapered")
    panel = cup.panel()
    design = Design(cup, panel, (Piece("art", art.facts.size, Placement()),))
    carrier = Carrier("right", 10, True)
    corners = tab_of(panel, carrier)
    sides = [np.subtract(corners[i], corners[i - 1]) for i in range(4)]
    assert [float(np.hypot(*s)) for s in sides] == pytest.approx([10, panel.cone.slant_mm, 10, panel.cone.slant_mm])  # type: ignore[union-attr]
    assert abs(float(np.dot(sides[0], sides[1]))) < 1e-6
    ring = Polygon(panel.line())
    assert ring.intersection(Polygon(corners)).area < 0.02 and ring.distance(Polygon(corners)) < 1e-6
    bare = PrintSettings(100)
    made, plain = (make_print(design, lambda _: art, s) for s in (PrintSettings(100, mirror, carrier=carrier), bare))
    picture, without = np.asarray(made.image.numpy()).astype(int), np.asarray(plain.image.numpy()).astype(int)
    picture = picture[:, ::-1] if mirror else picture
    left, top, *_ = PrintSettings(100, carrier=carrier).margins_px(panel)
    inside = picture[top : top + without.shape[0], left : left + without.shape[1]]
    solid = without[..., 3] == 255
    assert np.abs(inside - without)[solid].max() <= 1
    per_mm = 100 / 25.4
    mid = np.mean(corners, axis=0)
    x, y = round(left + (mid[0] + panel.bleed_mm) * per_mm), round(top + (mid[1] + panel.bleed_mm) * per_mm)
    assert tuple(picture[y, x]) == (255, 255, 255, 255)
    for a, b, c, d in marks_of(panel, carrier):
        x, y = round(left + (a + c) / 2 * per_mm), round(top + (b + d) / 2 * per_mm)
        assert (picture[max(0, y - 2) : y + 3, max(0, x - 2) : x + 3, 3] > 100).any()
        assert ring.distance(Point(a, b)) > 0.3  # past the corner, not on the print


@pytest.mark.parametrize("name", ["wrap.png", "wrap.tif", "wrap.jpg"])
def test_two_readers_see_the_same_file(written: Callable[..., Path], name: str) -> None:
    """Pillow and libvips; JPEG decoders may differ by a level or two."""
    path = written(name, closed_wave(), dpi=60)
    with Image.open(path) as picture:
        by_pillow = np.asarray(picture.convert("RGB")).astype(int)
        dpi = picture.info["dpi"]
    read = pyvips.Image.new_from_file(str(path))
    assert np.abs(by_pillow - np.asarray(read.numpy())[..., :3]).max() <= (3 if name.endswith("jpg") else 0)
    assert dpi == pytest.approx((read.xres * 25.4, read.yres * 25.4), abs=0.02)
    assert dpi == pytest.approx((60, 60), abs=0.05)


def test_colours_are_converted_as_by_little_cms(written: Callable[..., Path]) -> None:
    """Against Little CMS through Pillow: sRGB to the profile, relative colorimetric with black point compensation."""
    wave, profile = closed_wave(), rgb_profile()
    path = written("wrap.tif", wave, dpi=50, profile=profile)
    with Image.open(path) as picture:
        assert picture.info["icc_profile"] == profile
        ours = np.asarray(picture.convert("RGB")).astype(int)
    there = ImageCms.buildTransform(
        ImageCms.createProfile("sRGB"),
        ImageCms.ImageCmsProfile(io.BytesIO(profile)),
        "RGB",
        "RGB",
        ImageCms.Intent.RELATIVE_COLORIMETRIC,
        ImageCms.Flags.BLACKPOINTCOMPENSATION,
    )
    theirs = np.asarray(ImageCms.applyTransform(Image.fromarray(wave), there)).astype(int)
    assert np.abs(ours - theirs).max() <= 2 and np.abs(theirs - wave).max() > 8
    # and back again by Little CMS: the colours that were meant
    back = ImageCms.profileToProfile(
        Image.fromarray(ours.astype(np.uint8)), io.BytesIO(profile), ImageCms.createProfile("sRGB")
    )
    assert np.abs(np.asarray(back).astype(int) - wave).max() <= 3


def test_a_pdf_contains_the_printers_profile(written: Callable[..., Path]) -> None:
    with pikepdf.open(written("wrap.pdf", dpi=50, profile=rgb_profile())) as pdf:
        space = pdf.pages[0].get_images()["/P0"].ColorSpace
        assert space[0] == "/ICCBased" and space[1].read_bytes() == rgb_profile()


def test_press_profiles_and_files_that_are_not_profiles_are_refused(written: Callable[..., Path], tmp_path: Path) -> None:
    cmyk = bytes(pyvips.Operation.call("profile_load", "cmyk"))
    with pytest.raises(OutputError, match="stay RGB"):
        written("wrap.png", profile=cmyk)
    with pytest.raises(ArtworkError, match="not an ICC profile"):
        written("wrap.png", profile=b"no profile")
    with pytest.raises(OutputError, match="intent"):
        PrintSettings(300, intent="loud")  # type: ignore[arg-type]
    assert list(tmp_path.iterdir()) == []


def test_a_soft_proof_keeps_what_can_be_printed_and_dulls_what_cannot() -> None:
    """Compared with Little CMS, called through Pillow: press profile, relative colorimetric, black point compensation in
    both directions.
    """
    colours = np.array([[[0, 255, 0], [128, 128, 128], [255, 255, 255], [0, 0, 0]]], np.uint8)
    vivid = pyvips.Image.new_from_array(colours).copy(interpretation="srgb")
    cmyk = bytes(pyvips.Operation.call("profile_load", "cmyk"))
    seen = np.asarray(soft_proof(vivid, cmyk, "relative").numpy()).astype(int)[0]
    assert abs(seen - little_cms_round_trip(colours, cmyk, "CMYK")[0]).max() <= 4
    assert abs(seen[0] - [0, 255, 0]).max() > 40 and abs(seen[1] - 128).max() <= 12 and seen[2].min() >= 253
    paper = np.asarray(soft_proof(vivid, cmyk, "relative", paper=True).numpy()).astype(int)[0]
    assert paper[2].max() < 253  # the paper's own white is not the screen's


def test_progress_is_reported_and_stopping_leaves_nothing(written: Callable[..., Path], tmp_path: Path) -> None:
    shares: list[float] = []
    path = written("wrap.png", dpi=300, progress=Progress(shares.append))
    assert shares == sorted(shares) and shares[-1] > 0.95 and len(shares) > 5
    path.unlink()
    for name in ("wrap.png", "wrap.pdf", "wrap.tif", "wrap.jpg"):
        asked = iter([False] * 2 + [True] * 10_000)
        with pytest.raises(Stopped):
            written(name, dpi=300, progress=Progress(stopped=partial(next, asked)))
        assert list(tmp_path.iterdir()) == []


@pytest.mark.parametrize("name", ["wrap.png", "wrap.tif", "wrap.pdf", "wrap.jpg", "sheets.pdf"])
def test_a_full_disk_is_reported_and_leaves_nothing(tmp_path: Path, art_file: Path, name: str) -> None:
    """A process with a file size limit of 100 kB, which behaves like a full disk."""
    out = tmp_path / "out"
    out.mkdir()
    more = ["--sheet", "letter"] if "sheets" in name else []
    noisy = tmp_path / "noise.png"
    Image.fromarray(np.random.default_rng(1).integers(0, 255, (820, 930, 3), dtype=np.uint8)).save(noisy)
    ran = subprocess.run(
        [
            sys.executable,
            "-m",
            "improva.cli",
            "print",
            str(noisy),
            "--template",
            "tumbler-20oz-straight",
            *more,
            "-o",
            str(out / name),
        ],
        capture_output=True,
        text=True,
        check=False,
        preexec_fn=lambda: resource.setrlimit(resource.RLIMIT_FSIZE, (100_000, 100_000)),
    )
    assert ran.returncode == 2, ran.stderr
    assert "disk" in ran.stderr.splitlines()[-1] and "Traceback" not in ran.stderr
    assert list(out.iterdir()) == []
