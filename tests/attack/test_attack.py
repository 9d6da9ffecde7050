"""The attack in short: a part of what ``make attack`` does."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

from tests.attack.api_calls import attack_api
from tests.attack.full_disk import SmallDisk, attack_full_disk, can_have_a_small_disk
from tests.attack.kills import attack_by_kills
from tests.attack.report import Report
from tests.attack.target import Target
from tests.attack.uploads import attack_uploads

SHARED_MACHINE = 4.0
"""Patience with answers while other tests run beside these."""


@pytest.fixture
def target(tmp_path: Path, demo_folder: Path) -> Iterator[Target]:
    made = Target(demo_folder, tmp_path, SHARED_MACHINE)
    made.start()
    yield made
    made.stop()


@pytest.mark.parametrize(
    "attack",
    [
        lambda target, keep: attack_uploads(target, 120, seed=3, keep=keep),
        lambda target, keep: attack_api(target, each=1, start=3),
        lambda target, keep: attack_by_kills(target, 2, seed=3),
    ],
    ids=["uploads", "calls", "kills"],
)
def test_an_attack_finds_nothing(target: Target, tmp_path: Path, attack: Callable[[Target, Path], Report]) -> None:
    report = attack(target, tmp_path / "kept")
    assert report.faults == [], "\n".join(report.lines())
    assert report.tried >= 2


@pytest.mark.skipif(not can_have_a_small_disk(), reason="a process may not have a file system of its own here")
def test_a_full_disk_stops_only_what_needs_room(tmp_path: Path, demo_folder: Path) -> None:
    disk = SmallDisk(demo_folder, tmp_path, SHARED_MACHINE)
    disk.start()
    try:
        report = attack_full_disk(disk, 40, seed=3)
    finally:
        disk.stop()
    assert report.faults == [], "\n".join(report.lines())
    assert report.statuses[507] > 0 and report.figures["artworks until it was full"] < 40


def test_a_report_finds_errors_slow_answers_and_growth() -> None:
    report = Report("any")
    for status, seconds in ((200, 0.1), (422, 9.9), (507, 1.0), (500, 0.1), (200, 10.1)):
        report.answered("it", status, seconds)
    report.grown(201)
    assert report.faults == ["it: 500", "it: 10.1 s", "the server has grown by 201 MB"] and report.tried == 5
