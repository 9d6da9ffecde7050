"""The bench is told where a shape is cut out round its artwork."""

import numpy as np
import shapely
from PIL import Image

from improva.catalogue import template
from tests.conftest import encoded
from tests.web.client import ApiClient
from tests.web.helpers import drop


def test_a_cut_out_comes_with_its_cutting_line_and_other_blanks_without(client: ApiClient) -> None:
    pixels = np.zeros((600, 600, 4), np.uint8)
    pixels[100:500, 200:400] = (120, 60, 30, 255)
    pixels[200:300, 250:350] = (30, 60, 120, 255)
    art = drop(client, encoded(Image.fromarray(pixels)))
    panel = template("pillow-shaped").panels[0]
    report = client.get(f"/api/pairs/{art['id']}/pillow-shaped").json["report"]
    (ring,) = report["cut_lines"]
    x, y, w, h = report["placed_mm"]
    printed = shapely.box(x + w / 3, y + h / 6, x + 2 * w / 3, y + 5 * h / 6)
    away = panel.safe_mm + panel.allowance_mm
    assert shapely.Polygon(ring).hausdorff_distance(printed.buffer(away)) < 2.5, "rounded a little at its corners"
    assert client.get(f"/api/pairs/{art['id']}/mug-11oz").json["report"]["cut_lines"] == []
