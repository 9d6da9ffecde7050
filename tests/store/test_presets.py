"""Presets are saved by name, survive a restart, and are replaced and deleted whole."""

from pathlib import Path

import pytest

from improva.store import Database, Pairs, PresetRow, Presets
from tests.store.old import database_of_version_1

EVENING = PresetRow(
    "Evening", {"shots": [{"scene_id": "a", "view": "front"}], "grade": {"warmth": 0.4}}, {"lid": "Ink", "table": None}
)


@pytest.fixture
def looks(tmp_path: Path) -> Presets:
    return Presets(Database(tmp_path))


def test_a_preset_is_loaded_as_it_was_saved(looks: Presets, tmp_path: Path) -> None:
    looks.keep(EVENING)
    assert looks.all() == [EVENING] and Presets(Database(tmp_path)).all() == [EVENING]


def test_an_equal_name_replaces_and_another_name_adds(looks: Presets) -> None:
    looks.keep(EVENING)
    looks.keep(PresetRow("Evening", {"shots": []}, {}))
    looks.keep(PresetRow("autumn ö", {}, {}))
    assert [look.name for look in looks.all()] == ["autumn ö", "Evening"]  # by name, capitals or not
    assert looks.all()[1].mockup_settings == {"shots": []}


def test_a_deleted_preset_is_gone_and_the_others_stay(looks: Presets) -> None:
    looks.keep(EVENING)
    looks.keep(PresetRow("Noon", {}, {}))
    looks.forget("Evening")
    looks.forget("never was")
    assert [look.name for look in looks.all()] == ["Noon"]


def test_mock_up_choices_do_not_disturb_other_settings_of_a_pair(tmp_path: Path) -> None:
    from tests.conftest import art_of, quadrants

    database = Database(tmp_path)
    from improva.core.artwork.traits import find_traits
    from improva.store import Artworks

    art = art_of(quadrants())
    row = Artworks(database).add("Fields", "fields.png", art, find_traits(art.proxy()))
    pairs = Pairs(database)
    pairs.set_choices(row.id, "mug-11oz", "upload", 12.0, {"handle": "Pine"})
    pairs.set_mockup_settings(row.id, "mug-11oz", {"format": "webp"})
    found = pairs.get(row.id, "mug-11oz")
    assert (found.mockup_settings, found.angle, found.colours) == ({"format": "webp"}, 12.0, {"handle": "Pine"})


def test_a_folder_of_an_earlier_version_is_upgraded(tmp_path: Path) -> None:
    first = database_of_version_1(tmp_path)
    first.executescript("ALTER TABLE pair DROP COLUMN showing; DROP TABLE look; PRAGMA user_version = 0;")
    first.close()
    second = Database(tmp_path)
    columns = {row[1] for row in second.connection.execute("PRAGMA table_info(pair)")}
    assert "mockup_settings" in columns and Presets(second).all() == []
