"""Personalised orders: from a table and a folder, or by hand; each with print file, proof and ticket; a bad one stops no
other."""

import csv
import io
import zipfile
from pathlib import Path

import numpy as np
import pypdfium2
import pytest
from PIL import Image

from improva.catalogue import template
from improva.core.output import slug
from tests.conftest import encoded, quadrants
from tests.open_design import FRAMES, open_words
from tests.scenery import scenes_of
from tests.web.client import Answer, ApiClient
from tests.web.helpers import drop
from tests.web.printing import ended

PROOFS = [f"proof_{slug(view)}.jpg" for view in scenes_of(template("mug-11oz"))[0].views]
WORDS = open_words(3)


def photo(red: int, px: int = 900) -> bytes:
    return encoded(Image.fromarray(np.full((px * 3 // 4, px, 3), (red, 40, 40), np.uint8)), "JPEG")


@pytest.fixture
def mug(client: ApiClient) -> str:
    art = drop(client, encoded(Image.fromarray(quadrants(2550, 1050))))
    mug = f"/api/pairs/{art['id']}/mug-11oz"
    assert client.put(f"{mug}/pieces", json={"pieces": [WORDS, FRAMES]}).status_code == 200
    return mug


def sent(client: ApiClient, mug: str, table: str, **photos: bytes) -> Answer:
    files = [(io.BytesIO(data), f"{name}.jpg") for name, data in photos.items()]
    return client.post(f"{mug}/orders", data={"file": (io.BytesIO(table.encode()), "orders.csv"), "photos": files})


def test_open_places_are_found_in_the_design(client: ApiClient, mug: str) -> None:
    state = client.get(f"{mug}/orders").json
    assert [(p["name"], p["kind"]) for p in state["places"]] == [("name", "words"), ("photo", "photograph")]
    assert state["example"].splitlines()[0] == "order,name,photo,quantity"
    bare = f"/api/pairs/{drop(client, None, 'plain.png')['id']}/mug-11oz"
    assert client.get(f"{bare}/orders").json["places"] == []
    assert sent(client, bare, "order\n1\n").status_code == 422


def test_a_table_makes_each_order_and_reports_the_bad_ones(client: ApiClient, mug: str, tmp_path: Path) -> None:
    table = (
        "order,name,photo\n1041,Ada,ada.jpg\n1042,Maximiliane Wilhelmina the Elder of the Upper Valley and the Pass,ada.jpg\n"
        "1043,Bo,tiny.jpg\n1044,Cy,nowhere.jpg\n1045,Di,broken.jpg\n1046,Ed Longer Name,ed.jpg\n,Fay,ada.jpg\n"
    )
    job = sent(client, mug, table, ada=photo(230), ed=photo(120), tiny=photo(200, 60), broken=b"no picture")
    assert job.status_code == 200, job.text
    file = ended(client, job.json)["files"][0]
    state = client.get(f"{mug}/orders").json
    why = {issue["name"]: issue["why"] for issue in state["issues"] if not issue["made"]}
    assert state["made"] == 2 and set(why) == {"1042", "1043", "1044", "1045", "line 8"}
    assert (
        "too long" in why["1042"]
        and "dpi" in why["1043"]
        and "'nowhere.jpg' is not among" in why["1044"]
        and "broken.jpg" in why["1045"]
    )
    archive = zipfile.ZipFile(io.BytesIO(client.get(file["url"]).data))
    names = set(archive.namelist())
    assert {f"{n}/{n}_{what}" for n in ("1041", "1046") for what in ("print.png", *PROOFS, "ticket.pdf")} | {
        "orders.csv"
    } == names
    rows = {row["order"]: row["state"] for row in csv.DictReader(io.StringIO(archive.read("orders.csv").decode(), newline=""))}
    assert rows["1041"] == "made" and rows["1043"] == "not made"
    prints = {
        n: np.asarray(Image.open(archive.open(f"{n}/{n}_print.png")).convert("RGB")).astype(int) for n in ("1041", "1046")
    }
    assert prints["1041"].shape == prints["1046"].shape
    h, w = prints["1041"].shape[:2]
    at = (round(h / 2 - 12 / 25.4 * 300), w // 2)
    assert abs(prints["1041"][at][0] - 230) < 8 and abs(prints["1046"][at][0] - 120) < 8, "each has its own photograph"
    assert Image.open(archive.open(f"1041/1041_{PROOFS[0]}")).size == (1600, 1200)
    assert archive.read("1041/1041_ticket.pdf").startswith(b"%PDF")
    again = sent(client, mug, table, ada=photo(230), ed=photo(120), tiny=photo(200, 60), broken=b"no picture").json
    assert ended(client, again)["files"][0]["url"] == file["url"], "the same orders are made once"


def test_items_of_one_order_are_all_made_and_the_design_is_reported_once(client: ApiClient, mug: str) -> None:
    table = "order,name,photo,quantity\n7,Ada,ada.jpg,2\n7,Bo,ada.jpg,\n8,Cy,no.jpg,1\n9,Maximiliane Wilhelmina,none.jpg,x\n"
    file = ended(client, sent(client, mug, table, ada=photo(230)).json)["files"][0]
    archive = zipfile.ZipFile(io.BytesIO(client.get(file["url"]).data))
    rows = list(csv.DictReader(io.StringIO(archive.read("orders.csv").decode(), newline="")))
    made = {row["order"]: row["quantity"] for row in rows if row["state"] == "made"}
    assert made == {"7-1": "2", "7-2": "1"}
    assert {f"{n}/{n}_print.png" for n in made} <= set(archive.namelist())
    issues = client.get(f"{mug}/orders").json["issues"]
    said = [issue["why"] for issue in issues]
    assert len(said) == len(set(said)), "nothing is said twice"
    design = {issue["why"] for issue in issues if issue["name"] == "All orders"}
    assert design and not design & {issue["why"] for issue in issues if issue["name"] != "All orders"}
    pages = pypdfium2.PdfDocument(archive.read("7-1/7-1_ticket.pdf"))
    assert "2" in pages[0].get_textpage().get_text_range().split()


def test_one_order_by_hand_and_its_missing_values(client: ApiClient, mug: str) -> None:
    aside = client.post("/api/artworks?aside=true", data={"file": (io.BytesIO(photo(90)), "hand.jpg")}).json
    job = client.post(
        f"{mug}/order", json={"name": "No. 7/b", "values": {"name": "Gil"}, "photos": {"photo": aside["id"]}}
    ).json
    archive = zipfile.ZipFile(io.BytesIO(client.get(ended(client, job)["files"][0]["url"]).data))
    assert "no-7-b/no-7-b_print.png" in archive.namelist()
    refused = client.post(f"{mug}/order", json={"name": "8", "values": {"name": " "}, "photos": {"photo": aside["id"]}})
    assert refused.status_code == 422 and "'name'" in refused.json["detail"]
    assert (
        client.post(f"{mug}/order", json={"name": "8", "values": {"name": "Al"}, "photos": {"photo": 999}}).status_code == 404
    )
    assert [a["title"] for a in client.get("/api/board").json["artworks"]].count("hand") == 0, (
        "a buyer's photograph is not on the board"
    )
