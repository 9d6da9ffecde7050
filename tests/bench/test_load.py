"""The load of a few people for two seconds: everybody is answered. Its times belong to ``improva bench``."""

from pathlib import Path

from improva.bench.load import MIX, times_under_load


def test_every_kind_of_request_is_answered(demo_folder: Path) -> None:
    times = times_under_load(people=6, seconds=4.0, pause_s=(0.1, 0.4), demo=demo_folder)
    assert set(times) == set(MIX) and sum(len(each) for each in times.values()) >= 12
    assert all(took > 0 for each in times.values() for took in each)
