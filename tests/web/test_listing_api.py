"""A pair's listing: pictures proposed and chosen, text composed, a pack that two readers open, a simulated marketplace that
answers."""

import csv
import io
import json
import subprocess
import zipfile
from pathlib import Path
from typing import Any

import jsonschema
from PIL import Image

from improva.io.listing_pack import schema
from tests.conftest import encoded, quadrants
from tests.web.client import ApiClient
from tests.web.helpers import at, drop
from tests.web.printing import ended as done

OWN = {"source": "own"}
WORDS = {"name": "Summit Line at dusk", "line": "The last train crosses the pass.", "tags": ["mountain railway", "night train"]}
BLANK = {
    "title": "{design}: insulated {blank}",
    "text": "Holds {unprinted}. Printed on {size}.",
    "tags": ["travel cup", "Night Train"],
    "search": "{line} A gift for railway friends.",
}
SCHEMA = Path(__file__).parents[2] / "docs/listing.schema.json"


def ready(client: ApiClient, title: str = "again.png", size: tuple[int, int] = (1200, 1200)) -> dict[str, Any]:
    """Add an artwork with everything that a listing needs; its pictures are small."""
    pixels = quadrants(1395, 1230)
    pixels[-1, -1] = len(title), 0, 0  # the same picture again would be the same artwork
    art = drop(client, encoded(Image.fromarray(pixels)), title)
    client.put(f"/api/artworks/{art['id']}/origin", json=OWN)
    mockup_settings = client.get(at(art, "/mockup-settings")).json["mockup_settings"]
    client.put(at(art, "/mockup-settings"), json={**mockup_settings, "sizes": [size]})
    client.put(at(art, "/selling"), json={"sale": {"price": "29.90"}})
    client.put(at(art, "/listing"), json={"art_words": WORDS, "blank_words": BLANK, "film": False})
    return art


def offer(client: ApiClient, blank: str, part: str, colours: list[str] | None) -> int:
    return client.put(f"/api/blanks/{blank}/offered", json={"part": part, "colours": colours}).status_code


def test_only_offered_colours_are_pictured_and_others_are_pointed_out(client: ApiClient) -> None:
    art, blank = ready(client), "tumbler-20oz-straight"

    def dressed() -> list[dict[str, str]]:
        return [slot["colours"] for slot in client.get(at(art, "/listing")).json["slots"] if slot["colours"]]

    assert dressed() == []
    assert offer(client, blank, "lid", ["Snow", "Pine"]) == 200
    shelf = {each["template"]["id"]: each["parts"] for each in client.get("/api/blanks").json["blanks"]}
    part = next(each for each in shelf[blank] if each["id"] == "lid")
    assert part["offered"] == ["Snow", "Pine"] and part["usual"] == "Snow"
    assert {tuple(c.items()) for c in dressed()} == {(("lid", "Pine"),)}
    state = client.get(at(art, "/listing")).json
    kept = [{k: v for k, v in slot.items() if k not in ("title", "alt")} for slot in state["slots"]]
    client.put(at(art, "/listing"), json={"slots": kept})
    assert offer(client, blank, "lid", None) == 200
    messages = [f["message"] for f in client.get(at(art, "/listing")).json["findings"]]
    assert any("Lid in Pine, which you do not offer" in message for message in messages)
    assert offer(client, blank, "lid", ["Gold"]) == offer(client, blank, "roof", ["Pine"]) == 422


