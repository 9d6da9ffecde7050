"""The HTTP interface: every answer is a result or a problem that says what to do."""

import io
import threading
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from improva.web.app import create_app
from tests.conftest import BLANK, encoded
from tests.pictures import bomb, gif
from tests.web.client import ApiClient, client_of
from tests.web.helpers import at, cells, drop, picture, placement
from tests.web.printing import print_file


def test_an_added_artwork_is_on_every_blank(client: ApiClient) -> None:
    art = drop(client)
    board = client.get("/api/board").json
    assert [a["title"] for a in board["artworks"]] == ["Quadrants"]
    assert cells(client)[0]["verdict"] is None  # the board does not wait for judgement
    checked = client.get(f"/api/board/{art['id']}/{BLANK}").json
    cell = cells(client)[0]
    assert cell == checked
    assert (cell["template_id"], cell["verdict"], cell["fitted"], cell["printed"]) == (BLANK, "warn", False, False)
    shown = client.get(cell["shown"])
    assert shown.mimetype == "image/jpeg" and picture(shown.data).shape == (400, 400, 3)
    assert picture(client.get(f"/api/artworks/{art['id']}/preview?px=200").data).shape == (176, 200, 3)


def test_decisions_undo_and_the_states_on_the_board(client: ApiClient) -> None:
    art = drop(client)
    pair = client.put(at(art, "/placement"), json=placement(scale=1.5)).json
    assert pair["placement"]["scale"] == 1.5 and pair["can_undo"] and not pair["can_redo"]
    assert pair["report"]["effective_dpi"] == pytest.approx([100, 100], abs=0.1) and pair["report"]["verdict"] == "fail"
    assert cells(client)[0]["fitted"]
    again = client.put(at(art, "/placement"), json=placement(scale=1.5)).json  # deciding the same again is no new step
    undone = client.post(at(art, "/undo")).json
    assert again["can_undo"] and undone["placement"]["scale"] == 1 and not undone["can_undo"] and undone["can_redo"]
    assert client.post(at(art, "/redo")).json["placement"]["scale"] == 1.5


def test_previews_follow_unsaved_edits_without_storing_them(client: ApiClient) -> None:
    art = drop(client)
    held = {"content": placement(), "width": 320, "height": 320}
    front, back = (picture(client.post(at(art, "/mockup-preview"), json={**held, "angle": a}).data) for a in (0, 180))
    assert front.shape == (320, 320, 3) and np.abs(front - back).max() > 60
    proof = client.post(at(art, "/check"), json={"content": placement(scale=2)}).json
    assert proof["effective_dpi"][0] == pytest.approx(75, abs=0.1)
    assert client.get(at(art)).json["placement"]["scale"] == 1


@pytest.mark.parametrize("size", [(1, 1), (1, 500), (500, 1), (4000, 2), (2, 4000)])
@pytest.mark.parametrize("mode", ["RGB", "RGBA"])
def test_the_narrowest_pictures_are_placed_checked_and_shown(client: ApiClient, size: tuple[int, int], mode: str) -> None:
    art = drop(client, encoded(Image.new(mode, size)))
    for address in (at(art), f"/api/pairs/{art['id']}/hoodie-all-over", f"/api/artworks/{art['id']}/preview?px=64"):
        assert client.get(address).status_code == 200
    assert client.get(f"/api/artworks/{art['id']}/preparation").status_code == 200


def test_a_picture_outside_its_panel_is_an_empty_layer_and_is_checked_as_such(client: ApiClient) -> None:
    art = drop(client)
    moved = placement(shift_mm=[5000, 0])
    answer = client.put(at(art, "/placement"), json=moved)
    assert answer.status_code == 200 and "bare-edge" in [
        c["id"] for c in answer.json["report"]["checks"] if c["status"] == "warn"
    ]
    shown = client.post(at(art, "/mockup-preview"), json={"content": moved, "width": 320, "height": 320, "angle": 0})
    assert picture(shown.data).shape == (320, 320, 3)


