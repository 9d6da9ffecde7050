"""PDF files written in one pass, read back by pikepdf, PDFium and Poppler."""

import io
import subprocess
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pypdfium2
import pytest
import pyvips

from improva.core.output.marks import Marks
from improva.core.output.profile import srgb_profile
from improva.io.pdf import Page, PlacedPicture, write_pages
from improva.io.ticket import Ticket, TicketSide, write_ticket
from tests.pictures import pdf_image

RNG = np.random.default_rng(4)
NOISE = RNG.integers(0, 255, (60, 90, 3), dtype=np.uint8)


def image(pixels: np.ndarray) -> pyvips.Image:
    return pyvips.Image.new_from_array(pixels).copy(interpretation="srgb")


def pixels_of(page: pikepdf.Page, name: str = "/P0") -> np.ndarray:
    return np.asarray(pdf_image(page, name).as_pil_image().convert("RGB"))


def test_pages_keep_their_pixels_sizes_and_boxes(tmp_path: Path) -> None:
    path = tmp_path / "a.pdf"
    second = image(NOISE[:20, :30])
    write_pages(
        [
            Page((100, 80), (PlacedPicture(image(NOISE), (10, 5, 90, 60)),), trim=(12, 7, 86, 56), bleed=(10, 5, 90, 60)),
            Page((50.8, 25.4), (PlacedPicture(second, (0, 0, 25.4, 12.7)), PlacedPicture(second, (25.4, 12.7, 25.4, 12.7)))),
        ],
        path,
    )
    with pikepdf.open(path) as pdf:
        assert len(pdf.pages) == 2 and pdf.pdf_version == "1.7" and not pdf.check_pdf_syntax()
        first, last = pdf.pages
        pt = 72 / 25.4
        assert [float(v) for v in first.mediabox] == pytest.approx([0, 0, 100 * pt, 80 * pt], abs=1e-4)
        # boxes count from the bottom left: 80 - 7 - 56 = 17 mm below the trim
        assert [float(v) for v in first.trimbox] == pytest.approx([12 * pt, 17 * pt, 98 * pt, 73 * pt], abs=1e-4)
        assert [float(v) for v in first.BleedBox] == pytest.approx([10 * pt, 15 * pt, 100 * pt, 75 * pt], abs=1e-4)
        assert np.array_equal(pixels_of(first), NOISE)
        assert last.get_images()["/P0"].objgen == last.get_images()["/P1"].objgen  # written once, laid twice
        assert first.get_images()["/P0"].ColorSpace[1].read_bytes() == srgb_profile()
    told = subprocess.run(["pdfinfo", "-box", "-f", "1", "-l", "2", str(path)], capture_output=True, text=True, check=True)
    assert not told.stderr and "144 x 72 pts" in told.stdout
    assert list(tmp_path.iterdir()) == [path]


def test_a_picture_is_where_it_was_placed(tmp_path: Path) -> None:
    red = image(np.full((10, 10, 3), (200, 20, 20), np.uint8))
    path = tmp_path / "a.pdf"
    write_pages([Page((100, 50), (PlacedPicture(red, (60, 10, 20, 30)),))], path)
    with pypdfium2.PdfDocument(path) as pdf:
        seen = pdf[0].render(scale=25.4 / 72 * 2, rev_byteorder=True).to_numpy()[..., :3].astype(int)  # 2 px a mm
    inside = np.argwhere(np.abs(seen - (200, 20, 20)).max(axis=2) < 10)
    assert np.abs(inside.min(axis=0) - (20, 120)).max() <= 1 and np.abs(inside.max(axis=0) - (79, 159)).max() <= 1


