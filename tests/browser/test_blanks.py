"""Blanks in the page: measuring one, panels, repeats, tapers, the seam and limits. The resulting files are checked."""

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench, newest_row, print_file, rows_told, station, typed
from tests.conftest import encoded
from tests.pictures import guide_png


def tile_file(tmp_path: Path) -> Path:
    """A tile with one dark corner, tagged 2 in wide."""
    tile = np.full((200, 200, 3), (240, 230, 210), np.uint8)
    tile[:60, :60] = (30, 40, 90)
    tile[-1, -1] = [*np.frombuffer(str(tmp_path).encode()[-3:], np.uint8)]
    path = tmp_path / "tile.png"
    path.write_bytes(encoded(Image.fromarray(tile), dpi=(100, 100)))
    return path


def test_measuring_a_cup_puts_it_on_the_board(page: Page) -> None:
    page.goto("/blanks")
    page.get_by_role("button", name="Measure a blank").click()
    page.get_by_label("Name").fill("Gorge flask")
    typed(page, "Top", "280mm")
    typed(page, "Foot", "8.5in")
    typed(page, "Height", "100mm + 50mm")
    expect(page.get_by_text("a piece of a ring")).to_be_visible()
    typed(page, "Height", "2mm")
    expect(page.get_by_role("alert")).to_contain_text("A height of 2 mm cannot be")
    typed(page, "Height", "150mm")
    page.get_by_role("button", name="Save the blank and add it to the board").click()
    expect(page.get_by_role("heading", name="Gorge flask")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as a template file").click()
    assert "cone = " in Path(download.value.path()).read_text()
    page.get_by_role("link", name="Range board", exact=True).click()
    cell = page.get_by_role("link", name=re.compile("Dusk on the Summit Line on Gorge flask"))
    expect(cell.locator("img")).to_have_js_property("complete", True)
    cell.click()
    image = print_file(page)
    assert image.mode == "RGBA" and np.asarray(image)[-1, 0, 3] == 0  # outside the ring
    page.goto("/blanks")
    page.get_by_role("button", name=re.compile("Gorge flask")).click()
    page.get_by_role("button", name="Remove this blank").click()
    expect(page.get_by_role("button", name=re.compile("Gorge flask"))).to_have_count(0)
    page.get_by_role("button", name="Restore").click()
    expect(page.get_by_role("heading", name="Gorge flask")).to_be_visible()
    page.get_by_role("button", name="Remove this blank").click()
    expect(page.get_by_role("button", name=re.compile("Gorge flask"))).to_have_count(0)


def test_blanks_are_added_to_and_removed_from_the_board(page: Page) -> None:
    page.goto("/blanks")
    box = page.get_by_role("checkbox", name="Pen, full wrap on the board")
    box.click()
    expect(box).to_be_checked()
    page.get_by_role("link", name="Range board", exact=True).click()
    expect(page.get_by_role("columnheader", name=re.compile("Pen, full wrap"))).to_be_visible()
    page.goto("/blanks")
    box.click()
    expect(box).not_to_be_checked()
    page.get_by_role("link", name="Range board", exact=True).click()
    expect(page.get_by_role("columnheader", name=re.compile("Garden flag"))).to_be_visible()
    expect(page.get_by_role("columnheader", name=re.compile("Pen, full wrap"))).to_have_count(0)


def test_a_repeat_closes_round_the_cup_and_its_file_is_tiles(page: Page, tmp_path: Path) -> None:
    lay_on_bench(page, tile_file(tmp_path))
    page.get_by_text("Repeat", exact=True).first.click()
    expect(page.get_by_role("textbox", name="Across", exact=True)).to_have_value("5")
    page.get_by_role("button", name=re.compile("^6 of")).click()
    expect(page.get_by_role("textbox", name="Across", exact=True)).to_have_value("6")
    page.get_by_text("Half drop").click()
    typed(page, "Across", "5")  # does not close: the next even number is taken
    expect(page.get_by_role("textbox", name="Across", exact=True)).to_have_value("6")
    page.get_by_text("Straight", exact=True).click()
    typed(page, "Across", "3")
    expect(page.locator("[data-core]")).to_be_attached()
    station(page, "Print")
    page.get_by_label("A provider prints it").click()
    image = np.asarray(print_file(page).convert("RGB")).astype(int)
    assert image.shape == (820, 930, 3)
    period = image[:, 310:620] - image[:, :310]
    assert np.abs(period).max() <= 2  # three equal tiles round
    dark = (np.abs(image - (30, 40, 90)).max(axis=2) < 40).mean()
    assert abs(dark - 93 / 310 * 3 * 93 / 820) < 0.002  # the dark corner's three rows, of which the last is whole too


def test_art_is_bent_on_a_taper_and_laid_flat_on_request(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Tapered tumbler")
    expect(page.locator("[data-core]")).to_be_attached()
    page.get_by_text("Stretch", exact=True).click()
    bent = np.asarray(print_file(page, "60"))
    station(page, "Fit")
    page.get_by_text("Flat, cut out").click()
    expect(page.get_by_role("radio", name="Flat, cut out")).to_be_checked()
    flat = np.asarray(print_file(page, "60"))
    assert bent.shape == flat.shape and (bent[..., 3] > 0).mean() == (flat[..., 3] > 0).mean()

    def middle_line(image: np.ndarray, x: float) -> int:
        """Return the row at which the upper half of the quadrants ends in a column."""
        column = image[:, int(x * image.shape[1])].astype(int)
        upper = (column[:, 3] > 200) & (np.abs(column[:, 2] - 200) > 60) & (np.abs(column[:, :3] - 255).max(axis=1) > 60)
        return int(np.nonzero(upper)[0].max())

    assert abs(middle_line(flat, 0.2) - middle_line(flat, 0.48)) <= 1  # straight on the paper
    assert middle_line(bent, 0.2) - middle_line(bent, 0.48) > 4  # curved on the paper, level on the cup
    page.get_by_label("Draw the cut line").check()
    lined = np.asarray(print_file(page, "60")).astype(int)
    assert (np.abs(lined - flat).max(axis=2) > 60).any()


def test_dragging_bent_art_follows_the_pointer(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Tapered tumbler")
    box = page.locator("[data-flat]").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 45, y, steps=5)
    page.mouse.up()
    right = page.get_by_role("textbox", name="Right", exact=True)
    expect(right).not_to_have_value("0")
    assert 0.5 < float(right.input_value()) < 2
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(right).to_have_value("0")


def test_a_shirts_back_is_empty_until_art_is_laid_on_it(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="T-shirt")
    page.get_by_role("navigation", name="Sides").get_by_role("button", name=re.compile("Back")).click()
    expect(page.get_by_text("Nothing is printed on this side.")).to_be_visible()
    page.get_by_role("button", name="Place the artwork on this side").click()
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("12")
    image = print_file(page, "40")
    assert image.size == (480, 560) and np.asarray(image.convert("RGB"))[240, 100].argmax() == 0
    station(page, "Fit")
    page.get_by_role("button", name="Leave this side empty").click()
    expect(page.get_by_text("Nothing is printed on this side.").first).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("12")
    page.reload()
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("12")  # the same side, after a reload


def test_the_seam_is_shown_at_full_size(page: Page, tmp_path: Path) -> None:
    art = np.full((410, 465, 3), 130, np.uint8)
    art[205:, :230] = (200, 60, 40)
    art[-1, -1] = [*np.frombuffer(str(tmp_path).encode()[-3:], np.uint8)]
    path = tmp_path / "broken.png"
    path.write_bytes(encoded(Image.fromarray(art)))
    lay_on_bench(page, path)
    page.get_by_role("button", name="View the seam").click()
    dialog = page.get_by_role("dialog", name="The seam at full size")
    expect(dialog.get_by_text("over the limit of")).to_contain_text("50 %")
    ends = dialog.get_by_role("img", name="The two ends of the wrap side by side")
    expect(ends).to_have_js_property("complete", True)
    assert ends.evaluate("image => image.naturalHeight") == 2458  # 8.2 in at 300 dpi
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)


def test_fixes_at_the_handle_and_the_sellers_own_limits(page: Page, tmp_path: Path) -> None:
    dark = np.full((350, 850, 3), (20, 26, 60), np.uint8)
    dark[-1, -1] = [*np.frombuffer(str(tmp_path).encode()[-3:], np.uint8)]
    path = tmp_path / "night.png"
    path.write_bytes(encoded(Image.fromarray(dark)))
    lay_on_bench(page, path, "Check", "Mug, 11 oz")
    card = page.get_by_role("listitem").filter(has_text="Gap at the handle")
    expect(card).to_contain_text("will show as a stripe")
    card.get_by_role("button", name="Put it on front and back").click()
    expect(page.get_by_role("button", name="Put it on front and back")).to_have_count(0)
    expect(page.get_by_text("it does not stand out")).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(card).to_contain_text("will show as a stripe")
    page.get_by_text("Limits of Mug, 11 oz").click()
    typed(page, "Contrast at the handle", "90")
    expect(page.get_by_text("it does not stand out")).to_be_visible()
    page.get_by_role("button", name="back to 25, default").click()
    expect(card).to_contain_text("will show as a stripe")


def test_a_placement_is_copied_to_a_similar_blank(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    typed(page, "Scale", "70")
    expect(page.get_by_role("textbox", name="Scale", exact=True)).to_have_value("70")
    page.get_by_role("button", name="Copy placement to other blanks").click()
    dialog = page.get_by_role("dialog", name="Copy this placement to")
    expect(dialog.get_by_label("Tapered tumbler, 20 oz")).to_be_checked()  # the same kind of thing
    expect(dialog.get_by_label("Garden flag")).not_to_be_checked()
    dialog.get_by_role("button", name="Copy to 1").click()
    expect(dialog).to_have_count(0)
    page.get_by_role("link", name="Range board", exact=True).click()
    expect(page.locator("tr[data-art]").first).to_be_visible()
    newest_row(page, rows_told(page)).get_by_role("link", name=re.compile("Tapered.*open the bench")).click()
    expect(page.get_by_role("textbox", name="Scale", exact=True)).to_have_value("70")


def test_a_providers_guide_is_shown_over_the_template_and_not_printed(page: Page, tmp_path: Path, own_art: Path) -> None:
    guide = tmp_path / "guide.png"
    guide.write_bytes(guide_png())
    page.goto("/blanks/garden-flag")
    page.get_by_label("Guide for this side").set_input_files(guide)
    expect(page.get_by_text("guide.png")).to_be_visible()
    lay_on_bench(page, own_art, blank="Garden flag")
    overlay = page.locator("[data-flat] image[href*='/guide']")
    expect(overlay).to_be_attached()
    page.get_by_label("Provider's guide").uncheck()
    expect(overlay).to_have_count(0)
    page.get_by_label("Provider's guide").check()
    colours = np.asarray(print_file(page, "40").convert("RGB")).astype(int)
    assert (np.abs(colours - (255, 0, 140)).max(axis=2) < 60).sum() == 0
    page.goto("/blanks/garden-flag")
    page.get_by_role("button", name="Remove", exact=True).click()
    expect(page.get_by_text("guide.png")).to_have_count(0)


def test_the_mug_is_shown_from_both_sides_of_its_handle(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Mug, 11 oz")

    def look() -> np.ndarray:
        return np.asarray(Image.open(io.BytesIO(page.locator("[data-preview]").screenshot())).convert("RGB")).astype(int)

    before, src = look(), page.locator("[data-preview]").get_attribute("src")
    page.get_by_role("button", name="Handle left").click()
    expect(page.locator("[data-preview]")).not_to_have_attribute("src", src or "")
    assert np.abs(look() - before).max() > 60
    page.get_by_role("link", name=re.compile("^Mock-ups")).click()
    expect(page.get_by_label("On oak, studio light: handle left")).to_be_visible()
