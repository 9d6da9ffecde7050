"""The simulated marketplace examines a pack without trusting anything in it."""

import io
import json
import zipfile
from pathlib import Path
from typing import Any

import pytest
from PIL import Image

from improva.core.listing import Market
from improva.simulators.market_desk import MarketDesk

MARKET = Market(
    "Test",
    title_least=5,
    title_most=40,
    tags_most=2,
    tag_most=10,
    search_most=30,
    alt_most=20,
    pictures_most=2,
    least_px=300,
    film_s=5,
)


def picture(px: tuple[int, int] = (400, 320), kind: str = "JPEG") -> bytes:
    file = io.BytesIO()
    Image.new("RGB", px, (90, 60, 30)).save(file, kind)
    return file.getvalue()


def listing(**change: Any) -> dict[str, Any]:
    told = {
        "format": "listing-pack",
        "version": 1,
        "market": "test",
        "reference": "r1",
        "title": "A cup of the line",
        "description": "Words.",
        "tags": ["cup"],
        "search": "cup",
        "price": "12.50",
        "currency": "EUR",
        "film": None,
        "overruled": [],
        "pictures": [{"file": "01.jpg", "kind": "front", "alt": "A cup", "px": [400, 320], "shows": {}}],
    }
    return {**told, **change}


def pack(folder: Path, told: object, files: dict[str, bytes] | None = None) -> Path:
    path = folder / "pack.zip"
    with zipfile.ZipFile(path, "w") as archive:
        if told is not None:
            archive.writestr("listing.json", told if isinstance(told, str) else json.dumps(told))
        for name, data in (files if files is not None else {"01.jpg": picture()}).items():
            archive.writestr(name, data)
    return path


def pictured(*files: str, **change: Any) -> list[dict[str, Any]]:
    return [{**listing()["pictures"][0], "file": name, **change} for name in files]


def test_a_valid_pack_is_accepted_under_a_lasting_number(tmp_path: Path) -> None:
    desk = MarketDesk(tmp_path / "markets", "test", MARKET)
    first = desk.hand_in(pack(tmp_path, listing()))
    assert first.accepted and first.number == "00001" and first.seen[0] == "1 pictures"
    second = desk.hand_in(pack(tmp_path, listing(reference="r2", title="Another cup")))
    changed = MarketDesk(tmp_path / "markets", "test", MARKET).hand_in(pack(tmp_path, listing(title="A cup, anew")))
    assert (second.number, changed.number) == ("00002", "00001"), "the desk remembers over a restart"
    twin = desk.hand_in(pack(tmp_path, listing(reference="r3", title="ANOTHER CUP")))
    assert not twin.accepted and "title" in twin.reasons[0]


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"title": "Cup"}, "title has 3 letters"),
        ({"title": "c" * 41}, "title has 41 letters"),
        ({"description": ""}, "description has 0"),
        ({"search": "s" * 31}, "search description has 31"),
        ({"tags": ["a", "b", "c"]}, "3 tags; 2"),
        ({"tags": ["eleven lett"]}, "'eleven lett' is longer"),
        ({"price": None}, "no price"),
        ({"price": "0.00"}, "no price"),
        ({"price": "dear"}, "no price"),
        ({"pictures": []}, "0 pictures"),
        ({"pictures": pictured("01.jpg", "01.jpg", "01.jpg")}, "3 pictures"),
        ({"pictures": pictured("02.jpg")}, "02.jpg is not in the pack"),
        ({"pictures": pictured("text.jpg")}, "text.jpg is not in the pack, or is no picture"),
        ({"pictures": pictured("small.jpg")}, "299 px on its shorter side"),
        ({"pictures": pictured("moving.gif")}, "moving.gif is GIF"),
        ({"pictures": pictured("01.jpg", alt="a" * 21)}, "words of 01.jpg"),
        ({"film": {"file": "01.jpg", "seconds": 6, "alt": ""}}, "A film of 6 s"),
        ({"film": {"file": "turn.mp4", "seconds": 4, "alt": ""}}, "film is not in the pack"),
    ],
)
def test_errors_are_refused_with_their_reasons(tmp_path: Path, change: dict[str, Any], said: str) -> None:
    files = {
        "01.jpg": picture(),
        "text.jpg": b"no picture",
        "small.jpg": picture((400, 299)),
        "moving.gif": picture(kind="GIF"),
    }
    desk = MarketDesk(tmp_path, "test", MARKET)
    answer = desk.hand_in(pack(tmp_path, listing(**change), files))
    assert not answer.accepted and answer.number is None
    assert len(answer.reasons) == 1 and said in answer.reasons[0]
    assert not (tmp_path / "test.json").exists(), "nothing is kept of what was refused"


@pytest.mark.parametrize(
    "told", [None, "{", "[]", json.dumps(listing(version=2)), json.dumps({**listing(), "more": 1}), " " * 2_000_001]
)
def test_a_pack_without_a_listing_is_refused(tmp_path: Path, told: str | None) -> None:
    answer = MarketDesk(tmp_path, "test", MARKET).hand_in(pack(tmp_path, told))
    assert not answer.accepted and "listing.json" in answer.reasons[0] and answer.seen == ()


def test_a_file_that_is_not_a_zip_is_refused(tmp_path: Path) -> None:
    (tmp_path / "pack.zip").write_bytes(b"PK no zip")
    assert not MarketDesk(tmp_path, "test", MARKET).hand_in(tmp_path / "pack.zip").accepted
