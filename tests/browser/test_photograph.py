"""A photograph of a plain blank is marked, made into a scene, and used with the seller's own design."""

from __future__ import annotations

import io
import re
from pathlib import Path

import cv2
import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench, shown
from tests.browser.test_mockups import made

W, H = 900, 675
CORNERS = [(330, 180), (580, 210), (570, 520), (320, 480)]


def photograph(path: Path) -> Path:
    """A pale cushion on a dark, grainy floor."""
    rng = np.random.default_rng(4)
    picture = rng.normal(70, 4, (H, W, 1)).repeat(3, axis=2)
    cv2.fillPoly(picture, [np.array([(270, 120), (640, 150), (625, 590), (250, 540)])], (214, 212, 205))
    Image.fromarray(np.clip(picture + rng.normal(0, 2, picture.shape), 0, 255).astype(np.uint8)).save(path)
    return path


def drag(page: Page, point: int, to: tuple[int, int]) -> None:
    """Move a point of the print to a pixel of the photograph."""
    sheet = page.locator("svg[data-photo]").bounding_box()
    grip = page.locator("svg[data-photo] g[role=button]").nth(point).locator("circle").bounding_box()
    assert sheet and grip
    page.mouse.move(grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2)
    page.mouse.down()
    page.mouse.move(sheet["x"] + to[0] / W * sheet["width"], sheet["y"] + to[1] / H * sheet["height"], steps=4)
    page.mouse.up()


def test_a_photograph_becomes_a_scene(page: Page, own_art: Path, tmp_path: Path) -> None:
    lay_on_bench(page, own_art, "Mock-ups", blank="Garden flag")
    page.get_by_label("Photograph of the plain blank").set_input_files(photograph(tmp_path / "our terrace.png"))
    sheet = page.locator("svg[data-photo]")
    expect(sheet).to_be_visible()
    first = sheet.get_attribute("data-photo")
    for i, corner in enumerate(CORNERS):
        drag(page, i, corner)
        expect(page.get_by_text("Measuring…")).to_have_count(0)
    expect(sheet).not_to_have_attribute("data-photo", first or "")
    page.locator("svg[data-photo] g[role=button]").first.focus()
    before = sheet.get_attribute("data-photo")
    page.keyboard.press("ArrowRight")
    expect(sheet).not_to_have_attribute("data-photo", before or "")
    page.get_by_role("radiogroup", name="What is marked").get_by_text("Product").click()
    mask = page.locator("image[data-mask]")
    expect(mask).to_be_visible()
    answer = page.request.get(mask.get_attribute("href") or "")
    left_out = np.asarray(Image.open(io.BytesIO(answer.body())))[..., 3]
    assert left_out[330, 450] < 20 and left_out[60, 60] > 100, "the cushion is kept, the floor left out"
    page.get_by_role("radiogroup", name="View").get_by_text("With the design").click()
    expect(page.locator("svg[data-photo] image[href*='/look']")).to_be_visible()
    page.get_by_label("Name of the scene").fill("Our terrace")
    page.keyboard.press("Tab")
    expect(page.get_by_text("Measuring…")).to_have_count(0)
    page.get_by_role("button", name="Make the scene").click()
    page.get_by_role("button", name="See Our terrace").click()
    page.wait_for_load_state("networkidle")
    red = shown(page)
    assert ((red[..., 0] > 90) & (red[..., 1] < 70) & (red[..., 2] < 70)).sum() > 200, (
        "the art's red field hangs on the cushion"
    )
    for box in page.locator("input[type=checkbox]:checked").all():
        box.uncheck()
    page.get_by_label("Our terrace: front").check()
    (name,) = made(page, "Make 1 picture", 1)
    assert "_own-our-terrace" in name
    with page.expect_download() as taken:
        page.get_by_role("link", name="As a file").click()
    assert taken.value.suggested_filename.endswith(".zip")
    page.get_by_role("button", name="Remove", exact=True).click()
    expect(page.get_by_role("button", name="See Our terrace")).to_have_count(0)


