"""The same pair in two windows: neither replaces the other's work unseen."""

from pathlib import Path

from playwright.sync_api import Browser, Page, expect

from tests.browser.helpers import lay_on_bench, typed


def scale(page: Page, value: str) -> None:
    expect(page.get_by_role("textbox", name="Scale", exact=True)).to_have_value(value)


def saved_scale(page: Page, value: str) -> None:
    """Type a scale and wait until the server has stored it: the page shows it before."""
    with page.expect_response(lambda answer: answer.request.method == "PUT" and answer.ok):
        typed(page, "Scale", value)


def test_a_stale_edit_is_offered_beside_what_is_stored(page: Page, browser: Browser, address: str, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=address)
    other = context.new_page()
    other.goto(page.url)
    scale(other, "100")

    saved_scale(page, "120")
    typed(other, "Scale", "80")
    dialog = other.get_by_role("alertdialog", name="Changed in the meantime")
    expect(dialog.get_by_role("row", name="placement, scale 120 % 80 %")).to_be_visible()
    dialog.get_by_role("button", name="Take what is stored").click()
    expect(dialog).to_have_count(0)
    scale(other, "120")

    saved_scale(other, "90")
    typed(page, "Scale", "130")
    dialog = page.get_by_role("alertdialog", name="Changed in the meantime")
    with page.expect_response(lambda answer: answer.request.method == "PUT" and answer.ok):
        dialog.get_by_role("button", name="Keep mine").click()
    expect(dialog).to_have_count(0)
    scale(page, "130")
    other.reload()
    scale(other, "130")
    context.close()
