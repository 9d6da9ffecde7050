"""Several workers for one board: real processes, Debian's Redis, one of them killed during its work."""

import json
import os
import shutil
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from PIL import Image

from improva.jobs.queue import QUEUE_URL, JobSignals, open_queue
from improva.store import JobTable
from improva.web.app import create_app
from tests.browser.conftest import free_port
from tests.conftest import encoded, quadrants
from tests.waiting import wait_until
from tests.web.client import ApiClient, client_of
from tests.web.helpers import drop

SIZES = [[640, 480], [800, 600], [900, 675]]


@pytest.fixture
def queue_url(tmp_path: Path) -> Iterator[str]:
    program = shutil.which("redis-server")
    assert program is not None, "Debian's redis-server is missing: run 'make machine'"
    port = free_port()
    (tmp_path / "redis").mkdir()
    command = [program, "--port", str(port), "--bind", "127.0.0.1", "--save", "", "--dir", str(tmp_path / "redis")]
    server = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    url = f"redis://127.0.0.1:{port}/0"

    def answers() -> bool:
        try:
            open_queue(url, tmp_path)
        except Exception:
            return False
        return True

    wait_until(answers, 20)
    yield url
    server.terminate()
    server.wait(10)


@pytest.fixture
def board(queue_url: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[ApiClient]:
    monkeypatch.setenv(QUEUE_URL, queue_url)
    app = create_app(tmp_path / "data")
    app.extensions["jobs"].lease_s = 4.0
    with client_of(app) as client:
        yield client
    app.extensions["jobs"].close()


@pytest.fixture
def workers(board: ApiClient, queue_url: str, tmp_path: Path) -> Iterator[list[subprocess.Popen[bytes]]]:
    # they have the folder's files, and no database: as on another machine, where it may not be opened
    shared = tmp_path / "elsewhere"
    shared.mkdir()
    for name in ("blobs", "made", "scenes"):
        (tmp_path / "data" / name).mkdir(exist_ok=True)
        (shared / name).symlink_to(tmp_path / "data" / name)
    command = [sys.executable, "-m", "improva.cli", "worker", "--data", str(shared)]
    found = [subprocess.Popen(command, env={**os.environ, QUEUE_URL: queue_url}) for _ in range(2)]
    yield found
    for process in found:
        process.terminate()
    for process in found:
        process.wait(30)


def asked_for(client: ApiClient, table: JobTable) -> list[int]:
    """Eight jobs: pictures of three artworks on two blanks, and two print files."""
    arts = [drop(client, encoded(Image.fromarray(quadrants(600 + i, 500))))["id"] for i in range(3)]
    jobs = []
    for art in arts:
        for blank, scene in (("mug-11oz", "mug-11oz-studio"), ("tumbler-20oz-straight", "straight-tumbler-shelf")):
            at = f"/api/pairs/{art}/{blank}"
            mockup_settings = {"shots": [{"scene_id": scene}], "sizes": SIZES, "format": "png"}
            assert client.put(f"{at}/mockup-settings", json=mockup_settings).status_code == 200
            jobs.append(client.post(f"{at}/mockup-job", json={}).json["id"])
    jobs += [client.post(f"/api/pairs/{art}/mug-11oz/print-job", json={}).json["id"] for art in arts[:2]]
    return jobs


def test_a_killed_worker_loses_and_duplicates_nothing(
    board: ApiClient, workers: list[subprocess.Popen[bytes]], queue_url: str, tmp_path: Path
) -> None:
    app = board.application
    table, boards = app.extensions["jobs"].table, app.extensions["jobs"]._board
    jobs = asked_for(board, table)
    slips, victim, theirs = JobSignals(open_queue(queue_url, tmp_path)), None, 0
    until = time.monotonic() + 120
    while victim is None:  # somebody is in the middle of a picture
        assert time.monotonic() < until
        for job in jobs:
            told = slips.newest_report(f"{boards} {job} 1")
            if told and told["state"] == "running":
                victim = next(p for p in workers if p.pid == int(told["by"].split()[1]))
                theirs = job
    os.kill(victim.pid, signal.SIGKILL)
    wait_until(lambda: all(table.get(job).state not in ("queued", "running") for job in jobs), 120)
    rows = [table.get(job) for job in jobs]
    assert {row.state for row in rows} == {"done"}, [row.problem for row in rows]
    assert next(row for row in rows if row.id == theirs).attempt == 2  # another has done what it left
    assert all(row.attempt == 1 for row in rows if row.id != theirs)

    made = tmp_path / "data" / "made"
    app.extensions["services"].store.database.sweep()  # what the killed one had begun
    files = {file.stem for file in made.iterdir()}
    assert files == {key for row in rows for key in row.files}  # each file once, and no other
    for row in rows:
        for key in row.files:
            got = board.get(f"/api/files/{key}")
            assert got.status_code == 200
            if got.mimetype == "image/png":
                Image.open(made / f"{key}.png").verify()
            elif got.mimetype == "application/json":
                assert len(json.loads(got.data)["pictures"]) == len(SIZES)
