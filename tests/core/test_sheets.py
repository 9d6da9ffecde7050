"""Prints cut for smaller paper and for the platen."""

import itertools
import subprocess
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pikepdf
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from PIL import Image
from shapely import box, unary_union

from improva.core.design import Design
from improva.core.errors import OutputError
from improva.core.output import PAPERS_MM, PrintSettings, make_print, paper_size, plan_sheets, press_positions
from improva.core.output.sheets import MARKS_MM, spans
from improva.io.sheet_file import write_sheets
from tests.conftest import art_of, closed_wave
from tests.pictures import pdf_image

LENGTHS = st.floats(20, 3000)


@given(length=LENGTHS, most=st.floats(30, 600), overlap=st.floats(0, 25))
def test_parts_cover_every_point_and_overlap_as_requested(length: float, most: float, overlap: float) -> None:
    assume(most > overlap + 1)
    parts = spans(length, most, overlap)
    assert parts[0][0] == 0 and sum(parts[-1]) == pytest.approx(length)
    assert all(part <= most + 1e-6 for _, part in parts)
    for (a, w), (b, _) in itertools.pairwise(parts):
        assert a + w - b == pytest.approx(overlap, abs=1e-6)
    # one part fewer could not reach: that many of the longest parts, less their overlaps, are shorter than the whole
    fewer = len(parts) - 1
    assert fewer == 0 or fewer * most - (fewer - 1) * overlap < length + 1e-6


@given(w=LENGTHS, h=LENGTHS, paper=st.sampled_from(sorted(PAPERS_MM)), overlap=st.floats(0, 20))
def test_sheets_cover_the_print_within_the_printable_area(w: float, h: float, paper: str, overlap: float) -> None:
    assume(w * h < 2e6)
    plan = plan_sheets((w, h), PAPERS_MM[paper], 5, overlap)
    covered = unary_union([box(x, y, x + a, y + b) for x, y, a, b in (part.box for part in plan.parts)])
    assert covered.symmetric_difference(box(0, 0, w, h)).area < 1e-3
    for part in plan.parts:
        left, top = plan.origin(part)
        assert left >= 5 + plan.marks_mm - 1e-6 and top >= 5 + plan.marks_mm - 1e-6
    turned = plan_sheets((h, w), PAPERS_MM[paper], 5, overlap)
    assert turned.sheets == plan.sheets  # the paper may be turned, so a turned print takes as many


def test_a_garden_flag_takes_four_letter_sheets() -> None:
    """12.5 × 18 in on 8.5 × 11 in: two across and two down in either orientation. Common practice, no published source."""
    plan = plan_sheets((12.5 * 25.4, 18 * 25.4), PAPERS_MM["letter"], 5, 10)
    assert (len(plan.across), len(plan.down), plan.sheets) == (2, 2, 4)


def test_a_print_that_fits_needs_no_marks_and_the_paper_is_rotated_to_save_sheets() -> None:
    """A 9.3 × 8.2 in wrap fits on 8.5 × 14 in paper in landscape. Common practice, no published source."""
    plan = plan_sheets((9.3 * 25.4, 8.2 * 25.4), PAPERS_MM["legal"], 3, 10)
    assert plan.sheets == 1 and plan.turned and plan.marks_mm == 0
    assert plan_sheets((280, 100), PAPERS_MM["a4"], 5, 10).paper_mm == (297, 210)


def test_papers_are_given_by_name_or_by_size() -> None:
    assert paper_size("A4") == (210, 297) and paper_size("A3") == (297, 420)  # ISO 216
    assert paper_size("letter") == pytest.approx((8.5 * 25.4, 11 * 25.4))  # ANSI/ASME Y14.1, size A
    assert paper_size("330x482mm") == (330, 482)
    for bad in ("a99", "10x10mm", "x", "1e9x5mm", "nanx5mm"):
        with pytest.raises(OutputError):
            paper_size(bad)


