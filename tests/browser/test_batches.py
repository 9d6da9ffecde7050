"""Many pairs from the board: selected by pointer and by keyboard, made, and downloaded in one ZIP."""

import io
import re
import zipfile
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import FilePayload, Page, expect

from tests.browser.helpers import newest_row, rows_told

MUG, CUP = "Mug, 11 oz", "Straight tumbler, 20 oz"


@pytest.fixture
def row(page: Page, own_art: Path, request: pytest.FixtureRequest) -> str:
    """Add an artwork with small print files and small pictures, and return its title."""
    data = FilePayload(name=own_art.name, mimeType="application/octet-stream", buffer=own_art.read_bytes())
    art, title = page.request.post("/api/artworks", multipart={"file": data}).json()["id"], f"Fields {request.node.name[-8:]}"
    assert page.request.patch(f"/api/artworks/{art}", data={"title": title}).ok
    for blank, scene in (("mug-11oz", "mug-11oz-studio"), ("tumbler-20oz-straight", "straight-tumbler-studio")):
        at = f"/api/pairs/{art}/{blank}"
        assert page.request.put(f"{at}/printing", data={"dpi": 60}).ok
        assert page.request.put(f"{at}/mockup-settings", data={"shots": [{"scene_id": scene}], "sizes": [[480, 360]]}).ok
    page.goto("/")
    expect(page.locator("tr[data-art='Dusk on the Summit Line']")).to_be_visible()
    expect(newest_row(page, rows_told(page)).get_by_role("textbox")).to_have_value(title)
    return title


def taken_home(page: Page, title: str) -> dict[str, Image.Image]:
    """Wait for the newest batch, and return its files by name."""
    line = page.get_by_label("Work on many pairs").locator("div", has_text=title).first
    expect(line.get_by_text(re.compile(r"^(\d+) of \1 steps done$")).first).to_be_visible()
    with page.expect_download() as landing:
        line.get_by_role("link", name=re.compile("in a ZIP")).first.click()
    assert landing.value.suggested_filename.endswith(".zip")
    with zipfile.ZipFile(io.BytesIO(Path(landing.value.path()).read_bytes())) as archive:
        return {name: Image.open(io.BytesIO(archive.read(name))) for name in archive.namelist()}


def test_print_files_of_pairs_selected_by_keyboard(page: Page, row: str) -> None:
    for blank in (MUG, CUP):
        page.get_by_label(f"Select {row} on {blank}").focus()
        page.keyboard.press("Space")
    bar = page.get_by_label("Selection")
    expect(bar).to_contain_text("2 pairs selected")
    bar.get_by_role("button", name="Make all print files").focus()
    page.keyboard.press("Enter")
    expect(bar).to_have_count(0)
    files = taken_home(page, "Print files of 2 pairs")
    sizes = {name.split("/")[1]: picture.size for name, picture in files.items()}
    assert sizes == {"mug-11oz": (510, 210), "tumbler-20oz-straight": (558, 492)}
    cup = next(picture for name, picture in files.items() if "tumbler" in name).convert("RGB")
    right, left = np.asarray(cup)[60, 500], np.asarray(cup)[60, 60]
    assert right[0] > 180 > left[0], "pressed at home, so mirrored: its red is at the right"
    page.get_by_label("Work on many pairs").get_by_role("button", name="Dismiss").first.click()


def test_a_whole_row_is_selected_and_mock_ups_are_made_of_part_of_it(page: Page, row: str) -> None:
    page.get_by_label(f"Select {row} on every blank").check()
    bar = page.get_by_label("Selection")
    expect(bar).to_contain_text(re.compile(r"^[5-9] pairs selected"))
    page.get_by_label(f"Select every artwork on {MUG}").check()
    bar.get_by_role("button", name="Clear selection").click()
    expect(bar).to_have_count(0)
    page.get_by_label(f"Select {row} on {MUG}").check()
    page.get_by_label(f"Select {row} on {CUP}").check()
    bar.get_by_role("button", name="Make all mock-ups").click()
    files = taken_home(page, "Pictures of 2 pairs")
    assert len(files) == 2 and {picture.size for picture in files.values()} == {(480, 360)}
    expect(page.locator(f"tr[data-art='{row}']").get_by_text("mock-ups made").first).to_be_visible()
    page.get_by_label("Work on many pairs").get_by_role("button", name="Dismiss").first.click()
    expect(page.get_by_label("Work on many pairs").get_by_text("Pictures of 2 pairs")).to_have_count(0)


def test_history_and_search_find_a_pair(page: Page) -> None:
    page.goto("/")
    page.get_by_role("searchbox", name="Search").fill("Harbour")
    found = page.get_by_role("list", name="Found").get_by_role("link").first
    expect(found).to_contain_text("The seam gapes a little at the foot.")
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.get_by_role("article", name="Sample of 2026-05-04")).to_be_visible()
    page.get_by_role("button", name="History").click()
    told = page.get_by_role("dialog", name="History")
    for words in ("2026-05-04", "Sample ordered", "Priced: 26.99", "Pressed: good: deep and even, foot too", "Fitted"):
        expect(told).to_contain_text(words, ignore_case=True)


def test_pairs_are_filtered_by_what_is_to_be_done_renamed_together_and_planned(page: Page, row: str) -> None:
    board = page.request.get("/api/board").json()
    art = next(art["id"] for art in board["artworks"] if art["title"] == row)
    for blank in board["templates"]:  # the board checks what it shows; here all are checked at once
        assert page.request.get(f"/api/board/{art}/{blank['id']}").ok
    page.reload()
    show = page.get_by_role("radiogroup", name="Show pairs")
    show.get_by_role("radio", name=re.compile("^To picture")).click()
    expect(page).to_have_url(re.compile(r"show=picture"))
    line = page.locator(f"tr[data-art='{row}']")
    expect(line).to_be_visible()
    line.get_by_label(f"Select {row} on every blank").check()
    bar = page.get_by_label("Selection")
    bar.get_by_role("button", name="Rename artworks…").click()
    bar.get_by_label("New title").fill("{title} on the ridge")
    bar.get_by_role("button", name="Show the new titles").click()
    expect(bar.get_by_text(f"{row} on the ridge", exact=True)).to_be_visible()
    bar.get_by_role("button", name="Rename it").click()
    expect(page.locator(f"tr[data-art='{row} on the ridge']")).to_be_visible()
    page.goto("/plan")
    expect(page.locator("main a", has_text=f"{row} on the ridge on Mug, 11 oz")).to_have_count(1)
    with page.expect_download() as landing:
        page.get_by_role("link", name="Calendar, iCalendar").click()
    assert "BEGIN:VEVENT" in Path(landing.value.path()).read_text(encoding="utf-8")
