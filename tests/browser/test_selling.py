"""The Sell station: costs typed by hand, fees, a price; the profit is compared with a calculation on paper."""

from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.helpers import lay_on_bench


def typed(page: Page, name: str, value: str) -> None:
    field = page.get_by_role("textbox", name=name, exact=True)
    field.fill(value)
    with page.expect_response(lambda answer: answer.request.method == "PUT" and answer.url.endswith("/selling")) as answered:
        field.press("Enter")
    assert answered.value.ok
    expect(page.locator("main [role=tabpanel] > [aria-busy]")).to_have_attribute("aria-busy", "false")
    expect(field).to_have_value(value)


def left(page: Page, case: str) -> str:
    return page.locator(f"td[data-case='{case}']").inner_text().split("\n")[0]


def test_profit_and_suggested_price(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Garden flag")
    at = page.url.split("/bench/")[1].removesuffix("/fit")
    assert page.request.put(
        f"/api/pairs/{at}/selling", data={"shop": {"currency": "USD"}}
    ).ok  # without the demo's fees and tax
    page.get_by_role("link", name="Sell").click()
    expect(page.get_by_text("Enter the cost of one piece")).to_be_visible()
    for name, value in (
        ("Blank", "4.80"),
        ("Print", "2.10"),
        ("Packing", "0.60"),
        ("Shipping to Home: cost", "5.40"),
        ("Shipping to Home: buyer pays", "4.95"),
        ("List price", "24.99"),
    ):
        typed(page, name, value)
    assert left(page, "Now") == "17.04"  # 24.99 + 4.95 - 12.90
    page.get_by_role("button", name="Add a fee").click()
    typed(page, "Fee 1 in per cent", "6.5")  # 1.95 of 29.94
    typed(page, "Planned discount", "20")
    expect(page.locator("td[data-case='At the discount']")).to_contain_text("10.42")  # 19.99 + 4.95 - 1.62 - 12.90
    assert left(page, "Now") == "15.09" and left(page, "Worst case") == "10.42"
    page.get_by_text("Amount", exact=True).click()
    typed(page, "At least", "12.50")
    expect(page.get_by_text("Suggested price ")).to_contain_text("27.99")  # 26.99 leaves 21.59 + 4.95 - 1.73 - 12.90 = 11.91
    page.get_by_role("button", name="Use this price").click()
    expect(page.locator("td[data-case='Worst case']")).not_to_contain_text("10.42")
    assert 12.50 <= float(left(page, "Worst case")) < 13.50
    price = page.get_by_role("textbox", name="List price").input_value()
    page.reload()
    expect(page.get_by_role("link", name="Sell")).to_contain_text(f"at {price} USD")
    expect(page.get_by_role("textbox", name="Fee 1 in per cent")).to_have_value("6.5")
    page.get_by_role("button", name="Remove the fee Fee 1").click()
    expect(page.get_by_role("textbox", name="Fee 1 in per cent")).to_have_count(0)
