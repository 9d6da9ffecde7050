"""A design with an open name and an open photograph: orders from a table and by hand, each with its own print file; those that
cannot be are told."""

import io
import zipfile
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import FilePayload, Page, expect

from tests.browser.helpers import lay_on_bench
from tests.open_design import FRAMES, open_words

WORDS = open_words(4)


def photograph(name: str, green: int, px: int = 900) -> FilePayload:
    """A buyer's photograph of one colour."""
    file = io.BytesIO()
    Image.fromarray(np.full((px * 3 // 4, px, 3), (30, green, 60), np.uint8)).save(file, "JPEG", quality=95)
    return {"name": name, "mimeType": "image/jpeg", "buffer": file.getvalue()}


def middle_of(archive: zipfile.ZipFile, order: str) -> np.ndarray:
    """Return the colour at the frame's position in an order's print file."""
    picture = np.asarray(Image.open(archive.open(f"{order}/{order}_print.png")).convert("RGB")).astype(int)
    return picture[round(picture.shape[0] / 2 - 12 / 25.4 * 300), picture.shape[1] // 2]


def test_orders_are_made_from_a_table_and_the_bad_row_is_reported(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Mug, 11 oz")
    at = page.url.split("/bench/")[1].rsplit("/", 1)[0]
    page.goto(f"/bench/{at}/sell?part=orders")
    expect(page.get_by_text("None yet. Write {name} in words")).to_be_visible()
    assert page.request.put(f"/api/pairs/{at}/pieces", data={"pieces": [WORDS, FRAMES]}).ok
    page.reload()
    expect(page.get_by_text("in “For {name}”")).to_be_visible()
    table = (
        "order,name,photo\n1041,Ada,ada.jpg\n1042,Maximiliane Wilhelmina the Elder of the Upper Valley,ada.jpg\n"
        "1043,Cy,small.jpg\n1044,Di,ada.jpg\n"
    )
    page.get_by_label("Table of orders").set_input_files(
        {"name": "orders.csv", "mimeType": "text/csv", "buffer": table.encode()}
    )
    page.get_by_label("Pictures of the orders").set_input_files([photograph("ada.jpg", 200), photograph("small.jpg", 90, 60)])
    expect(page.get_by_text("2 pictures")).to_be_visible()
    with page.expect_download(timeout=90_000) as coming:
        page.get_by_role("button", name="Make these orders").click()
    with zipfile.ZipFile(io.BytesIO(Path(coming.value.path()).read_bytes())) as archive:
        names = set(archive.namelist())
        assert np.abs(middle_of(archive, "1041") - (30, 200, 60)).max() < 8, "the buyer's photograph lies in the frame"
    assert {"1041/1041_print.png", "1041/1041_proof_handle-right.jpg", "1041/1041_ticket.pdf", "orders.csv"} <= names
    assert {name.split("/")[0] for name in names} == {"1041", "1044", "orders.csv"}
    expect(page.get_by_text("2 orders made.")).to_be_visible()
    told = page.get_by_role("list", name="To check")
    expect(told).to_contain_text("1042 was not made. ")
    expect(told).to_contain_text("is too long")
    expect(told).to_contain_text("1043 was not made. ")
    expect(told).to_contain_text("dpi")
    page.get_by_role("textbox", name="Order", exact=True).fill("1045")
    page.get_by_role("textbox", name="name", exact=True).fill("Bo")
    expect(page.get_by_role("button", name="Make this order")).to_be_disabled()
    page.get_by_label("Picture for photo").set_input_files([photograph("bo.jpg", 120)])
    with page.expect_download(timeout=90_000) as coming:
        page.get_by_role("button", name="Make this order").click()
    assert coming.value.suggested_filename == "four-fields_mug-11oz_orders.zip"
    with zipfile.ZipFile(io.BytesIO(Path(coming.value.path()).read_bytes())) as archive:
        assert np.abs(middle_of(archive, "1045") - (30, 120, 60)).max() < 8
