"""What tests of sewn blanks share."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from PIL import Image

from tests.conftest import encoded
from tests.web.client import ApiClient
from tests.web.helpers import picture
from tests.web.printing import print_file

HOODIE = "hoodie-all-over"


DPI = 50


PX_MM = DPI / 25.4


def smooth() -> bytes:
    rng = np.random.default_rng(8)
    return encoded(
        Image.fromarray(cv2.resize(rng.integers(0, 255, (12, 10, 3), np.uint8), (1000, 1200), interpolation=cv2.INTER_CUBIC))
    )


def at(art: dict[str, Any], more: str = "") -> str:
    return f"/api/pairs/{art['id']}/{HOODIE}{more}"


def file_of(client: ApiClient, art: dict[str, Any], panel: str) -> np.ndarray:
    made = print_file(client, at(art), panel, dpi=DPI)
    return picture(client.get(made["url"]).data).astype(float)


def follow(client: ApiClient, art: dict[str, Any], panel: str, seam: str, way: str):  # type: ignore[no-untyped-def]
    return client.put(at(art, "/follow"), query_string={"panel": panel}, json={"seam": seam, "way": way})
