"""Many pairs at once: pictures and print files, paused, stopped, retried, continued after a restart."""

import io
import subprocess
import threading
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PIL import Image

from improva.core.errors import OutputError
from improva.core.progress import Progress
from improva.jobs import handlers as job_handlers
from improva.web.app import create_app
from tests.conftest import encoded, quadrants
from tests.waiting import wait_until
from tests.web.client import ApiClient, client_of
from tests.web.helpers import cells, drop

MUG, CUP = "mug-11oz", "tumbler-20oz-straight"
LOOK = {"shots": [{"scene_id": "mug-11oz-studio"}, {"scene_id": "mug-11oz-above"}], "sizes": [[400, 300]]}


@pytest.fixture
def client(tmp_path: Path) -> Iterator[ApiClient]:
    app = create_app(tmp_path / "data")
    with client_of(app) as client:
        assert client.put("/api/presets/two", json={"mockup_settings": LOOK, "colours": {}}).status_code == 200
        yield client
    app.extensions["jobs"].close()


def arts(client: ApiClient, count: int = 2) -> list[int]:
    return [drop(client, encoded(Image.fromarray(quadrants(700 + 3 * i, 600))), f"art-{i}.png")["id"] for i in range(count)]


def begin(client: ApiClient, kind: str, pairs: list[tuple[int, str]], **more: Any) -> dict[str, Any]:
    body = {"kind": kind, "pairs": [{"artwork_id": a, "template_id": t} for a, t in pairs], **more}
    answer = client.post("/api/batches", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json


def until(client: ApiClient, holds: Callable[[dict[str, Any]], bool], limit_s: float = 60) -> dict[str, Any]:
    def state() -> dict[str, Any] | None:
        batch: dict[str, Any] = client.get("/api/batches").json["batches"][0]
        return batch if holds(batch) else None

    return wait_until(state, limit_s) or {}


def ended(batch: dict[str, Any]) -> bool:
    return not batch["under_way"]


def test_pictures_of_several_pairs_are_made_one_scene_at_a_time(client: ApiClient) -> None:
    one, two = arts(client)
    begin(client, "pictures", [(one, MUG), (two, MUG), (one, CUP)], preset="two")
    table = client.application.extensions["jobs"].table
    jobs = [table.get(i) for i in range(1, 6)]
    batch = until(client, ended)
    # a look made with mugs serves a cup by its scenes of the same kind
    assert (batch["title"] == "Pictures of 3 pairs" and batch["done"] == batch["jobs"] == 5) or batch["jobs"] == 6
    scenes = [(job.template_id, job.parameters["mockup_settings"]["shots"][0]["scene_id"]) for job in jobs]
    assert scenes == sorted(scenes, key=scenes.index), "a scene is lit once for all artworks"
    mugs = [scene for template, scene in scenes if template == MUG]
    assert mugs in (["mug-11oz-above"] * 2 + ["mug-11oz-studio"] * 2, ["mug-11oz-studio"] * 2 + ["mug-11oz-above"] * 2)
    by_pair = {(c["artwork_id"], c["template_id"]): c for c in cells(client)}
    assert by_pair[one, MUG]["pictured"] and by_pair[two, MUG]["pictured"] and not by_pair[two, CUP]["pictured"]


def test_all_print_files_come_in_one_zip_for_two_readers(client: ApiClient, tmp_path: Path) -> None:
    pairs = [(art, blank) for art in arts(client) for blank in (MUG, CUP)]
    for art, blank in pairs:
        client.put(f"/api/pairs/{art}/{blank}/printing", json={"dpi": 60})
    begin(client, "print", pairs)
    batch = until(client, ended)
    assert batch["done"] == 4 and batch["files"] == 4 and batch["share"] == 1
    data = client.get(f"/api/batches/{batch['id']}/files").data
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        names = archive.namelist()
        assert archive.testzip() is None
        sizes = {name.split("/")[1]: Image.open(io.BytesIO(archive.read(name))).size for name in names}
    assert {tuple(name.split("/")[:2]) for name in names} == {
        (f"{art}-art-{i}", blank) for i, art in enumerate(dict(pairs)) for blank in (MUG, CUP)
    }
    assert sizes[CUP] == (558, 492)  # 9.3 × 8.2 in at 60 dpi
    path = tmp_path / "all.zip"
    path.write_bytes(data)
    listed = subprocess.run(["unzip", "-Z1", str(path)], capture_output=True, text=True, check=True).stdout.split()
    assert listed == names


def test_impossible_files_are_left_out_and_reported(client: ApiClient) -> None:
    one, _ = arts(client)
    assert client.put(f"/api/pairs/{one}/{CUP}/printing", json={"own_profile": True, "dpi": 60}).status_code == 200
    client.put(f"/api/pairs/{one}/{MUG}/printing", json={"dpi": 60})
    told = begin(client, "print", [(one, MUG), (one, CUP)])
    assert told["batches"][0]["jobs"] == 1
    assert [(out["title"], "ICC profile" in out["why"]) for out in told["left_out"]] == [
        ("Art 0 on Straight tumbler, 20 oz", True)
    ]
    body = {"kind": "print", "pairs": [{"artwork_id": one, "template_id": CUP}]}
    refused = client.post("/api/batches", json=body)
    assert refused.status_code == 422 and "ICC profile" in refused.json["detail"]
    for wrong in ({**body, "pairs": []}, {**body, "kind": "list"}, {**body, "pairs": [{"artwork_id": 99, "template_id": CUP}]}):
        assert client.post("/api/batches", json=wrong).status_code in (404, 422)
    assert client.post("/api/batches", json={**body, "kind": "pictures", "preset": "none such"}).status_code == 404


def test_work_done_before_is_not_done_again(client: ApiClient, tmp_path: Path) -> None:
    pairs = [(art, MUG) for art in arts(client)]
    begin(client, "pictures", pairs, preset="two")
    first = until(client, ended)
    before = {file.name: file.stat().st_mtime_ns for file in (tmp_path / "data/made").glob("*.jpg")}
    begin(client, "pictures", pairs, preset="two")
    second = until(client, ended)
    after = {file.name: file.stat().st_mtime_ns for file in (tmp_path / "data/made").glob("*.jpg")}
    assert second["id"] != first["id"] and second["files"] == first["files"] == 4 and before == after


class Gate:
    """Print jobs that wait until the test releases them. Those of ``failing`` artworks fail, once each."""

    def __init__(self) -> None:
        self.tickets, self.failing = threading.Semaphore(0), set[int]()

    def let_end(self, jobs: int) -> None:
        self.tickets.release(jobs)

    def work(self, services: object, asked: dict[str, Any], progress: Progress) -> list[str]:
        while not self.tickets.acquire(timeout=0.02):
            progress.at(0.5)  # raises once the job is stopped
        if asked["artwork_id"] in self.failing:
            self.failing.remove(asked["artwork_id"])
            raise OutputError("The disk is full.")
        return []


@pytest.fixture
def gate(monkeypatch: pytest.MonkeyPatch) -> Gate:
    gate = Gate()
    monkeypatch.setitem(job_handlers.HANDLERS, "print", gate.work)
    return gate


def test_a_batch_is_paused_resumed_and_retried(client: ApiClient, gate: Gate) -> None:
    ids = arts(client, 6)
    gate.failing.add(ids[1])
    batch = begin(client, "print", [(art, MUG) for art in ids])["batches"][0]
    at = f"/api/batches/{batch['id']}"
    gate.let_end(1)
    until(client, lambda b: b["done"] >= 1)
    assert client.post(f"{at}/pause").json["batches"][0]["paused"]
    gate.let_end(100)
    hand = client.post(f"/api/pairs/{ids[0]}/{CUP}/print-job", json={}).json  # what a hand asks for is not held back
    wait_until(lambda: client.get(f"/api/jobs/{hand['id']}").json["state"] == "done", 20)
    now = client.get("/api/batches").json["batches"][0]  # what was out has come in; the rest has not begun
    assert now["done"] + now["failed"] <= 4 and now["under_way"]
    client.post(f"{at}/resume")
    whole = until(client, ended)
    assert whole["done"] == 5 and whole["failed"] == 1 and whole["problems"][0]["why"] == "The disk is full."
    client.post(f"{at}/again")
    assert until(client, lambda b: b["done"] == 6)["failed"] == 0
    assert client.delete(at).json["batches"] == []


def test_a_batch_is_stopped(client: ApiClient, gate: Gate) -> None:
    batch = begin(client, "print", [(art, MUG) for art in arts(client, 5)])["batches"][0]
    until(client, lambda b: b["share"] > 0)
    client.post(f"/api/batches/{batch['id']}/stop")
    stopped = until(client, ended)
    assert stopped["stopped"] == 5 and stopped["done"] == 0
    assert client.post("/api/batches/99/stop").status_code == 404


def test_after_a_restart_a_batch_continues(tmp_path: Path, gate: Gate) -> None:
    first = create_app(tmp_path / "data")
    client = client_of(first)
    begin(client, "print", [(art, MUG) for art in arts(client, 5)])
    gate.let_end(1)
    until(client, lambda b: b["done"] >= 1)
    first.extensions["jobs"].close()
    second = create_app(tmp_path / "data")
    assert 1 <= second.extensions["jobs"].take_up() <= 4
    gate.let_end(100)
    done = until(client_of(second), ended)
    assert done["done"] == 5
    second.extensions["jobs"].close()


def test_files_of_a_batch_are_named_by_the_pattern(client: ApiClient) -> None:
    first = client.get("/api/batches/names").json
    assert first == {"batch": "{id}-{title}/{blank}/{name}", "pack": "{number}_{name}"}
    assert client.put("/api/batches/names", json={**first, "batch": "{blank} {number}"}).status_code == 200
    assert client.put("/api/batches/names", json={**first, "batch": "all"}).status_code == 422
    assert client.get("/api/batches/names").json["batch"] == "{blank} {number}"


def test_artworks_are_renamed_together_and_tried_first(client: ApiClient) -> None:
    arts = [drop(client, encoded(Image.fromarray(quadrants(60 + i, 60))), f"scan_{i}.png")["id"] for i in range(2)]
    body = {"artwork_ids": arts, "pattern": "Ridge {number}", "try_only": True}
    before = [art["title"] for art in client.get("/api/board").json["artworks"]]
    assert client.put("/api/artworks/titles", json=body).json["titles"] == ["Ridge 01", "Ridge 02"]
    assert [art["title"] for art in client.get("/api/board").json["artworks"]] == before
    assert client.put("/api/artworks/titles", json={**body, "try_only": False}).status_code == 200
    assert {art["title"] for art in client.get("/api/board").json["artworks"]} == {"Ridge 01", "Ridge 02"}
    assert client.put("/api/artworks/titles", json={**body, "artwork_ids": [999]}).status_code == 404
