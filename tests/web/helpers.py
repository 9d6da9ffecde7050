"""Helpers shared by tests of the API: import artworks, read answers."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from PIL import Image

from tests.conftest import BLANK, encoded, quadrants
from tests.web.client import ApiClient


def drop(client: ApiClient, data: bytes | None = None, name: str = "quadrants.png") -> dict[str, Any]:
    data = encoded(Image.fromarray(quadrants(1395, 1230))) if data is None else data
    answer = client.post("/api/artworks", data={"file": (io.BytesIO(data), name)})
    assert answer.status_code == 201, answer.text
    return answer.json


def cells(client: ApiClient) -> list[dict[str, Any]]:
    """Return every cell of the board, row by row."""
    arts = client.get("/api/board").json["artworks"]
    return [cell for art in arts for cell in client.get(f"/api/board/{art['id']}").json["cells"]]


def placement(**change: Any) -> dict[str, Any]:
    return {"fit": "cover", "shift_mm": [0, 0], "scale": 1, "rotate_deg": 0, "background": None, **change}


def at(art: dict[str, Any], rest: str = "") -> str:
    return f"/api/pairs/{art['id']}/{BLANK}{rest}"


def picture(data: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(int)
