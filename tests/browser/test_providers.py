"""Providers are compared and a sample is logged, by typing alone."""

from pathlib import Path

from playwright.sync_api import Page, Route, expect

from tests.browser.helpers import lay_on_bench
from tests.browser.test_listing import settled


def typed(page: Page, name: str, value: str) -> None:
    field = page.get_by_role("textbox", name=name, exact=True)
    field.fill(value)
    field.press("Enter")
    settled(page)


def test_prices_typed_before_the_last_one_is_answered_are_all_kept(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Mug, 11 oz")
    page.goto(page.url.rsplit("/", 1)[0] + "/sell?part=providers")
    page.get_by_label("Name of a provider").fill("Valley press")
    page.get_by_label("Name of a provider").press("Enter")
    settled(page)
    page.get_by_role("button", name="Valley press", exact=True).click()
    page.get_by_role("button", name="Add Home").click()
    settled(page)

    def late(route: Route) -> None:
        page.wait_for_timeout(300)
        route.continue_()

    page.route("**/offer", late)
    for name, value in (
        ("Printed piece", "4.10"),
        ("Shipping to Home", "3.20"),
        ("Duty to Home", "25"),
        ("Clearing to Home", "2"),
    ):
        field = page.get_by_role("textbox", name=name, exact=True)
        field.fill(value)
        field.press("Enter")
    settled(page)
    page.unroute("**/offer")
    page.reload()
    page.get_by_role("button", name="Valley press", exact=True).click()
    for name, value in (("Printed piece", "4.10"), ("Shipping to Home", "3.20"), ("Clearing to Home", "2")):
        expect(page.get_by_role("textbox", name=name, exact=True)).to_have_value(value)


def test_a_provider_is_added_compared_and_used_in_the_price(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="T-shirt")
    page.goto(page.url.rsplit("/", 1)[0] + "/sell?part=providers")
    for name in ("Hut press", "Pass press"):
        page.get_by_label("Name of a provider").fill(name)
        page.get_by_label("Name of a provider").press("Enter")
        settled(page)
        page.get_by_role("button", name=name, exact=True).click()
        expect(page.get_by_role("heading", name=f"Offer of {name}")).to_be_visible()
        typed(page, "Printed piece", "9.50" if name == "Hut press" else "6.10")
        page.get_by_role("button", name="Add Home").click()
        settled(page)
        typed(page, "Shipping to Home", "3.20")
        if name == "Pass press":
            typed(page, "Duty to Home", "25")
            typed(page, "Clearing to Home", "2")
    hut, far = page.locator("tr[data-provider='Hut press']"), page.locator("tr[data-provider='Pass press']")
    expect(hut).to_contain_text("12.70")
    # (6.10 + 3.20) · 0.25 + 2 = 4.325, so 4.33; 13.63 in total
    expect(far).to_contain_text("13.63")
    expect(far).to_contain_text("4.33 customs")
    expect(hut).to_contain_text("cheapest")
    hut.get_by_role("button", name="Hut press").click()
    page.get_by_role("button", name="Use these costs for the price").click()
    settled(page)
    page.get_by_label("Who makes the sample").select_option("Hut press")
    page.get_by_role("button", name="Add a sample ordered today").click()
    for name, day in (("ordered", "2026-05-28"), ("shipped", "2026-06-02"), ("delivered", "2026-06-06")):
        page.get_by_label(name, exact=True).fill(day)
        page.get_by_label(name, exact=True).blur()
        settled(page)
    expect(page.get_by_text("5 days to ship, 4 on the way, 9 in total")).to_be_visible()
    expect(hut).to_contain_text("quickest")
    page.get_by_label("Notes on the sample").fill("Colours a little deep.")
    page.get_by_label("Notes on the sample").blur()
    page.get_by_role("button", name="Add to the provider’s notes").click()
    expect(page.get_by_label("Notes", exact=True)).to_have_value("2026-06-06: Colours a little deep.")
    page.get_by_role("tablist", name="Part of selling").get_by_text("Price", exact=True).click()
    expect(page.get_by_role("textbox", name="Blank", exact=True)).to_have_value("9.50")
    expect(page.get_by_role("textbox", name="Shipping to Home: cost")).to_have_value("3.20")
