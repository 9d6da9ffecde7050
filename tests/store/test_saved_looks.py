"""Looks are kept by name, survive a restart, and are replaced and forgotten whole."""

from pathlib import Path

import pytest

from improva.store import Database, LookRow, Looks, Pairs

EVENING = LookRow(
    "Evening", {"shots": [{"scene_id": "a", "view": "front"}], "grade": {"warmth": 0.4}}, {"lid": "Ink", "table": None}
)


@pytest.fixture
def looks(tmp_path: Path) -> Looks:
    return Looks(Database(tmp_path))


def test_a_look_comes_back_as_it_was_kept(looks: Looks, tmp_path: Path) -> None:
    looks.keep(EVENING)
    assert looks.all() == [EVENING] and Looks(Database(tmp_path)).all() == [EVENING]


def test_the_same_name_replaces_and_another_stands_beside(looks: Looks) -> None:
    looks.keep(EVENING)
    looks.keep(LookRow("Evening", {"shots": []}, {}))
    looks.keep(LookRow("autumn ö", {}, {}))
    assert [look.name for look in looks.all()] == ["autumn ö", "Evening"]  # by name, capitals or not
    assert looks.all()[1].showing == {"shots": []}


def test_a_forgotten_look_is_gone_and_the_others_stay(looks: Looks) -> None:
    looks.keep(EVENING)
    looks.keep(LookRow("Noon", {}, {}))
    looks.forget("Evening")
    looks.forget("never was")
    assert [look.name for look in looks.all()] == ["Noon"]


def test_a_pairs_choices_are_kept_beside_its_other_ones(tmp_path: Path) -> None:
    from tests.conftest import art_of, quadrants

    database = Database(tmp_path)
    from improva.core.artwork.traits import find_traits
    from improva.store import Artworks

    art = art_of(quadrants())
    row = Artworks(database).add("Fields", "fields.png", art, find_traits(art.proxy()))
    pairs = Pairs(database)
    pairs.set_choices(row.id, "mug-11oz", "upload", 12.0, {"handle": "Pine"})
    pairs.set_showing(row.id, "mug-11oz", {"format": "webp"})
    found = pairs.get(row.id, "mug-11oz")
    assert (found.showing, found.angle, found.colours) == ({"format": "webp"}, 12.0, {"handle": "Pine"})


def test_a_folder_of_an_earlier_version_gets_what_it_lacks(tmp_path: Path) -> None:
    first = Database(tmp_path)
    first.connection.execute("ALTER TABLE pair DROP COLUMN showing")
    first.connection.execute("DROP TABLE look")
    second = Database(tmp_path)
    columns = {row[1] for row in second.connection.execute("PRAGMA table_info(pair)")}
    assert "showing" in columns and Looks(second).all() == []
