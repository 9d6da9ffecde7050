"""The history of a pair is in order of time; search finds each thing with its address."""

from typing import Any

from improva.store import HandedIn
from tests.web.client import ApiClient
from tests.web.helpers import at, drop, placement


def deeds(client: ApiClient, art: dict[str, Any]) -> list[dict[str, Any]]:
    return client.get(at(art, "/history")).json["events"]


def test_a_pairs_history_is_newest_first_and_includes_undone_steps(client: ApiClient) -> None:
    art = drop(client)
    client.put(at(art, "/placement"), json=placement(scale=1.1))
    client.post(at(art, "/undo"))
    client.put(at(art, "/placement"), json=placement(scale=1.2))
    client.put(at(art, "/selling"), json={"sale": {"price": "21.50"}})
    client.put(f"/api/artworks/{art['id']}/preparation", json={"steps": [{"kind": "trim", "values": {"margin": 1}}]})
    client.post(at(art, "/samples"), json={"provider": "Hut press", "ordered": "2026-05-28", "shipped": "2026-06-02"})
    client.get(at(art, "/listing"))
    client.post(at(art, "/listing/overruling"), json={"why": "It is mine."})
    told = deeds(client, art)
    assert [d["at"] for d in told] == sorted((d["at"] for d in told), reverse=True)
    whats = [d["what"] for d in told]
    assert whats.count("fitted") == 2 and {
        "added",
        "priced",
        "prepared",
        "sample ordered",
        "sample shipped",
        "licence overruled",
    } <= set(whats)
    assert "sample delivered" not in whats
    by_what = {d["what"]: d["detail"] for d in told}
    assert by_what["priced"] == "21.50" and by_what["prepared"] == "trim" and by_what["sample ordered"] == "Hut press"
    mug = client.get(f"/api/pairs/{art['id']}/mug-11oz/history").json["events"]
    assert {d["what"] for d in mug} == {"added", "prepared"}, "of another blank nothing but what was done to the artwork"


def test_search_finds_each_thing_with_its_address(client: ApiClient) -> None:
    art = drop(client, None, "night_train 100%.png")
    other = drop(
        client, b"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 9 9'><path d='M0 0h9v9z'/></svg>", "nightXtrain.svg"
    )
    client.put(at(art, "/listing"), json={"art_words": {"name": "Last train", "line": "Under the first stars."}})
    client.post(at(art, "/samples"), json={"provider": "Hut press", "ordered": "2026-05-28", "note": "pale foot"})
    client.application.extensions["services"].store.listings.hand_in(
        art["id"], "mug-11oz", HandedIn("valley-stalls", "k", True, "00417", (), "")
    )

    def found(words: str) -> set[tuple[Any, ...]]:
        return {
            (h["artwork_id"], h["template_id"], h["what"])
            for h in client.get("/api/search", query_string={"words": words}).json["hits"]
        }

    assert found("night_train") == {(art["id"], None, "artwork")}, "an underscore is itself, not any letter"
    assert {h[0] for h in found("NIGHT")} == {art["id"], other["id"]}
    assert found("100%") == {(art["id"], None, "artwork")} and found("first stars") == {(art["id"], None, "words")}
    assert found("00417") == {(art["id"], "mug-11oz", "listing")} and found("pale") == {
        (art["id"], "tumbler-20oz-straight", "sample")
    }
    client.put(at(art, "/listing"), json={"art_words": {"name": "CAFÉ der Höhe", "line": ""}})
    assert found("café DER hohe") == found("cafe der höhe") == {(art["id"], None, "words")}
    assert found("  ") == set() == found("';--")
    client.delete(f"/api/artworks/{art['id']}")
    assert found("pale") == set(), "what is off the board is not found"
