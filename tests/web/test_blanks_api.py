"""The shelf of blanks and the panels of the Fit station, over HTTP."""

import io
import tomllib
from typing import Any

import numpy as np
import pytest
from PIL import Image

from tests.conftest import encoded, quadrants
from tests.pictures import guide_png, narrow_profile
from tests.web.client import Answer, ApiClient
from tests.web.helpers import cells as board_cells
from tests.web.printing import print_file

IN = 25.4
FLASK = {"title": "Hut flask, 17 oz", "form": "round", "kind": "tumbler", "top_mm": 280, "bottom_mm": 220, "height_mm": 150}


def drop(client: ApiClient, pixels: np.ndarray | None = None) -> int:
    picture = Image.fromarray(quadrants(930, 820) if pixels is None else pixels)
    return client.post("/api/artworks", data={"file": (io.BytesIO(encoded(picture)), "art.png")}).json["id"]


def sent(client: ApiClient, method: str, address: str, data: bytes, name: str = "file.bin") -> Answer:
    return client.open(address, method=method, data={"file": (io.BytesIO(data), name)})


def placement(**change: Any) -> dict[str, Any]:
    return {"fit": "cover", "shift_mm": [0, 0], "scale": 1, "rotate_deg": 0, "background": None, **change}


def image(answer: object) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(answer.data)))  # type: ignore[attr-defined]


def blank(client: ApiClient, blank_id: str) -> dict[str, Any]:
    return next(b for b in client.get("/api/blanks").json["blanks"] if b["template"]["id"] == blank_id)


def test_the_shelf_lists_every_blank_and_the_board_the_chosen_ones(client: ApiClient) -> None:
    shelf = client.get("/api/blanks").json["blanks"]
    assert len(shelf) == 17 and sum(b["on_board"] for b in shelf) == 7
    client.put("/api/blanks/board", json={"template_ids": ["pen-wrap", "mug-15oz"]})
    assert [t["id"] for t in client.get("/api/board").json["templates"]] == ["pen-wrap", "mug-15oz"]
    assert client.put("/api/blanks/board", json={"template_ids": ["moon"]}).status_code == 422
    assert client.put("/api/blanks/board", json={"template_ids": []}).status_code == 422


def test_one_artwork_is_placed_on_all_blanks_each_in_its_own_way(client: ApiClient) -> None:
    rgba = np.zeros((500, 400, 4), np.uint8)
    rgba[60:440, 60:340] = (120, 60, 30, 255)
    art = drop(client, rgba)
    cells = board_cells(client)
    assert len(cells) == 7 and all(not c["fitted"] for c in cells)
    for cell in cells:
        assert image(client.get(cell["shown"])).shape == (400, 400, 3)
        checked = client.get(f"/api/board/{art}/{cell['template_id']}").json
        assert checked["verdict"] in ("pass", "warn", "fail")
    assert client.get(f"/api/pairs/{art}/mug-11oz").json["placement"]["copies"] == 2


def test_a_blank_is_made_from_measurements(client: ApiClient) -> None:
    drawing = client.post("/api/blanks/drawing", json=FLASK)
    assert drawing.status_code == 200 and drawing.json["panels"][0]["cone"]["top_mm"] == pytest.approx(280)
    assert len(client.get("/api/blanks").json["blanks"]) == 17  # nothing was kept
    kept = client.post("/api/blanks/measured", json=FLASK)
    assert kept.status_code == 201 and kept.json["template"]["own"] and kept.json["on_board"]
    one = kept.json["template"]["id"]
    other = client.post("/api/blanks/measured", json=FLASK).json["template"]["id"]
    assert one == "own-hut-flask-17-oz" and other != one
    art = drop(client)
    pair = client.get(f"/api/pairs/{art}/{one}").json
    assert pair["scenes"] and pair["report"]["checks"]
    assert client.delete(f"/api/blanks/{one}").status_code == 204
    assert one not in [t["id"] for t in client.get("/api/board").json["templates"]]
    assert client.get(f"/api/pairs/{art}/{one}").status_code == 422
    assert client.post(f"/api/blanks/{one}/restore").json["on_board"]
    assert client.get(f"/api/pairs/{art}/{one}").json["report"] == pair["report"]
    assert client.post("/api/blanks/mug-11oz/restore").status_code == 422
    assert client.delete("/api/blanks/mug-11oz").status_code == 422