def test_nothing_is_stored_that_cannot_be_computed(client: ApiClient, monkeypatch: pytest.MonkeyPatch) -> None:
    art = drop(client)

    def fail(*_: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(client.application.extensions["services"].preflight, "report", fail)
    assert client.put(at(art, "/placement"), json=placement(scale=1.5)).status_code == 500
    monkeypatch.undo()
    now = client.get(at(art)).json
    assert now["placement"]["scale"] == 1 and not now["can_undo"]


@pytest.mark.parametrize(("route", "corner"), [("press", (30, 160, 60)), ("upload", (220, 30, 30))])
def test_the_print_file_follows_the_route(client: ApiClient, route: str, corner: tuple[Any, ...]) -> None:
    art = drop(client)
    client.put(at(art, "/choices"), json={"route": route, "angle": 0, "colours": {}})
    made = print_file(client, at(art), dpi=150)
    answer = client.get(made["url"])
    assert made["name"] == f"quadrants_{BLANK}_9.3x8.2in_150dpi{'_mirrored' if route == 'press' else ''}.png"
    assert made["name"] in answer.headers["Content-Disposition"] and made["about"] == "1395 × 1230 px"
    assert tuple(picture(answer.data)[20, 20]) == corner
    assert cells(client)[0]["printed"]
    client.put(at(art, "/placement"), json=placement(scale=1.1))
    assert not cells(client)[0]["printed"]  # what was printed is no longer what is decided


def test_everything_survives_a_restart(tmp_path: Path) -> None:
    first = client_of(create_app(tmp_path))
    art = drop(first)
    first.put(at(art, "/placement"), json=placement(rotate_deg=7))
    first.put(at(art, "/choices"), json={"route": "upload", "angle": 30, "colours": {"lid": "Ink"}})
    second = client_of(create_app(tmp_path)).get(at(art)).json
    assert (second["placement"]["rotate_deg"], second["route"], second["angle"], second["colours"]) == (
        7,
        "upload",
        30,
        {"lid": "Ink"},
    )


def test_artworks_can_be_renamed_removed_and_restored(client: ApiClient) -> None:
    art = drop(client)
    assert client.patch(f"/api/artworks/{art['id']}", json={"title": "Four fields"}).json["title"] == "Four fields"
    assert client.delete(f"/api/artworks/{art['id']}").status_code == 204
    assert client.get("/api/board").json["artworks"] == []
    client.post(f"/api/artworks/{art['id']}/restore")
    assert len(client.get("/api/board").json["artworks"]) == 1


def cut_short() -> bytes:
    noise = np.random.default_rng(0).integers(0, 255, (200, 200, 3), dtype=np.uint8)
    return encoded(Image.fromarray(noise))[:60_000]


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"),
        (b"shopping list", "not a picture"),
        (bomb(), "60000"),
        (cut_short(), "cut short"),
        (b'<svg xmlns="http://www.w3.org/2000/svg"><image href="/etc/passwd"/></svg>', "another file"),
    ],
)
def test_bad_files_are_reported_and_nothing_is_stored(client: ApiClient, data: bytes, says: str) -> None:
    answer = client.post("/api/artworks", data={"file": (io.BytesIO(data), "summit.png")})
    assert answer.status_code == 422 and answer.mimetype == "application/problem+json"
    assert {"type", "title", "status", "detail"} <= set(answer.json) and says in answer.json["detail"]  # RFC 9457, 3.1
    assert client.get("/api/board").json["artworks"] == []


def test_a_file_that_is_too_large_is_refused_and_the_server_lives(client: ApiClient) -> None:
    answer = client.post("/api/artworks", data={"file": (io.BytesIO(b"\0" * 300_000_000), "huge.png")})
    assert answer.status_code == 413 and "250 MB" in answer.json["detail"]
    assert client.get("/api/board").status_code == 200


@pytest.mark.parametrize(
    ("name", "title"),
    [
        ("../../etc/passwd.png", "Passwd"),
        ("C:\\art\\my_wrap.png", "My wrap"),
        ("🚂 gipfel 🏔.png", "🚂 gipfel 🏔"),
        ("a/b\x00\n.png", "B"),
        ("", "Artwork"),
    ],
)
def test_any_file_name_is_accepted(client: ApiClient, name: str, title: str) -> None:
    from improva.app.artworks import plain_name, title_of

    assert title_of(plain_name(name)) == title
    if name:
        made = print_file(client, at(drop(client, name=name.replace("\x00", "").replace("\n", ""))), dpi=50)
        assert "/" not in made["name"] and client.get(made["url"]).status_code == 200


