"""Gang sheets: overlaps judged by Shapely, files read back page by page."""

import subprocess
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image
from shapely import STRtree, box

from improva.core.design import Design
from improva.core.errors import OutputError
from improva.core.output import GangItem, GangPlan, GangSheet, PrintSettings, make_print, plan_gang_sheet
from improva.io.gang_sheet_file import write_gang
from tests.conftest import art_of, quadrants

SIDE = st.floats(10, 180).map(lambda v: round(v, 2))
ITEMS = st.lists(st.builds(GangItem, st.just("motif"), st.tuples(SIDE, SIDE), st.integers(1, 5)), min_size=1, max_size=5)


def check(plan: GangPlan, items: list[GangItem], sheet: GangSheet) -> None:
    for index, item in enumerate(items):
        mine = [put for put in plan.puts if put.item == index]
        assert len(mine) == item.count
        for put in mine:
            assert put.box[2:] == (item.size_mm[::-1] if put.turned else item.size_mm) and (sheet.turn or not put.turned)
    for number, (w, h) in enumerate(plan.sheets_mm):
        boxes = [box(x, y, x + a, y + b) for x, y, a, b in (p.box for p in plan.puts if p.sheet == number)]
        inside = box(sheet.margin_mm, sheet.margin_mm, w - sheet.margin_mm, h - sheet.margin_mm).buffer(1e-6)
        assert boxes and all(inside.contains(each) for each in boxes)
        grown = [each.buffer(sheet.gap_mm / 2 - 1e-3, join_style="mitre") for each in boxes]
        for i, each in enumerate(grown):
            for j in STRtree(grown).query(each):
                assert i == j or each.intersection(grown[j]).area < 1e-9


@settings(max_examples=40)
@given(items=ITEMS, gap=st.floats(0, 10), turn=st.booleans(), roll=st.booleans())
def test_prints_never_overlap_and_none_is_lost(items: list[GangItem], gap: float, turn: bool, roll: bool) -> None:
    sheet = GangSheet(297, None if roll else 420, 5, gap, turn)
    plan = plan_gang_sheet(items, sheet)
    check(plan, items, sheet)
    area = sum(i.size_mm[0] * i.size_mm[1] * i.count for i in items)
    assert plan.waste == pytest.approx(1 - area / sum(w * h for w, h in plan.sheets_mm)) and 0 <= plan.waste < 1
    assert len(plan.sheets_mm) == 1 or not roll


def test_prints_that_fill_a_sheet_exactly_fit_on_it() -> None:
    plan = plan_gang_sheet(
        [GangItem("wrap", (100, 50), 8)], GangSheet(203, 209, 0, 3, False)
    )  # 2 × 4 with gaps of 3 between them
    assert len(plan.sheets_mm) == 1 and plan.waste == pytest.approx(1 - 8 * 5000 / (203 * 209))


def test_rotating_prints_saves_a_sheet() -> None:
    items = [GangItem("wrap", (236.2, 208.3), 2)]  # 9.3 × 8.2 in wraps on a 13 × 19 in sheet, from memory a usual size
    assert len(plan_gang_sheet(items, GangSheet(330, 482, 5, 3, True)).sheets_mm) == 1
    upright = plan_gang_sheet([GangItem("strip", (400, 60), 3)], GangSheet(330, 482, 5, 3, True))
    assert all(put.turned for put in upright.puts) and len(upright.sheets_mm) == 1
    with pytest.raises(OutputError, match="let prints be turned"):
        plan_gang_sheet([GangItem("strip", (400, 60), 3)], GangSheet(330, 482, 5, 3, False))


@pytest.mark.parametrize(
    "bad", [{"width_mm": 2}, {"margin_mm": -1}, {"gap_mm": float("nan")}, {"length_mm": 1e9}, {"margin_mm": 200}]
)
def test_impossible_sheets_are_reported(bad: dict[str, Any]) -> None:
    with pytest.raises(Exception, match=r"use|must be a number"):
        plan_gang_sheet([GangItem("a", (50, 50))], GangSheet(**{"width_mm": 300, "length_mm": 400, **bad}))
    with pytest.raises(OutputError, match="nothing"):
        plan_gang_sheet([], GangSheet(300, 400))
    with pytest.raises(OutputError, match="too many"):
        plan_gang_sheet([GangItem("a", (50, 50), 5000)], GangSheet(300, 400))


def test_the_file_contains_every_print_once_at_its_true_size(design_of: Callable[..., Design], tmp_path: Path) -> None:
    art = art_of(quadrants(930, 820))
    made = make_print(design_of(art), lambda _: art, PrintSettings(100))
    items = [GangItem("wrap", made.size_mm, 3)]
    plan = plan_gang_sheet(items, GangSheet(450, None, 10, 5))
    path = tmp_path / "gang.pdf"
    asked: list[int] = []

    def open_print(index: int) -> object:
        asked.append(index)
        return make_print(design_of(art), lambda _: art, PrintSettings(100))

    write_gang(plan, open_print, path)  # type: ignore[arg-type]
    assert asked == [0] and list(tmp_path.iterdir()) == [path]
    with pikepdf.open(path) as pdf:
        assert len(pdf.pages) == 1
        turned = {put.turned for put in plan.puts}
        assert len({image.objgen for image in pdf.pages[0].get_images().values()}) == len(turned)
        assert [float(v) for v in pdf.pages[0].mediabox[2:]] == pytest.approx(
            [v * 72 / 25.4 for v in plan.sheets_mm[0]], abs=1e-3
        )
    subprocess.run(["pdftoppm", "-r", "50.8", "-png", "-singlefile", str(path), str(tmp_path / "page")], check=True)
    page = np.asarray(Image.open(tmp_path / "page.png").convert("RGB")).astype(int)
    for put in plan.puts:
        x, y, w, h = (v * 2 for v in put.box)
        corner = page[round(y + 0.1 * h), round(x + 0.9 * w)]
        assert np.abs(corner - ((220, 30, 30) if put.turned else (30, 160, 60))).max() < 8  # turned clockwise by a quarter
