"""Providers of a blank compared, samples logged, and their results used where they are needed."""

import io
from typing import Any

from PIL import Image

from tests.conftest import encoded, quadrants
from tests.web.client import ApiClient
from tests.web.helpers import at, drop

NEAR = {
    "piece": "14.20",
    "routes": [{"region": "Valley", "shipping": "5.10"}, {"region": "Over the pass", "shipping": "9.90"}],
    "least_dpi": 150,
}
FAR = {
    "piece": "9.80",
    "routes": [{"region": "Valley", "shipping": "7.00", "duty_percent": "20", "handling": "4"}],
    "least_dpi": 250,
    "file_mm": [240.0, 208.28],
}


def compared(client: ApiClient) -> tuple[dict[str, Any], dict[str, Any]]:
    art = drop(client)
    for name, offer, origin in (("Hut press", NEAR, "the valley"), ("Far press", FAR, "overseas")):
        assert client.put(f"/api/providers/{name}", json={"origin": origin}).status_code == 204
        state = client.put(at(art, f"/providers/{name}/offer"), json=offer)
        assert state.status_code == 200, state.text
    return art, {each["name"]: each for each in state.json["providers"]}


def test_providers_are_compared_by_landed_cost(client: ApiClient) -> None:
    art, by_name = compared(client)
    hut, far = by_name["Hut press"], by_name["Far press"]
    assert [(each["region"], each["total"], each["least"], each["exposed"]) for each in hut["landed"]] == [
        ("Valley", "19.30", True, False),
        ("Over the pass", "24.10", True, False),
    ]
    # (9.80 + 7.00) · 0.20 + 4 = 7.36; 9.80 + 7.00 + 7.36
    assert [(each["total"], each["duty"], each["exposed"], each["least"]) for each in far["landed"]] == [
        ("24.16", "7.36", True, False)
    ]
    assert hut["file_ok"] and not far["file_ok"] and "9.449 × 8.2 in" in far["file_says"]
    client.put(at(art, "/providers/Far press/offer"), json={**FAR, "file_mm": None})
    far = next(p for p in client.get(at(art, "/providers")).json["providers"] if p["name"] == "Far press")
    assert "250 dpi" in far["file_says"] and "150" in far["file_says"], "the artwork has 150 at this size"
    client.post(at(art, "/providers/Hut press/costs"))
    costs = client.get(at(art, "/selling")).json["costs"]
    assert (costs["blank"], costs["print"]) == ("14.20", "0")
    assert [(r["title"], r["cost"]) for r in costs["regions"]] == [("Valley", "5.10"), ("Over the pass", "9.90")]
    client.delete("/api/providers/Far press")
    assert [p["name"] for p in client.get(at(art, "/providers")).json["providers"]] == ["Hut press"]
    assert client.put(at(art, "/providers/Nobody/offer"), json=NEAR).status_code == 404
    assert client.put(at(art, "/providers/Hut press/offer"), json={**NEAR, "piece": "-3"}).status_code == 422


def test_a_sample_has_stages_and_photographs_and_sets_its_providers_days(client: ApiClient) -> None:
    art, _ = compared(client)
    state = client.post(at(art, "/samples"), json={"provider": "Hut press", "ordered": "2026-05-28"}).json
    sample = state["samples"][0]
    assert sample["days"] == {"to_ship": None, "on_the_way": None, "in_all": None}
    told = {
        "provider": "Hut press",
        "ordered": "2026-05-28",
        "shipped": "2026-06-02",
        "delivered": "2026-06-06",
        "checks": {"colour": "good", "seam": "off"},
        "note": "seam gapes by a hair",
    }
    state = client.put(f"/api/samples/{sample['id']}", json=told).json
    assert state["samples"][0]["days"] == {"to_ship": 5, "on_the_way": 4, "in_all": 9}
    hut = next(p for p in state["providers"] if p["name"] == "Hut press")
    assert hut["days"]["in_all"] == 9 and hut["quickest"] and hut["samples"] == 1
    assert client.put(f"/api/samples/{sample['id']}", json={**told, "shipped": "2026-05-01"}).status_code == 422
    picture = encoded(Image.fromarray(quadrants(2400, 1800)), "JPEG")
    for _ in range(2):
        state = client.post(f"/api/samples/{sample['id']}/photos", data={"file": (io.BytesIO(picture), "cup.jpg")}).json
    photo = Image.open(io.BytesIO(client.get(state["samples"][0]["photos"][1]).data))
    assert max(photo.size) == 1600 and client.get(f"/api/samples/{sample['id']}/photos/2").status_code == 404
    assert (
        client.post(f"/api/samples/{sample['id']}/photos", data={"file": (io.BytesIO(b"no picture"), "cup.jpg")}).status_code
        == 422
    )
    for _ in range(2):  # said twice, it is noted once
        state = client.post(f"/api/samples/{sample['id']}/learned", json={"to": "provider notes"}).json
    assert next(p for p in state["providers"] if p["name"] == "Hut press")["note"] == "2026-06-06: seam gapes by a hair"
    assert client.delete(f"/api/samples/{sample['id']}").json["samples"] == []


def test_a_home_pressed_sample_goes_to_the_press_log(client: ApiClient) -> None:
    art = drop(client)
    state = client.post(
        at(art, "/samples"), json={"ordered": "2026-05-28", "checks": {"colour": "off"}, "note": "pale along the foot"}
    ).json
    assert state["pressed_here"]
    client.post(f"/api/samples/{state['samples'][0]['id']}/learned", json={"to": "press log"})
    entry = client.get(at(art, "/press")).json["log"][0]
    assert (entry["on"], entry["result"], entry["note"]) == ("2026-05-28", "usable", "pale along the foot")


def test_a_sample_of_sewn_panels_calibrates_its_seam(client: ApiClient) -> None:
    hoodie = f"/api/pairs/{drop(client)['id']}/hoodie-all-over"
    state = client.post(
        f"{hoodie}/samples", json={"provider": "Far press", "ordered": "2026-05-28", "delivered": "2026-06-09"}
    ).json
    sample, seam = state["samples"][0]["id"], state["seams"][0]["id"]
    assert client.post(f"/api/samples/{sample}/learned", json={"to": "calibration"}).status_code == 422
    client.post(f"/api/samples/{sample}/learned", json={"to": "calibration", "seam": seam, "right_mm": 1.5, "down_mm": -4})
    rows = client.application.extensions["services"].store.calibrations.all("hoodie-all-over")
    assert [(r.provider, r.seam, r.right_mm, r.down_mm, r.made_on) for r in rows] == [
        ("Far press", seam, 1.5, -4, "2026-06-09")
    ]
    assert client.post(f"/api/samples/{sample}/learned", json={"to": "provider notes"}).status_code == 422
    assert client.post("/api/samples/999/learned", json={"to": "provider notes"}).status_code == 404
