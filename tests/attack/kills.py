"""Kills of the server in the middle of its work: every result is there once, and none is half written."""

from __future__ import annotations

import random
import sqlite3
import time
import zipfile
from pathlib import Path
from typing import Any

import requests
from PIL import Image

from tests.attack.report import Report
from tests.attack.target import Target
from tests.waiting import wait_until

LONGEST_RUN_S = 2.5
"""Longest time from a job's start to the kill. A job of the demo takes 0.3 to 2 s, so that most are done at the second try."""

PAIRS = [
    (1, "mug-11oz"),
    (2, "pillow-square"),
    (3, "t-shirt"),
    (1, "tumbler-20oz-straight"),
    (2, "garden-flag"),
    (3, "mug-11oz"),
]


def attack_by_kills(target: Target, count: int, seed: int) -> Report:
    """Kill the server ``count`` times while it runs jobs and stores edits, then let it finish and compare.

    Each kill hits real work: a job runs, and edits are being sent.
    """
    report, rng = Report("kills", target.patience), random.Random(seed)
    edits, started = dict[tuple[int, str], float](), list[int]()
    for number in range(count):
        session = requests.Session()
        for artwork_id, template_id in rng.sample(PAIRS, 2):
            started.append(_start(session, target, rng, artwork_id, template_id))
        wait_until(lambda: _any(target, "running"), 60)
        moment = time.monotonic() + rng.uniform(0.0, LONGEST_RUN_S)
        while time.monotonic() < moment:
            artwork_id, template_id = rng.choice(PAIRS)
            scale = round(rng.uniform(0.5, 2.0), 6)
            if _edit(session, target, artwork_id, template_id, scale):
                edits[artwork_id, template_id] = scale
        while not _any(target, "running"):  # the jobs were done before: each kill must hit work
            artwork_id, template_id = rng.choice(PAIRS)
            started.append(_start(session, target, rng, artwork_id, template_id))
            wait_until(lambda: not _any(target, "queued"), 60)
        report.tried += 1
        target.kill()
        target.start()
        if number % 10 == 9:
            _check(target, report, edits)
    wait_until(lambda: not _any(target, "running") and not _any(target, "queued"), 600)
    _check(target, report, edits)
    _check_jobs(target, report, started)
    report.figures["jobs"] = len(started)
    return report


def _rows(target: Target, sql: str) -> list[tuple[Any, ...]]:
    connection = sqlite3.connect(f"file:{target.data / 'improva.sqlite'}?mode=ro", uri=True, timeout=30)
    try:
        return connection.execute(sql).fetchall()
    finally:
        connection.close()


def _any(target: Target, state: str) -> bool:
    return bool(_rows(target, f"SELECT 1 FROM job WHERE state = '{state}' LIMIT 1"))


def _start(session: requests.Session, target: Target, rng: random.Random, artwork_id: int, template_id: str) -> int:
    """Start a job that makes something new, and return its id."""
    pair = f"{target.url}/api/pairs/{artwork_id}/{template_id}"
    printing = session.get(f"{pair}/printing", timeout=60).json()["printing"]
    session.put(f"{pair}/printing", json={**printing, "dpi": rng.randrange(80, 300)}, timeout=60)
    job = session.post(f"{pair}/print-job", json={"sides": "all"}, timeout=60)
    return int(job.json()["id"])


def _edit(session: requests.Session, target: Target, artwork_id: int, template_id: str, scale: float) -> bool:
    """Store a placement, and return whether it was answered as stored."""
    body = {"fit": "contain", "shift_mm": [0, 0], "scale": scale, "rotate_deg": 0, "background": None}
    address = f"{target.url}/api/pairs/{artwork_id}/{template_id}/placement"
    return session.put(address, json=body, timeout=60).status_code == 200


def _check(target: Target, report: Report, edits: dict[tuple[int, str], float]) -> None:
    """Check that every answered edit is stored, that the database is sound, and that files are whole."""
    if _rows(target, "PRAGMA integrity_check")[0][0] != "ok":
        report.faults.append("the database is damaged")
    for (artwork_id, template_id), scale in edits.items():
        found = requests.get(f"{target.url}/api/pairs/{artwork_id}/{template_id}", timeout=60).json()["placement"]
        if found is None or found["scale"] != scale:
            report.faults.append(f"an edit of {artwork_id} on {template_id} is lost: {found and found['scale']}, not {scale}")
    for path in (target.data / "made").iterdir():
        if not path.name.startswith(".") and not _whole(path):
            report.faults.append(f"{path.name} is not whole")


def _whole(path: Path) -> bool:
    try:
        if path.suffix in (".png", ".jpg", ".tif"):
            with Image.open(path) as picture:
                picture.load()
        elif path.suffix == ".zip":
            with zipfile.ZipFile(path) as archive:
                return archive.testzip() is None
    except (OSError, SyntaxError, zipfile.BadZipFile):
        return False
    return True


def _check_jobs(target: Target, report: Report, started: list[int]) -> None:
    """Check that each job has ended once with its files, or says that it was given up."""
    rows = {row[0]: row[1:] for row in _rows(target, "SELECT id, state, lost, problem, files FROM job")}
    for job in set(started):
        state, lost, problem, files = rows[job]
        given_up = state == "failed" and lost >= 3 and "begun 3 times" in (problem or "")
        if state != "done" and not given_up:
            report.faults.append(f"job {job} is {state} after {lost} losses: {problem}")
        if state == "done" and files == "[]":
            report.faults.append(f"job {job} is done without a file")
    report.figures["jobs given up"] = sum(1 for job in set(started) if rows[job][0] == "failed")
    twice = _rows(target, "SELECT key, count(*) FROM made_file GROUP BY key HAVING count(*) > 1")
    report.faults += [f"{key} is recorded {count} times" for key, count in twice]
