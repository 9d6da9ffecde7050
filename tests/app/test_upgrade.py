"""Data folders of version 0.1 have the same meaning in this version."""

from __future__ import annotations

from pathlib import Path

import pytest

from improva.app.pair import Pair
from improva.app.services import Services
from improva.core.pieces import Overlay
from improva.store.restore import read_backup
from tests.store.test_migrations import RANGE_0_1

BLANK = "tumbler-20oz-straight"


@pytest.fixture
def services(tmp_path: Path) -> Services:
    read_backup(RANGE_0_1, tmp_path / "range")
    return Services.of_folder(tmp_path / "range")


@pytest.fixture
def pair(services: Services) -> Pair:
    return services.pairs.load(1, BLANK)


def test_files_made_by_version_0_1_still_count_as_made(services: Services, pair: Pair) -> None:
    assert services.store.made_files.kinds(*pair.ids, pair.placement_key) == {"print"}
    (made,) = services.store.made_files.all()
    found = services.store.made_files.named(made["key"])
    assert found is not None and found[1].stat().st_size > 1000


def test_settings_of_version_0_1_are_loaded(services: Services, pair: Pair) -> None:
    content = pair.placement(pair.template.panels[0])
    assert content is not None and content.scale == pytest.approx(1.1) and not pair.mirrored
    _, _, overlay, _ = pair.pieces_on(pair.template.panels[0]).extras
    assert isinstance(overlay, Overlay) and overlay.placement.scale == 0.5
    assert services.store.presets.all()[0].name == "Evening"
    assert services.preflight.report(pair)["panels"]["wrap"]["checks"]


def test_keys_stored_by_a_later_version_are_ignored(services: Services, pair: Pair) -> None:
    """An earlier version answered an unknown stored key with an error."""
    row = pair.row
    pieces = [{**piece, "shimmer": 3} for piece in row.pieces["wrap"]]
    services.store.pairs.place(*pair.ids, {}, {"wrap": pieces})
    services.store.pairs.set_printing(*pair.ids, {**row.printing, "varnish": "matte"})
    services.store.pairs.set_mockup_settings(*pair.ids, {**row.mockup_settings, "fog": {"density": 1}})
    with services.store.database.writing() as connection:
        connection.execute(
            "UPDATE placement SET placement = json_set(placement, '$.wrap.tilt', 4) WHERE artwork_id = ? AND template_id = ?",
            pair.ids,
        )
    again = services.pairs.load(*pair.ids)
    assert len(again.pieces_on(again.template.panels[0]).extras) == 4
    assert services.preflight.report(again)["verdict"] in ("pass", "warn", "fail")