def test_impossible_measurements_are_reported(client: ApiClient) -> None:
    for wrong in ({"top_mm": 0}, {"height_mm": 0}, {"gap_mm": 260}, {"safe_mm": 90}, {"blank_colour": "white"}):
        answer = client.post("/api/blanks/measured", json={**FLASK, **wrong})
        assert answer.status_code == 422 and len(answer.json["detail"]) > 20, wrong
    assert len(client.get("/api/blanks").json["blanks"]) == 17


def test_an_exported_template_is_imported_again(client: ApiClient) -> None:
    made = client.post("/api/blanks/measured", json=FLASK).json["template"]
    file = client.get(f"/api/blanks/{made['id']}/toml")
    assert tomllib.loads(file.data.decode())["panels"][0]["cone"] == {"top": 280, "bottom": 220, "height": 150}
    back = sent(client, "POST", "/api/blanks/import", file.data, "flask.toml")
    assert back.status_code == 201 and back.json["template"]["id"] != made["id"]
    assert back.json["template"]["panels"] == made["panels"]
    shipped = client.get("/api/blanks/hoodie-all-over/toml").data
    assert len(sent(client, "POST", "/api/blanks/import", shipped).json["template"]["panels"]) == 7


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"\xff\xfe",
        b"id = 3",
        b"not toml at all",
        b'id = "x"\ntitle = "X"\nkind = "own"\n[[panels]]\nid = "a"\ntrim = [0, 1]\n',
        b"x" * 500_000,
    ],
)
def test_bad_template_files_are_reported(client: ApiClient, data: bytes) -> None:
    answer = sent(client, "POST", "/api/blanks/import", data)
    assert answer.status_code == 422 and answer.json["detail"].endswith(".")
    assert len(client.get("/api/blanks").json["blanks"]) == 17


def test_the_seller_can_change_limits(client: ApiClient) -> None:
    art = drop(client)  # 100 dpi on the tumbler
    at = f"/api/pairs/{art}/tumbler-20oz-straight"
    assert client.get(at).json["verdict"] == "fail"
    changed = client.put("/api/blanks/tumbler-20oz-straight/limits/least_dpi", json={"value": 90}).json
    limit = next(x for x in changed["limits"] if x["name"] == "least_dpi")
    assert (limit["value"], limit["default"], limit["changed"]) == (90, 150, True)
    assert client.get(at).json["verdict"] == "warn"
    client.put("/api/blanks/tumbler-20oz-straight/limits/least_dpi", json={"value": None})
    assert client.get(at).json["verdict"] == "fail"
    for name, value in (("least_dpi", 5), ("least_dpi", 99999), ("speed", 3), ("speed", None)):
        assert client.put(f"/api/blanks/tumbler-20oz-straight/limits/{name}", json={"value": value}).status_code == 422


