"""Preparing artwork in the page: cut out, clean, border. The resulting pixels are checked."""

import hashlib
import io
import re
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench, print_file
from tests.core.preparation.test_cut import disc, on_paper


@pytest.fixture
def scan(tmp_path: Path) -> Path:
    """A blue disc on yellowed paper, with a hole in it and a speck beside it; each name gives a different file."""
    path = tmp_path / "disc-scan.png"
    pixels = on_paper(disc((20, 30, 60), size=1200, radius=400)).pixels[..., :3].copy()
    pixels[520:680, 520:680] = (243, 236, 220)
    pixels[60:66, 60:66] = (90, 80, 70)
    pixels[-1, -5:] = np.array([243, 236, 220]) - np.array([*hashlib.sha256(str(tmp_path).encode()).digest()[:5]])[:, None] % 5
    Image.fromarray(pixels).save(path, dpi=(254, 254))
    return path


def add_step(page: Page, name: str) -> None:
    page.get_by_role("button", name="Add a step").click()
    page.get_by_role("menuitem", name=re.compile(f"^{name}")).click()
    settled(page)


def settled(page: Page) -> None:
    expect(page.get_by_role("main")).to_have_attribute("aria-busy", "false")


def sheet_at(page: Page, u: float, v: float) -> tuple[float, float]:
    box = page.locator("[data-sheet] image").bounding_box()
    assert box
    return box["x"] + u * box["width"], box["y"] + v * box["height"]


def sheet_colour(page: Page, u: float, v: float) -> tuple[int, ...]:
    x, y = sheet_at(page, u, v)
    shot = Image.open(io.BytesIO(page.screenshot(clip={"x": x - 1, "y": y - 1, "width": 3, "height": 3}))).convert("RGB")
    return tuple(int(c) for c in shot.getpixel((1, 1)))  # type: ignore[union-attr]


def test_from_a_scan_to_a_bordered_cut_out_in_the_print_file(page: Page, scan: Path) -> None:
    lay_on_bench(page, scan, "artwork", blank="T-shirt")
    add_step(page, "Cut from paper")
    assert sheet_colour(page, 0.05, 0.5) == (0x8D, 0xB5, 0xA6), "the backing is seen where paper was"
    page.get_by_role("button", name="Also clear").click()
    assert sheet_colour(page, 0.5, 0.5) == (255, 255, 255)
    page.mouse.click(*sheet_at(page, 0.5, 0.5))
    settled(page)
    expect(page.get_by_text("1 place", exact=True)).to_be_visible()
    expect(page.locator("[data-spot=speck]")).to_have_count(1)
    page.get_by_role("button", name="Clear specks, fill holes", exact=True).click()
    expect(page.locator("[data-spot=speck]")).to_have_count(0)
    add_step(page, "Cut-out border")
    page.get_by_role("textbox", name="Width", exact=True).first.fill("5mm")
    page.get_by_role("textbox", name="Width", exact=True).first.press("Enter")
    settled(page)
    colour = page.get_by_role("textbox", name="Colour", exact=True)
    colour.fill("#c0392b")
    colour.press("Enter")
    settled(page)
    page.get_by_text("Kept", exact=True).click()
    settled(page)
    add_step(page, "Trim")
    picture = np.asarray(print_file(page))
    ys, xs = np.nonzero(picture[..., 3] > 127)
    across = xs.max() - xs.min() + 1
    middle = (ys.min() + ys.max()) // 2
    row = picture[middle, xs.min() : xs.max() + 1].astype(int)
    assert row[len(row) // 2, 3] == 0, "the window is clear"
    rim = int((row[: across // 4, 0] > 150).sum())
    assert rim / across == pytest.approx(5 / 90, abs=0.004), "5 mm of border on a disc of 80 mm"
    assert tuple(row[across // 4, :3]) == pytest.approx((21, 32, 70), abs=3), "the white point made the paper white"


def test_steps_are_switched_moved_and_undone_and_impossible_ones_are_reported(page: Page, scan: Path) -> None:
    lay_on_bench(page, scan, "artwork", blank="T-shirt")
    add_step(page, "Cut-out border")
    expect(page.get_by_role("region", name="artwork").get_by_role("alert")).to_contain_text("cut it from its paper first")
    expect(page.get_by_text("no steps yet")).to_be_visible()
    add_step(page, "Cut from paper")
    add_step(page, "Rotate")
    route = page.get_by_role("navigation", name="Route")
    expect(route).to_contain_text("2 steps")
    page.get_by_role("button", name="Move Rotate up").click()
    expect(page.get_by_role("button", name="1 Rotate")).to_be_visible()
    settled(page)
    page.get_by_role("checkbox", name="Rotate is on").uncheck()
    expect(route).to_contain_text("1 step")
    settled(page)
    for _ in range(2):
        page.keyboard.press("Control+z")
        settled(page)
    expect(page.get_by_role("button", name="2 Rotate")).to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name="2 Rotate")).to_be_visible()
    tolerance = page.get_by_role("textbox", name="Tolerance", exact=True)
    page.get_by_role("button", name="1 Cut from paper").click()
    tolerance.fill("255")
    tolerance.press("Enter")
    expect(page.get_by_role("region", name="artwork").get_by_role("alert")).to_contain_text("would remove everything")
    settled(page)
    expect(tolerance).to_have_value("6")


def test_the_licence_is_recorded_and_checked(page: Page, scan: Path) -> None:
    lay_on_bench(page, scan, "artwork", blank="T-shirt")
    page.get_by_text("Origin and licence").click()
    page.get_by_label("Source").select_option("bought")
    page.get_by_label("Print on demand").select_option("false")
    settled(page)
    page.get_by_label("Licence", exact=True).fill("Studio licence")
    page.get_by_label("Licence", exact=True).press("Enter")
    settled(page)
    page.get_by_role("link", name=re.compile("^Check")).click()
    expect(page.get_by_text("Its licence (Studio licence) excludes print on demand")).to_be_visible()
