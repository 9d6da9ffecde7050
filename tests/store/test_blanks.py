"""Blanks in the data folder: custom ones, the board's, limits and files; and databases of earlier versions."""

import json
import sqlite3
from pathlib import Path

import pytest

from improva.catalogue import template
from improva.core.artwork.traits import find_traits
from improva.core.design import Placement
from improva.core.measured_blank import Measures, measured_template
from improva.store import Artworks, Blanks, Database, Pairs, PreflightReports
from tests.conftest import art_of, quadrants


@pytest.fixture
def blanks(tmp_path: Path) -> Blanks:
    return Blanks(Database(tmp_path))


def again(blanks: Blanks) -> Blanks:
    return Blanks(Database(blanks._database.folder))


def test_a_custom_blank_survives_a_restart_and_can_be_restored(blanks: Blanks) -> None:
    flask = measured_template("own-flask", Measures("Flask", "round", top_mm=300, bottom_mm=220, height_mm=160))
    blanks.keep(flask)
    blanks.set_board(["own-flask", "mug-11oz", "own-flask"])
    (kept,) = again(blanks).own()
    assert kept.own and kept.panel().cone == flask.panel().cone and again(blanks).on_board() == ["own-flask", "mug-11oz"]
    blanks.remove("own-flask")
    assert blanks.own() == [] and blanks.on_board() == ["mug-11oz"] and blanks.used_ids() == {"own-flask"}
    blanks.keep(flask)
    assert [t.id for t in blanks.own()] == ["own-flask"]


def test_limits_are_stored_per_blank_and_reset(blanks: Blanks) -> None:
    blanks.set_limit("t-shirt", "letter_mm", 6.5)
    blanks.set_limit("t-shirt", "least_dpi", 180)
    blanks.set_limit("t-shirt", "letter_mm", 7.0)
    assert again(blanks).limits() == {"t-shirt": {"letter_mm": 7.0, "least_dpi": 180.0}}
    blanks.set_limit("t-shirt", "letter_mm", None)
    assert blanks.limits() == {"t-shirt": {"least_dpi": 180.0}}


def test_files_of_a_blank_are_stored_and_removed(blanks: Blanks) -> None:
    blanks.keep_file("hoodie", "guide", b"one", "front.png", "front")
    blanks.keep_file("hoodie", "guide", b"two", "front-new.png", "front")
    blanks.keep_file("hoodie", "profile", b"icc", "printer.icc")
    found = again(blanks).file("hoodie", "guide", "front")
    assert found is not None and found.file_name == "front-new.png" and blanks._database.blob(found.sha256) == b"two"
    assert blanks.file("hoodie", "guide", "back") is None and set(blanks.profiles()) == {"hoodie"}
    blanks.drop_file("hoodie", "guide", "front")
    assert blanks.file("hoodie", "guide", "front") is None and blanks.file("hoodie", "profile") is not None


def test_panels_share_one_history(tmp_path: Path) -> None:
    database = Database(tmp_path)
    art = art_of(quadrants())
    art_id = Artworks(database).add("Q", "q.png", art, find_traits(art)).id
    pairs = Pairs(database)
    pairs.place(art_id, "t-shirt", {"front": Placement("contain")})
    pairs.place(art_id, "t-shirt", {"back": Placement("contain", scale=0.5)})
    pairs.place(art_id, "t-shirt", {"front": None})
    assert pairs.get(art_id, "t-shirt").placements == {"front": None, "back": Placement("contain", scale=0.5)}
    pairs.move(art_id, "t-shirt", -1)
    assert pairs.get(art_id, "t-shirt").placements["front"] == Placement("contain")
    pairs.move(art_id, "t-shirt", -1)
    assert set(pairs.get(art_id, "t-shirt").placements) == {"front"}
    assert pairs.of_art(art_id)["t-shirt"] == pairs.get(art_id, "t-shirt")


def test_many_summaries_are_fetched_at_once(tmp_path: Path) -> None:
    reports = PreflightReports(Database(tmp_path))
    for i in range(1203):
        reports.get_or_make(f"key{i}", lambda i=i: {"n": i, "much": "x" * 50}, lambda report: {"n": report["n"]})  # type: ignore[misc]
    found = reports.summaries([f"key{i}" for i in range(1500)])
    assert len(found) == 1203 and found["key77"] == {"n": 77} and reports.summaries([]) == {}


def test_a_database_of_an_earlier_version_is_brought_up_to_date(tmp_path: Path) -> None:
    """An early database has no traits, and its placements have no panel."""
    art = art_of(quadrants())
    old = sqlite3.connect(tmp_path / "improva.sqlite")
    old.executescript("""
        CREATE TABLE artwork (id INTEGER PRIMARY KEY, title TEXT NOT NULL, file_name TEXT NOT NULL, sha256 TEXT NOT NULL UNIQUE,
            facts TEXT NOT NULL, added_at TEXT NOT NULL DEFAULT '2026-01-01', removed_at TEXT) STRICT;
        CREATE TABLE pair (artwork_id INTEGER NOT NULL, template_id TEXT NOT NULL, step INTEGER NOT NULL DEFAULT 0, route TEXT,
            angle REAL NOT NULL DEFAULT 0, colours TEXT NOT NULL DEFAULT '{}', PRIMARY KEY (artwork_id, template_id)) STRICT, WITHOUT ROWID;
        CREATE TABLE placing (artwork_id INTEGER NOT NULL, template_id TEXT NOT NULL, step INTEGER NOT NULL, placing TEXT NOT NULL,
            PRIMARY KEY (artwork_id, template_id, step)) STRICT, WITHOUT ROWID;
    """)
    old.execute(
        "INSERT INTO artwork (title, file_name, sha256, facts) VALUES ('Q', 'q.png', 'abc', ?)",
        (json.dumps(art.facts.as_dict()),),
    )
    old.execute("INSERT INTO pair (artwork_id, template_id, step) VALUES (1, 'tumbler-20oz-straight', 1)")
    was = {"fit": "contain", "shift_mm": [1.0, 2.0], "scale": 0.5, "rotate_deg": 3.0, "background": None}
    old.execute("INSERT INTO placing VALUES (1, 'tumbler-20oz-straight', 1, ?)", (json.dumps(was),))
    old.commit()
    old.close()
    for _ in range(2):  # and a second opening changes nothing more
        database = Database(tmp_path)
        row = Artworks(database).get(1)
        assert row is not None and row.traits is None and row.facts == art.facts
        assert Pairs(database).get(1, "tumbler-20oz-straight").placements == {
            "wrap": Placement("contain", (1.0, 2.0), 0.5, 3.0)
        }
    Artworks(database).set_traits(1, find_traits(art))
    kept = Artworks(Database(tmp_path)).get(1)
    assert kept is not None and kept.traits == find_traits(art)


def test_shipped_blanks_are_not_custom_blanks(blanks: Blanks) -> None:
    assert blanks.own() == [] and not template("mug-11oz").own
