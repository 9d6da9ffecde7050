"""No stored result outlives the code that made it."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from improva import stages
from improva.core.preflight import report as checks
from improva.web.app import create_app
from tests.web.client import ApiClient, client_of
from tests.web.helpers import drop
from tests.web.sewn import smooth

BLANK = "tumbler-20oz-straight"


def test_the_recorded_fingerprints_match_the_code() -> None:
    """If this fails: `make stages` gives every changed stage a new version; `make stages SAME="stage"` keeps the version of
    a stage.
    """
    assert stages.changed() == []


def test_a_changed_stage_has_another_fingerprint_and_a_new_version(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    package = tmp_path / "improva"
    for path in stages.files_of(stages.SOURCES["checks"]):
        copy = package / path.relative_to(stages.ROOT)
        copy.parent.mkdir(parents=True, exist_ok=True)
        copy.write_bytes(path.read_bytes())
    record = package / "stages.json"
    monkeypatch.setattr(stages, "ROOT", package)
    monkeypatch.setattr(stages, "RECORD", record)
    monkeypatch.setattr(stages, "SOURCES", {"checks": stages.SOURCES["checks"]})
    record.write_text(json.dumps({"checks": {"version": 3, "fingerprint": stages.fingerprint("checks")}}))
    stages._record.cache_clear()
    limits = package / "core" / "limits.py"
    limits.write_text("# a remark\n" + limits.read_text().replace('"""', '"""Other words. ', 1))
    assert stages.changed() == [], "comments, docstrings and white space make no other results"
    limits.write_text(limits.read_text() + "\nLIMITS.clear()\n")
    assert stages.changed() == ["checks"]
    stages.record(same=[])
    assert json.loads(record.read_text())["checks"]["version"] == 4
    stages._record.cache_clear()
    limits.write_text(limits.read_text() + "\nMORE = 1\n")
    stages.record(same=["checks"])
    kept = json.loads(record.read_text())["checks"]
    assert kept["version"] == 4 and kept["fingerprint"] == stages.fingerprint("checks")
    stages._record.cache_clear()


SOURCE = 'def f(a):\n    if a:\n        b = 1\n        a = 2\n    return "# no comment"\n'


@pytest.mark.parametrize(
    "same",
    [
        '"""Doc."""\n' + SOURCE,
        SOURCE.replace("    if a", '    """More."""\n    if a'),
        SOURCE.replace("(a)", "(\n    a\n)").replace("b = 1", "b = 1  # why"),
    ],
)
def test_comments_docstrings_and_layout_do_not_count_as_code(same: str) -> None:
    assert stages.bare_code(same) == stages.bare_code(SOURCE)


@pytest.mark.parametrize(
    "other", [SOURCE.replace("        a = 2", "    a = 2"), SOURCE.replace("# no", "#no"), SOURCE.replace("= 1", "= 1.0")]
)
def test_blocks_strings_and_numbers_count_as_code(other: str) -> None:
    assert stages.bare_code(other) != stages.bare_code(SOURCE)


@pytest.fixture
def client(tmp_path: Path) -> ApiClient:
    return client_of(create_app(tmp_path))


def test_an_old_folder_is_checked_again_by_new_checks(
    client: ApiClient, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """An earlier version answered 16 stored checks although the code had none: its keys depended on a constant package
    version.
    """
    art = drop(client, smooth(), "field.png")["id"]
    address = f"/api/pairs/{art}/{BLANK}"
    assert len(client.get(address).json["report"]["checks"]) > 8
    monkeypatch.setattr(checks, "CHECKS", ())
    record = {**stages._record(), "checks": {"version": 10_000, "fingerprint": ""}}
    monkeypatch.setattr(stages, "_record", lambda: record)
    assert client_of(create_app(tmp_path)).get(address).json["report"]["checks"] == []


def test_every_stage_is_part_of_some_key() -> None:
    used = "".join(path.read_text() for path in (stages.ROOT / "app").glob("*.py"))
    assert [stage for stage in stages.SOURCES if f'"{stage}"' not in used] == []
