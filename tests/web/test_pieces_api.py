"""Adding words, borders, frames and a second artwork over HTTP: stored, checked, printed, copied, undone."""

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image

from improva.fonts import font_bytes
from tests.conftest import BLANK, encoded, quadrants
from tests.web.client import ApiClient
from tests.web.helpers import at, cells, drop, picture
from tests.web.printing import print_file

WORDS = {"kind": "words", "text": "Summit Line", "width_mm": 100, "fill": "#00ff00"}
BAND = {"kind": "band", "sides": "level", "width_mm": 15, "colour": "#24405a", "line_mm": 0}


def second(client: ApiClient) -> dict[str, Any]:
    return drop(client, encoded(Image.new("RGB", (900, 900), (240, 0, 240))), "magenta.png")


def lay(client: ApiClient, art: dict[str, Any], *pieces: dict[str, Any], blank: str = BLANK) -> dict[str, Any]:
    answer = client.put(f"/api/pairs/{art['id']}/{blank}/pieces", json={"pieces": list(pieces)})
    assert answer.status_code == 200, answer.text
    return answer.json


def printed(client: ApiClient, art: dict[str, Any]) -> np.ndarray:
    made = print_file(client, at(art), dpi=60)
    return picture(client.get(made["url"]).data)[:, ::-1]  # mirrored for the press, and back


def test_pieces_are_stored_printed_and_undone(client: ApiClient) -> None:
    art = drop(client)
    before, cell = printed(client, art), cells(client)[0]["shown"]
    pair = lay(client, art, WORDS, BAND)
    assert [p["kind"] for p in pair["pieces"]] == ["words", "band"]
    assert pair["report"]["pieces"][0] == pytest.approx(
        [68.11, 104.14 - pair["report"]["pieces"][0][3] / 2, 100, pair["report"]["pieces"][0][3]], abs=0.01
    )
    assert pair["report"]["pieces"][1] is None
    after = printed(client, art)
    assert tuple(after[5, 200]) == (0x24, 0x40, 0x5A)
    assert (np.abs(after - (0, 255, 0)).max(axis=2) < 3).sum() > 500
    assert cells(client)[0]["shown"] != cell
    undone = client.post(at(art, "/undo")).json
    assert undone["pieces"] == [] and undone["can_redo"]
    assert (printed(client, art) == before).all()


def test_unsaved_pieces_are_shown_and_checked_but_not_stored(client: ApiClient) -> None:
    art = drop(client)
    now = {
        "content": client.get(at(art)).json["suggested_placement"],
        "pieces": [{**WORDS, "shift_mm": [90, 0]}],
    }
    proof = client.post(at(art, "/check"), json=now).json
    check = next(c for c in proof["checks"] if c["id"] == "pieces-safe")
    assert check["status"] == "warn" and "“Summit Line” reaches" in check["message"]
    assert check["fix"]["piece"] == 0 and check["fix"]["values"]["shift_mm"][0] == pytest.approx(
        236.22 / 2 - 6.35 - 50, abs=0.02
    )
    flat = client.post(at(art, "/flat-preview"), json={**now, "width": 300}).data
    assert (np.abs(picture(flat) - (0, 255, 0)).max(axis=2) < 40).sum() > 100
    assert client.post(at(art, "/mockup-preview"), json={**now, "width": 200, "height": 200}).status_code == 200
    assert client.get(at(art)).json["pieces"] == []
    wrong = client.post(at(art, "/check"), json={**now, "pieces": [{"kind": "balloon"}]})
    assert wrong.status_code == 422 and "pieces 0" in wrong.json["detail"]


def test_frames_hold_other_artworks_and_report_empty_slots(client: ApiClient) -> None:
    art, other = drop(client), second(client)
    frames = {"kind": "frames", "layout": "single", "size_mm": [100, 50], "slots": [{"art": other["id"]}]}
    checks = {c["id"]: c for c in lay(client, art, frames)["report"]["checks"]}
    assert checks["slots"]["status"] == "fail" and "1 frame has no picture" in checks["slots"]["message"]
    assert checks["pieces-sharp"]["status"] == "pass"
    frames["slots"] = [{"art": other["id"], "focus": [0, 1], "zoom": 8}] * 2
    checks = {c["id"]: c for c in lay(client, art, frames)["report"]["checks"]}
    assert checks["slots"]["status"] == "pass" and checks["pieces-sharp"]["status"] == "fail"
    assert (np.abs(printed(client, art) - (240, 0, 240)).max(axis=2) < 3).sum() > 1000
    # another picture in the same artwork's place: its preparation reaches the frames
    client.put(
        f"/api/artworks/{other['id']}/preparation",
        json={"steps": [{"kind": "recolour", "values": {"pairs": [["#f000f0", "#00f0f0"]]}}]},
    )
    assert (np.abs(printed(client, art) - (0, 240, 240)).max(axis=2) < 12).sum() > 1000


