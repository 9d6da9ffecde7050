"""The plan and the board's filter: what the next thing to do is for each pair, order and sample."""

import csv
import io
from typing import Any

import pytest
from PIL import Image

from tests.conftest import encoded, quadrants
from tests.web.client import ApiClient
from tests.web.helpers import drop
from tests.web.test_order_states import made, mug, put  # noqa: F401  # a fixture and its steps

START = {"start": "2026-11-30", "minutes_a_day": 300}


def plan(client: ApiClient) -> dict[str, Any]:
    settings = {**client.get("/api/plan").json["settings"], **START}
    answer = client.put("/api/plan/settings", json=settings)
    assert answer.status_code == 200, answer.text
    return dict(answer.json)


def tasks(client: ApiClient) -> list[tuple[str, str, int]]:
    return [(t["kind"], t["template_id"], t["count"]) for day in plan(client)["days"] for t in day["tasks"]]


def at_home(client: ApiClient, mug: str) -> None:  # noqa: F811
    """Press the mugs at home, so that they are no provider's to make."""
    assert client.put(f"{mug}/choices", json={"route": "press", "angle": 0, "colours": {}}).status_code == 200


def states(client: ApiClient) -> dict[str, str]:
    (art,) = client.get("/api/board/states").json["artworks"]
    return dict(art["states"])


def test_each_pair_goes_from_checking_to_its_mock_ups(client: ApiClient) -> None:
    art = drop(client, encoded(Image.fromarray(quadrants(2550, 1050))))
    assert set(states(client).values()) == {"check"}
    assert plan(client)["unchecked"] == len(states(client)) and not tasks(client)
    cell = client.get(f"/api/board/{art['id']}/mug-11oz").json
    wanted = "fix" if cell["verdict"] == "fail" else "picture"
    assert cell["state"] == states(client)["mug-11oz"] == wanted
    assert tasks(client) == [(wanted, "mug-11oz", 1)]
    row = client.get(f"/api/board/{art['id']}").json["cells"]
    assert {c["template_id"]: c["state"] for c in row} == states(client)


def test_a_pair_that_fails_is_to_be_fixed_and_says_why(client: ApiClient) -> None:
    art = drop(client, encoded(Image.fromarray(quadrants(120, 60))))
    cell = client.get(f"/api/board/{art['id']}/mug-11oz").json
    assert (cell["verdict"], cell["state"]) == ("fail", "fix")
    (day,) = plan(client)["days"]
    assert (day["tasks"][0]["kind"], day["tasks"][0]["why"]) == ("fix", cell["blocker"])


def test_orders_are_printed_then_pressed_in_one_batch(client: ApiClient, mug: str) -> None:  # noqa: F811
    at_home(client, mug)
    made(client, mug)
    assert not [t for t in tasks(client) if t[0] in ("print", "press")], "proofs that are not approved ask for nothing"
    put(client, ["7-1", "7-2", "8"], "approved")
    assert tasks(client)[0] == ("print", "mug-11oz", 3)
    put(client, ["7-1", "7-2"], "printed")
    now = plan(client)
    assert [(t["kind"], t["count"]) for t in now["days"][0]["tasks"]][:2] == [("print", 1), ("press", 2)]
    (batch,) = now["batches"]
    assert batch["count"] == 2 and batch["temperature_c"] > 150
    assert batch["minutes"] == pytest.approx(2 * (3 + batch["seconds"] / 60), abs=0.1)
    assert "7-1, 7-2" in now["days"][0]["tasks"][1]["why"]


def test_samples_on_their_way_are_expected(client: ApiClient) -> None:
    art = drop(client, encoded(Image.fromarray(quadrants(600, 600))))
    body = {"provider": "", "ordered": "2026-11-25", "shipped": "", "delivered": "", "checks": {}, "note": ""}
    assert client.post(f"/api/pairs/{art['id']}/mug-11oz/samples", json=body).status_code in (200, 201)
    (sample,) = plan(client)["samples"]
    assert (sample["expected"], sample["own"]) == ("2026-12-04", False)


def test_the_plan_is_exported(client: ApiClient, mug: str) -> None:  # noqa: F811
    made(client, mug)
    put(client, ["7-1", "8"], "approved")
    plan(client)
    table = client.get("/api/plan/plan.csv")
    assert table.headers["Content-Type"].startswith("text/csv") and "plan.csv" in table.headers["Content-Disposition"]
    rows = list(csv.DictReader(io.StringIO(table.data.decode())))
    assert (rows[0]["day"], rows[0]["task"], rows[0]["pieces"]) == ("2026-11-30", "Order", "2"), (
        "the blank's own route: a provider makes them"
    )
    calendar = client.get("/api/plan/plan.ics")
    assert calendar.headers["Content-Type"].startswith("text/calendar")
    assert calendar.data.decode().count("BEGIN:VEVENT") == len(rows)


def test_impossible_settings_change_nothing(client: ApiClient, mug: str) -> None:  # noqa: F811
    made(client, mug)
    put(client, ["8"], "approved")
    before = plan(client)["settings"]
    assert client.put("/api/plan/settings", json={**before, "minutes_a_day": 0}).status_code == 422
    assert client.put("/api/plan/settings", json={**before, "hours": 3}).status_code == 422
    assert client.get("/api/plan").json["settings"] == before
