"""The Mock-ups station: scenes of the seller's own design, light, backgrounds, presets, several pictures at once."""

from __future__ import annotations

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.helpers import expect_shown_to_change, lay_on_bench, opened, shown

STUDIO = "On oak, studio light"


def part(page: Page, name: str) -> None:
    page.get_by_role("tablist", name="Part").get_by_text(name, exact=True).click()


def made(page: Page, button: str, count: int) -> list[str]:
    """Press the button, wait for the pictures and their list, and return the pictures' names."""
    page.get_by_role("button", name=button).click()
    links = page.get_by_role("list", name="Files made").get_by_role("link")
    expect(links).to_have_count(count + 1)
    names = [links.nth(i).get_attribute("download") or "" for i in range(count + 1)]
    assert names[-1].endswith("_pictures.json")
    return names[:-1]


def test_several_pictures_are_made_at_once(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.get_by_label(f"{STUDIO}: back").check()
    part(page, "Files")
    page.get_by_label("3 : 2").check()
    page.get_by_role("radiogroup", name="Picture format").get_by_text("WebP").click()
    names = made(page, "Make 4 pictures", 4)
    assert sum("3000x2000" in name for name in names) == 2 and sum("_back_" in name for name in names) == 2
    assert all(name.endswith(".webp") for name in names)
    expect(page.get_by_role("link", name=re.compile("^Mock-ups")).get_by_text("mock-ups made")).to_be_visible()


def test_scenes_show_the_design_and_a_view_can_be_enlarged(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups", blank="Mug, 11 oz")
    thumb = page.locator("img[data-scene='mug-11oz-studio']")
    expect(thumb).to_be_visible()
    expect(thumb).to_have_js_property("complete", True)
    picture = np.asarray(Image.open(io.BytesIO(thumb.screenshot())).convert("RGB")).astype(int)
    assert (
        (picture[..., 1] > picture[..., 0] + 30) & (picture[..., 1] > picture[..., 2] + 10)
    ).sum() > 50  # the art's green field
    src = page.locator("[data-preview]").get_attribute("src")
    page.get_by_label(f"{STUDIO}: handle left").focus()
    expect_shown_to_change(page, src)
    expect(page.get_by_role("button", name="Handle left")).to_have_attribute("aria-pressed", "true")


def test_a_long_title_does_not_widen_its_scene(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups", blank="Transfer")
    tile = page.locator("img[data-scene='transfer-15in-drawn']")
    expect(tile).to_be_visible()
    widths = tile.evaluate(
        "image => { const pane = image.closest('.overflow-y-auto'); return [pane.scrollWidth, pane.clientWidth]; }"
    )
    title = page.get_by_title("Transfer, 15 × 15 in, drawn on a light table")
    assert widths[0] == widths[1] and title.evaluate("title => title.scrollWidth > title.clientWidth"), (
        "it is cut short, told whole"
    )


def test_a_background_is_chosen_and_reset(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.wait_for_load_state("networkidle")
    before, src = shown(page), page.locator("[data-preview]").get_attribute("src")
    page.get_by_label("Surface below: surface").select_option(label="Slate")
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    foot = slice(int(before.shape[0] * 0.94), None)
    assert shown(page)[foot, :40].mean() < before[foot, :40].mean() - 20
    src = page.locator("[data-preview]").get_attribute("src")
    page.get_by_role("button", name="as in each scene").click()
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    assert np.abs(shown(page) - before).mean() < 1


def test_light_is_set_by_keyboard_and_saved_in_a_preset(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.wait_for_load_state("networkidle")
    before, src = shown(page), page.locator("[data-preview]").get_attribute("src")
    part(page, "Light")
    warmth = page.get_by_role("slider", name="Warmth")
    warmth.focus()
    page.keyboard.press("End")
    expect(page.get_by_text("+1.00")).to_be_visible()
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    assert (shown(page)[..., 0] - shown(page)[..., 2]).mean() > (before[..., 0] - before[..., 2]).mean() + 10
    part(page, "Presets")
    page.get_by_label("Name of the preset").fill("By lamplight")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="By lamplight", exact=True)).to_be_visible()
    part(page, "Light")
    page.get_by_role("button", name="As the scene was lit").click()
    expect(page.get_by_text("+1.00")).to_have_count(0)
    part(page, "Presets")
    page.get_by_role("button", name="By lamplight", exact=True).click()
    part(page, "Light")
    expect(page.get_by_text("+1.00")).to_be_visible()
    part(page, "Presets")
    page.get_by_role("button", name="Remove the preset By lamplight").click()
    expect(page.get_by_role("button", name="By lamplight", exact=True)).to_have_count(0)


def test_a_transparent_picture_and_a_film_are_downloaded(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    part(page, "Files")
    page.get_by_label("Transparent background with shadow").check()
    with page.expect_download() as coming:
        page.get_by_role("button", name="Make 1 picture").click()
    with opened(coming.value) as picture:
        assert picture.mode == "RGBA" and picture.size == (2000, 2000)
        alpha = np.asarray(picture)[..., 3]
    assert alpha[1000, 1000] == 255 and alpha[20, 20] == 0 and ((alpha > 20) & (alpha < 200)).sum() > 20_000  # a shadow
    page.get_by_role("textbox", name="One turn").fill("4")
    page.keyboard.press("Enter")
    with page.expect_download(timeout=90_000) as coming:
        page.get_by_role("button", name="Make the film").click()
    name = coming.value.suggested_filename
    assert name.endswith("_turning_4s_1080x1080.mp4") and Path(coming.value.path()).read_bytes()[4:8] == b"ftyp"


def test_findings_about_pictures_are_shown(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.get_by_role("group", name="Lid colour").locator("input[type=color]").fill("#123456")
    expect(page.get_by_text("is not among the blank's named colours")).to_be_visible()


def test_captions_appear_on_every_picture(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.wait_for_load_state("networkidle")
    before, src = shown(page), page.locator("[data-preview]").get_attribute("src")
    part(page, "Captions")
    page.get_by_role("button", name="Add words").click()
    expect_shown_to_change(page, src)
    page.get_by_label("Words of caption 1").fill("Tea\nhot")
    src = page.locator("[data-preview]").get_attribute("src")
    page.get_by_label("Words of caption 1").blur()
    expect_shown_to_change(page, src)
    src = page.locator("[data-preview]").get_attribute("src")
    page.get_by_label("Where").select_option(label="Bottom left")
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    expect(page.get_by_label("Words of caption 1")).to_have_value("Tea\nhot")
    after = shown(page)
    h, w = before.shape[:2]
    changed = np.abs(after - before).max(axis=2) > 40
    assert changed[h * 3 // 4 :, : w // 2].sum() > 200 and changed[: h // 2, w // 2 :].sum() < 50
    page.get_by_role("button", name="Remove caption 1").click()
    expect(page.get_by_label("Words of caption 1")).to_have_count(0)


def test_the_size_picture_is_previewed_and_made(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    page.wait_for_load_state("networkidle")
    src = page.locator("[data-preview]").get_attribute("src")
    page.get_by_label(f"{STUDIO}: front").uncheck()
    page.get_by_label(f"{STUDIO}: size").check()
    expect_shown_to_change(page, src)
    with page.expect_download() as coming:
        page.get_by_role("button", name="Make 1 picture").click()
    assert "_front-size_2000x2000.jpg" in coming.value.suggested_filename


def test_every_picture_is_made_in_several_colours(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups")
    lid = page.get_by_role("group", name="Lid colour")
    lid.get_by_text("Make mock-ups in several colours").click()
    for colour in ("Ink", "Pine", "Rowan"):
        lid.get_by_role("checkbox", name=colour).check()
    expect(lid.get_by_text("Each picture in 3 colours")).to_be_visible()
    names = made(page, "Make 3 pictures", 3)
    assert {re.search(r"front-(\w+)_", name)[1] for name in names} == {"ink", "pine", "rowan"}  # type: ignore[index]


def test_the_product_is_placed_on_the_sellers_own_photograph(page: Page, own_art: Path, tmp_path: Path) -> None:
    photo = tmp_path / "meadow.png"
    Image.new("RGB", (900, 700), (40, 140, 60)).save(photo)
    lay_on_bench(page, own_art, "Mock-ups")
    page.wait_for_load_state("networkidle")
    src = page.locator("[data-preview]").get_attribute("src")
    part(page, "Files")
    page.get_by_label("Photograph to lay the product on").set_input_files(photo)
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    seen = shown(page)
    assert np.abs(seen[6, 6] - (40, 140, 60)).max() < 12
    page.get_by_role("textbox", name="How tall").fill("30")
    page.keyboard.press("Enter")
    page.wait_for_load_state("networkidle")
    expect(page.get_by_role("textbox", name="How tall")).to_have_value("30")
    middle, src = page.locator("[data-preview]").bounding_box(), page.locator("[data-preview]").get_attribute("src")
    assert middle
    x, y = middle["x"] + middle["width"] / 2, middle["y"] + middle["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - middle["width"] / 4, y - 20, steps=5)
    page.mouse.up()
    expect(page.get_by_role("textbox", name="From the left")).to_have_value("25")
    expect_shown_to_change(page, src)
    page.locator("[data-preview]").locator("..").press("ArrowRight")
    expect(page.get_by_role("textbox", name="From the left")).to_have_value("26")
    page.get_by_role("button", name="The scene itself").click()
    expect(page.get_by_role("textbox", name="How tall")).to_have_count(0)


def test_two_mugs_show_two_designs(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups", blank="Mug, 11 oz")
    page.get_by_role("button", name="See Both sides").click()
    page.wait_for_load_state("networkidle")
    before, src = shown(page), page.locator("[data-preview]").get_attribute("src")
    page.get_by_role("combobox", name="Right").select_option(label="Dusk on the Summit Line")
    expect_shown_to_change(page, src)
    page.wait_for_load_state("networkidle")
    apart = np.abs(shown(page) - before).max(axis=2) > 60
    half = apart.shape[1] // 2
    assert apart[:, half:].sum() > 20 * max(1, apart[:, : half - 20].sum())
