"""A data folder as one file and back: nothing is lost or overwritten, and damaged files are refused."""

import io
import json
import sqlite3
import threading
import zipfile
from pathlib import Path

import pytest
from click.testing import CliRunner

from improva.cli import main
from improva.core.artwork.traits import find_traits
from improva.core.design import Placement
from improva.store import Artworks, Database, Pairs
from improva.store.backup import BackupError, write_backup
from improva.store.database import MissingFileError
from improva.store.restore import read_backup
from tests.conftest import BLANK, art_of, quadrants


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    database = Database(tmp_path / "data")
    art = art_of(quadrants())
    row = Artworks(database).add("Fields", "fields.png", art, find_traits(art))
    Pairs(database).place(row.id, BLANK, {"wrap": Placement(scale=1.5)})
    (database.folder / "made" / "abc.png").write_bytes(b"a result")
    (database.folder / "made" / ".half~machine~1~x.png").write_bytes(b"somebody is writing this")
    scene = database.folder / "scenes" / "own-terrace"
    scene.mkdir(parents=True)
    (scene / "scene.toml").write_text("id = 'own-terrace'")
    return database.folder


def test_a_backup_restores_everything(folder: Path, tmp_path: Path) -> None:
    assert write_backup(folder, tmp_path / "all.zip") == 3
    assert read_backup(tmp_path / "all.zip", tmp_path / "again") == 3
    again = Database(tmp_path / "again")
    (row,) = Artworks(again).all()
    assert row.title == "Fields" and Artworks(again).open(row).data == art_of(quadrants()).data
    placement = Pairs(again).get(row.id, BLANK).placements["wrap"]
    assert isinstance(placement, Placement) and placement.scale == 1.5
    assert (again.folder / "made/abc.png").read_bytes() == b"a result" and (
        again.folder / "scenes/own-terrace/scene.toml"
    ).exists()
    assert not list((again.folder / "made").glob(".*"))


def test_a_backup_taken_during_writes_is_consistent(folder: Path, tmp_path: Path) -> None:
    database, ended = Database(folder), threading.Event()

    def write() -> None:
        number = 0
        while not ended.is_set():
            number += 1
            with database.writing() as connection:  # two rows that belong together
                for name in ("left", "right"):
                    connection.execute("INSERT OR REPLACE INTO setting VALUES (?, ?)", (name, str(number)))

    writer = threading.Thread(target=write)
    writer.start()
    try:
        for i in range(5):
            write_backup(folder, tmp_path / f"{i}.zip")
    finally:
        ended.set()
        writer.join()
    for i in range(5):
        read_backup(tmp_path / f"{i}.zip", tmp_path / f"again-{i}")
        again = Database(tmp_path / f"again-{i}")
        assert again.setting("left") == again.setting("right")


def altered(data: bytes, change) -> bytes:  # type: ignore[no-untyped-def]
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as source, zipfile.ZipFile(out, "w") as target:
        for name in source.namelist():
            for new_name, content in change(name, source.read(name)):
                target.writestr(new_name, content)
    return out.getvalue()


CHANGES = {
    "a blob that is not what it was": lambda n, d: [(n, d + b"!" if n.startswith("blobs/") else d)],
    "a file that is missing": lambda n, d: [] if n == "made/abc.png" else [(n, d)],
    "a name that leads out": lambda n, d: [("made/../../out.png" if n == "made/abc.png" else n, d)],
    "a name from the root": lambda n, d: [("/tmp/out.png" if n == "made/abc.png" else n, d)],
    "a folder that is none of ours": lambda n, d: [("bin/run" if n == "made/abc.png" else n, d)],
    "a database of something else": lambda n, d: [(n, b"SQLite format 3\0 not really" if n == "improva.sqlite" else d)],
    "no word of what it is": lambda n, d: [(n, b"{}" if n == "backup.json" else d)],
    "a newer kind": lambda n, d: [(n, json.dumps({"format": 9, "files": 3}).encode() if n == "backup.json" else d)],
    "no database": lambda n, d: [] if n == "improva.sqlite" else [(n, d)],
}


@pytest.mark.parametrize("change", CHANGES.values(), ids=CHANGES)
def test_a_damaged_backup_is_reported_and_nothing_is_written(folder: Path, tmp_path: Path, change) -> None:  # type: ignore[no-untyped-def]
    write_backup(folder, tmp_path / "all.zip")
    (tmp_path / "bad.zip").write_bytes(altered((tmp_path / "all.zip").read_bytes(), change))
    before = sorted(path.name for path in tmp_path.iterdir())
    with pytest.raises(BackupError):
        read_backup(tmp_path / "bad.zip", tmp_path / "again")
    assert sorted(path.name for path in tmp_path.iterdir()) == before


def hostile(folder: Path, path: Path, *sql: str, **more: bytes) -> Path:
    """A backup whose database was changed by SQL, with further files."""
    write_backup(folder, path)
    database = path.with_suffix(".sqlite")

    def change(name: str, data: bytes) -> list[tuple[str, bytes]]:
        if name == "backup.json":
            about = json.loads(data)
            return [(name, json.dumps({**about, "files": about["files"] + len(more)}).encode()), *more.items()]
        if name != "improva.sqlite":
            return [(name, data)]
        database.write_bytes(data)
        connection = sqlite3.connect(database)
        connection.execute("PRAGMA ignore_check_constraints = ON")
        for statement in sql:
            connection.execute(statement)
        connection.commit()
        connection.close()
        return [(name, database.read_bytes())]

    path.write_bytes(altered(path.read_bytes(), change))
    database.unlink()
    return path