def test_a_guide_is_shown_over_the_template_and_not_printed(client: ApiClient) -> None:
    art = drop(client)
    before = print_file(client, f"/api/pairs/{art}/garden-flag", dpi=36)
    plain = client.get(before["url"]).data
    told = sent(client, "POST", "/api/blanks/guide", guide_png()).json
    assert told["px"] == [600, 500] and told["trim"][0] == pytest.approx(40 / 600)
    kept = sent(client, "PUT", "/api/blanks/garden-flag/panels/front/guide", guide_png(), "guide of theirs.png").json
    assert kept["guides"] == {"front": "guide of theirs.png"}
    assert client.get(f"/api/pairs/{art}/garden-flag").json["guide"]
    shown = image(client.get("/api/blanks/garden-flag/panels/front/guide"))
    assert shown.shape == (500, 600, 4)
    client.put(f"/api/pairs/{art}/garden-flag/placement", json=placement(scale=1.5))
    client.put(f"/api/pairs/{art}/garden-flag/placement", json=placement())
    after = print_file(client, f"/api/pairs/{art}/garden-flag", dpi=36)
    assert np.array_equal(
        np.asarray(Image.open(io.BytesIO(client.get(after["url"]).data))), np.asarray(Image.open(io.BytesIO(plain)))
    )
    assert sent(client, "PUT", "/api/blanks/garden-flag/panels/front/guide", b"no picture").status_code == 422
    assert sent(client, "PUT", "/api/blanks/garden-flag/panels/lid/guide", guide_png()).status_code == 422
    assert client.delete("/api/blanks/garden-flag/panels/front/guide").json["guides"] == {}
    assert client.get("/api/blanks/garden-flag/panels/front/guide").status_code == 404


def test_artwork_is_checked_against_a_profile(client: ApiClient) -> None:
    art = drop(client)
    names = lambda: [c["id"] for c in client.get(f"/api/pairs/{art}/t-shirt").json["report"]["checks"]]  # noqa: E731
    assert "gamut" not in names()
    assert sent(client, "PUT", "/api/blanks/t-shirt/profile", narrow_profile(), "printer.icc").json["profile"] == "printer.icc"
    assert "gamut" in names()
    assert sent(client, "PUT", "/api/blanks/t-shirt/profile", b"no profile").status_code == 422
    client.delete("/api/blanks/t-shirt/profile")
    assert "gamut" not in names()


def test_sides_are_placed_one_by_one(client: ApiClient) -> None:
    art = drop(client)
    at = f"/api/pairs/{art}/t-shirt"
    pair = client.get(f"{at}?panel=back").json
    assert pair["placement"] is None and pair["report"] is None and [p["printed"] for p in pair["panels"]] == [True, False]
    assert client.post(f"{at}/print-job?panel=back", json={}).status_code == 422
    laid = client.put(f"{at}/placement?panel=back", json=placement(fit="contain", scale=0.5)).json
    assert laid["panel"] == "back" and laid["placement"]["scale"] == 0.5 and all(p["printed"] for p in laid["panels"])
    assert client.get(at).json["placement"]["scale"] == 1
    made = print_file(client, at, "back", dpi=36)
    assert "back" in made["name"] and made["about"] == "432 × 504 px"
    assert client.delete(f"{at}/placement?panel=back").json["placement"] is None
    assert client.post(f"{at}/undo?panel=back").json["placement"]["scale"] == 0.5
    assert client.get(f"{at}?panel=lid").status_code == 422


def test_a_placement_is_copied_to_similar_blanks(client: ApiClient) -> None:
    art = drop(client)
    client.put("/api/blanks/board", json={"template_ids": ["mug-11oz", "mug-15oz", "t-shirt"]})
    client.put(f"/api/pairs/{art}/mug-11oz/placement", json=placement(fit="contain", scale=0.6, shift_mm=[21.59, 0]))
    assert client.get(f"/api/pairs/{art}/mug-11oz").json["other_blanks"] == ["mug-15oz"]
    took = client.post(f"/api/pairs/{art}/mug-11oz/copy", json={"template_ids": ["mug-15oz", "t-shirt"]}).json
    assert took["template_ids"] == ["mug-15oz", "t-shirt"]
    moved = client.get(f"/api/pairs/{art}/mug-15oz").json
    assert (
        moved["placement"]["scale"] == 0.6
        and moved["placement"]["shift_mm"][0] == pytest.approx(22.35, abs=0.01)
        and moved["can_undo"]
    )
    assert client.get(f"/api/pairs/{art}/t-shirt").json["placement"]["scale"] == 0.6
    assert client.post(f"/api/pairs/{art}/mug-11oz/copy", json={"template_ids": ["moon"]}).status_code == 422
    assert client.post(f"/api/pairs/{art}/t-shirt/copy?panel=back", json={"template_ids": ["mug-11oz"]}).status_code == 422


