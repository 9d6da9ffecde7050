"""Print files made through the application, as the page makes them."""

from __future__ import annotations

import time
from typing import Any

from tests.web.client import ApiClient

DEADLINE_S = 60.0


def ended(client: ApiClient, job: dict[str, Any]) -> dict[str, Any]:
    """A job as it stands when it has ended."""
    until = time.monotonic() + DEADLINE_S
    while job["state"] in ("queued", "running"):
        assert time.monotonic() < until, f"{job['title']} takes too long"
        time.sleep(0.02)
        job = client.get(f"/api/jobs/{job['id']}").json
    return job


def print_file(client: ApiClient, at: str, panel: str | None = None, sides: str = "this", **printing: Any) -> dict[str, Any]:
    """Decide how a pair is printed, and make its file."""
    query = {"panel": panel} if panel else {}
    assert client.put(f"{at}/printing", query_string=query, json=printing).status_code == 200
    answer = client.post(f"{at}/print-job", query_string=query, json={"sides": sides})
    assert answer.status_code == 200, answer.text
    job = ended(client, answer.json)
    assert job["state"] == "done", job
    return dict(job["files"][0])
