"""Data of earlier versions is upgraded without loss, and data of later versions is refused."""

import json
import sqlite3
import threading
import zipfile
from pathlib import Path
from typing import Any

import pytest

from improva.store import Artworks, Database, Pairs
from improva.store.backup import write_backup
from improva.store.database import DataFolderError
from improva.store.migrations import LATEST, MIGRATIONS, NewerDatabaseError, migrate, statements, version_of
from improva.store.restore import read_backup

RANGE_0_1 = Path(__file__).parent / "data" / "range-0.1.zip"
"""A data folder as version 0.1 laid it out, through its own addresses, with every table in use but that of fonts."""


def rows(file: Path) -> dict[str, list[tuple[Any, ...]]]:
    """Return all rows of a database by table."""
    connection = sqlite3.connect(file)
    tables = [name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")]
    found = {table: sorted(connection.execute(f"SELECT * FROM {table}").fetchall(), key=repr) for table in tables}
    connection.close()
    return found


@pytest.fixture
def old_folder(tmp_path: Path) -> Path:
    folder = tmp_path / "range"
    with zipfile.ZipFile(RANGE_0_1) as archive:
        archive.extractall(folder)
    return folder


def test_a_folder_of_version_0_1_loses_nothing(old_folder: Path) -> None:
    before = rows(old_folder / "improva.sqlite")
    files = {path: path.read_bytes() for path in old_folder.rglob("*") if path.is_file() and path.suffix != ".sqlite"}
    database = Database(old_folder)
    assert version_of(database.connection) == LATEST
    database.close()
    after = rows(old_folder / "improva.sqlite")
    renamed = {
        "placing": "placement",
        "look": "preset",
        "made": "made_file",
        "art_words": "artwork_words",
        "handed_in": "submission",
        "deed": "event",
    }
    results = {"proof"}  # made anew by the checks of this version
    for table in before.keys() - results:
        assert len(after[renamed.get(table, table)]) == len(before[table]), table
        if table not in ("placing", "job"):  # their JSON has other keys now
            assert after[renamed.get(table, table)] == before[table]
    assert all(path.read_bytes() == content for path, content in files.items())
    copy = old_folder / f"improva-before-version-{LATEST}.sqlite"
    assert rows(copy) == before, "the copy is the database as it was"


def test_a_new_folder_needs_no_copy_and_is_opened_again_as_it_is(tmp_path: Path) -> None:
    Database(tmp_path).close()
    assert version_of(Database(tmp_path).connection) == LATEST
    assert not list(tmp_path.glob("*before-version*"))


def test_a_newer_database_is_refused_in_one_sentence_and_left_alone(tmp_path: Path) -> None:
    database = Database(tmp_path)
    database.connection.execute(f"PRAGMA user_version = {LATEST + 1}")
    database.close()
    with pytest.raises(NewerDatabaseError, match=r"newer Improva .* update Improva"):
        Database(tmp_path)
    assert version_of(sqlite3.connect(tmp_path / "improva.sqlite")) == LATEST + 1


def test_a_migration_that_fails_changes_nothing(old_folder: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def fail(connection: sqlite3.Connection) -> None:
        connection.execute("DELETE FROM deed")
        raise RuntimeError("the disk is full")

    before = rows(old_folder / "improva.sqlite")
    monkeypatch.setattr("improva.store.migrations.MIGRATIONS", (MIGRATIONS[0], fail))
    with pytest.raises(RuntimeError):
        Database(old_folder)
    assert rows(old_folder / "improva.sqlite") == before


def test_a_row_that_refers_to_nothing_is_never_committed(old_folder: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def orphan(connection: sqlite3.Connection) -> None:
        connection.execute("DELETE FROM artwork")

    monkeypatch.setattr("improva.store.migrations.MIGRATIONS", (MIGRATIONS[0], orphan))
    with pytest.raises(DataFolderError, match="refers to one that is missing"):
        Database(old_folder)
    assert rows(old_folder / "improva.sqlite")["artwork"]


def test_processes_that_open_at_once_migrate_once(old_folder: Path) -> None:
    found: list[int] = []

    def open_it() -> None:
        connection = sqlite3.connect(old_folder / "improva.sqlite", isolation_level=None, timeout=30)
        migrate(connection, old_folder / "improva.sqlite")
        found.append(version_of(connection))
        connection.close()

    threads = [threading.Thread(target=open_it) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert found == [LATEST] * 6


def test_a_backup_of_a_newer_version_is_refused(tmp_path: Path) -> None:
    database = Database(tmp_path / "new")
    database.connection.execute(f"PRAGMA user_version = {LATEST + 1}")
    database.close()
    write_backup(tmp_path / "new", tmp_path / "new.zip")
    with pytest.raises(NewerDatabaseError):
        read_backup(tmp_path / "new.zip", tmp_path / "back")
    assert not (tmp_path / "back").exists()


def test_triggers_are_kept_as_one_statement() -> None:
    script = (
        "CREATE TABLE a (b);\n-- a remark; with a semicolon\nCREATE TRIGGER t AFTER INSERT ON a BEGIN\n  DELETE FROM a;\nEND;\n"
    )
    found = list(statements(script))
    assert len(found) == 2 and found[1].strip().endswith("END;")


def test_settings_read_as_before(old_folder: Path) -> None:
    database = Database(old_folder)
    lamp, tile = Artworks(database).all()
    assert (lamp.title, tile.title) == ("The signal lamp", "Tile") and tile.step == 1
    pair = Pairs(database).get(lamp.id, "tumbler-20oz-straight")
    placement = pair.placements["wrap"]
    assert placement is not None and placement.scale == pytest.approx(1.1) and pair.last_step == 2  # type: ignore[union-attr]
    assert [piece["kind"] for piece in pair.pieces["wrap"]] == ["words", "band", "overlay", "frames"]
    assert pair.printing["notes"] == "Gently" and json.dumps(pair.mockup_settings).count("scene_id") == 1
