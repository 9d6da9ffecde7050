"""The page itself: every control has a name, focus is visible, text is readable, nothing is cut off."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

BENCH = "/bench/1/tumbler-20oz-straight"
VIEWS = [
    "/",
    "/blanks",
    "/blanks/measure",
    "/bench/2/tumbler-20oz-tapered/fit",
    "/bench/3/t-shirt/fit?side=back",
    "/bench/1/mug-11oz/check",
    "/bench/5/t-shirt/artwork",
    "/bench/3/blanket-upright/artwork?part=with-it",
    f"{BENCH}/fit",
    f"{BENCH}/check",
    f"{BENCH}/mockups",
    f"{BENCH}/print",
    f"{BENCH}/sell",
]


def luminance(colour: str) -> float:
    # WCAG 2.2, relative luminance
    parts = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    r, g, b = (c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts)
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def contrast(one: str, two: str) -> float:
    bright, dark = sorted((luminance(one), luminance(two)), reverse=True)
    return (bright + 0.05) / (dark + 0.05)


TOKENS = dict(re.findall(r"--color-([a-z-]+): (#[0-9a-f]{6});", Path("frontend/src/styles.css").read_text()))


def test_contrast_of_black_on_white_is_21() -> None:
    assert contrast("#000000", "#ffffff") == pytest.approx(21) and contrast("#777777", "#777777") == 1


@pytest.mark.parametrize("ground", ["ground", "table", "paper", "accent-tint"])
@pytest.mark.parametrize("words", ["ink", "soft", "accent"])
def test_text_has_enough_contrast_on_every_background(words: str, ground: str) -> None:
    assert contrast(TOKENS[words], TOKENS[ground]) >= 4.5  # WCAG 2.2, 1.4.3 level AA


@pytest.mark.parametrize("view", VIEWS)
def test_every_control_has_a_name_and_nothing_runs_off_at_any_width(page: Page, view: str) -> None:
    page.goto(view)
    page.wait_for_load_state("networkidle")
    nameless = page.evaluate("""() => [...document.querySelectorAll('button, a, input, select, textarea, [role=application], [role=button]')].filter(node =>
        !(node.getAttribute('aria-label') || node.textContent.trim() || node.labels?.length || node.title)).map(n => n.outerHTML)""")
    assert nameless == []
    assert page.locator("img:not([alt])").count() == 0
    for width in (1024, 1280, 2560):
        page.set_viewport_size({"width": width, "height": 800})
        page.wait_for_function("width => innerWidth === width", arg=width)
        page.wait_for_load_state("networkidle")
        page.wait_for_function(  # pictures take their new size a frame later
            "document.documentElement.scrollWidth <= innerWidth && document.documentElement.scrollHeight <= innerHeight"
        )
        if view.startswith("/bench"):
            expect(page.get_by_role("button", name=re.compile("^(Next|Back to the board)"))).to_be_in_viewport(ratio=1)


def test_focus_is_visible(page: Page) -> None:
    page.goto(f"{BENCH}/fit")
    page.wait_for_load_state("networkidle")
    for _ in range(12):
        page.keyboard.press("Tab")
        seen = page.evaluate("""() => { const shown = node => getComputedStyle(node).outlineStyle !== 'none';
            const at = document.activeElement; return shown(at) || shown(at.parentElement) || at.tagName === 'BODY' }""")
        assert seen, page.evaluate("document.activeElement.outerHTML")


def test_lengths_are_shown_in_mm_on_request(page: Page) -> None:
    page.goto(f"{BENCH}/fit")
    page.get_by_text("mm", exact=True).first.click()
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("236.2")
    page.reload()
    expect(page.get_by_role("textbox", name="Width", exact=True)).to_have_value("236.2")


def test_the_sheet_of_keys_opens_and_closes(page: Page) -> None:
    page.goto(f"{BENCH}/fit")
    page.get_by_role("button", name="Keys", exact=True).click()
    expect(page.get_by_role("dialog", name="Keys on the bench")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_unknown_addresses_lead_back_to_the_board(page: Page) -> None:
    page.goto("/cellar")
    page.get_by_role("link", name="Go to the range board").click()
    expect(page.locator("tr[data-art='Dusk on the Summit Line']")).to_be_visible()
    page.goto("/bench/999/tumbler-20oz-straight/fit")
    expect(page.get_by_role("alert")).to_contain_text("not on the board")


def test_a_page_that_fails_to_load_says_so_and_leads_back(page: Page) -> None:
    page.goto("/")
    page.route("**/assets/GangPage-*.js", lambda route: route.abort())
    page.goto("/gang")
    expect(page.get_by_role("alert")).to_contain_text("This page cannot be shown")
    page.unroute("**/assets/GangPage-*.js")
    page.get_by_role("button", name="Load the page again").click()
    expect(page.get_by_role("link", name="Range board", exact=True)).to_be_visible()
