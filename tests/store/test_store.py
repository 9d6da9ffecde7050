"""Stored data survives restarts, kills, and several writers at the same time."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import textwrap
import threading
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from improva.core.artwork.traits import find_traits
from improva.core.design import Placement
from improva.core.origin import Origin
from improva.core.preparation import Preparation, Step
from improva.store import ArtRow, Artworks, Database, MadeFileRow, MadeFiles, Pairs, Preparations
from improva.store.database import key_of
from tests.conftest import art_of, quadrants
from tests.store.old import database_of_version_1

BLANK = "tumbler-20oz-straight"


def added(artworks: Artworks, title: str, name: str) -> ArtRow:
    art = art_of(quadrants())
    return artworks.add(title, name, art, find_traits(art))


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path)


@pytest.fixture
def art_id(database: Database) -> int:
    return added(Artworks(database), "Quadrants", "q.png").id


def test_an_artwork_survives_a_restart(database: Database, art_id: int) -> None:
    again = Artworks(Database(database.folder))
    row = again.get(art_id)
    assert row is not None and (row.title, row.facts.px) == ("Quadrants", (465, 410))
    assert again.open(row).data == art_of(quadrants()).data


def test_an_equal_file_is_the_same_artwork_and_restores_it(database: Database, art_id: int) -> None:
    artworks = Artworks(database)
    artworks.set_removed(art_id, True)
    assert artworks.all() == [] and artworks.ever_any()
    assert added(artworks, "Again", "other-name.png").id == art_id
    assert [a.id for a in artworks.all()] == [art_id]
    assert len(list((database.folder / "blobs").iterdir())) == 1


def test_undo_and_redo_go_all_the_way_and_over_a_restart(database: Database, art_id: int) -> None:
    pairs = Pairs(database)
    steps = [Placement(scale=1 + i / 100) for i in range(40)]
    for placement in steps:
        pairs.place(art_id, BLANK, {"wrap": placement})
    pairs = Pairs(Database(database.folder))
    for placement in reversed(steps[:-1]):
        pairs.move(art_id, BLANK, -1)
        assert pairs.get(art_id, BLANK).placements == {"wrap": placement}
    pairs.move(art_id, BLANK, -1)
    pairs.move(art_id, BLANK, -1)
    assert pairs.get(art_id, BLANK).placements == {}
    pairs.move(art_id, BLANK, 1)
    assert pairs.get(art_id, BLANK).placements == {"wrap": steps[0]}


@settings(max_examples=25)
@given(st.lists(st.sampled_from(["place", "undo", "redo"]), max_size=30))
def test_history_behaves_like_a_list_with_a_position(moves: list[str]) -> None:
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder))
        art_id = added(Artworks(database), "a", "a.png").id
        history: list[Placement | None] = [None]
        pairs, hand = Pairs(database), 0
        for i, move in enumerate(moves):
            if move == "place":
                history = [*history[: hand + 1], Placement(rotate_deg=i)]
                pairs.place(art_id, BLANK, {"wrap": Placement(rotate_deg=i)})
                hand += 1
            else:
                hand = max(0, hand - 1) if move == "undo" else min(len(history) - 1, hand + 1)
                pairs.move(art_id, BLANK, -1 if move == "undo" else 1)
            row = pairs.get(art_id, BLANK)
            assert (row.placements.get("wrap"), row.step, row.last_step) == (history[hand], hand, len(history) - 1)


def test_choices_and_placings_do_not_disturb_each_other(database: Database, art_id: int) -> None:
    pairs = Pairs(database)
    pairs.set_choices(art_id, BLANK, "upload", 42.5, {"lid": "Ink"})
    pairs.place(art_id, BLANK, {"wrap": Placement(scale=2)})
    row = pairs.get(art_id, BLANK)
    assert (row.route, row.angle, row.colours, row.placements) == ("upload", 42.5, {"lid": "Ink"}, {"wrap": Placement(scale=2)})


def test_files_are_made_once_and_found_by_their_placement(database: Database, art_id: int) -> None:
    made, calls = MadeFiles(database), []

    def make(path: Path) -> None:
        calls.append(path)
        path.write_bytes(b"file")

    row = MadeFileRow(key_of("x"), "print", "placement-1", "a.png")
    assert made.file(row, art_id, BLANK, make) == made.file(row, art_id, BLANK, make)
    assert len(calls) == 1
    assert made.kinds(art_id, BLANK, "placement-1") == {"print"} and made.kinds(art_id, BLANK, "placement-2") == set()
    name, path = made.named(row.key) or ("", Path())
    assert name == "a.png" and path.read_bytes() == b"file"
    path.unlink()
    assert made.named(row.key) is None


def test_the_database_refuses_inconsistent_rows(database: Database) -> None:
    with pytest.raises(sqlite3.IntegrityError):
        Pairs(database).place(999, BLANK, {"wrap": Placement()})
    assert database.connection.execute("SELECT count(*) FROM pair").fetchone()[0] == 0


def test_many_writers_at_once_lose_nothing(database: Database, art_id: int) -> None:
    def work(n: int) -> None:
        pairs = Pairs(database)
        for i in range(20):
            pairs.place(art_id, f"blank-{n}", {"wrap": Placement(rotate_deg=i)})

    threads = [threading.Thread(target=work, args=(n,)) for n in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert [Pairs(database).get(art_id, f"blank-{n}").step for n in range(4)] == [20] * 4


def test_a_kill_at_any_moment_leaves_complete_steps(database: Database, art_id: int) -> None:
    program = textwrap.dedent(f"""
        from pathlib import Path
        from improva.core.design import Placement
        from improva.store import Database, Pairs
        pairs = Pairs(Database(Path({str(database.folder)!r})))
        i = 0
        while True:
            i += 1
            pairs.place({art_id}, {BLANK!r}, dict(wrap=Placement(rotate_deg=i)))
            print(i, flush=True)
    """)
    child = subprocess.Popen([sys.executable, "-c", program], stdout=subprocess.PIPE, text=True)
    assert child.stdout is not None
    told = [int(child.stdout.readline()) for _ in range(25)]
    os.kill(child.pid, signal.SIGKILL)
    told += [int(line) for line in child.stdout.read().split()]
    child.wait()
    after = Database(database.folder)
    row = Pairs(after).get(art_id, BLANK)
    assert after.connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    assert row.step in (told[-1], told[-1] + 1) and row.placements == {"wrap": Placement(rotate_deg=row.step)}


def test_preparations_can_be_undone_completely_after_a_restart(database: Database, art_id: int) -> None:
    preparations = Preparations(database)
    many = [Preparation((Step("turn", {"degrees": float(i)}),)) for i in range(1, 12)]
    for preparation in [*many, many[-1]]:  # the last one twice, which is one decision
        preparations.decide(art_id, preparation)
    again = Database(database.folder)
    artworks = Artworks(again)
    row = artworks.get(art_id)
    assert row is not None and row.preparation == many[-1] and (row.step, row.last_step) == (11, 11)
    for expected in reversed([Preparation(), *many[:-1]]):
        Preparations(again).move(art_id, -1)
        assert artworks.get(art_id).preparation == expected  # type: ignore[union-attr]
    Preparations(again).move(art_id, -1)
    Preparations(again).move(art_id, 1)
    Preparations(again).decide(art_id, Preparation((Step("flip"),)))
    row = artworks.get(art_id)
    assert row is not None and (row.step, row.last_step) == (2, 2), "what was undone is forgotten"


def test_a_database_from_before_preparations_is_brought_up_to_date(tmp_path: Path) -> None:
    old = database_of_version_1(tmp_path)
    old.executescript("ALTER TABLE artwork DROP COLUMN preparation_step; DROP TABLE preparation; DROP TABLE origin;")
    art = art_of(quadrants())
    values = [json.dumps(part.as_dict()) for part in (art.facts, find_traits(art))]
    old.execute("INSERT INTO artwork (title, file_name, sha256, facts, traits) VALUES ('Q', 'q.png', 'abc', ?, ?)", values)
    old.execute("PRAGMA user_version = 0")
    old.close()
    row = Artworks(Database(tmp_path)).get(1)
    assert row is not None and row.preparation == Preparation() and row.origin == Origin()
