"""From a seller's own file to a print file and pictures, by pointer and by keyboard. The resulting files are checked."""

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.helpers import (
    expect_shown_to_change,
    lay_on_bench,
    lay_on_bench_by_hand,
    newest_row,
    opened,
    rows_told,
    shown,
)


def test_the_board_shows_rendered_pictures_of_the_demo(page: Page) -> None:
    page.goto("/")
    cells = page.locator("tbody td img")
    expect(cells).not_to_have_count(0)
    for i in range(4):
        expect(cells.nth(i)).to_have_js_property("complete", True, timeout=90_000)  # the first look at a cold board
        assert cells.nth(i).evaluate("image => image.naturalWidth") == 400
    dusk, signals = (np.asarray(Image.open(io.BytesIO(cells.nth(i).screenshot())).convert("RGB")).astype(int) for i in (0, 7))
    assert np.abs(dusk - signals).max() > 80  # each cell shows its own art


def test_by_pointer_to_a_mirrored_print_file(page: Page, own_art: Path) -> None:
    lay_on_bench_by_hand(page, own_art)
    flat, look = page.locator("[data-flat]"), page.locator("[data-preview]")
    before, box = look.get_attribute("src"), flat.bounding_box()
    assert box
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.move(*middle)
    page.mouse.wheel(0, -300)  # larger, so that there is room to move it without a bare edge
    expect_shown_to_change(page, before)
    expect(page.get_by_role("textbox", name="Scale", exact=True)).not_to_have_value("100")
    page.mouse.down()
    page.mouse.move(middle[0] + 9, middle[1] + 5, steps=4)
    page.mouse.up()
    expect(page.get_by_role("textbox", name="Right", exact=True)).not_to_have_value("0")
    page.get_by_role("link", name=re.compile("^Print")).click()
    expect(page.get_by_text("Mirrored: reads right to left")).to_be_visible()
    with page.expect_download() as coming:
        page.get_by_role("button", name="Make the print file").click()
    assert re.fullmatch(r"four-fields_tumbler-20oz-straight_9\.3x8\.2in_300dpi_mirrored\.png", coming.value.suggested_filename)
    with opened(coming.value) as picture:
        assert picture.size == (2790, 2460) and picture.mode == "RGB"
        assert abs(picture.info["dpi"][0] - 300) < 0.05 and "icc_profile" in picture.info
        pixels = np.asarray(picture)
    assert tuple(pixels[40, 40]) == (30, 160, 60) and tuple(pixels[40, -40]) == (220, 30, 30)  # green now reads first
    red = np.flatnonzero(pixels[40, :, 0] > 150)
    assert red.min() < 1395 - 30  # moved right on the flat, so left in the mirrored file
    expect(page.get_by_role("link", name=re.compile("^Print")).get_by_text("file made")).to_be_visible()


def test_by_keyboard_alone_to_a_providers_file_and_pictures(page: Page, own_art: Path) -> None:
    lay_on_bench_by_hand(page, own_art)
    page.locator("[data-flat]").focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_role("textbox", name="Right", exact=True)).to_have_value("0.394")
    for key in ("+", ".", ","):
        page.keyboard.press(key)
    expect(page.get_by_role("textbox", name="Scale", exact=True)).to_have_value("101")
    page.keyboard.press("0")
    expect(page.get_by_role("textbox", name="Scale", exact=True)).to_have_value("100")
    page.get_by_role("textbox", name="Width", exact=True).focus()
    page.keyboard.type("9.3in/2 + 25.4mm")
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("5.65")
    page.keyboard.press("Tab")
    page.get_by_role("link", name=re.compile("^Check")).focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Bare edges", exact=True)).to_be_visible()
    page.get_by_role("button", name="Cover the whole print").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("The picture reaches every edge")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Print")).focus()
    page.keyboard.press("Enter")
    page.get_by_label("I press it myself").focus()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_text(re.compile("^Mirrored: reads"))).to_be_hidden()
    page.get_by_role("button", name="Make the print file").focus()
    with page.expect_download() as coming:
        page.keyboard.press("Enter")
    with opened(coming.value) as picture:
        assert picture.size == (2790, 2460) and "mirrored" not in coming.value.suggested_filename
        assert tuple(np.asarray(picture)[40, 40]) == (220, 30, 30)
    page.get_by_role("link", name=re.compile("^Mock-ups")).focus()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Make 1 picture").focus()
    page.keyboard.press("Enter")
    link = page.get_by_role("list", name="Files made").get_by_role("link").first
    expect(link).to_be_visible()
    link.focus()
    with page.expect_download() as coming:
        page.keyboard.press("Enter")
    with opened(coming.value) as picture:
        assert picture.size == (2000, 2000) and picture.format == "JPEG"
        row = np.asarray(picture.convert("RGB")).astype(int)[900]
    assert row[960, 0] > row[960, 1] + 40 and row[1040, 1] > row[1040, 0]  # red left of the middle, green right of it


