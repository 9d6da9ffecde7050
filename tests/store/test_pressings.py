"""Presses, makers' figures and the log, as they are stored."""

from pathlib import Path
from typing import Any

import pytest

from improva.core.artwork.traits import find_traits
from improva.core.press import Figures, Pressing
from improva.store import ArtRow, Artworks, Database, Pressings, PressRow
from tests.conftest import art_of, quadrants

GLOSS = ("tumbler-20oz-straight", "gloss", "tumbler")
FIGURES = Figures(196, 55)


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path)


@pytest.fixture
def art(database: Database) -> ArtRow:
    picture = art_of(quadrants())
    return Artworks(database).add("A", "a.png", picture, find_traits(picture))


def add(pressings: Pressings, art: ArtRow, on: str, result: str = "good", press: str = "Press", **more: Any) -> int:
    pressing = Pressing(0, on, FIGURES, result, **more)  # type: ignore[arg-type]
    return pressings.add(*GLOSS, press, art.id, pressing)  # type: ignore[arg-type]


def test_the_log_is_per_blank_finish_and_press_newest_first(database: Database, art: ArtRow) -> None:
    pressings = Pressings(database)
    old = add(pressings, art, "2026-05-01", "usable", faults=("pale", "specks"), note="damp day")
    new = add(pressings, art, "2026-05-09")
    same_day = add(pressings, art, "2026-05-09")
    add(pressings, art, "2026-05-10", press="Another")
    log = pressings.log(*GLOSS, "Press")  # type: ignore[arg-type]
    assert [row.pressing.id for row in log] == [same_day, new, old]
    assert log[-1].pressing == Pressing(old, "2026-05-01", FIGURES, "usable", ("pale", "specks"), "damp day")
    assert pressings.log(GLOSS[0], "matte", "tumbler", "Press") == []


def test_a_removed_entry_no_longer_counts(database: Database, art: ArtRow) -> None:
    pressings = Pressings(database)
    spoiled = add(pressings, art, "2026-05-01", "spoiled")
    assert pressings.pressed() == set()
    good = add(pressings, art, "2026-05-02")
    assert pressings.pressed() == {(art.id, GLOSS[0])}
    pressings.remove(good)
    assert pressings.pressed() == set()
    assert [row.pressing.id for row in pressings.log(*GLOSS, "Press")] == [spoiled]  # type: ignore[arg-type]


def test_photographs_are_stored_by_content(database: Database, art: ArtRow) -> None:
    pressings = Pressings(database)
    first, second = add(pressings, art, "2026-05-01"), add(pressings, art, "2026-05-02")
    for entry in (first, second):
        assert pressings.photo(entry) is None
        pressings.keep_photo(entry, b"the same photograph")
    sha256 = pressings.photo(first)
    assert sha256 is not None and sha256 == pressings.photo(second) and database.blob(sha256) == b"the same photograph"
    assert pressings.photo(99) is None


def test_makers_figures_are_per_blank_finish_and_press(database: Database) -> None:
    pressings = Pressings(database)
    figures = Figures(190, 60, "medium", 20, 10, 30, "maker", "the leaflet")
    pressings.keep_maker(*GLOSS, figures)  # type: ignore[arg-type]
    assert pressings.maker(*GLOSS) == figures and pressings.maker(GLOSS[0], "matte", "tumbler") is None  # type: ignore[arg-type]
    pressings.keep_maker(*GLOSS, None)  # type: ignore[arg-type]
    assert pressings.maker(*GLOSS) is None  # type: ignore[arg-type]


def test_presses_are_known_by_name(database: Database) -> None:
    pressings = Pressings(database)
    pressings.keep_press(PressRow("Large", "flat", (400, 500)))
    pressings.keep_press(PressRow("Clam", "flat", (381, 381)))
    pressings.keep_press(PressRow("Large", "flat", (410, 510)))
    assert [(p.name, p.platen_mm) for p in pressings.presses("flat")] == [("Clam", (381, 381)), ("Large", (410, 510))]
    assert pressings.presses("mug") == []


def test_settings_and_print_options_are_stored(database: Database, art: ArtRow) -> None:
    from improva.store import Pairs

    database.keep_setting("gang-sheet", {"items": [1, 2]})
    database.keep_setting("gang-sheet", {"items": []})
    assert database.setting("gang-sheet") == {"items": []} and database.setting("nothing") is None
    pairs = Pairs(database)
    pairs.set_printing(art.id, "mug-11oz", {"dpi": 150})
    pairs.set_choices(art.id, "mug-11oz", "press", 30, {})
    row = pairs.get(art.id, "mug-11oz")
    assert row.printing == {"dpi": 150} and row.route == "press" and row.placements == {}


def test_unfinished_files_of_killed_processes_are_removed_and_those_of_living_ones_stay(
    database: Database, tmp_path: Path
) -> None:
    import os
    import platform
    import subprocess

    gone = subprocess.Popen(["true"])
    gone.wait()
    made = tmp_path / "made"
    node = platform.node()[:40]
    dead, alive = made / f".print~{node}~{gone.pid}~x.png", made / f".print~{node}~{os.getpid()}~x.png"
    elsewhere, folder = made / ".print~another-machine~1~x.png", made / f".gang~{node}~{gone.pid}~d"
    for path in (dead, alive, elsewhere, made / "kept.png"):
        path.write_bytes(b"half")
    folder.mkdir()
    (folder / "0.v").write_bytes(b"half")
    database.sweep()
    assert sorted(p.name for p in made.iterdir()) == sorted([alive.name, elsewhere.name, "kept.png"])