@pytest.mark.parametrize(("margin", "overlap"), [(120, 10), (5, 250), (-1, 10), (5, -1), (5, float("nan"))])
def test_impossible_margins_are_reported(margin: float, overlap: float) -> None:
    with pytest.raises((OutputError, Exception), match=r"use|number"):
        plan_sheets((500, 500), PAPERS_MM["letter"], margin, overlap)


@given(w=st.floats(50, 1600), h=st.floats(50, 1600))
def test_platen_positions_cover_the_whole_transfer(w: float, h: float) -> None:
    parts = press_positions((w, h), (381, 381), 25)  # 15 × 15 in: common practice, no published source
    covered = unary_union([box(x, y, x + a, y + b) for x, y, a, b in (p.box for p in parts)])
    assert covered.symmetric_difference(box(0, 0, w, h)).area < 1e-3
    for a, b in itertools.pairwise(parts):
        assert abs(a.column - b.column) + abs(a.row - b.row) == 1  # each lies beside the one before it


def test_assembled_sheets_give_the_print_again(design_of: Callable[..., Design], tmp_path: Path) -> None:
    """Every sheet, rasterised by Poppler, cut where the plan says and put in its place, gives the print file's pixels."""
    art = art_of(closed_wave(930, 820))
    made = make_print(design_of(art), lambda _: art, PrintSettings(100, mirror=True))
    plan = plan_sheets(made.size_mm, (150, 120), 5, 12)
    path = tmp_path / "sheets.pdf"
    assert write_sheets(made, plan, path, "wave") == plan.sheets + 1 > 4
    told = subprocess.run(["pdfinfo", "-box", "-l", "2", str(path)], capture_output=True, text=True, check=True)
    assert not told.stderr and f"Pages:           {plan.sheets + 1}" in told.stdout
    whole = np.asarray(make_print(design_of(art), lambda _: art, PrintSettings(100, mirror=True)).image.numpy())[..., :3]
    again = np.zeros_like(whole)
    with pikepdf.open(path) as pdf:
        for part, page in zip(plan.parts, pdf.pages, strict=False):
            image = np.asarray(pdf_image(page, "/P0").as_pil_image().convert("RGB"))
            left, top = (round(v * 100 / 25.4) for v in part.box[:2])
            again[top : top + image.shape[0], left : left + image.shape[1]] = image
            x0, y0, x1, y1 = (float(v) * 25.4 / 72 for v in page.trimbox)
            ox, oy = plan.origin(part)
            assert (x0, plan.paper_mm[1] - y1) == pytest.approx((ox, oy), abs=0.13)  # half a pixel
            assert (x1 - x0, y1 - y0) == pytest.approx(part.box[2:], abs=0.26)
    assert np.array_equal(again, whole)
    subprocess.run(
        ["pdftoppm", "-r", "100", "-png", "-f", "1", "-l", "1", "-singlefile", str(path), str(tmp_path / "one")], check=True
    )
    printed = np.asarray(Image.open(tmp_path / "one.png").convert("L")).astype(int)
    ox, oy = (v * 100 / 25.4 for v in plan.origin(plan.parts[0]))
    above = printed[: int(oy) - 1]
    assert above.min() < 120  # targets and lines stand outside the art
    assert (printed[: int(5 * 100 / 25.4)] > 250).all()  # and nothing where the printer cannot reach
    assert plan.marks_mm == MARKS_MM


def test_sheets_are_a_pdf_and_nothing_else(design_of: Callable[..., Design], tmp_path: Path) -> None:
    art = art_of(closed_wave())
    made = make_print(design_of(art), lambda _: art, PrintSettings(50))
    with pytest.raises(OutputError, match=r"\.pdf"):
        write_sheets(made, plan_sheets(made.size_mm, PAPERS_MM["a4"]), tmp_path / "a.png", "a")
    assert list(tmp_path.iterdir()) == []
