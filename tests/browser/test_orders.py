"""A design with an open name: orders from a table, each with its own print file; the one that cannot be is told."""

import io
import zipfile
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.test_main_job import lay_on_bench

WORDS = {"kind": "words", "text": "For {name}", "sizing": "width", "width_mm": 60, "shift_mm": [0, 25], "least_caps": 4}


def test_orders_are_made_from_a_table_and_the_bad_one_is_told(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Mug, 11 oz")
    at = page.url.split("/bench/")[1].rsplit("/", 1)[0]
    page.goto(f"/bench/{at}/sell?part=orders")
    expect(page.get_by_text("None yet. Write {name} in words")).to_be_visible()
    assert page.request.put(f"/api/pairs/{at}/pieces", data={"pieces": [WORDS]}).ok
    page.reload()
    expect(page.get_by_text("in “For {name}”")).to_be_visible()
    table = "order,name\n1041,Ada\n1042,Maximiliane Wilhelmina the Elder of the Upper Valley\n"
    page.get_by_label("Table of orders").set_input_files(
        {"name": "orders.csv", "mimeType": "text/csv", "buffer": table.encode()}
    )
    with page.expect_download(timeout=90_000) as coming:
        page.get_by_role("button", name="Make these orders").click()
    with zipfile.ZipFile(io.BytesIO(Path(coming.value.path()).read_bytes())) as archive:
        names = set(archive.namelist())
    assert {"1041/1041_print.png", "1041/1041_proof_handle-right.jpg", "1041/1041_ticket.pdf", "orders.csv"} <= names
    assert not any(name.startswith("1042") for name in names)
    expect(page.get_by_text("1 order made.")).to_be_visible()
    expect(page.get_by_role("list", name="What is to be seen")).to_contain_text("1042 was not made. ")
    expect(page.get_by_role("list", name="What is to be seen")).to_contain_text("is too long")
    page.get_by_role("textbox", name="Order", exact=True).fill("1043")
    page.get_by_role("textbox", name="name", exact=True).fill("Bo")
    with page.expect_download(timeout=90_000) as coming:
        page.get_by_role("button", name="Make this order").click()
    assert coming.value.suggested_filename == "four-fields_mug-11oz_orders.zip"
