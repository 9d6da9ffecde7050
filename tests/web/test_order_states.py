"""Proofs of orders have states; print files wait for the buyer's approval where the seller wants so."""

import io
import zipfile

import pytest
from PIL import Image

from tests.conftest import encoded, quadrants
from tests.open_design import open_words
from tests.web.client import ApiClient
from tests.web.helpers import drop
from tests.web.printing import ended

TABLE = "order,name\n7,Ada\n7,Bo\n8,Cy\n"
ONE = "order,name\n8,Cy\n"


@pytest.fixture
def mug(client: ApiClient) -> str:
    art = drop(client, encoded(Image.fromarray(quadrants(2550, 1050))))
    mug = f"/api/pairs/{art['id']}/mug-11oz"
    assert client.put(f"{mug}/pieces", json={"pieces": [open_words(3)]}).status_code == 200
    return mug


def made(client: ApiClient, mug: str, table: str = TABLE, held: bool = True) -> set[str]:
    """Make orders and return the names in their archive."""
    data = {"file": (io.BytesIO(table.encode()), "orders.csv"), "held": str(held).lower()}
    job = client.post(f"{mug}/orders", data=data)
    assert job.status_code == 200, job.text
    return archive(client, job.json)


def archive(client: ApiClient, job: dict[str, object]) -> set[str]:
    file = ended(client, job)["files"][0]
    return set(zipfile.ZipFile(io.BytesIO(client.get(file["url"]).data)).namelist())


def items(client: ApiClient) -> dict[str, dict[str, object]]:
    return {item["name"]: item for item in client.get("/api/orders").json["items"]}


def put(client: ApiClient, names: list[str], state: str, words: str = "") -> int:
    now = items(client)
    body = {"ids": [now[name]["id"] for name in names], "state": state, "words": words}
    return client.put("/api/orders/state", json=body).status_code


def test_held_orders_make_proofs_and_nothing_that_could_be_printed(client: ApiClient, mug: str) -> None:
    names = made(client, mug)
    assert any("proof" in name for name in names) and not any("print" in name or "ticket" in name for name in names)
    found = items(client)
    assert set(found) == {"7-1", "7-2", "8"} and {item["state"] for item in found.values()} == {"made"}
    assert found["8"]["values"] == {"name": "Cy"} and found["8"]["held"]
    assert client.get(f"{mug}/orders").json["held"], "the next orders are held too"
    refused = client.post(f"{mug}/orders/approved")
    assert refused.status_code == 422 and "approved" in refused.json["detail"]


def test_approved_items_alone_are_printed(client: ApiClient, mug: str) -> None:
    made(client, mug)
    assert put(client, ["7-1", "8"], "approved") == 200
    names = archive(client, client.post(f"{mug}/orders/approved").json)
    assert names == {"orders.csv", *(f"{n}/{n}_{what}" for n in ("7-1", "8") for what in ("print.png", "ticket.pdf"))}
    assert {name: item["state"] for name, item in items(client).items()} == {"7-1": "approved", "7-2": "made", "8": "approved"}


def test_changes_asked_keep_the_buyers_words(client: ApiClient, mug: str) -> None:
    made(client, mug, ONE)
    assert put(client, ["8"], "changes") == 422, "which changes?"
    assert put(client, ["8"], "changes", " Cy without a capital ") == 200
    assert (items(client)["8"]["state"], items(client)["8"]["words"]) == ("changes", "Cy without a capital")
    made(client, mug, "order,name\n8,cy\n")
    assert (items(client)["8"]["state"], items(client)["8"]["words"]) == ("made", ""), "its proof is a new one"
    assert items(client)["8"]["values"] == {"name": "cy"}


def test_an_item_that_is_made_again_as_it_was_keeps_its_state(client: ApiClient, mug: str) -> None:
    made(client, mug, ONE)
    put(client, ["8"], "approved")
    made(client, mug, "order,name,quantity\n8,Cy,3\n9,Di,1\n")
    found = items(client)
    assert (found["8"]["state"], found["8"]["quantity"], found["9"]["state"]) == ("approved", 3, "made")


def test_a_design_that_changed_after_the_approval_is_not_printed(client: ApiClient, mug: str) -> None:
    made(client, mug, ONE)
    put(client, ["8"], "approved")
    moved = {**open_words(3), "width_mm": 50}
    assert client.put(f"{mug}/pieces", json={"pieces": [moved]}).status_code == 200
    refused = client.post(f"{mug}/orders/approved")
    assert refused.status_code == 422 and "8" in refused.json["detail"] and "changed" in refused.json["detail"]


def test_what_is_not_held_is_made_whole_and_listed_too(client: ApiClient, mug: str) -> None:
    names = made(client, mug, ONE, held=False)
    assert "8/8_print.png" in names and any("proof" in name for name in names)
    assert not items(client)["8"]["held"]
    assert put(client, ["8"], "shipped") == 200 and items(client)["8"]["state"] == "shipped"
    assert put(client, ["8"], "lost") == 422
