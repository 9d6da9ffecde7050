"""Photographs made into scenes over HTTP, and packs imported and exported."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from improva.core.mockup.scene import SceneInfo
from improva.web.app import create_app
from tests.conftest import closed_wave, encoded
from tests.io.test_scene_pack_zip import zipped
from tests.photographs import ball
from tests.web.client import ApiClient, client_of
from tests.web.printing import ended

PILLOW = "pillow-square"
POINTS = [[0.42, 0.4], [0.58, 0.4], [0.58, 0.6], [0.42, 0.6]]


@pytest.fixture
def client(tmp_path: Path) -> ApiClient:
    return client_of(create_app(tmp_path))


def dropped(client: ApiClient, data: bytes, aside: bool = False) -> int:
    form = {"file": (io.BytesIO(data), "my chair.png")}
    answer = client.post(f"/api/artworks?aside={aside}", data=form, content_type="multipart/form-data")
    assert answer.status_code == 201, answer.text
    return int(answer.json["id"])


def begun(client: ApiClient, template: str = PILLOW) -> dict[str, Any]:
    photo = dropped(client, encoded(Image.fromarray(ball()[0])), aside=True)
    answer = client.post("/api/own-scenes", json={"photo_id": photo, "template_id": template})
    assert answer.status_code == 201, answer.text
    return dict(answer.json)


def marked(client: ApiClient, scene: dict[str, Any], **marks: Any) -> dict[str, Any]:
    body = {"title": "My chair", "panel": scene["panel"], "marks": {**scene["marks"], "points": POINTS, **marks}}
    answer = client.put(f"/api/own-scenes/{scene['id']}", json=body)
    assert answer.status_code == 200, answer.text
    return dict(answer.json)


def made(client: ApiClient) -> dict[str, Any]:
    scene = marked(client, begun(client), box=[0.2, 0.1, 0.8, 0.9])
    answer = client.post(f"/api/own-scenes/{scene['id']}/pack")
    assert answer.status_code == 200, answer.text
    return dict(answer.json)


def picture(data: bytes) -> np.ndarray:
    with Image.open(io.BytesIO(data)) as opened:
        return np.asarray(opened)


def test_a_photograph_starts_with_suggested_points(client: ApiClient) -> None:
    scene = begun(client)
    assert len(scene["marks"]["points"]) == 4 and scene["names"][0] == "top left" and scene["title"] == "My chair"
    assert scene["px"] == [800, 600] and not scene["round"] and len(scene["outline"]) == 4 and scene["pack"] is None
    wrap = begun(client, "mug-11oz")
    assert wrap["round"] and len(wrap["marks"]["points"]) == 6 and wrap["names"][1] == "upper edge, front"


def test_marks_are_stored_and_checked(client: ApiClient) -> None:
    scene = begun(client)
    first = marked(client, scene)
    again = client.get(f"/api/own-scenes/{scene['id']}").json
    assert again == first and first["title"] == "My chair" and first["key"] != scene["key"]
    wrong = marked(client, scene, points=POINTS[::-1])
    assert "in this order" in wrong["problem"] and wrong["outline"] == []
    refused = client.post(f"/api/own-scenes/{scene['id']}/pack")
    assert refused.status_code == 422 and "in this order" in refused.json["detail"]
    few = client.put(f"/api/own-scenes/{scene['id']}", json={"title": "", "panel": "front", "marks": {"points": POINTS}})
    assert few.status_code == 422


def test_the_mask_and_the_design_are_shown_while_marking(client: ApiClient) -> None:
    art = dropped(client, encoded(Image.fromarray(closed_wave())))
    scene = marked(client, begun(client), box=[0.2, 0.1, 0.8, 0.9])
    over = picture(client.get(f"/api/own-scenes/{scene['id']}/mask?key={scene['key']}").data)
    assert over.shape == (600, 800, 4) and over[300, 400, 3] == 0 and over[40, 40, 3] > 100
    look = picture(client.get(f"/api/own-scenes/{scene['id']}/look?key={scene['key']}&artwork_id={art}").data)
    photo = ball()[0]
    apart = np.abs(look.astype(int) - photo).mean(axis=2)
    assert apart[260:340, 350:450].mean() > 20, "the design is on it"
    assert apart[:80].mean() < 4, "and nowhere else"


def test_a_new_scene_is_one_of_the_blanks_scenes(client: ApiClient) -> None:
    art = dropped(client, encoded(Image.fromarray(closed_wave())))
    scene = made(client)
    pair = client.get(f"/api/pairs/{art}/{PILLOW}").json
    own = next(s for s in pair["scenes"] if s["photograph"])
    assert own["id"] == scene["pack"] and own["title"] == "My chair" and own["measures"] == 2
    assert pair["scenes"][0]["id"] != own["id"], "a shipped scene stays the first"
    mockup_settings = {"shots": [{"scene_id": own["id"], "view": next(iter(own["views"]))}], "sizes": [[200, 150]]}
    assert client.put(f"/api/pairs/{art}/{PILLOW}/mockup-settings", json=mockup_settings).status_code == 200
    done = ended(client, client.post(f"/api/pairs/{art}/{PILLOW}/mockup-job").json)
    assert done["state"] == "done" and own["id"] in done["files"][0]["name"]


def packs_of(client: ApiClient) -> dict[str, SceneInfo]:
    return client.application.extensions["services"].scenes.packs()


def test_a_scene_made_again_replaces_itself(client: ApiClient) -> None:
    art = dropped(client, encoded(Image.fromarray(closed_wave())))
    scene = made(client)
    before = packs_of(client)[scene["pack"]].folder.joinpath("passes.exr").read_bytes()
    marked(client, scene, box=[0.2, 0.1, 0.8, 0.9], colour="#d0c0b0")
    again = client.post(f"/api/own-scenes/{scene['id']}/pack").json
    assert again["pack"] == scene["pack"]
    assert packs_of(client)[scene["pack"]].folder.joinpath("passes.exr").read_bytes() != before
    assert sum(s["photograph"] for s in client.get(f"/api/pairs/{art}/{PILLOW}").json["scenes"]) == 1


def test_a_scene_is_removed_and_restored(client: ApiClient) -> None:
    scene = made(client)
    assert client.delete(f"/api/own-scenes/{scene['id']}").json["scenes"] == [] and scene["pack"] not in packs_of(client)
    back = client.post(f"/api/own-scenes/{scene['id']}/restore").json["scenes"]
    assert [s["pack"] for s in back] == [scene["pack"]] and scene["pack"] in packs_of(client)
    assert client.get(f"/api/own-scenes/{scene['id']}").json["marks"]["points"] == POINTS


def test_a_pack_is_exported_and_imported_into_another_data_folder(client: ApiClient, tmp_path: Path) -> None:
    scene = made(client)
    out = client.get(f"/api/own-scenes/{scene['id']}/pack")
    assert f'filename="{scene["pack"]}.zip"' in out.headers["Content-Disposition"]
    with zipfile.ZipFile(io.BytesIO(out.data)) as archive:
        assert {Path(n).name for n in archive.namelist()} == {"scene.toml", "passes.exr"}

    def bring(data: bytes) -> tuple[int, dict[str, Any]]:
        form = {"file": (io.BytesIO(data), "scene.zip")}
        answer = client.post("/api/own-scenes/packs", data=form, content_type="multipart/form-data")
        return answer.status_code, answer.json

    code, said = bring(out.data)
    assert code == 422 and "already" in said["detail"]
    client.delete(f"/api/own-scenes/{scene['id']}")
    code, said = bring(out.data)
    assert code == 201 and [(s["photo"], s["pack"]) for s in said["scenes"]] == [(False, scene["pack"])]
    assert scene["pack"] in packs_of(client)
    code, said = bring(zipped({"notes.txt": b"hello"}))
    assert code == 422 and "not a scene pack" in said["detail"]
    asked = client.get(f"/api/own-scenes/{said.get('id', 2)}/mask")
    assert asked.status_code == 404 and "came as a file" in asked.json["detail"]


def test_a_pack_for_an_unknown_blank_is_refused(client: ApiClient) -> None:
    scene = made(client)
    data = client.get(f"/api/own-scenes/{scene['id']}/pack").data
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        files = {Path(n).name: archive.read(n) for n in archive.namelist()}
    client.delete(f"/api/own-scenes/{scene['id']}")
    for old, new, says in (
        (PILLOW, "pillow-of-nowhere", "not on the shelf"),
        (scene["pack"], "../up", "cannot be a scene's id"),
        (scene["pack"], "straight-tumbler-studio", "already"),
    ):
        toml = files["scene.toml"].replace(f'"{old}"'.encode(), f'"{new}"'.encode())
        form = {"file": (io.BytesIO(zipped({**files, "scene.toml": toml})), "scene.zip")}
        answer = client.post("/api/own-scenes/packs", data=form, content_type="multipart/form-data")
        assert answer.status_code == 422 and says in answer.json["detail"], answer.json


def test_a_broken_pack_does_not_stop_the_server(client: ApiClient, tmp_path: Path) -> None:
    folder = tmp_path / "scenes" / "broken"
    folder.mkdir()
    (folder / "scene.toml").write_text("id = ")
    assert "broken" not in packs_of(client) and "straight-tumbler-studio" in packs_of(client)
    assert client.get("/api/board").status_code == 200


def test_missing_scenes_and_photographs_are_reported(client: ApiClient) -> None:
    assert client.get("/api/own-scenes/99").status_code == 404
    assert client.post("/api/own-scenes", json={"photo_id": 99, "template_id": PILLOW}).status_code == 404
    scene = begun(client)
    assert client.get(f"/api/own-scenes/{scene['id']}/pack").status_code == 404


def odd_photographs() -> dict[str, bytes]:
    """The ball, in the file formats and orientations of cameras and scanners."""
    picture = Image.fromarray(ball()[0])
    grey, cmyk = picture.convert("L"), picture.convert("CMYK")
    deep = Image.fromarray((np.asarray(grey).astype(np.uint16) * 257).astype(np.uint16))
    exif = Image.Exif()
    exif[0x0112] = 6  # held upright, lying in the file
    found = {}
    for name, image, kind, more in (
        ("grey", grey, "PNG", {}),
        ("cmyk", cmyk, "JPEG", {"quality": 95}),
        ("16-bit", deep, "PNG", {}),
        ("turned", picture.rotate(90, expand=True), "JPEG", {"exif": exif, "quality": 95}),
    ):
        out = io.BytesIO()
        image.save(out, kind, **more)
        found[name] = out.getvalue()
    return found


@pytest.mark.parametrize("kind", ["grey", "cmyk", "16-bit", "turned"])
def test_photographs_of_every_kind_are_marked_upright(client: ApiClient, kind: str) -> None:
    photo = dropped(client, odd_photographs()[kind], aside=True)
    scene = client.post("/api/own-scenes", json={"photo_id": photo, "template_id": PILLOW}).json
    assert scene["px"] == [800, 600]
    marked(client, scene, box=[0.2, 0.1, 0.8, 0.9])
    over = picture(client.get(f"/api/own-scenes/{scene['id']}/mask").data)
    assert over.shape == (600, 800, 4) and over[300, 400, 3] < 20 and over[40, 40, 3] > 100


def test_a_photograph_of_one_colour_does_no_harm(client: ApiClient) -> None:
    photo = dropped(client, encoded(Image.new("RGB", (640, 480), (200, 200, 200))), aside=True)
    scene = client.post("/api/own-scenes", json={"photo_id": photo, "template_id": PILLOW}).json
    state = marked(client, scene)
    assert state["problem"] is None or "Paint over the product" in state["problem"]
    tiny = dropped(client, encoded(Image.new("RGB", (9, 7), (200, 200, 200))), aside=True)
    state = client.post("/api/own-scenes", json={"photo_id": tiny, "template_id": PILLOW}).json
    assert state["problem"], "too small to mark, and said so"
