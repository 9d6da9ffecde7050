"""The Press station: the press clock run by keyboard with a simulated clock, and the log that improves the next plan."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench, station


def at_the_press(page: Page, own_art: Path) -> None:
    page.clock.install()
    lay_on_bench(page, own_art)
    station(page, "Press")
    page.get_by_text("matte", exact=True).click()  # nothing is logged for this finish
    page.get_by_role("heading", name="Figures").click()
    clock = page.get_by_role("region", name="Press clock")
    expect(clock.get_by_text("55 s", exact=True).first).to_be_visible()  # its plan has come: gloss is pressed for 60 s
    expect(clock.get_by_text("Step 1 of 13")).to_be_visible()


def time_left(page: Page) -> str:
    return str(page.get_by_label("Time left").inner_text())


def test_the_space_key_runs_the_press_clock_and_it_survives_a_reload(page: Page, own_art: Path) -> None:
    at_the_press(page, own_art)
    page.keyboard.press("Space")
    page.keyboard.press("Space")
    expect(page.get_by_role("status").filter(has_text="Press with the seam down.")).to_be_visible()
    expect(page.get_by_role("img", name="Seen from the end: the seam lies down")).to_be_visible()
    expect(page.get_by_label("Time left")).to_have_text("0:55")
    page.keyboard.press("Space")
    page.clock.fast_forward("00:20")
    expect(page.get_by_label("Time left")).to_have_text(re.compile("0:(3[0-5]|2.)"))  # the clock goes on meanwhile
    page.keyboard.press("Space")  # nothing is left out while it runs
    page.reload()
    expect(page.get_by_text("Step 3 of 13")).to_be_visible()
    page.clock.fast_forward("00:10")
    assert "0:05" <= time_left(page) <= "0:25"
    page.clock.fast_forward("00:30")
    expect(page.get_by_text("time is up: open the press")).to_be_visible()
    for _ in range(3):
        page.keyboard.press("Space")  # next
        page.keyboard.press("Space")  # start
        page.clock.fast_forward("01:00")
        expect(page.get_by_text("time is up: open the press")).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_text("Is the print even and deep?").first).to_be_visible()
    page.keyboard.press("p")
    expect(page.get_by_text("Step 8 of 13")).to_be_visible()  # once more, then another peek
    page.keyboard.press("Space")
    page.clock.fast_forward("00:41")
    expect(page.get_by_text("time is up: open the press")).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_text("Step 7 of 13")).to_be_visible()
    page.keyboard.press("n")
    expect(page.get_by_text("Step 9 of 13")).to_be_visible()
    page.get_by_role("button", name="Back one step").click()
    page.get_by_role("button", name="Back one step").click()
    page.get_by_role("button", name="Even and deep").click()
    expect(page.get_by_role("status").filter(has_text="heat gloves")).to_be_visible()
    page.locator("body").click(position={"x": 640, "y": 780})
    page.keyboard.press("Space")
    expect(page.get_by_text("Step 1 of 13")).to_be_visible()


def test_a_fault_is_explained_and_logged_and_changes_the_next_plan(page: Page, own_art: Path) -> None:
    at_the_press(page, own_art)
    cautions = page.get_by_role("region", name="Cautions")
    expect(cautions.get_by_text("safety data sheets")).to_be_visible()
    page.get_by_role("checkbox", name="Pale").check()
    causes = page.get_by_role("list", name="Likely causes").get_by_role("listitem")
    expect(causes.first).to_contain_text("Too little time.")
    expect(page.get_by_role("radio", name="Usable")).to_be_checked()
    page.get_by_label("Photograph of the result", exact=True).set_input_files(own_art)
    page.get_by_role("button", name="Log this pressing").click()
    entry = page.get_by_role("list", name="Log of pressings").get_by_role("listitem")
    expect(entry).to_contain_text("used for the suggestion")
    expect(entry.get_by_role("img")).to_be_visible()
    expect(page.get_by_text("it came out pale, so a tenth longer")).to_be_visible()
    expect(page.get_by_role("region", name="press", exact=True).get_by_text("61 s each")).to_be_visible()
    expect(cautions).to_be_in_viewport(ratio=1)
    page.get_by_role("button", name="Enter the maker's figures").click()
    page.get_by_label("Temperature, °F").fill("400")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Temperature, °C")).to_have_value("204.4")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("204 °C, 400 °F")).to_be_visible()  # the maker's win
    expect(page.get_by_text("Your log suggests 196 °C, 61 s")).to_be_visible()
    page.get_by_text("My log's", exact=True).click()
    expect(page.get_by_text("196 °C, 385 °F", exact=True)).to_be_visible()
    page.get_by_text("The maker's", exact=True).click()
    entry.get_by_role("button").click()
    expect(page.get_by_text("the maker's figures", exact=True)).to_be_visible()
    expect(page.get_by_text("204 °C, 400 °F")).to_be_visible()
    expect(page.get_by_role("link", name="Press").get_by_text("not pressed yet")).to_be_visible()
