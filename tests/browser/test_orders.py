"""A design with an open name and an open photograph: orders from a table and by hand, each with its own print file; those that
cannot be are told."""

import io
import zipfile
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Download, FilePayload, Page, expect

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


def names_in(coming: Download) -> set[str]:
    with zipfile.ZipFile(coming.path()) as archive:
        return {name for name in archive.namelist() if "proof" not in name}


def test_a_print_file_waits_until_the_buyer_approves_the_proof(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Mug, 11 oz")
    at = page.url.split("/bench/")[1].rsplit("/", 1)[0]
    assert page.request.put(f"/api/pairs/{at}/pieces", data={"pieces": [WORDS]}).ok
    page.goto(f"/bench/{at}/sell?part=orders")
    page.get_by_label("Hold print files until the buyer approves").check()
    for order, name in (("21", "Ada"), ("22", "Bo")):
        page.get_by_role("textbox", name="Order", exact=True).fill(order)
        page.get_by_role("textbox", name="name", exact=True).fill(name)
        with page.expect_download(timeout=90_000) as coming:
            page.get_by_role("button", name="Make this order").click()
        assert names_in(coming.value) == {"orders.csv"}, "proofs alone"
    page.get_by_label("State of 21").select_option("Changes asked")
    page.get_by_label("Changes asked for 21").fill("Ada with a heart")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("“Ada with a heart”")).to_be_visible()
    page.get_by_label("State of 22").select_option("Approved")
    with page.expect_download(timeout=90_000) as coming:
        page.get_by_role("button", name="Make the print file of the approved item").click()
    assert names_in(coming.value) == {"orders.csv", "22/22_print.png", "22/22_ticket.pdf"}
    page.get_by_role("link", name="of all designs").click()
    expect(page.get_by_label("State of 22")).to_have_value("approved")
    page.get_by_role("radio", name="Changes asked 1").click()
    expect(page.get_by_role("list", name="Items").get_by_role("listitem")).to_have_count(1)
    page.get_by_label("Set all that are shown to").select_option("Proof sent")
    expect(page.get_by_label("State of 21")).to_have_value("sent")