def test_the_template_is_drawn_as_it_will_be_cut(client: ApiClient) -> None:
    art = drop(client)
    at = f"/api/pairs/{art}/tumbler-20oz-tapered"
    answer = client.post(f"{at}/flat-preview", json={"content": placement(), "width": 300})
    flat = image(answer)
    assert answer.mimetype == "image/png" and flat.shape[1:] == (300, 4)
    assert flat[-1, 0, 3] == 0 and flat[flat.shape[0] // 2, 150, 3] == 255
    empty = image(client.post(f"/api/pairs/{art}/t-shirt/flat-preview", json={"content": None, "width": 100}))
    assert empty[..., 3].max() == 0
    client.put(f"{at}/placement", json=placement())
    assert (image(client.get(f"{at}/flat", query_string={"width": 300})) == flat).all(), "decided, the same is seen"


def test_the_seam_is_shown_joined_and_measured_along_its_height(client: ApiClient) -> None:
    h, w = 820, 930
    broken = np.full((h, w, 3), 120, np.uint8)
    broken[h // 2 :, : w // 2] = (200, 60, 40)  # the lower half does not meet
    art = drop(client, broken)
    held = {"content": placement(fit="stretch")}
    seam = client.post(f"/api/pairs/{art}/tumbler-20oz-straight/seam", json=held).json
    along = np.array(seam["along"])
    assert along[:100].max() < 1 and along[140:].min() > 20 and seam["height_mm"] == pytest.approx(8.2 * IN)
    picture = image(client.post(f"/api/pairs/{art}/tumbler-20oz-straight/seam-preview", json=held)).astype(int)
    assert picture.shape[0] == round(8.2 * IN * 11.8)
    middle, low = picture.shape[1] // 2, picture.shape[0] * 3 // 4
    assert np.abs(picture[low, middle - 20] - 120).max() < 8 and np.abs(picture[low, middle + 20] - (200, 60, 40)).max() < 8
    assert client.post(f"/api/pairs/{art}/tumbler-20oz-straight/seam", json={}).status_code == 422


def test_a_repeat_offers_sizes_that_close(client: ApiClient) -> None:
    art = drop(client)
    at = f"/api/pairs/{art}/tumbler-20oz-straight"
    pair = client.put(f"{at}/placement", json=placement(fit="repeat", repeats_around=4, repeat_kind="half-drop")).json
    assert [o["around"] for o in pair["offers"]] == [2, 4, 6, 8]
    assert all(o["around"] * o["pitch_mm"] == pytest.approx(9.3 * IN) for o in pair["offers"])
    refused = client.put(f"{at}/placement", json=placement(fit="repeat", repeats_around=5, repeat_kind="half-drop"))
    assert refused.status_code == 422 and "4 or 6" in refused.json["detail"]


def test_every_scene_of_a_blank_can_be_previewed(client: ApiClient) -> None:
    art = drop(client)
    pair = client.get(f"/api/pairs/{art}/mug-11oz").json
    views = [(s["id"], view) for s in pair["scenes"] for view in s["views"]]
    assert {"handle right", "handle left"} <= {view for _, view in views}
    looks = []
    for scene, view in views[:2]:
        body = {"content": pair["placement"], "scene": scene, "view": view, "width": 200, "height": 160}
        looks.append(image(client.post(f"/api/pairs/{art}/mug-11oz/mockup-preview", json=body)).astype(int))
    assert np.abs(looks[0] - looks[1]).max() > 60
    assert (
        client.put(
            f"/api/pairs/{art}/mug-11oz/choices", json={"route": "upload", "angle": 0, "colours": {"handle": "Pine"}}
        ).status_code
        == 200
    )
    assert (
        client.put(
            f"/api/pairs/{art}/mug-11oz/choices", json={"route": "upload", "angle": 0, "colours": {"straw": "Ink"}}
        ).status_code
        == 422
    )
