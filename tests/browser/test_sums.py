"""Lengths typed as calculations, worked out in the page."""

import pytest
from playwright.sync_api import Locator, Page, expect

SUMS = [
    ("1", "1"),
    ("25.4mm", "1"),
    ("2.54 cm", "1"),
    ("300px", "1"),
    ("9.3in/2", "4.65"),
    ("1/8in", "0.125"),
    ("3 * 0.5in", "1.5"),
    ("(1in + 12.7mm) * 2", "3"),
    ("-0.5", "-0.5"),
    ("1,5", "1.5"),
    ('2" - 1in', "1"),
]


@pytest.fixture
def field(page: Page) -> Locator:
    page.goto("/bench/2/tumbler-20oz-straight/fit")
    return page.get_by_role("textbox", name="Right", exact=True)


def test_lengths_are_calculated_as_they_are_typed(field: Locator) -> None:
    for typed, shown in SUMS:
        field.fill(typed)
        field.press("Enter")
        expect(field).to_have_value(shown)
    field.fill("0")
    field.press("Enter")
    expect(field).to_have_value("0")


def test_rotation_and_scale_accept_calculations_too(page: Page) -> None:
    page.goto("/bench/4/tumbler-20oz-straight/fit")
    turn, scale = (page.get_by_role("textbox", name=name, exact=True) for name in ("Rotation", "Scale"))
    turn.fill("360/8")
    turn.press("Enter")
    expect(turn).to_have_value("45")
    scale.fill("100/3 %")
    scale.press("Enter")
    expect(scale).to_have_value("33.3")
    page.get_by_role("button", name="Reset to suggested placement").click()
    expect(turn).to_have_value("0")
    expect(scale).to_have_value("100")


def test_a_repeat_that_cannot_close_is_reported_and_nothing_changes(page: Page) -> None:
    page.goto("/bench/2/tumbler-20oz-straight/fit")  # a pattern round the cup
    turn = page.get_by_role("textbox", name="Rotation", exact=True)
    turn.fill("45")
    turn.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("cannot close round the blank")
    expect(turn).to_have_value("0")