def test_marks_are_drawn_in_millimetres_with_any_text(tmp_path: Path) -> None:
    marks = Marks(100)
    marks.target(20, 30)
    marks.line(50, 0, 50, 100)
    marks.box(60, 60, 30, 20, dashed=True)
    marks.text(5, 95, r"sheet (1) of 2 \ café – 中")
    marks.text(60, 20, "7", 12, plate=True)
    path = tmp_path / "a.pdf"
    write_pages([Page((100, 100), (), marks.content())], path)
    with pypdfium2.PdfDocument(path) as pdf:
        text = pdf[0].get_textpage().get_text_range()
        seen = pdf[0].render(scale=25.4 / 72 * 10).to_numpy()[..., :3].min(axis=2)  # 10 px a mm
    assert "sheet (1) of 2 \\ café" in text and "7" in text
    assert seen[300, 200] < 160 and seen[500, 500] < 160 and seen[300, 300] == 255
    assert (seen[600, 600:900] < 200).any() and (seen[600, 600:900] == 255).any()  # dashes and their gaps


def test_failed_writing_leaves_no_picture_behind(tmp_path: Path) -> None:
    path = tmp_path / "a.pdf"

    def pages() -> object:
        yield Page((10, 10), (PlacedPicture(image(NOISE), (0, 0, 10, 10)),))
        raise RuntimeError("the second page cannot be made")

    with pytest.raises(RuntimeError):
        write_pages(pages(), path)  # type: ignore[arg-type]
    assert [p.name for p in tmp_path.iterdir()] == ["a.pdf"]


def ticket(**changed: Any) -> Ticket:
    side = TicketSide("Front", "summit-line_t-shirt_front.png", (304.8, 355.6), (3600, 4200), 300, (10, -2.5, 0, 25.4))
    said = {
        "title": "Summit <Line> & Co",
        "blank": "T-shirt",
        "made_of": "polyester",
        "colours": (("Lid", "Ink"), ("Straw", "#aa3311")),
        "route": "pressed here",
        "count": 3,
        "sides": (side,),
        "settings": "Flat press",
        "steps": ("Press. 60 s", "Peel."),
        "cautions": ("Hot.",),
        "notes": "One\nTwo",
        "on": "2026-05-30",
        "picture": bytes(image(NOISE).jpegsave_buffer()),
    }
    return Ticket(**{**said, **changed})


def read(path: Path) -> str:
    with pypdfium2.PdfDocument(path) as pdf:
        assert len(pdf) == 1
        return str(pdf[0].get_textpage().get_text_range())


def test_a_ticket_gives_sizes_in_both_units_and_distances_from_the_edges(tmp_path: Path) -> None:
    path = tmp_path / "ticket.pdf"
    write_ticket(ticket(), path)
    text = read(path)
    for told in (
        "Summit <Line> & Co",
        "12.00 in (304.8 mm)",
        "14.00 in (355.6 mm)",
        "left 0.39 in (10.0 mm)",
        "top -0.10 in (-2.5 mm)",
        "right 0.00 in (0.0 mm)",
        "bottom 1.00 in (25.4 mm)",
        "3600 × 4200 px at 300 dpi",
        "Lid",
        "Ink",
        "Press. 60 s",
    ):
        assert told in text, told
    with pikepdf.open(path) as pdf:
        shown = next(iter(pdf.pages[0].get_images().values()))
        assert (int(shown.Width), int(shown.Height)) == (90, 60)


def test_a_ticket_stays_one_page_with_any_amount_of_text(tmp_path: Path) -> None:
    side = TicketSide("Panel", "a-long-name_" * 8 + ".png", (500, 500), (5906, 5906), 300, (0, 0, 0, 0))
    path = tmp_path / "ticket.pdf"
    write_ticket(ticket(sides=(side,) * 7, notes="Mind the seam. " * 120, steps=("Press that position. 60 s",) * 20), path)
    text = read(path)
    assert text.count("Panel") == 7 and text.rstrip().endswith("Mind the seam.")
    write_ticket(ticket(steps=(), notes="", sides=()), path)
    assert "Press" not in read(path).replace("pressed here", "")
    again = io.BytesIO(path.read_bytes()).getvalue()
    write_ticket(ticket(steps=(), notes="", sides=()), path)
    assert path.read_bytes() == again  # the same ticket is the same file
