"""Preparing over HTTP: unsaved steps are previewed, saved ones apply to every blank, and nothing is lost."""

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image

from tests.conftest import encoded
from tests.core.preparation.test_cut import disc, on_paper
from tests.web.client import ApiClient
from tests.web.helpers import at, cells, drop

CUT = {"kind": "cut", "values": {"tolerance": 6}}
BORDER = {"kind": "border", "values": {"mm": 4, "colour": "#c0392b"}}


def scan(client: ApiClient) -> dict[str, Any]:
    pixels = on_paper(disc((20, 30, 60), size=600, radius=200)).pixels[..., :3].copy()
    pixels[20:26, 20:26] = (90, 80, 70)
    return drop(client, encoded(Image.fromarray(pixels), dpi=(254, 254)), "scan.png")


def prep(art: dict[str, Any], rest: str = "preparation") -> str:
    return f"/api/artworks/{art['id']}/{rest}"


def decide(client: ApiClient, art: dict[str, Any], *steps: dict[str, Any], **more: Any) -> dict[str, Any]:
    answer = client.put(prep(art), json={"steps": list(steps), **more})
    assert answer.status_code == 200, answer.text
    return answer.json


def test_saved_steps_apply_to_every_blank_and_the_original_stays(client: ApiClient) -> None:
    art = scan(client)
    before = client.get(at(art)).json
    told = decide(client, art, CUT, {"kind": "clean"}, BORDER, {"kind": "trim"})
    assert told["artwork"]["px"] == pytest.approx([480, 480], abs=3)
    assert told["artwork"]["has_alpha"] and not before["artwork"]["has_alpha"]
    assert told["original_px"] == [600, 600]
    pair = client.get(at(art)).json
    assert pair["artwork"]["sha256"] != before["artwork"]["sha256"]
    assert pair["suggested_placement"]["fit"] == "contain", "a cut-out is proposed whole"
    preview = np.asarray(Image.open(io.BytesIO(client.get(prep(art, "preview?px=400")).data)))
    assert preview.shape[2] == 4 and tuple(preview[200, 8]) == (192, 57, 43, 255)
    cell = cells(client)[0]
    assert client.get(cell["shown"]).status_code == 200
    undone = client.post(prep(art, "preparation/undo")).json
    assert undone["steps"] == [] and undone["can_redo"] and undone["artwork"]["sha256"] == art["sha256"]
    assert client.post(prep(art, "preparation/redo")).json["artwork"]["px"] == told["artwork"]["px"]


def test_unsaved_steps_are_shown_but_not_stored(client: ApiClient) -> None:
    art = scan(client)
    held = {"steps": [CUT]}
    answer = client.post(prep(art, "preparation/preview"), query_string={"px": 300}, json=held)
    looked = np.asarray(Image.open(io.BytesIO(answer.data)))
    assert looked.shape == (300, 300, 4) and looked[150, 5, 3] == 0 and looked[150, 150, 3] == 255
    report = client.post(prep(art, "preparation/report"), json=held).json
    assert [(spot["kind"], round(spot["size_mm"], 1)) for spot in report["specks"]] == [("speck", 0.7)]
    assert report["palette"][0]["on_white"] > 10
    assert client.get(prep(art)).json["steps"] == []


def test_steps_can_be_switched_off_reordered_and_changed_later(client: ApiClient) -> None:
    art = scan(client)
    decide(client, art, CUT, BORDER)
    off = decide(client, art, CUT, {**BORDER, "on": False})
    assert off["artwork"]["px"] == [600, 600] and off["artwork"]["steps"] == 1 and len(off["steps"]) == 2
    refused = client.put(prep(art), json={"steps": [BORDER, CUT]})
    assert refused.status_code == 422 and "Step 1, cut-out border" in refused.json["detail"]
    assert client.get(prep(art)).json["steps"] == off["steps"], "what cannot be done is not kept"
    assert client.post(prep(art, "preparation/undo")).json["steps"][1]["on"] is True


def test_a_step_that_would_remove_everything_is_reported_first(client: ApiClient) -> None:
    art = scan(client)
    steps = [{"kind": "cut", "values": {"tolerance": 255}}]
    answer = client.post(prep(art, "preparation/preview"), json={"steps": steps})
    assert answer.status_code == 422 and "would remove everything" in answer.json["detail"]


@pytest.mark.parametrize(
    ("steps", "told"),
    [
        ([{"kind": "polish"}], "no step 'polish'"),
        ([{"kind": "cut", "values": {"tolerance": "much"}}], "is not a value for tolerance"),
        ([{"kind": "cut", "values": {"add": [[2, 0]]}}], "points"),
        ([{"kind": "trim"}] * 50, "50 steps are too many"),
    ],
)
def test_impossible_steps_are_refused_with_a_message(client: ApiClient, steps: list[Any], told: str) -> None:
    answer = client.put(prep(scan(client)), json={"steps": steps})
    assert answer.status_code == 422 and told in answer.json["detail"]


def test_every_kind_of_step_describes_its_values(client: ApiClient) -> None:
    kinds = client.get("/api/artworks/steps").json["kinds"]
    assert [k["id"] for k in kinds][:2] == ["cut", "clean"]
    for kind in kinds:
        assert kind["title"] and kind["says"].endswith(".")
        for field in kind["fields"]:
            assert field["title"] and (field["kind"] != "number" or field["default"] is not None)


def test_licences_are_recorded_and_checked(client: ApiClient) -> None:
    art = scan(client)

    def run_checks(**origin: Any) -> tuple[str, str]:
        assert client.put(prep(art, "origin"), json=origin).status_code == 200
        check = next(c for c in client.get(at(art)).json["report"]["checks"] if c["id"] == "origin")
        return check["status"], check["message"]

    assert run_checks()[0] == "pass" and "No origin is recorded" in run_checks()[1]
    assert run_checks(source="own") == ("pass", "Your own work.")
    assert run_checks(source="bought", licence="Studio", print_on_demand=False)[0] == "fail"
    assert run_checks(source="bought", commercial=False, print_on_demand=True)[0] == "fail"
    assert run_checks(source="bought")[0] == "warn"
    assert run_checks(source="bought", print_on_demand=True) == (
        "warn",
        "A bought element used unchanged: others sell it too. Make something of your own from it.",
    )
    assert run_checks(source="bought", print_on_demand=True, changed=True)[0] == "pass"
    decide(client, art, {"kind": "recolour", "values": {"pairs": [["#14203c", "#2e6b3a"]]}})
    assert run_checks(source="bought", print_on_demand=True)[0] == "pass", "its steps changed it"
    for wrong in ({"source": "stolen"}, {"link": "javascript:alert(1)"}, {"on": "yesterday"}, {"maker": "x" * 300}):
        assert client.put(prep(art, "origin"), json=wrong).status_code == 422


def test_the_licence_file_is_stored_and_served_as_a_download_only(client: ApiClient) -> None:
    art = scan(client)
    data = b"<html><script>alert(1)</script></html>"
    told = client.put(prep(art, "licence"), data={"file": (io.BytesIO(data), "../licence.html")}).json
    assert told["licence_file"] == "licence.html"
    client.put(prep(art, "origin"), json={"source": "bought"})
    answer = client.get(prep(art, "licence"))
    assert answer.data == data
    assert answer.headers["Content-Disposition"] == "attachment; filename=licence.html"
    assert answer.mimetype == "application/octet-stream"
    assert client.delete(prep(art, "licence")).json["licence_file"] is None
    assert client.get(prep(art, "licence")).status_code == 404
    assert client.get(prep(art)).json["origin"]["source"] == "bought"
