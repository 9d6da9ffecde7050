import os
from pathlib import Path
from types import SimpleNamespace

import pytest

from improva.store.cache_folder import LEAST_FREE, CacheFolder


def test_files_that_were_not_used_for_longest_are_removed_first(tmp_path: Path) -> None:
    cache = CacheFolder(tmp_path / "cache", capacity=250)
    for age, name in enumerate(("newest", "middle", "oldest")):
        cache.keep(name, bytes(100))
        os.utime(tmp_path / "cache" / name, (1000 - age, 1000 - age))
    assert cache.read("oldest") == bytes(100)  # now it is the one that was used last
    cache.trim()
    assert cache.read("middle") is None
    assert cache.read("newest") is not None and cache.read("oldest") is not None


def test_the_last_room_on_a_disk_is_left_to_what_cannot_be_made_again(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    cache = CacheFolder(tmp_path / "cache")
    monkeypatch.setattr("shutil.disk_usage", lambda _: SimpleNamespace(free=LEAST_FREE - 1))
    cache.keep("name", b"data")
    assert cache.read("name") is None
    monkeypatch.setattr("shutil.disk_usage", lambda _: SimpleNamespace(free=LEAST_FREE))
    cache.keep("name", b"data")
    assert cache.read("name") == b"data"


def test_a_folder_that_cannot_be_written_keeps_nothing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(*_: object, **__: object) -> None:
        raise OSError(28, "No space left on device")

    cache = CacheFolder(tmp_path / "cache")
    monkeypatch.setattr("tempfile.mkstemp", full)
    cache.keep("name", b"data")
    assert cache.read("name") is None
    cache.trim()
