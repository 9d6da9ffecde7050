"""What tests in the browser share: ways to the bench, and what is seen there."""

from __future__ import annotations

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Download, FilePayload, Locator, Page, expect

BLANKS = {
    "Straight tumbler": "tumbler-20oz-straight",
    "Tapered tumbler": "tumbler-20oz-tapered",
    "Mug, 11 oz": "mug-11oz",
    "T-shirt": "t-shirt",
    "Garden flag": "garden-flag",
    "Throw blanket": "blanket-upright",
    "Transfer": "transfer-15in",
}


def lay_on_bench(page: Page, art: Path, station: str = "fit", blank: str = "Straight tumbler") -> None:
    """Upload a file to the server directly and open its pair with a blank, which is faster than adding it on the board."""
    data = FilePayload(name=art.name, mimeType="application/octet-stream", buffer=art.read_bytes())
    added = page.request.post("/api/artworks", multipart={"file": data})
    assert added.status == 201, added.text()
    address = station.lower().replace("-", "")
    page.goto(f"/bench/{added.json()['id']}/{BLANKS[blank]}/{address}")
    expect(page.locator("[data-preview]")).to_be_visible()


def rows_told(page: Page) -> int:
    """Return the number of artworks on the board, including rows that are not rendered."""
    return int(page.get_by_role("table").get_attribute("aria-rowcount") or 0) - 1


def newest_row(page: Page, number: int) -> Locator:
    """Scroll to the row of the newest artwork, and return it; distant rows are not rendered."""
    expect(page.get_by_role("table")).to_have_attribute("aria-rowcount", str(number + 1))
    page.evaluate("document.querySelector('main').scrollTop = 1e9")
    row = page.locator(f"tr[aria-rowindex='{number + 1}']")
    expect(row).to_be_in_viewport()
    return row


def lay_on_bench_by_hand(page: Page, art: Path, blank: str = "Straight tumbler") -> None:
    """Add a file on the board with the file chooser, and open its pair with a blank."""
    page.goto("/")
    expect(page.locator("tr[data-art='Dusk on the Summit Line']")).to_be_visible()
    before = rows_told(page)
    page.get_by_label("Artwork files").set_input_files(art)
    newest_row(page, before + 1).get_by_role("link", name=re.compile(f"{blank}.*open the bench")).click()
    expect(page.locator("[data-preview]")).to_be_visible()


def opened(download: Download) -> Image.Image:
    return Image.open(io.BytesIO(Path(download.path()).read_bytes()))


def shown(page: Page) -> np.ndarray:
    """Return the pixels of the mock-up that the page shows."""
    return np.asarray(Image.open(io.BytesIO(page.locator("[data-preview]").screenshot())).convert("RGB")).astype(int)


def expect_shown_to_change(page: Page, before: str | None) -> None:
    expect(page.locator("[data-preview]")).not_to_have_attribute("src", before or "")


def typed(page: Page, name: str, value: str) -> None:
    field = page.get_by_role("textbox", name=name, exact=True)
    field.fill(value)
    field.press("Enter")


def station(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Route").get_by_role("link", name=re.compile(f"^{name}")).click()


def print_file(page: Page, dpi: str = "100") -> Image.Image:
    """Make the print file of the open pair, at a low density to save time."""
    station(page, "Print")
    typed(page, "Resolution (dpi)", dpi)
    with page.expect_download() as download:
        page.get_by_role("button", name="Make the print file").click()
    return opened(download.value)