def test_a_file_that_is_not_a_scene_is_reported(page: Page, own_art: Path, tmp_path: Path) -> None:
    (tmp_path / "notes.zip").write_text("not a zip")
    lay_on_bench(page, own_art, "Mock-ups", blank="Garden flag")
    page.get_by_label("Scene pack").set_input_files(tmp_path / "notes.zip")
    expect(page.get_by_text("cannot be read as a ZIP")).to_be_visible()


def begin(page: Page, art: Path, photo: Path) -> None:
    """Upload a photograph, and open the page that marks it with the points on the cushion."""
    lay_on_bench(page, art, "Mock-ups", blank="Garden flag")
    page.get_by_label("Photograph of the plain blank").set_input_files(photo)
    expect(page.locator("svg[data-photo]")).to_be_visible()
    for i, corner in enumerate(CORNERS):
        drag(page, i, corner)
    expect(page.get_by_text("Measuring…")).to_have_count(0)


def touch(page: Page, at: tuple[int, int]) -> None:
    sheet = page.locator("svg[data-photo]").bounding_box()
    assert sheet
    page.mouse.click(sheet["x"] + at[0] / W * sheet["width"], sheet["y"] + at[1] / H * sheet["height"])
    expect(page.get_by_text("Measuring…")).to_have_count(0)


def left_out(page: Page) -> np.ndarray:
    """Return the area outside the mask, as the page shows it over the photograph."""
    answer = page.request.get(page.locator("image[data-mask]").get_attribute("href") or "")
    return np.asarray(Image.open(io.BytesIO(answer.body())))[..., 3]


def test_the_mask_is_corrected_with_brush_strokes(page: Page, own_art: Path, tmp_path: Path) -> None:
    begin(page, own_art, photograph(tmp_path / "terrace.png"))
    page.get_by_role("radiogroup", name="What is marked").get_by_text("Product").click()
    page.get_by_role("textbox", name="Brush size").fill("6")
    page.keyboard.press("Enter")
    corner = (290, 150)
    assert left_out(page)[corner[1], corner[0]] < 40
    touch(page, corner)
    assert left_out(page)[corner[1], corner[0]] > 100, "left out where it was touched"
    page.get_by_role("button", name="Undo the last stroke").click()
    expect(page.get_by_role("button", name="Undo the last stroke")).to_be_disabled()
    expect(page.get_by_text("Measuring…")).to_have_count(0)
    assert left_out(page)[corner[1], corner[0]] < 40, "and kept again"


def test_points_out_of_order_are_reported_and_nothing_is_made(page: Page, own_art: Path, tmp_path: Path) -> None:
    begin(page, own_art, photograph(tmp_path / "terrace.png"))
    drag(page, 0, (600, 560))
    expect(page.get_by_role("alert")).to_contain_text("in this order")
    expect(page.get_by_role("button", name="Make the scene")).to_be_disabled()
    drag(page, 0, CORNERS[0])
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_role("button", name="Make the scene")).to_be_enabled()


def test_a_dark_blank_gives_a_warning(page: Page, own_art: Path, tmp_path: Path) -> None:
    begin(page, own_art, photograph(tmp_path / "terrace.png"))
    page.get_by_role("radiogroup", name="What is marked").get_by_text("Colour").click()
    page.get_by_label("The blank is", exact=True).fill("#101014")
    page.keyboard.press("Enter")
    expect(page.get_by_text("The photographed blank is dark")).to_be_visible()
    before = page.locator("svg[data-photo]").get_attribute("data-photo")
    touch(page, (450, 330))
    expect(page.get_by_text("marked", exact=True)).to_be_visible()
    expect(page.locator("svg[data-photo]")).not_to_have_attribute("data-photo", before or "")
    page.get_by_role("button", name="Back to the bench").click()
    expect(page.get_by_role("link", name=re.compile("Resume marking: .*terrace", re.I)).first).to_be_visible()
