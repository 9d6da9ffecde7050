"""Logging in to a board with a password, in the browser."""

import shutil
from pathlib import Path

from playwright.sync_api import Browser, expect

from tests.browser.conftest import served

PASSWORD = "kettle and two cups"


def test_a_seller_logs_in_goes_on_after_the_session_ends_and_logs_out(
    browser: Browser, tmp_path: Path, demo_folder: Path
) -> None:
    data, file = tmp_path / "data", tmp_path / "password.txt"
    shutil.copytree(demo_folder, data)
    file.write_text(f"{PASSWORD}\n")
    with served(data, "--password-file", str(file), up="/api/session") as url:
        context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=url)
        page = context.new_page()
        page.goto("/")
        field = page.get_by_label("The board's password")
        field.fill("a guess that is wrong")
        field.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("not the password")
        expect(page.get_by_role("link", name="Blanks")).to_have_count(0)
        field.fill(PASSWORD)
        page.get_by_role("button", name="Log in").click()
        expect(page.get_by_role("button", name="Add artwork")).to_be_visible()

        context.clear_cookies()
        page.get_by_role("link", name="Blanks").click()
        again = page.get_by_role("dialog", name="Log in again")
        again.get_by_label("The board's password").fill(PASSWORD)
        again.get_by_role("button", name="Log in").click()
        expect(again).to_have_count(0)
        expect(page.get_by_text("Measure a blank")).to_be_visible()

        page.get_by_role("button", name="Log out").click()
        expect(page.get_by_label("The board's password")).to_be_visible()
        context.close()
