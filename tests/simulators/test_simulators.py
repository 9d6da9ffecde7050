"""The simulated printer and the invented provider's upload desk."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pytest
from PIL import Image

from improva.core.errors import OutputError
from improva.core.template import Panel
from improva.simulators.printer import FULL_INK_ML, FULL_SHEETS, SimulatedPrinter, needed
from improva.simulators.upload_desk import UploadRules, judge_upload

PANEL = Panel("front", "Front", (101.6, 50.8))  # 4 × 2 in


def picture(
    path: Path, px: tuple[int, int] = (1200, 600), colour: object = (255, 0, 0), mode: str = "RGB", **options: Any
) -> Path:
    Image.new(mode, px, colour).save(path, dpi=(300, 300), **options)  # type: ignore[arg-type]
    return path


def test_ink_use_is_the_darkness_of_the_print(tmp_path: Path) -> None:
    used = needed(picture(tmp_path / "a.png"), 2)  # red: no cyan, all magenta and yellow, on 4 × 2 in, twice
    area = 0.1016 * 0.0508
    assert used.sheets == 2 and used.ink_ml == pytest.approx((0, 24 * area, 24 * area), rel=0.01)
    assert sum(needed(picture(tmp_path / "b.png", colour=(255, 255, 255)), 1).ink_ml) == pytest.approx(0, abs=1e-6)
    clear = picture(tmp_path / "c.png", colour=(255, 0, 0, 0), mode="RGBA")
    assert sum(needed(clear, 1).ink_ml) == pytest.approx(0, abs=1e-6)


def test_a_pdf_uses_one_sheet_per_page(tmp_path: Path) -> None:
    with pikepdf.new() as pdf:
        for _ in range(3):
            pdf.add_blank_page(page_size=(612, 792))
        pdf.save(tmp_path / "a.pdf")
    used = needed(tmp_path / "a.pdf", 4)
    assert used.sheets == 12 and sum(used.ink_ml) == pytest.approx(0, abs=1e-6)


def test_the_printer_keeps_its_state_over_a_restart(tmp_path: Path) -> None:
    file = picture(tmp_path / "a.png")
    SimulatedPrinter(tmp_path).print(file, "red.png", 3)
    again = SimulatedPrinter(tmp_path).state()
    assert (
        again.sheets == FULL_SHEETS - 3
        and again.printed == ("red.png × 3",)
        and again.ink_ml[0] == FULL_INK_ML > again.ink_ml[1]
    )
    assert (tmp_path / "printed" / "red.png").read_bytes() == file.read_bytes()
    assert SimulatedPrinter(tmp_path).refill().sheets == FULL_SHEETS


def test_the_printer_names_what_is_missing_and_prints_nothing(tmp_path: Path) -> None:
    printer, file = SimulatedPrinter(tmp_path), picture(tmp_path / "a.png")
    with pytest.raises(OutputError, match="put in paper"):
        printer.print(file, "red.png", FULL_SHEETS + 1)
    large = picture(tmp_path / "wide.png", (3000, 3000))  # 10 × 10 in of red
    state = tmp_path / "simulated-printer.json"
    printer.refill()
    told = json.loads(state.read_text())
    state.write_text(json.dumps({**told, "ink_ml": [70, 0.1, 70]}))
    assert printer.state().low == ["magenta ink"]
    with pytest.raises(OutputError, match="magenta ink does not reach"):
        printer.print(large, "wide.png")
    assert not printer.tray.exists() and printer.state().sheets == FULL_SHEETS


def test_a_jam_spoils_one_sheet_until_it_is_cleared(tmp_path: Path) -> None:
    printer, file = SimulatedPrinter(tmp_path), picture(tmp_path / "a.png")
    assert printer.jam_at_next().jam_next
    for _ in range(2):
        with pytest.raises(OutputError, match="jammed"):
            printer.print(file, "red.png")
    assert printer.state().jammed and printer.state().sheets == FULL_SHEETS - 1
    assert not printer.clear_jam().jammed
    printer.print(file, "red.png")


@pytest.mark.parametrize(
    ("name", "options", "reason"),
    [
        ("a.png", {}, None),
        ("a.jpg", {"quality": 90}, None),
        ("a.tif", {"compression": "tiff_lzw"}, None),
        ("a.tif", {"mode": "CMYK", "colour": (0, 255, 255, 0)}, "RGB is taken"),
        ("a.png", {"mode": "L", "colour": 9}, "RGB is taken"),
        ("a.png", {"px": (500, 250)}, "150 are needed"),
        ("a.png", {"px": (1200, 900)}, "shape"),
        ("a.webp", {}, "WEBP is not taken"),
        ("a.bmp", {}, "BMP is not taken"),
    ],
)
def test_the_desk_accepts_what_its_rules_allow(tmp_path: Path, name: str, options: dict[str, Any], reason: str | None) -> None:
    answer = judge_upload(picture(tmp_path / name, **options), PANEL)
    assert answer.accepted == (reason is None) and (reason is None or any(reason in each for each in answer.reasons))
    assert len(answer.seen) == 6


def test_the_desk_checks_file_sizes_and_recognises_files_that_are_not_pictures(tmp_path: Path) -> None:
    noise = tmp_path / "noise.png"
    Image.fromarray(np.random.default_rng(1).integers(0, 255, (600, 1200, 3), dtype=np.uint8)).save(noise)
    assert "weighs 2 MB" in judge_upload(noise, PANEL, UploadRules(most_mb=1)).reasons[0]
    (tmp_path / "a.png").write_text("no picture")
    assert not judge_upload(tmp_path / "a.png", PANEL).accepted