def test_pictures_are_proposed_by_kind_and_missing_kinds_are_offered(client: ApiClient) -> None:
    art = ready(client)
    offer(client, "tumbler-20oz-straight", "lid", ["Snow", "Ink", "Pine", "Rowan"])
    state = client.get(at(art, "/listing")).json
    kinds = [slot["kind"] for slot in state["slots"]]
    assert not state["decided"] and len(kinds) == 10 and kinds[0] == "front"
    assert {"front", "side", "lifestyle", "detail", "size", "colour"} <= set(kinds) and state["missing"] == []
    assert all(slot["alt"].startswith("Summit Line at dusk on ") for slot in state["slots"])
    fewer = [slot for slot in state["slots"] if slot["kind"] not in ("size", "lifestyle")][::-1]
    chosen = [{k: v for k, v in slot.items() if k not in ("title", "alt")} for slot in fewer]
    state = client.put(at(art, "/listing"), json={"slots": chosen}).json
    assert state["decided"] and [s["kind"] for s in state["slots"]] == [s["kind"] for s in fewer]
    assert {m["kind"] for m in state["missing"]} == {"size", "lifestyle"}
    for missing in state["missing"]:
        chosen.append(missing["offered"])
    assert client.put(at(art, "/listing"), json={"slots": chosen}).json["missing"] == []
    assert len(client.put(at(art, "/listing"), json={"proposed": True}).json["slots"]) == 10
    strange = [{"kind": "front", "scene_id": "no-such-scene"}]
    assert client.put(at(art, "/listing"), json={"slots": strange}).status_code == 422
    assert not client.get(at(art, "/listing")).json["decided"]


def test_text_is_composed_within_the_marketplaces_limits(client: ApiClient) -> None:
    art = ready(client)
    state = client.get(at(art, "/listing")).json
    texts = state["texts"]
    assert texts["title"].startswith("Summit Line at dusk: insulated ") and state["findings"][0]["subject"] == "tags"
    assert texts["tags"] == ["mountain railway", "night train", "travel cup"], "the same tag in other capitals is no second one"
    assert texts["description"].startswith("The last train crosses the pass.\n\nHolds ")
    assert "9.3 × 8.2 in (23.6 × 20.8 cm)" in texts["description"] and texts["search"].startswith("The last train")
    long = {**BLANK, "title": "{design} " * 8, "tags": ["a tag that is longer than any market takes it"], "text": "{colour}"}
    state = client.put(at(art, "/listing"), json={"blank_words": long, "market": "summit-exchange"}).json
    found = {(f["subject"], f["status"]): f for f in reversed(state["findings"])}
    assert found[("title", "fail")]["message"].startswith("'{colour}' is no part")
    lengths = [f for f in state["findings"] if f["subject"] == "title" and f["measured"]]
    assert lengths[0]["measured"] == len(state["texts"]["title"]) > lengths[0]["limit"] == 72
    assert found[("tags", "fail")]["measured"] == 45 and not state["ready"] and not state["can_film"]
    assert client.post(at(art, "/listing-job")).status_code == 422
    limits = {"title": "Hut shelf", "title_least": 1, "title_most": 300, "repeats_most": 20, "tag_most": 60, "search_most": 500}
    assert client.put("/api/marketplaces/hut-shelf", json=limits).status_code == 200
    client.put(at(art, "/listing"), json={"market": "hut-shelf", "blank_words": {**long, "text": ""}})
    assert client.get(at(art, "/listing")).json["ready"]
    assert client.put("/api/marketplaces/hut-shelf", json={**limits, "title_least": 900}).status_code == 422
    client.delete("/api/marketplaces/hut-shelf")
    assert client.get(at(art, "/listing")).json["market"] == "valley-stalls"