def test_animated_pictures_are_accepted_and_reported(client: ApiClient) -> None:
    assert any("3 pictures" in note for note in drop(client, gif(3), "spin.gif")["notes"])


@pytest.mark.parametrize(
    ("method", "path", "body", "status"),
    [
        ("get", "/api/pairs/99/tumbler-20oz-straight", None, 404),
        ("get", "/api/pairs/1/teapot", None, 422),
        ("get", "/api/nothing", None, 404),
        ("get", "/api/files/../improva.sqlite", None, 404),
        ("get", "/api/files/none", None, 404),
        ("put", f"/api/pairs/1/{BLANK}/placement", {"fit": "fill"}, 422),
        (
            "put",
            f"/api/pairs/1/{BLANK}/placement",
            {"fit": "cover", "shift_mm": [0, 0], "scale": 0, "rotate_deg": 0, "background": None},
            422,
        ),
        ("put", f"/api/pairs/1/{BLANK}/choices", {"route": "press", "angle": 0, "colours": {"lid": "Mauve"}}, 422),
        ("put", f"/api/pairs/1/{BLANK}/printing", {"dpi": 1e9}, 422),
        ("put", f"/api/pairs/1/{BLANK}/printing", {"paper": "a5x"}, 422),
        ("get", f"/api/pairs/1/{BLANK}/soft-proof", None, 404),
        ("get", "/api/jobs/77", None, 404),
        ("post", f"/api/pairs/1/{BLANK}/mockup-preview", {"content": "x"}, 422),
        ("post", f"/api/pairs/1/{BLANK}/mockup-preview", {"content": None, "angle": "nan"}, 422),
        ("post", f"/api/pairs/1/{BLANK}/mockup-preview", {"content": None, "colours": 3}, 422),
        ("post", f"/api/pairs/1/{BLANK}/mockup-preview", {"content": None, "colors": {}}, 422),
        ("post", f"/api/pairs/1/{BLANK}/check", {"content": None}, 422),
    ],
)
def test_bad_requests_give_problem_details(client: ApiClient, method: str, path: str, body: object, status: int) -> None:
    drop(client)
    answer = getattr(client, method)(path, json=body) if body is not None else getattr(client, method)(path)
    assert answer.status_code == status and answer.mimetype == "application/problem+json"
    assert len(answer.json["detail"]) > 10 and answer.json["status"] == status


def test_pages_of_other_sites_cannot_change_anything(client: ApiClient) -> None:
    art = drop(client)
    stranger = {"Origin": "http://example.org"}
    assert client.delete(f"/api/artworks/{art['id']}", headers=stranger).status_code == 403
    assert client.delete(f"/api/artworks/{art['id']}", headers={"Origin": "http://localhost"}).status_code == 204


@pytest.mark.parametrize("hidden", ["\x00", "\x1b[31m", "\u202e", "\u2066", "\x85"])
def test_hidden_characters_are_refused_in_every_text(client: ApiClient, hidden: str) -> None:
    """Unicode Standard Annex 9: an override makes a text read otherwise than it is stored."""
    art = drop(client)
    title = f"evil{hidden}gnp.exe"
    lettering = {"kind": "lettering", "text": title, "font": "grotesk"}
    sent = [
        client.patch(f"/api/artworks/{art['id']}", json={"title": title}),
        client.put(at(art, "/pieces"), json={"pieces": [lettering]}),
        client.put(f"/api/presets/{title}", json={}),
    ]
    assert all(answer.status_code == 422 and "hidden character" in answer.json["detail"] for answer in sent[:2])
    assert sent[2].status_code == 422
    assert client.get(f"/api/board/{art['id']}").status_code == 200


