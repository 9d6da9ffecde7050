"""Panels that follow others: the pocket by default, the others on request; each combination has one print file."""

import io
import zipfile

import cv2
import numpy as np
import pytest
from PIL import Image

from tests.conftest import encoded
from tests.web.client import ApiClient
from tests.web.helpers import drop, picture
from tests.web.printing import print_file
from tests.web.sewn import DPI, PX_MM, at, file_of, follow, smooth


def beneath(front: np.ndarray) -> np.ndarray:
    """Cut the area beneath the pocket out of the front's file: its corner is 118, 428 mm from the trim's corner, plus 12 mm
    of bleed.
    """
    h, w = round(224 * PX_MM), round(364 * PX_MM)
    xs, ys = np.meshgrid(np.arange(w) + 130 * PX_MM, np.arange(h) + 440 * PX_MM)
    return cv2.remap(front.astype(np.float32), xs.astype(np.float32), ys.astype(np.float32), cv2.INTER_CUBIC)


def test_the_pocket_follows_every_change_of_the_front(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    pair = client.get(at(art), query_string={"panel": "pocket"}).json
    assert pair["follow"] == {"seam": "pocket", "way": "flow"} and pair["placement"] is None
    assert "lies there on the front" in pair["suggestion_reason"]
    assert {p["id"]: p["follows"] for p in pair["panels"]}["pocket"] == "Front"
    assert np.abs(file_of(client, art, "pocket") - beneath(file_of(client, art, "front")))[4:-4, 4:-4].mean() < 1.0
    before, key = file_of(client, art, "pocket"), pair["content_key"]
    placement = {**client.get(at(art)).json["placement"], "shift_mm": [40, -25], "scale": 1.3}
    assert client.put(at(art, "/placement"), query_string={"panel": "front"}, json=placement).status_code == 200
    after = file_of(client, art, "pocket")
    assert np.abs(after - before).mean() > 5  # a change of the front changes the pocket's file
    assert np.abs(after - beneath(file_of(client, art, "front")))[4:-4, 4:-4].mean() < 1.0
    assert client.get(at(art), query_string={"panel": "pocket"}).json["content_key"] != key


def test_a_panel_continues_mirrors_or_stands_alone_and_is_undone(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    joins = client.get(at(art), query_string={"panel": "back"}).json["joins"]
    assert [j["seam"] for j in joins] == ["side-right", "side-left", "shoulder-right", "shoulder-left"]
    assert all(j["way"] == "alone" and j["leader"] == "Front" for j in joins)
    flow = follow(client, art, "back", "side-right", "flow").json
    assert flow["follow"]["way"] == "flow" and [j["way"] for j in flow["joins"]] == ["flow", "alone", "alone", "alone"]
    assert any(c["id"] == "bare-edge" and c["status"] == "warn" and c["fix"] is None for c in flow["report"]["checks"])
    mirror = follow(client, art, "back", "side-right", "mirror").json
    assert mirror["can_undo"] and mirror["follow"]["way"] == "mirror"
    front, back = file_of(client, art, "front"), file_of(client, art, "back")
    edge = round((600 + 12) * PX_MM)
    rows = slice(round(320 * PX_MM), round(690 * PX_MM))
    assert np.abs(back[rows, edge - 60 : edge] - front[rows, edge - 120 : edge - 60]).mean() > 3
    left = round(12 * PX_MM)
    assert np.abs(back[rows, edge - 60 : edge][:, ::-1] - front[rows, left : left + 60]).mean() < 2.5
    alone = follow(client, art, "back", "side-right", "alone").json
    assert alone["follow"] is None and alone["placement"]["fit"] == "cover"
    assert client.post(at(art, "/undo"), query_string={"panel": "back"}).json["follow"]["way"] == "mirror"


def test_unsaved_edits_are_shown_and_checked(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    panel, held = {"panel": "back"}, {"content": {"seam": "side-left", "way": "mirror"}}
    assert client.post(at(art, "/flat-preview"), query_string=panel, json={**held, "width": 200}).status_code == 200
    proof = client.post(at(art, "/check"), query_string=panel, json=held).json
    assert {c["id"] for c in proof["checks"]} >= {"resolution", "bare-edge", "safe-area"}
    look = client.post(at(art, "/mockup-preview"), query_string=panel, json={**held, "width": 200, "height": 200})
    assert look.status_code == 200 and client.get(at(art), query_string={"panel": "back"}).json["follow"] is None


def test_mock_ups_show_following_panels_and_clearing_the_first_clears_them(client: ApiClient) -> None:
    art = drop(client, encoded(Image.new("RGB", (900, 1000), (20, 90, 200))), "blue.png")
    asked = {"width": 320, "height": 240, "scene": "hoodie-all-over-front", "content": client.get(at(art)).json["placement"]}
    seen = picture(client.post(at(art, "/mockup-preview"), query_string={"panel": "front"}, json=asked).data).astype(int)
    assert (seen[165:185, 150:170, 2] > seen[165:185, 150:170, 0] + 40).all()  # the pocket is as blue as the front
    assert client.delete(at(art, "/placement"), query_string={"panel": "front"}).status_code == 200
    panels = {p["id"]: p["printed"] for p in client.get(at(art)).json["panels"]}
    assert not panels["front"] and not panels["pocket"] and panels["back"]
    refused = client.post(at(art, "/print-job"), query_string={"panel": "pocket"}, json={"sides": "this"})
    assert refused.status_code == 422 and "Nothing is printed on this front pocket" in refused.text


def test_every_panel_is_in_one_zip_and_on_the_ticket(client: ApiClient) -> None:
    art = drop(client, smooth(), "field.png")
    made = print_file(client, at(art), sides="all", dpi=DPI)
    with zipfile.ZipFile(io.BytesIO(client.get(made["url"]).data)) as archive:
        names = archive.namelist()
    assert len(names) == 8 and sum("pocket" in name for name in names) == 1
    assert client.get(at(art, "/ticket")).data.startswith(b"%PDF")


@pytest.mark.parametrize(
    ("panel", "seam", "way"),
    [("front", "pocket", "flow"), ("pocket", "elbow", "flow"), ("pocket", "pocket", "mirror"), ("back", "pocket", "flow")],
)
def test_panels_that_cannot_be_followed_are_reported_and_nothing_changes(
    client: ApiClient, panel: str, seam: str, way: str
) -> None:
    art = drop(client, smooth(), "field.png")
    before = client.get(at(art)).json["content_key"]
    answer = follow(client, art, panel, seam, way)
    assert answer.status_code == 422, answer.text
    assert client.get(at(art)).json["content_key"] == before


def test_the_zip_contains_a_picture_of_the_sewn_panels(client: ApiClient) -> None:
    art = drop(client, encoded(Image.new("RGB", (900, 1000), (20, 90, 200))), "blue.png")
    made = print_file(client, at(art), sides="all", dpi=DPI)
    with zipfile.ZipFile(io.BytesIO(client.get(made["url"]).data)) as archive:
        (name,) = [n for n in archive.namelist() if n.endswith("_assembly.png")]
        seen = np.asarray(Image.open(io.BytesIO(archive.read(name))).convert("RGB")).astype(int)
    blue = np.abs(seen - (20, 90, 200)).max(axis=2) < 6
    assert seen.shape[1] == 1600 and 0.25 < blue.mean() < 0.8  # the paper round it is seen too