def test_a_second_artwork_behind_a_border_of_pattern(client: ApiClient) -> None:
    art, other = drop(client), second(client)
    client.put(
        at(art, "/placement"), json={"fit": "contain", "shift_mm": [0, 0], "scale": 0.5, "rotate_deg": 0, "background": None}
    )
    whole = {"fit": "cover", "shift_mm": [0, 0], "scale": 1, "rotate_deg": 0, "background": None}
    pair = lay(
        client,
        art,
        {"kind": "overlay", "art": other["id"], "placement": whole, "behind": True},
        {**BAND, "art": other["id"], "blend": "multiply"},
    )
    bare = next(c for c in pair["report"]["checks"] if c["id"] == "bare-edge")
    assert bare["status"] == "pass", "what lies behind reaches every edge"
    assert tuple(printed(client, art)[240, 10]) == (240, 0, 240)


def test_pieces_are_copied_to_other_blanks_by_their_rules(client: ApiClient) -> None:
    art = drop(client)
    lay(client, art, {**WORDS, "shift_mm": [0, 60]}, BAND)
    client.post(at(art, "/copy"), json={"template_ids": ["mug-11oz", "blanket-upright"]})
    for blank in ("mug-11oz", "blanket-upright"):
        pair = client.get(f"/api/pairs/{art['id']}/{blank}").json
        trim, safe = pair["template"]["panels"][0]["trim_mm"], pair["template"]["panels"][0]["safe_mm"]
        x, y, w, h = pair["report"]["pieces"][0]
        assert x >= safe - 0.01 and y >= safe - 0.01 and x + w <= trim[0] - safe + 0.01 and y + h <= trim[1] - safe + 0.01
        assert pair["pieces"][1]["width_mm"] == pytest.approx(15 * min(trim) / 208.28)


def test_small_words_are_found_on_every_blank(client: ApiClient) -> None:
    art = drop(client)
    checks = {c["id"]: c for c in lay(client, art, {**WORDS, "sizing": "size", "size_mm": 2})["report"]["checks"]}
    assert checks["lettering"]["status"] == "warn" and checks["lettering"]["measured"] == pytest.approx(1.32, abs=0.02)
    checks = {c["id"]: c for c in lay(client, art, {**WORDS, "text": "Gipfel 山"})["report"]["checks"]}
    assert checks["letters"]["status"] == "fail" and "has no 山" in checks["letters"]["message"]


@pytest.mark.parametrize(
    ("piece", "told"),
    [
        ({**WORDS, "text": " "}, "no words"),
        ({**WORDS, "font": "nowhere"}, "no font 'nowhere'"),
        ({**BAND, "width_mm": 400}, "no room"),
        ({**WORDS, "along": "circle", "size_mm": 60, "width_mm": 20}, "smaller than the letters"),
        ({"kind": "overlay", "art": 999}, "not on the board"),
        ({**WORDS, "blend": "smear"}, ""),
        ({**WORDS, "fill": "green"}, "#rrggbb"),
        ({"kind": "frames", "size_mm": [5, 5], "rim_mm": 9}, "leave no room"),
    ],
)
def test_impossible_pieces_are_refused_and_nothing_is_stored(client: ApiClient, piece: dict[str, Any], told: str) -> None:
    art = drop(client)
    answer = client.put(at(art, "/pieces"), json={"pieces": [piece]})
    assert answer.status_code in (404, 422) and told in answer.json["detail"]
    assert client.get(at(art)).json["pieces"] == []


def test_a_sellers_own_font(client: ApiClient) -> None:
    fonts = client.post("/api/fonts", data={"file": (io.BytesIO(font_bytes("brush")), "my-brush.otf")}).json["fonts"]
    own = fonts[-1]
    assert own["own"] and own["title"] == "Kaushan Script"
    sample = picture(client.get(f"/api/fonts/{own['key']}/sample").data)
    assert sample.shape[0] == 48 and 150 < sample.shape[1] <= 360 and sample.min() < 80
    art = drop(client, encoded(Image.fromarray(quadrants(700, 600))), "q.png")
    assert lay(client, art, {**WORDS, "font": own["key"]})["pieces"][0]["font"] == own["key"]
    broken = client.post("/api/fonts", data={"file": (io.BytesIO(b"not a font"), "broken.ttf")})
    assert broken.status_code == 422 and "broken or is none" in broken.json["detail"]
    assert client.get("/api/fonts/nowhere/sample").status_code == 422


def test_photographs_are_stored_beside_the_board(client: ApiClient) -> None:
    art = drop(client)
    data = encoded(Image.new("RGB", (900, 600), (10, 120, 200)))
    photo = client.post("/api/artworks?aside=true", data={"file": (io.BytesIO(data), "lake.png")}).json
    assert [a["id"] for a in client.get("/api/board").json["artworks"]] == [art["id"]]
    pair = lay(client, art, {"kind": "frames", "across": 1, "slots": [{"art": photo["id"]}]})
    assert [a["title"] for a in pair["other_artworks"]] == ["Lake"]
    assert (np.abs(printed(client, art) - (10, 120, 200)).max(axis=2) < 3).sum() > 500
    again = client.post("/api/artworks", data={"file": (io.BytesIO(data), "lake.png")}).json
    assert again["id"] == photo["id"] and len(client.get("/api/board").json["artworks"]) == 2
    client.post("/api/artworks?aside=true", data={"file": (io.BytesIO(data), "lake.png")})
    assert len(client.get("/api/board").json["artworks"]) == 2, "what stands on the board stays there"