ELSEWHERE = "../../../../../../../../etc/passwd"
HOSTILE = {
    "an artwork elsewhere": f"UPDATE artwork SET sha256 = '{ELSEWHERE}'",
    "a made file elsewhere": "INSERT INTO made_file (key, artwork_id, template_id, kind, placement_key, file_name) "
    f"VALUES ('{ELSEWHERE}', 1, 'mug-11oz', 'print', '', 'a.png')",
    "a pack elsewhere": f"INSERT INTO own_scene (template_id, panel_id, title, pack) VALUES ('mug-11oz', 'wrap', 'a', '{ELSEWHERE}')",
    "the folder of removed packs": "INSERT INTO own_scene (template_id, panel_id, title, pack) VALUES ('m', 'w', 'a', 'aside')",
    "facts of a wrong kind": "UPDATE artwork SET facts = '[]'",
    "facts that are not JSON": "UPDATE artwork SET facts = 'x'",
    "a placement of a wrong kind": """UPDATE placement SET placement = '{"wrap": {"fit": 7}}'""",
    "a row of nothing": "UPDATE placement SET artwork_id = 99",
    "a column of another name": "ALTER TABLE artwork RENAME COLUMN title TO name",
}


@pytest.mark.parametrize("sql", HOSTILE.values(), ids=HOSTILE)
def test_a_record_that_names_a_file_elsewhere_or_cannot_be_read_is_refused(folder: Path, tmp_path: Path, sql: str) -> None:
    bad = hostile(folder, tmp_path / "bad.zip", sql)
    before = sorted(path.name for path in tmp_path.iterdir())
    with pytest.raises(BackupError):
        read_backup(bad, tmp_path / "again")
    assert sorted(path.name for path in tmp_path.iterdir()) == before


def test_a_strangers_triggers_views_and_password_are_left_behind(folder: Path, tmp_path: Path) -> None:
    bad = hostile(
        folder,
        tmp_path / "bad.zip",
        "CREATE TRIGGER sly AFTER INSERT ON artwork BEGIN DELETE FROM setting; END",
        "CREATE VIEW peek AS SELECT * FROM artwork",
        "CREATE TABLE stowaway (a)",
    )
    read_backup(bad, tmp_path / "again")
    found = {name for (name,) in Database(tmp_path / "again").connection.execute("SELECT name FROM sqlite_master")}
    assert "artwork" in found and not {"sly", "peek", "stowaway"} & found
    with pytest.raises(BackupError, match="does not belong"):
        read_backup(hostile(folder, tmp_path / "more.zip", **{"access.json": b"{}"}), tmp_path / "more")


def test_a_backup_that_would_fill_the_disk_is_refused_before_it_is_unpacked(folder: Path, tmp_path: Path) -> None:
    write_backup(folder, tmp_path / "all.zip")
    bomb = tmp_path / "bomb.zip"
    with zipfile.ZipFile(tmp_path / "all.zip") as source, zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as target:
        for name in source.namelist():
            target.writestr(name, bytes(300_000_000) if name == "made/abc.png" else source.read(name))
    with pytest.raises(BackupError, match="far more than its size"):
        read_backup(bomb, tmp_path / "again")


def test_a_stored_name_stays_inside_the_data_folder(folder: Path) -> None:
    """Also where a record was changed by other means than a backup."""
    (folder.parent / "secret").write_bytes(b"secret")
    database = Database(folder)
    for name in ("../secret", "../../secret", "/etc/passwd", "", ".", "a/../../secret"):
        with pytest.raises(MissingFileError):
            database.blob(name)
        with pytest.raises(MissingFileError):
            database.made_path(name, ".png")


def test_a_missing_original_is_reported(folder: Path) -> None:
    with pytest.raises(MissingFileError, match="restore it from a backup"):
        Database(folder).blob("0" * 64)


def test_a_truncated_backup_and_a_file_that_is_not_a_zip_are_refused(folder: Path, tmp_path: Path) -> None:
    write_backup(folder, tmp_path / "all.zip")
    data = (tmp_path / "all.zip").read_bytes()
    for name, content in (("short.zip", data[: len(data) // 2]), ("text.zip", b"hello"), ("empty.zip", b"")):
        (tmp_path / name).write_bytes(content)
        with pytest.raises(BackupError):
            read_backup(tmp_path / name, tmp_path / "again")
    with pytest.raises(BackupError):
        read_backup(tmp_path / "nowhere.zip", tmp_path / "again")
    assert not (tmp_path / "again").exists()


def test_the_command_line_restores_and_never_overwrites(folder: Path, tmp_path: Path) -> None:
    def run(*asked: str) -> tuple[int, str]:
        said = CliRunner().invoke(main, asked)
        return said.exit_code, said.output

    file = str(tmp_path / "all.zip")
    assert run("backup", "--data", str(folder), "-o", file) == (0, f"{file}: the records and 3 files\n")
    code, said = run("restore", file, "--data", str(folder))
    assert code == 2 and "not empty" in said and Artworks(Database(folder)).all()
    assert run("restore", file, "--data", str(tmp_path / "new"))[0] == 0 and Artworks(Database(tmp_path / "new")).all()
    assert run("backup", "--data", str(tmp_path / "none"), "-o", file)[0] == 2
    assert run("backup", "--data", str(folder), "-o", str(tmp_path / "all.tar"))[0] == 2
