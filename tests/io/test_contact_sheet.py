"""Contact sheets: every picture whole, in order, with its name; transparent ones on the paper."""

from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from improva.core.errors import OutputError
from improva.io.contact_sheet import GAP, LINE, PAPER, contact_sheet

COLOURS = [(200, 30, 30), (30, 160, 60), (30, 60, 200), (220, 190, 30), (120, 60, 160)]


def pictures(folder: Path, sizes: list[tuple[int, int]]) -> list[tuple[str, Path]]:
    made = []
    for i, size in enumerate(sizes):
        path = folder / f"picture-{i}.png"
        Image.new("RGB", size, COLOURS[i]).save(path)
        made.append((path.name, path))
    return made


def cell(sheet: np.ndarray, column: int, row: int, side: int) -> np.ndarray:
    x, y = GAP + column * (side + GAP), GAP + row * (side + GAP + LINE)
    return sheet[y : y + side, x : x + side]


def test_pictures_are_in_rows_in_order(tmp_path: Path) -> None:
    sheet = contact_sheet(pictures(tmp_path, [(300, 300)] * 5), 90)
    assert sheet.shape == (2 * (90 + GAP + LINE) + GAP, 3 * (90 + GAP) + GAP, 3)
    for i, colour in enumerate(COLOURS):
        assert np.array_equal(cell(sheet, i % 3, i // 3, 90)[45, 45], colour)
    assert np.array_equal(cell(sheet, 2, 1, 90)[45, 45], PAPER)  # the last cell is empty


@pytest.mark.parametrize("size", [(400, 300), (300, 400), (3000, 2000)])
def test_a_picture_is_shown_whole_and_in_its_proportions(tmp_path: Path, size: tuple[int, int]) -> None:
    shown = cell(contact_sheet(pictures(tmp_path, [size]), 120), 0, 0, 120)
    inside = np.all(shown == COLOURS[0], axis=2)
    ys, xs = np.nonzero(inside)
    w, h = np.ptp(xs) + 1, np.ptp(ys) + 1
    assert max(w, h) == 120 and w / h == pytest.approx(size[0] / size[1], rel=0.03)
    assert abs((xs.min() + xs.max()) / 2 - 59.5) <= 1 and abs((ys.min() + ys.max()) / 2 - 59.5) <= 1


def test_transparent_pictures_show_the_paper(tmp_path: Path) -> None:
    path = tmp_path / "clear.png"
    picture = Image.new("RGBA", (100, 100), (0, 0, 0, 0))
    picture.paste((200, 30, 30, 255), (30, 30, 70, 70))
    picture.save(path)
    shown = cell(contact_sheet([("clear.png", path)], 100), 0, 0, 100)
    assert np.array_equal(shown[5, 5], PAPER) and np.array_equal(shown[50, 50], (200, 30, 30))


def test_the_name_is_written_below_each_picture(tmp_path: Path) -> None:
    sheet = contact_sheet(pictures(tmp_path, [(90, 90)]), 160)
    line = sheet[GAP + 160 : GAP + 160 + LINE]
    assert (line.min(axis=(0, 2)) < 120).sum() > 30


def test_without_pictures_there_is_no_sheet() -> None:
    with pytest.raises(OutputError, match="choose a scene first"):
        contact_sheet([], 100)
