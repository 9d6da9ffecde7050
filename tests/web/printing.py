"""Print files made through the application, as the page makes them."""

from __future__ import annotations

from typing import Any

from tests.waiting import wait_until
from tests.web.client import ApiClient


def ended(client: ApiClient, job: dict[str, Any]) -> dict[str, Any]:
    """Wait until a job has ended, and return it."""

    def at_its_end() -> dict[str, Any] | None:
        now: dict[str, Any] = client.get(f"/api/jobs/{job['id']}").json
        return None if now["state"] in ("queued", "running") else now

    return wait_until(at_its_end) or {}


def print_file(client: ApiClient, at: str, panel: str | None = None, sides: str = "this", **printing: Any) -> dict[str, Any]:
    """Set the print options of a pair, and start the job that makes its file."""
    query = {"panel": panel} if panel else {}
    assert client.put(f"{at}/printing", query_string=query, json=printing).status_code == 200
    answer = client.post(f"{at}/print-job", query_string=query, json={"sides": sides})
    assert answer.status_code == 200, answer.text
    job = ended(client, answer.json)
    assert job["state"] == "done", job
    return dict(job["files"][0])
