"""Fifty people at one board: response times by kind of request, on a real server with the demo's data."""

from __future__ import annotations

import http.client
import json
import random
import shutil
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np

from ..demo import lay_out
from ..store import Database
from .timing import row

PEOPLE, SECONDS = 50, 20.0
PAUSE_S = (2.0, 4.0)
"""How long a person looks at an answer. From memory: people who work without a rest."""

PAIRS = [(art, blank) for art in (1, 2, 3, 5) for blank in ("mug-11oz", "tumbler-20oz-straight", "pillow-square", "t-shirt")]

Call = Callable[[http.client.HTTPConnection, random.Random, str], None]


def _ask(connection: http.client.HTTPConnection, method: str, path: str, body: Any = None, view: str = "") -> None:
    headers = {"Content-Type": "application/json", **({"Improva-View": view} if view else {})}
    connection.request(method, path, None if body is None else json.dumps(body), headers)
    answer = connection.getresponse()
    answer.read()
    assert answer.status in (200, 204, 409), (path, answer.status)


def _content(rng: random.Random) -> dict[str, Any]:
    return {"fit": "cover", "shift_mm": [0, 0], "scale": round(rng.uniform(1, 2), 4), "rotate_deg": 0, "background": None}


def _board(connection: http.client.HTTPConnection, rng: random.Random, who: str) -> None:
    _ask(connection, "GET", f"/api/board/{rng.choice(PAIRS)[0]}")


def _cell(connection: http.client.HTTPConnection, rng: random.Random, who: str) -> None:
    art, blank = rng.choice(PAIRS)
    _ask(connection, "GET", f"/api/artworks/{art}/preview?px=200" if rng.random() < 0.3 else f"/api/pairs/{art}/{blank}/cell")


def _pair(connection: http.client.HTTPConnection, rng: random.Random, who: str) -> None:
    art, blank = rng.choice(PAIRS)
    _ask(connection, "GET", f"/api/pairs/{art}/{blank}")


def _placement(connection: http.client.HTTPConnection, rng: random.Random, who: str) -> None:
    art, blank = rng.choice(PAIRS)
    _ask(connection, "PUT", f"/api/pairs/{art}/{blank}/placement", _content(rng))


def _check(connection: http.client.HTTPConnection, rng: random.Random, who: str) -> None:
    art, blank = rng.choice(PAIRS)
    _ask(connection, "POST", f"/api/pairs/{art}/{blank}/check", {"content": _content(rng)})


def _mockup(connection: http.client.HTTPConnection, rng: random.Random, who: str) -> None:
    art, blank = rng.choice(PAIRS)
    body = {"content": _content(rng), "width": 512, "height": 512}
    _ask(connection, "POST", f"/api/pairs/{art}/{blank}/mockup-preview", body, who)


MIX: dict[str, tuple[int, Call]] = {
    "board": (25, _board),
    "picture": (25, _cell),
    "pair": (15, _pair),
    "placement": (10, _placement),
    "check": (15, _check),
    "mock-up": (10, _mockup),
}
"""Kinds of request with their shares in percent."""


def _person(
    port: int, number: int, ends_at: float, pause_s: tuple[float, float], times: dict[str, list[float]], lock: threading.Lock
) -> None:
    rng = random.Random(number)
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=120)
    kinds, shares = list(MIX), [share for share, _ in MIX.values()]
    time.sleep(rng.uniform(0, pause_s[1]))
    while time.monotonic() < ends_at:
        kind = rng.choices(kinds, shares)[0]
        started = time.perf_counter()
        MIX[kind][1](connection, rng, f"person {number}")
        took = time.perf_counter() - started
        with lock:
            times[kind].append(took)
        time.sleep(rng.uniform(*pause_s))


def times_under_load(
    people: int = PEOPLE,
    seconds: float = SECONDS,
    pause_s: tuple[float, float] = PAUSE_S,
    demo: Path | None = None,
) -> dict[str, list[float]]:
    """Return the response times in seconds of each kind of request, with a number of people who pause after each answer.

    They work on a copy of the data folder ``demo``, or on the demo's data laid out anew.
    """
    with tempfile.TemporaryDirectory() as folder:
        if demo is None:
            database = Database(Path(folder) / "data")
            lay_out(database)
            database.close()
        else:
            shutil.copytree(demo, Path(folder) / "data")
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = int(probe.getsockname()[1])
        command = [sys.executable, "-m", "improva.cli", "serve", "--port", str(port), "--data", f"{folder}/data"]
        server = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        try:
            _warm(port)
            times: dict[str, list[float]] = {kind: [] for kind in MIX}
            lock, ends_at = threading.Lock(), time.monotonic() + seconds
            crowd = [threading.Thread(target=_person, args=(port, n, ends_at, pause_s, times, lock)) for n in range(people)]
            for person in crowd:
                person.start()
            for person in crowd:
                person.join()
            return times
        finally:
            server.terminate()
            server.wait(20)
            shutil.rmtree(folder, ignore_errors=True)


def _warm(port: int) -> None:
    """Wait until the server answers, and ask once for everything that is made only once."""
    connection, rng = http.client.HTTPConnection("127.0.0.1", port, timeout=120), random.Random(0)
    while True:
        try:
            _ask(connection, "GET", "/api/board")
            break
        except OSError:
            connection.close()
            time.sleep(0.1)
    for art, blank in PAIRS:
        for path in ("", "/cell"):
            _ask(connection, "GET", f"/api/pairs/{art}/{blank}{path}")
    for _ in range(8):
        _mockup(connection, rng, "")


def bench_load() -> list[dict[str, Any]]:
    """Measure the 95th percentiles of 50 people at one board: of mock-ups of new edits, and of all other answers."""
    times = times_under_load()
    other = [took for kind, each in times.items() if kind != "mock-up" for took in each]
    return [
        row(
            f"{PEOPLE} people: any answer but new mock-ups, 95th percentile",
            float(np.percentile(other, 95)),
            "300 ms",
            0.3,
            1.0,
        ),
        row(f"{PEOPLE} people: new mock-ups, 95th percentile", float(np.percentile(times["mock-up"], 95)), "2 s", 2.0, 1.0),
    ]


if __name__ == "__main__":
    for kind, each in times_under_load().items():
        print(
            f"{kind:10} {len(each):4}  p50 {np.percentile(each, 50):.3f}  p95 {np.percentile(each, 95):.3f}  most {max(each):.3f}"
        )
