import os
from pathlib import Path

import pytest

from improva.store.cache_folder import CacheFolder


def test_files_that_were_not_used_for_longest_are_removed_first(tmp_path: Path) -> None:
    cache = CacheFolder(tmp_path / "cache", capacity=250)
    for age, name in enumerate(("newest", "middle", "oldest")):
        cache.keep(name, bytes(100))
        os.utime(tmp_path / "cache" / name, (1000 - age, 1000 - age))
    assert cache.read("oldest") == bytes(100)  # now it is the one that was used last
    cache.trim()
    assert cache.read("middle") is None
    assert cache.read("newest") is not None and cache.read("oldest") is not None


def test_a_folder_that_cannot_be_written_keeps_nothing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(*_: object, **__: object) -> None:
        raise OSError(28, "No space left on device")

    cache = CacheFolder(tmp_path / "cache")
    monkeypatch.setattr("tempfile.mkstemp", full)
    cache.keep("name", b"data")
    assert cache.read("name") is None
    cache.trim()