def test_a_key_pressed_while_a_choice_is_being_saved_is_kept(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    page.get_by_role("link", name=re.compile("^Print")).click()
    expect(page.get_by_text("Mirrored: reads right to left")).to_be_visible()
    held = []
    page.route("**/choices**", lambda route: held.append(route))  # noqa: PLW0108  a built-in cannot carry the driver's mark
    page.get_by_label("A provider prints it").click()
    make = page.get_by_role("button", name="Make the print file")
    expect(make).to_have_attribute("aria-busy", "true")
    make.focus()
    page.keyboard.press("Enter")
    expect(make).to_be_focused()
    with page.expect_download() as coming:
        held[0].continue_()
    assert "mirrored" not in coming.value.suggested_filename  # of the choice, not of what was before it


def test_the_mock_up_rotates_by_dragging_and_keeps_its_angle(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    look = page.locator("[data-preview]")
    front, src, box = shown(page), look.get_attribute("src"), look.bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 - 150, box["y"] + box["height"] / 2, steps=5)
    page.mouse.up()
    expect(page.get_by_text("turned 75°")).to_be_visible()
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    assert np.abs(shown(page) - front).max() > 60
    page.reload()
    expect(page.get_by_text("turned 75°")).to_be_visible()
    page.get_by_role("button", name="back", exact=True).click()
    expect(page.get_by_text("turned 180°")).to_be_visible()


def test_undo_redo_and_reload_lose_nothing(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    for fit in ("Contain", "Stretch"):
        page.get_by_text(fit, exact=True).click()
        expect(page.get_by_role("radio", name=fit)).to_be_checked()
    page.reload()  # at once: what was decided last may still be on its way
    page.wait_for_load_state("networkidle")
    page.reload()
    expect(page.get_by_role("radio", name="Stretch")).to_be_checked()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("radio", name="Contain")).to_be_checked()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("radio", name="Cover")).to_be_checked()
    expect(page.get_by_role("button", name="Undo", exact=True)).to_be_disabled()
    page.keyboard.press("Control+Shift+z")
    page.keyboard.press("Control+Shift+z")
    expect(page.get_by_role("radio", name="Stretch")).to_be_checked()
    expect(page.get_by_role("button", name="Redo", exact=True)).to_be_disabled()


def test_a_parts_colour_changes_the_picture(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.wait_for_load_state("networkidle")
    before, src = shown(page), page.locator("[data-preview]").get_attribute("src")
    page.get_by_role("group", name="Lid colour").get_by_title("Ink").click()
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    changed = np.abs(shown(page) - before).max(axis=2) > 60
    ys = np.nonzero(changed)[0]
    assert changed.any() and ys.max() < before.shape[0] * 0.4


def test_files_are_dropped_anywhere_and_unreadable_ones_are_reported(page: Page, own_art: Path) -> None:
    page.goto("/")
    expect(page.locator("tr[data-art='Dusk on the Summit Line']")).to_be_visible()
    before = rows_told(page)
    drop = """([name, bytes]) => {
        const board = document.querySelector("main");
        const transfer = new DataTransfer();
        transfer.items.add(new File([new Uint8Array(bytes)], name));
        for (const kind of ['dragenter', 'dragover', 'drop'])
            board.dispatchEvent(new DragEvent(kind, { dataTransfer: transfer, bubbles: true, cancelable: true }));
    }"""
    page.evaluate(drop, ["shopping.png", [*b"eggs, milk"]])
    expect(page.get_by_role("alert")).to_contain_text("This is not a picture Improva reads")
    page.evaluate(drop, ["dropped.png", [*own_art.read_bytes()]])
    title = newest_row(page, before + 1).get_by_role("textbox")
    title.fill("Four fields, dropped")
    title.press("Enter")
    row = page.locator("tr[data-art='Four fields, dropped']")
    row.get_by_role("button", name="Remove from the board").click()
    expect(row).to_have_count(0)
    assert rows_told(page) == before
    page.get_by_role("button", name="Restore").click()
    expect(newest_row(page, before + 1).get_by_role("textbox")).to_have_value("Four fields, dropped")


def test_an_invalid_value_is_reported_beside_its_field(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    for typed in ("wide", "3in*2in", "1/0", "2 +", ""):
        page.get_by_role("textbox", name="Width", exact=True).fill(typed)
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("A length, for example")
        page.keyboard.press("Escape")
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("9.3")


def test_the_page_says_that_the_server_is_away_and_continues_when_it_is_back(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    page.context.set_offline(True)
    page.get_by_text("Contain", exact=True).click()
    expect(page.get_by_role("alert").first).to_contain_text("does not answer")
    page.context.set_offline(False)
    page.get_by_text("Stretch", exact=True).click()
    expect(page.get_by_role("radio", name="Stretch")).to_be_checked()
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_drag_near_the_middle_snaps_to_it_and_alt_does_not(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    right = page.get_by_role("textbox", name="Right", exact=True)
    right.fill("10mm")
    right.press("Enter")
    expect(right).to_have_value("0.394")
    box = page.locator("[data-flat]").bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    for alt, expected in ((False, "0"), (True, None)):
        if alt:
            page.keyboard.down("Alt")
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x - 16 if not alt else x + 3, y, steps=4)
        page.mouse.up()
        if expected is None:
            expect(right).not_to_have_value("0")
        else:
            expect(right).to_have_value(expected)
    page.keyboard.up("Alt")