def test_a_pack_is_read_by_two_readers_and_accepted_once_it_is_valid(client: ApiClient, tmp_path: Path) -> None:
    art = ready(client)
    slots = [{k: v for k, v in s.items() if k not in ("title", "alt")} for s in client.get(at(art, "/listing")).json["slots"]][
        :4
    ]
    client.put(at(art, "/listing"), json={"slots": slots})
    file = done(client, client.post(at(art, "/listing-job")).json)["files"][0]
    packed = tmp_path / "pack.zip"
    packed.write_bytes(client.get(file["url"]).data)
    names = set(subprocess.run(["unzip", "-Z1", str(packed)], capture_output=True, text=True, check=True).stdout.split())
    subprocess.run(["unzip", "-tq", str(packed)], check=True, capture_output=True)
    with zipfile.ZipFile(packed) as archive:
        assert set(archive.namelist()) == names
        told = json.loads(archive.read("listing.json"))
        jsonschema.validate(told, json.loads(SCHEMA.read_text()))
        row = next(csv.DictReader(io.StringIO(archive.read("listing.csv").decode(), newline="")))
        pictures = [Image.open(archive.open(each["file"])) for each in told["pictures"]]
    assert [each["kind"] for each in told["pictures"]] == [s["kind"] for s in slots]
    assert all(picture.size == (1200, 1200) for picture in pictures) and len({p.tobytes() for p in pictures}) == 4
    assert (row["title"], row["price"], row["currency"]) == (told["title"], "29.90", "USD")
    assert row["tags"].split(";") == told["tags"] and row["description"] == told["description"]
    assert [row[f"picture_{i + 1}"] for i in range(4)] == [each["file"] for each in told["pictures"]]
    state = client.post(at(art, "/listing/submission"), json={"url": file["url"]}).json
    first = state["handed"][0]
    assert first["accepted"] and first["number"] == "00001" and client.get(at(art)).json["listed"]
    again = client.post(at(art, "/listing/submission"), json={"url": file["url"]}).json["handed"]
    assert again[0]["number"] == "00001" and len(again) == 2, "the same listing keeps its number"
    client.put(at(art, "/selling"), json={"sale": {"price": "31.90"}})
    stale = client.post(at(art, "/listing/submission"), json={"url": file["url"]})
    assert stale.status_code == 422 and "changed since" in stale.json["detail"]
    twin = ready(client, "twin.png")
    client.put(at(twin, "/listing"), json={"slots": slots[:1]})
    file = done(client, client.post(at(twin, "/listing-job")).json)["files"][0]
    refused = client.post(at(twin, "/listing/submission"), json={"url": file["url"]}).json["handed"][0]
    assert not refused["accepted"] and "title" in refused["reasons"][0] and not client.get(at(twin)).json["listed"]


def test_the_published_schema_matches_the_code() -> None:
    assert SCHEMA.read_text() == schema()


def test_a_licence_blocks_a_listing_and_an_override_is_recorded_for_that_licence_only(client: ApiClient) -> None:
    art = ready(client)
    client.put(f"/api/artworks/{art['id']}/origin", json={"source": "bought", "commercial": True, "print_on_demand": False})
    state = client.get(at(art, "/listing")).json
    assert len(state["stopped"]) == 2 and not state["ready"], "no right to print on demand, and unchanged"
    refused = client.post(at(art, "/listing-job"))
    assert refused.status_code == 422 and "print on demand" in refused.json["detail"]
    assert client.post(at(art, "/listing/overruling"), json={"why": ""}).status_code == 422
    state = client.post(at(art, "/listing/overruling"), json={"why": "The maker allowed it by letter."}).json
    assert state["ready"] and state["overruled"]["why"] == "The maker allowed it by letter." and state["overruled"]["at"]
    client.put(f"/api/artworks/{art['id']}/origin", json={"source": "free"})
    assert not client.get(at(art, "/listing")).json["ready"], "other reasons are not overruled"
    client.put(f"/api/artworks/{art['id']}/origin", json={"source": "bought", "commercial": True, "print_on_demand": False})
    assert client.get(at(art, "/listing")).json["ready"]
    assert not client.delete(at(art, "/listing/overruling")).json["ready"]
    table = (
        client.application.extensions["services"]
        .store.database.connection.execute("SELECT why, withdrawn_at FROM overruling")
        .fetchall()
    )
    assert len(table) == 1 and table[0]["withdrawn_at"], "it stays on record"


def test_many_packs_at_once_leave_out_blocked_listings(client: ApiClient) -> None:
    art, other = ready(client), ready(client, "some-other.png")
    client.put(f"/api/artworks/{other['id']}/origin", json={"source": ""})
    slots = client.get(at(art, "/listing")).json["slots"][:1]
    client.put(at(art, "/listing"), json={"slots": [{k: v for k, v in s.items() if k not in ("title", "alt")} for s in slots]})
    pairs = [{"artwork_id": each["id"], "template_id": "tumbler-20oz-straight"} for each in (art, other)]
    told = client.post("/api/batches", json={"kind": "listing", "pairs": pairs}).json
    assert len(told["left_out"]) == 1 and "no origin is recorded" in told["left_out"][0]["why"]
    assert told["batches"][0]["jobs"] == 1 and told["batches"][0]["title"] == "Listing packs of 1 pair"
