"""A board with a year of artworks: it opens at once, scrolls as smoothly as a short one, and keeps what is being typed."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from improva.bench.year import seed_year
from tests.browser.conftest import served

BLANKS = 15
SPEED = 3600  # px a second, 60 px a frame


@pytest.fixture(scope="module")
def year(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    folder = tmp_path_factory.mktemp("year")
    seed_year(folder, 1000, BLANKS, range(1, 41))
    with served(folder) as url:
        yield url


@pytest.fixture
def board(browser: Browser, year: str) -> Iterator[Page]:
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.route("**/cell?*", lambda route: route.abort())  # no mock-ups are made: the page alone is looked at
    page.goto(year)
    expect(page.get_by_label("Title of Artwork 1", exact=True)).to_be_visible()
    yield page
    context.close()


def frames(board: Page, file: Path, px: int) -> list[tuple[str, bool]]:
    """Return the frames of a wheel scroll: the thread that moved each ("SCROLL_COMPOSITOR_THREAD" or "SCROLL_MAIN_THREAD")
    and whether it was shown.
    """
    browser = board.context.browser
    assert browser is not None
    browser.start_tracing(page=board, path=file, categories=["cc", "benchmark"])
    scroll = {"x": 700, "y": 400, "yDistance": -px, "speed": SPEED, "gestureSourceType": "mouse", "preventFling": True}
    board.context.new_cdp_session(board).send("Input.synthesizeScrollGesture", scroll)
    browser.stop_tracing()
    events = json.loads(file.read_text())["traceEvents"]
    told = [event["args"].get("frame_reporter") for event in events if event["name"] == "PipelineReporter"]
    scrolled = [each for each in told if each and each["scroll_state"] != "SCROLL_NONE"]
    return [(each["scroll_state"], each["state"] != "STATE_DROPPED") for each in scrolled]


def test_a_years_board_scrolls_smoothly(board: Page, tmp_path: Path) -> None:
    """The browser's compositor scrolls the board even while the page is busy. When the main thread scrolled it, two of three
    frames were dropped.
    """
    board.wait_for_load_state("networkidle")
    found = frames(board, tmp_path / "trace.json", 6000)
    assert board.evaluate("document.querySelector('main').scrollTop") == 6000
    assert len(found) > 60 and {moved for moved, _ in found} == {"SCROLL_COMPOSITOR_THREAD"}
    assert sum(shown for _, shown in found) > 0.5 * len(found)


def test_only_rows_near_the_visible_ones_are_rendered_each_at_its_place(board: Page) -> None:
    rows = board.locator("tr[data-art]")
    expect(board.get_by_role("table")).to_have_attribute("aria-rowcount", "1001")
    assert rows.count() < 20
    board.evaluate("document.querySelector('main').scrollTop = 1e9")
    last = board.locator("tr[data-art='Artwork 1000']")
    expect(last).to_be_in_viewport()
    expect(last).to_have_attribute("aria-rowindex", "1001")
    expect(last.get_by_role("link", name=re.compile("open the bench"))).to_have_count(BLANKS)
    assert rows.count() < 20
    expect(board.locator("tr[data-art='Artwork 1']")).to_have_count(0)


def test_a_title_being_typed_survives_scrolling_and_a_new_artwork_is_scrolled_into_view(board: Page, own_art: Path) -> None:
    title = board.get_by_label("Title of Artwork 2", exact=True)
    title.fill("Kept while far away")
    board.evaluate("document.querySelector('main').scrollTop = 90000")
    expect(board.locator("tr[data-art='Artwork 1']")).to_have_count(0)
    title.press("Enter")
    board.evaluate("document.querySelector('main').scrollTop = 0")
    expect(board.get_by_label("Title of Kept while far away")).to_be_in_viewport()
    board.get_by_label("Artwork files").set_input_files(own_art)
    expect(board.get_by_label("Title of Four fields")).to_be_in_viewport()
    board.get_by_label("Select the whole board").check()
    expect(board.get_by_text(f"{1001 * BLANKS} pairs selected")).to_be_visible()


def test_the_board_keeps_its_scroll_position(board: Page) -> None:
    board.evaluate("document.querySelector('main').scrollTop = 3000")
    board.get_by_role("link", name="Artwork 15 on Mug, 11 oz: open the bench").click()
    board.get_by_role("link", name="Range board", exact=True).click()
    expect(board.get_by_role("link", name="Artwork 15 on Mug, 11 oz: open the bench")).to_be_in_viewport()
    assert abs(board.evaluate("document.querySelector('main').scrollTop") - 3000) < 100
