"""The seller's own packs appear complete or not at all, and removing them loses nothing."""

from __future__ import annotations

from pathlib import Path

import pytest

from improva.core.errors import SceneError
from improva.io.atomic import temporary_prefix
from improva.store import Database, OwnScenes
from improva.store.database import MissingFileError


@pytest.fixture
def own(tmp_path: Path) -> OwnScenes:
    return OwnScenes(Database(tmp_path))


def write(text: str):  # type: ignore[no-untyped-def]
    return lambda folder: (folder / "scene.toml").write_text(text)


def held(own: OwnScenes, name: str = "own-mug-1") -> str | None:
    path = own.folder / name / "scene.toml"
    return path.read_text() if path.exists() else None


def test_a_pack_is_stored_and_replaced(own: OwnScenes) -> None:
    own.put_pack("own-mug-1", write("first"))
    own.put_pack("own-mug-1", write("second"))
    assert held(own) == "second" and sorted(p.name for p in own.folder.iterdir()) == ["aside", "own-mug-1"]


def test_a_failed_write_leaves_the_earlier_pack(own: OwnScenes) -> None:
    own.put_pack("own-mug-1", write("first"))

    def fails(folder: Path) -> None:
        (folder / "scene.toml").write_text("half")
        raise OSError("the disk is full")

    with pytest.raises(OSError, match="full"):
        own.put_pack("own-mug-1", fails)
    assert held(own) == "first" and sorted(p.name for p in own.folder.iterdir()) == ["aside", "own-mug-1"]


def test_unfinished_packs_of_a_killed_process_are_removed(own: OwnScenes, tmp_path: Path) -> None:
    dead = temporary_prefix("own-mug-1").rsplit("~", 2)[0] + "~999999999~abc"
    (own.folder / dead).mkdir()
    (own.folder / dead / "passes.exr").write_bytes(b"half")
    OwnScenes(Database(tmp_path))
    assert not (own.folder / dead).exists()


def test_marks_are_kept_with_the_scene(own: OwnScenes) -> None:
    row = own.add(None, "mug-11oz", "wrap", "My mug")
    own.mark(row.id, "wrap", "Our mug", {"points": [[0.1, 0.2]], "colour": "#ffffff"})
    again = own.get(row.id)
    assert again is not None and again.title == "Our mug" and again.marks["points"] == [[0.1, 0.2]] and again.pack is None
    own.set_pack(row.id, "own-mug-1")
    assert [r.pack for r in own.all()] == ["own-mug-1"] and own.get(99) is None


def test_a_removed_scene_keeps_its_pack_for_undo(own: OwnScenes) -> None:
    row = own.add(None, "mug-11oz", "wrap", "My mug", "own-mug-1")
    own.put_pack("own-mug-1", write("first"))
    own.set_removed(row, True)
    assert held(own) is None and own.all() == []
    assert (own.folder / "aside" / f"row {row.id}" / "scene.toml").read_text() == "first"
    own.set_removed(row, True)  # twice is as once
    own.set_removed(row, False)
    assert held(own) == "first" and [r.id for r in own.all()] == [row.id]


def test_a_scene_without_a_pack_can_be_removed(own: OwnScenes) -> None:
    row = own.add(None, "mug-11oz", "wrap", "My mug")
    own.set_removed(row, True)
    assert own.all() == []
    own.set_removed(row, False)
    assert [r.id for r in own.all()] == [row.id]


def test_removed_packs_of_one_id_do_not_destroy_each_other(own: OwnScenes) -> None:
    rows = []
    for text in ("first", "second"):
        rows.append(own.add(None, "mug-11oz", "wrap", "A mug", "terrace"))
        own.put_pack("terrace", write(text))
        own.set_removed(rows[-1], True)
    own.set_removed(rows[0], False)
    assert held(own, "terrace") == "first"
    with pytest.raises(SceneError, match="another scene 'terrace'"):
        own.set_removed(rows[1], False)
    own.set_removed(rows[0], True)
    own.set_removed(rows[1], False)
    assert held(own, "terrace") == "second"


@pytest.mark.parametrize("removed", [True, False])
def test_a_pack_is_where_its_row_says_after_a_kill_between_the_two(own: OwnScenes, removed: bool) -> None:
    row = own.add(None, "mug-11oz", "wrap", "My mug", "own-mug-1")
    own.put_pack("own-mug-1", write("first"))
    own.set_removed(row, not removed)
    database = Database(own.folder.parent)
    with database.writing() as connection:
        connection.execute("UPDATE own_scene SET removed_at = ?", ("2026-11-01" if removed else None,))
    assert held(OwnScenes(database)) == (None if removed else "first")


def test_a_pack_set_aside_by_an_earlier_version_is_found(own: OwnScenes) -> None:
    row = own.add(None, "mug-11oz", "wrap", "My mug", "own-mug-1")
    own.put_pack("own-mug-1", write("first"))
    own.set_removed(row, True)
    (own.folder / "aside" / f"row {row.id}").rename(own.folder / "aside" / "own-mug-1")
    again = OwnScenes(Database(own.folder.parent))
    again.set_removed(row, False)
    assert held(again) == "first"


@pytest.mark.parametrize("pack", ["..", "../blobs", "/tmp/elsewhere", "aside", "", "a/b", "A", "x\0"])
def test_a_stored_name_of_a_pack_stays_in_the_folder(own: OwnScenes, pack: str) -> None:
    with pytest.raises(MissingFileError):
        own.put_pack(pack, write("x"))
    with pytest.raises(MissingFileError):
        own.set_removed(own.add(None, "mug-11oz", "wrap", "My mug", pack), True)
