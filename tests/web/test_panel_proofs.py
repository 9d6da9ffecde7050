"""Checks of a sewn blank's panels: only what a change affects is checked again."""

from __future__ import annotations

import time
from typing import Any

import pytest

from improva.app.preflight import Preflight
from tests.web.client import ApiClient
from tests.web.helpers import drop
from tests.web.sewn import at, follow, smooth


@pytest.fixture
def checked(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """Record the panels that are checked, in order."""
    seen: list[str] = []
    check = Preflight.check

    def noted(self, pair, panel, content):  # type: ignore[no-untyped-def]
        seen.append(panel.id)
        return check(self, pair, panel, content)

    monkeypatch.setattr(Preflight, "check", noted)
    return seen


def anew(checked: list[str]) -> set[str]:
    found = set(checked)
    assert len(found) == len(checked), "none twice"
    checked.clear()
    return found


def placed(client: ApiClient, art: dict[str, Any], panel: str, **more: Any) -> dict[str, Any]:
    pair = client.get(at(art), query_string={"panel": panel}).json
    answer = client.put(at(art, "/placement"), query_string={"panel": panel}, json={**pair["placement"], **more})
    assert answer.status_code == 200, answer.text
    return dict(answer.json)


def test_only_panels_that_a_change_affects_are_checked_again(client: ApiClient, checked: list[str]) -> None:
    art = drop(client, smooth(), "field.png")
    every = {panel["id"] for panel in client.get(at(art)).json["panels"]}
    assert anew(checked) == every
    client.get(at(art))
    assert anew(checked) == set(), "proofs are kept"
    placed(client, art, "back", shift_mm=[12, 0])
    assert anew(checked) == {"back"}
    placed(client, art, "front", shift_mm=[0, 9])
    assert anew(checked) == {"front", "pocket"}, "the pocket shows the front"
    assert follow(client, art, "sleeve-left", "armhole-left-front", "flow").status_code == 200
    assert anew(checked) == {"sleeve-left"}
    placed(client, art, "front", shift_mm=[0, 11])
    assert anew(checked) == {"front", "pocket", "sleeve-left"}
    client.post(at(art, "/undo"), query_string={"panel": "front"})
    assert anew(checked) == set(), "what was judged before is known"


def test_a_calibration_affects_only_its_providers_panels(client: ApiClient, checked: list[str]) -> None:
    art = drop(client, smooth(), "field.png")
    client.get(at(art))
    anew(checked)
    sample = {"provider": "Hut press", "seam": "pocket", "right_mm": 2, "down_mm": 1, "sample": "No 1"}
    assert client.post(at(art, "/calibrations"), query_string={"panel": "pocket"}, json=sample).status_code == 200
    client.get(at(art))
    assert anew(checked) == {"pocket"}


def test_a_seam_is_measured_again_where_a_side_has_changed(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")

    def seams() -> tuple[dict[str, float], float]:
        start = time.perf_counter()
        state = client.get(at(art, "/sewing")).json
        return {seam["id"]: seam["delta_e"] for seam in state["seams"]}, time.perf_counter() - start

    (first, measured_s), (again, known_s) = seams(), seams()
    assert again == first and known_s < measured_s / 2, "seams that did not change are not measured again"
    placed(client, art, "back", shift_mm=[60, 40])
    moved, _ = seams()
    assert moved["pocket"] == first["pocket"] and moved["side-left"] != first["side-left"]


def test_each_artwork_has_its_own_results(client: ApiClient, checked: list[str]) -> None:
    one = drop(client, smooth(), "field.png")
    other = drop(client, smooth() + b"\0", "field again.png")
    client.get(at(one))
    assert "front" in anew(checked)
    client.get(at(other))
    assert "front" in anew(checked), "the same picture in another file is another artwork"