@pytest.mark.parametrize("text", ["שלום עולם", "مرحبا", "Zwölf Bötchen", "two\nlines", "a\tb", "👩‍👧"])
def test_texts_of_every_script_are_accepted(client: ApiClient, text: str) -> None:
    art = drop(client)
    assert client.patch(f"/api/artworks/{art['id']}", json={"title": text}).json["title"] == text


@pytest.mark.parametrize("number", [2**63, 2**64, 10**30])
def test_ids_beyond_64_bits_are_refused(client: ApiClient, number: int) -> None:
    for method, path, body in (
        ("GET", f"/api/pairs/{number}/{BLANK}", None),
        ("GET", f"/api/artworks/{number}/preview", None),
        ("GET", f"/api/jobs/{number}", None),
        ("POST", "/api/own-scenes", {"photo_id": number, "template_id": BLANK, "panel_id": None}),
    ):
        assert client.open(path, method=method, json=body).status_code in (404, 422), path


def test_an_edit_of_an_earlier_state_is_refused_and_replaces_nothing(client: ApiClient) -> None:
    art = drop(client)
    first = client.get(at(art)).json["edit_key"]
    theirs = client.put(at(art, f"/placement?based_on={first}"), json=placement(scale=1.5))
    assert theirs.status_code == 200 and theirs.json["edit_key"] != first
    stale = client.put(at(art, f"/placement?based_on={first}"), json=placement(scale=1.2))
    assert stale.status_code == 409 and "in the meantime" in stale.json["detail"]
    for way in ("undo", "redo"):
        assert client.post(at(art, f"/{way}?based_on={first}")).status_code == 409
    assert client.put(at(art, f"/pieces?based_on={first}"), json={"pieces": [{"kind": "band"}]}).status_code == 409
    assert client.delete(at(art, f"/placement?based_on={first}")).status_code == 409
    assert client.get(at(art)).json["placement"]["scale"] == 1.5
    mine = client.put(at(art, f"/placement?based_on={theirs.json['edit_key']}"), json=placement(scale=1.2))
    assert mine.status_code == 200 and mine.json["placement"]["scale"] == 1.2


def test_the_same_edit_sent_twice_is_accepted(client: ApiClient) -> None:
    art = drop(client)
    first = client.get(at(art)).json["edit_key"]
    for _ in range(2):  # a page that is left sends its unanswered save once more
        assert client.put(at(art, f"/placement?based_on={first}"), json=placement(scale=1.5)).status_code == 200
    assert client.post(at(art, "/undo")).json["can_undo"] is False
    assert client.put(at(art, "/placement"), json=placement(scale=1.1)).status_code == 200, "without a base it replaces any"


def test_of_two_edits_at_the_same_moment_one_is_refused(client: ApiClient) -> None:
    art = drop(client)
    for round_ in range(5):
        base = client.get(at(art)).json["edit_key"]
        start = threading.Barrier(2)

        def edit(scale: float, base: str = base, start: threading.Barrier = start) -> int:
            start.wait()
            return (
                client_of(client.application)
                .put(at(art, f"/placement?based_on={base}"), json=placement(scale=scale))
                .status_code
            )

        with ThreadPoolExecutor(2) as pool:
            statuses = sorted(pool.map(edit, (1.1 + round_, 1.2 + round_)))
        assert statuses == [200, 409]


def test_settings_that_are_stored_whole_are_not_overwritten_unseen(client: ApiClient) -> None:
    art = drop(client)
    whole = {
        at(art, "/printing"): lambda state, n: {**state["printing"], "overlap_mm": 5 + n},
        at(art, "/mockup-settings"): lambda state, n: {**state["mockup_settings"], "sizes": [[800 + n, 600]]},
        f"/api/artworks/{art['id']}/preparation": lambda state, n: {"steps": [], "width_mm": 100 + n},
        "/api/gang": lambda state, n: {**state["gang"], "gap_mm": 4 + n},
    }
    for address, edited in whole.items():
        state = client.get(address).json
        answers = [client.put(f"{address}?based_on={state['edit_key']}", json=edited(state, n)) for n in (1, 2, 1)]
        assert [answer.status_code for answer in answers] == [200, 409, 200], (address, [a.text[:200] for a in answers])
