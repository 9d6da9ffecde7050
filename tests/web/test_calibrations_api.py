"""The map of a sewn blank and its calibrations: stored per provider, used by every design, undone."""

from typing import Any

import numpy as np
import pytest

from tests.web.client import ApiClient
from tests.web.helpers import drop, picture
from tests.web.printing import print_file
from tests.web.sewn import DPI, HOODIE, PX_MM, at, file_of, follow, smooth

STEP = 10 / PX_MM
"""Ten pixels at the density these tests print with, in mm."""


def sewing(client: ApiClient, art: dict[str, Any]) -> dict[str, Any]:
    answer = client.get(at(art, "/sewing"))
    assert answer.status_code == 200, answer.text
    return answer.json


def calibrate(client: ApiClient, art: dict[str, Any], right: float, down: float, provider: str = "", seam: str = "pocket"):  # type: ignore[no-untyped-def]
    body = {"seam": seam, "right_mm": right, "down_mm": down, "provider": provider, "sample": "No 3, size L"}
    return client.post(at(art, "/calibrations"), json=body)


def seam_of(state: dict[str, Any], seam: str) -> dict[str, Any]:
    return next(s for s in state["seams"] if s["id"] == seam)


def test_the_map_places_panels_by_their_seams(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    state = sewing(client, art)
    assert [f["title"] for f in state["faces"]] == ["Front", "Back"] and state["tolerance_mm"] == 5
    front = {p["panel"]: p for p in state["faces"][0]["panels"]}
    assert front["pocket"]["matrix"] == [1, 0, 0, 1, 130, 440] and front["front"]["matrix"] == [1, 0, 0, 1, 0, 0]
    assert list(front)[-1] == "pocket" and front["pocket"]["design"] == [1, 0, 0, 1, 130, 440]
    # the sleeve's edge, brought to the front, lies along the armhole: some beside it, since both are curved
    a, b, c, d, e, f = front["sleeve-left"]["matrix"]
    seam = seam_of(state, "armhole-left-front")
    off = np.array(seam["off"]) @ np.array([[a, b], [c, d]]) + (e, f)
    assert np.abs(off - np.array(seam["on"])).mean() < 8


def test_the_map_says_where_the_design_can_continue(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    state = sewing(client, art)
    assert seam_of(state, "pocket")["off_mm"] == 0 and seam_of(state, "pocket")["runs_on"]
    assert seam_of(state, "pocket")["delta_e"] < 1
    assert seam_of(state, "side-right")["off_mm"] is None and seam_of(state, "side-right")["runs_on"] is None
    assert seam_of(state, "underarm-left")["off_mm"] is None
    follow(client, art, "back", "side-right", "mirror")
    follow(client, art, "sleeve-left", "armhole-left-front", "flow")
    state = sewing(client, art)
    side, arm = seam_of(state, "side-right"), seam_of(state, "armhole-left-front")
    assert side["way"] == "mirror" and side["runs_on"] and side["off_mm"] < 0.1 and side["delta_e"] < 1.5
    checks = {c["id"]: c for c in client.get(at(art), query_string={"panel": "sleeve-left"}).json["report"]["checks"]}
    assert checks["runs-on"]["status"] == "warn" and checks["runs-on"]["where"] and "curved" in checks["runs-on"]["message"]
    assert checks["runs-on"]["measured"] == pytest.approx(arm["off_mm"], abs=1)
    assert arm["runs_on"] is False and 20 < arm["off_mm"] < 40  # two curves bent against each other


def test_a_calibration_moves_the_print_file_and_not_the_mock_up(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    before = file_of(client, art, "pocket")
    looks = {
        "width": 320,
        "height": 240,
        "scene": "hoodie-all-over-front",
        "content": {"seam": "pocket", "way": "flow"},
    }
    pocket = {"panel": "pocket"}
    seen = client.post(at(art, "/mockup-preview"), query_string=pocket, json=looks).data
    state = calibrate(client, art, STEP, -STEP).json
    assert state["corrections"] == {"pocket": [pytest.approx(STEP, abs=1e-3), pytest.approx(-STEP, abs=1e-3)]}
    assert state["calibrations"][0]["sample"] == "No 3, size L" and len(state["calibrations"][0]["made_on"]) == 10
    assert seam_of(state, "pocket")["off_mm"] == 0  # the file is made to where it is sewn
    after = file_of(client, art, "pocket")
    inner = slice(20, -20)
    assert np.abs(after[inner, inner] - before[inner, inner]).mean() > 1
    assert np.abs(after[20:-20, 20:-20] - before[10:-30, 30:-10]).mean() < 1.0  # ten px further right, ten higher
    assert client.post(at(art, "/mockup-preview"), query_string=pocket, json=looks).data == seen
    other = drop(client, smooth(), "again.png")  # every later design is made to it
    assert sewing(client, other)["corrections"] == state["corrections"]


def test_each_provider_has_its_own_calibration_and_the_last_can_be_undone(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    calibrate(client, art, 2, 0, "North Works")
    calibrate(client, art, 3, 1, "North Works")
    state = calibrate(client, art, -4, 0, "South Works").json
    assert state["provider"] == "South Works" and state["corrections"] == {"pocket": [-4, 0]}
    north = client.put(at(art, "/sewing-provider"), json={"provider": "North Works"}).json
    assert north["corrections"] == {"pocket": [3, 1]} and len(north["calibrations"]) == 3
    assert client.delete(at(art, "/calibrations")).json["corrections"] == {"pocket": [2, 0]}
    assert client.delete(at(art, "/calibrations")).json["corrections"] == {}
    assert client.delete(at(art, "/calibrations")).status_code == 200  # nothing left to take back
    assert client.put(at(art, "/sewing-provider"), json={"provider": "East"}).json["corrections"] == {}


@pytest.mark.parametrize(("seam", "right"), [("elbow", 1), ("side-right", 1), ("pocket", 1e6)])
def test_impossible_calibrations_are_reported(client: ApiClient, seam: str, right: float) -> None:
    art = drop(client, smooth(), "field.png")
    assert calibrate(client, art, right, 0, seam=seam).status_code == 422
    assert sewing(client, art)["calibrations"] == []


def test_a_blank_of_one_panel_has_no_seams(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    state = client.get(f"/api/pairs/{art['id']}/mug-11oz/sewing").json
    assert state["faces"] == [] and state["seams"] == []
    made = print_file(client, f"/api/pairs/{art['id']}/tote-gusset", "gusset", dpi=DPI)
    assert made["url"] and HOODIE not in made["name"]


def test_a_photograph_of_a_sample_gives_the_correction_and_the_preview_shows_it(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    known = seam_of(sewing(client, art), "pocket")["known"]
    assert known == [[70, 0], [270, 0]]
    # ten photograph pixels a millimetre, upright: the line goes on 4 mm to the right of where it meets the edge
    body = {"seam": "pocket", "px": [4000, 2000], "known": [[0.25, 0.25], [0.75, 0.25]], "on": [0.2, 0.6], "off": [0.21, 0.6]}
    answer = client.post(at(art, "/sample-shift"), json=body)
    assert answer.json == {"right_mm": pytest.approx(4), "down_mm": pytest.approx(0, abs=1e-9)}
    assert client.post(at(art, "/sample-shift"), json={**body, "known": [[0.25, 0.25], [0.25, 0.25]]}).status_code == 422
    look = {
        "width": 320,
        "height": 240,
        "scene": "hoodie-all-over-front",
        "content": {"seam": "pocket", "way": "flow"},
    }
    pocket = {"panel": "pocket"}
    plain, off = (
        picture(client.post(at(art, "/mockup-preview"), query_string=pocket, json={**look, **more}).data).astype(float)
        for more in ({}, {"nudged": {"pocket": [30, 0]}})
    )
    changed = np.abs(plain - off).max(axis=2) > 8
    assert changed[150:190, 130:190].mean() > 0.3 and changed[90:130, 130:190].mean() < 0.02  # the pocket, and nothing else
    assert client.post(at(art, "/mockup-preview"), query_string=pocket, json={**look, "nudged": "pocket"}).status_code == 422
