"""Adding words, borders and frames in the page, by pointer and by keyboard. The printed file is checked."""

import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench, opened
from tests.browser.test_artwork import settled


def lay_words(page: Page, own_art: Path, text: str) -> None:
    lay_on_bench(page, own_art, "artwork")
    page.get_by_text("Text and extras", exact=True).first.click()
    page.get_by_role("button", name="Words", exact=True).click()
    settled(page)
    page.get_by_role("textbox", name="Words").fill(text)
    colour = page.get_by_role("textbox", name="Colour", exact=True)
    colour.fill("#ff00ff")
    colour.press("Enter")
    settled(page)


def print_file(page: Page) -> np.ndarray:
    page.get_by_role("link", name=re.compile("^Print")).click()
    with page.expect_download() as coming:
        page.get_by_role("button", name="Make the print file").click()
    return np.asarray(opened(coming.value).convert("RGB")).astype(int)[:, ::-1]


def ink(picture: np.ndarray) -> tuple[int, int, int, int]:
    ys, xs = np.nonzero(np.abs(picture - (255, 0, 255)).max(axis=2) < 40)
    return int(xs.min()), int(ys.min()), int(xs.max()), int(ys.max())


def test_words_are_added_dragged_and_printed_where_they_are_shown(page: Page, own_art: Path) -> None:
    lay_words(page, own_art, "Summit Line")
    width = page.get_by_role("textbox", name="Width", exact=True)
    width.fill("3in")
    width.press("Enter")
    settled(page)
    piece = page.locator("[data-piece='0']")
    box = piece.bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2 - 60, steps=5)
    page.mouse.up()
    settled(page)
    for _ in range(4):
        piece.press("Shift+ArrowRight")
        settled(page)
    x0, y0, x1, y1 = ink(print_file(page))
    assert abs((x1 - x0) / 300 - 3) < 0.02, "three inches wide"
    assert abs((x0 + x1) / 2 / 300 - 9.3 / 2 - 40 / 25.4) < 0.02, "four times ten millimetres to the right"
    assert (y0 + y1) / 2 / 300 < 8.2 / 2 - 0.5, "and higher than it was"


def test_a_border_and_frames_with_dropped_photographs(page: Page, own_art: Path, tmp_path: Path) -> None:
    photos = []
    for i, colour in enumerate(((255, 0, 255), (0, 255, 255))):
        photos.append(tmp_path / f"photo-{i}.png")
        picture = Image.new("RGB", (900, 700), colour)
        picture.putpixel((0, 0), tuple(int(v) for v in np.frombuffer(str(tmp_path)[-3:].encode(), np.uint8)))
        picture.save(photos[-1])
    lay_on_bench(page, own_art, "artwork")
    page.get_by_text("Text and extras", exact=True).first.click()
    page.get_by_role("button", name="Border", exact=True).click()
    settled(page)
    page.get_by_role("button", name="Frames", exact=True).click()
    settled(page)
    rows = page.evaluate("fetch('/api/board').then(r => r.json()).then(b => b.artworks.length)")
    page.get_by_label("Photographs").set_input_files(photos)
    expect(page.get_by_role("button", name="Focus of picture 2")).to_be_visible()
    settled(page)
    assert page.evaluate("fetch('/api/board').then(r => r.json()).then(b => b.artworks.length)") == rows
    page.reload()
    expect(page.get_by_role("button", name="Border", exact=True).first).to_be_visible()
    printed = print_file(page)
    for colour in ((255, 0, 255), (0, 255, 255)):
        assert (np.abs(printed - colour).max(axis=2) < 8).mean() > 0.03
    band = printed[20, :].astype(int)
    assert np.abs(band - band[100]).max() <= 2, "one colour along the upper edge"


def test_undo_removes_added_pieces_and_findings_are_fixed(page: Page, own_art: Path) -> None:
    lay_words(page, own_art, "Last train")
    piece = page.locator("[data-piece='0']")
    for _ in range(5):
        piece.press("Shift+ArrowRight")
        settled(page)
    page.get_by_role("link", name=re.compile("^Check")).click()
    page.get_by_role("button", name="Move “Last train” inside the safe line").click()
    expect(page.get_by_role("button", name="Move “Last train”")).to_have_count(0)
    page.get_by_role("link", name=re.compile("^Artwork")).click()
    page.get_by_text("Text and extras", exact=True).first.click()
    settled(page)
    while page.get_by_role("button", name="Undo").is_enabled():
        page.keyboard.press("Control+z")
        settled(page)
    expect(page.get_by_text("No text or extras yet.")).to_be_visible()
