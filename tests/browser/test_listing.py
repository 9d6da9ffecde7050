"""From a dropped artwork to an accepted listing: priced, described, packed, uploaded. By pointer, and by keyboard alone."""

import json
import re
import zipfile
from pathlib import Path

import jsonschema
from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench_by_hand
from tests.web.test_listing_api import SCHEMA


def small(page: Page) -> str:
    """Choose small pictures to save time, and return the pair's address."""
    at = "/api/pairs/" + page.url.split("/bench/")[1].rsplit("/", 1)[0]
    mockup_settings = page.request.get(f"{at}/mockup-settings").json()["mockup_settings"]
    assert page.request.put(f"{at}/mockup-settings", data={**mockup_settings, "sizes": [[1200, 1200]]}).ok
    return at


def titles(page: Page) -> list[str]:
    every = page.get_by_role("list", name="Pictures in order").get_by_role("listitem").all()
    return [(item.get_attribute("aria-label") or "").split(": ", 1)[1] for item in every]


def settled(page: Page) -> None:
    expect(page.locator("main [role=tabpanel] > [aria-busy]")).to_have_attribute("aria-busy", "false")


def test_from_a_dropped_artwork_to_an_accepted_listing(page: Page, own_art: Path, tmp_path: Path) -> None:
    lay_on_bench_by_hand(page, own_art, blank="Mug, 11 oz")
    at = small(page)
    page.get_by_role("link", name="Sell").click()
    price = page.get_by_role("textbox", name="List price")
    price.fill("17.95")
    price.press("Enter")
    settled(page)
    page.get_by_role("tablist", name="Part of selling").get_by_text("Listing").click()
    stop = page.get_by_role("alert").filter(has_text="It may not be listed")
    expect(stop).to_contain_text("no origin is recorded")
    expect(page.get_by_role("button", name="Make the listing pack")).to_be_disabled()
    art = at.split("/")[3]
    note_that_it_is_own(page)
    expect(stop).to_have_count(0)
    page.get_by_label("Name for buyers").fill("Four fields of the valley")
    page.get_by_label("Sentence about this design").fill("Red, green, blue and snow.")
    page.get_by_label("Tags", exact=True).fill("valley colours, four fields, Valley Colours")
    page.get_by_label("Description", exact=True).fill("A mug for {design}.")
    page.get_by_label("Search description", exact=True).click()
    settled(page)
    read = page.get_by_role("region", name="Listing pack")
    expect(read.locator("[data-part=title]")).to_have_text("Four fields of the valley mug, 11 oz")
    expect(read.locator("[data-part=tags]")).to_have_text("valley colours · four fields")
    expect(read.locator("[data-part=description]")).to_contain_text("A mug for Four fields of the valley.")
    before = titles(page)
    assert len(before) == 10
    page.get_by_label(f"4: {before[3]}").drag_to(page.get_by_label(f"2: {before[1]}"))
    expect(page.get_by_label(f"2: {before[3]}")).to_be_visible()
    assert titles(page) == [before[0], before[3], before[1], before[2], *before[4:]]
    for _ in range(6):
        page.get_by_role("button", name="Remove picture 5").click()
    expect(page.get_by_role("list", name="Pictures in order").get_by_role("listitem")).to_have_count(4)
    settled(page)
    missing = page.get_by_text(re.compile("^No picture shows its size"))
    page.get_by_role("button", name="Add its size").click()
    expect(missing).to_have_count(0)
    settled(page)
    with page.expect_download(timeout=120_000) as coming:
        page.get_by_role("button", name="Make the listing pack").click()
    packed = tmp_path / coming.value.suggested_filename
    coming.value.save_as(packed)
    assert packed.name == "four-fields_mug-11oz_valley-stalls.zip"
    with zipfile.ZipFile(packed) as archive:
        told = json.loads(archive.read("listing.json"))
    jsonschema.validate(told, json.loads(SCHEMA.read_text()))
    assert told["price"] == "17.95" and len(told["pictures"]) == 5 and told["pictures"][4]["kind"] == "size"
    page.get_by_role("button", name="Submit the pack (simulated)").click()
    expect(page.get_by_role("list", name="Answers")).to_contain_text("Taken as no. ")
    expect(page.get_by_role("link", name="Sell")).to_contain_text("listed")
    a_licence_stops_it_and_is_overruled(page, art)


def note_that_it_is_own(page: Page) -> None:
    page.get_by_role("link", name="Artwork").click()
    page.get_by_text("Origin and licence").click()
    page.get_by_label("Source").select_option("own")
    page.get_by_role("link", name="Sell").click()
    page.get_by_role("tablist", name="Part of selling").get_by_text("Listing").click()


def a_licence_stops_it_and_is_overruled(page: Page, art: str) -> None:
    page.request.put(f"/api/artworks/{art}/origin", data={"source": "bought", "commercial": True})
    page.reload()
    expect(page.get_by_role("alert").filter(has_text="It may not be listed")).to_contain_text(
        "not known whether its licence allows print on demand"
    )
    page.get_by_label("If the licence does allow it").fill("Asked the maker by letter.")
    page.get_by_role("button", name="List it anyway").click()
    expect(page.get_by_text("Listed on your word since")).to_be_visible()
    expect(page.get_by_role("button", name="Make the listing pack")).to_be_enabled()


def test_by_keyboard_alone_to_an_accepted_listing(page: Page, own_art: Path) -> None:
    lay_on_bench_by_hand(page, own_art, blank="Garden flag")
    at = small(page)
    assert page.request.put(f"/api/artworks/{at.split('/')[3]}/origin", data={"source": "own"}).ok
    press = page.keyboard.press
    page.get_by_role("link", name="Sell").focus()
    press("Enter")
    page.get_by_role("textbox", name="List price").focus()
    press("Control+a")
    page.keyboard.type("21.50")
    press("Enter")
    settled(page)
    page.get_by_role("tab", name="Price").focus()
    press("ArrowRight")
    page.get_by_label("Name for buyers").focus()
    page.keyboard.type("A flag of four fields")
    press("Tab")  # to its line
    page.keyboard.type("For the station garden.")
    press("Tab")
    settled(page)
    before = titles(page)
    page.get_by_role("button", name="Picture 2 earlier").focus()
    press("Enter")
    expect(page.get_by_label(f"1: {before[1]}")).to_be_visible()
    settled(page)
    while len(titles(page)) > 2:
        count = len(titles(page))
        page.get_by_role("button", name=f"Remove picture {count}").focus()
        press("Enter")
        expect(page.get_by_role("list", name="Pictures in order").get_by_role("listitem")).to_have_count(count - 1)
    settled(page)
    page.get_by_role("button", name="Make the listing pack").focus()
    press("Enter")
    hand_in = page.get_by_role("button", name="Submit the pack (simulated)")
    expect(hand_in).to_be_visible(timeout=120_000)
    hand_in.focus()
    press("Enter")
    expect(page.get_by_role("list", name="Answers")).to_contain_text("Taken as no. ")
