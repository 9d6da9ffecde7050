from pathlib import Path
from typing import Any
from zipfile import ZipFile

import numpy as np
import pytest
from PIL import Image

from improva.app.services import Services
from improva.core.artwork.pixels import as_array
from improva.sandbox import Here, Reply, Task
from improva.store.backup import write_backup
from tests.conftest import encoded, quadrants

OPAQUE = quadrants(300, 200)
CUTOUT = np.dstack([OPAQUE, np.linspace(0, 255, 60_000).reshape(200, 300).astype(np.uint8)])


def png(pixels: np.ndarray) -> bytes:
    return encoded(Image.fromarray(pixels))


class Counting(Here):
    """Reads files in this process, and counts them."""

    def __init__(self) -> None:
        self.count = 0

    def read(self, task: Task, data: bytes, *arguments: Any) -> Reply:
        self.count += 1
        return super().read(task, data, *arguments)


def first_of(folder: Path) -> tuple[Services, Counting]:
    reader = Counting()
    return Services.of_folder(folder, reader), reader


@pytest.mark.parametrize("file", [png(OPAQUE), png(CUTOUT)], ids=["opaque", "with alpha"])
def test_a_proxy_is_decoded_once_for_all_starts(tmp_path: Path, file: bytes) -> None:
    added = first_of(tmp_path)[0].artworks.add("art.png", file)
    second, reader = first_of(tmp_path)
    decoded = second.artworks.proxy(added)
    third, later = first_of(tmp_path)
    kept = third.artworks.proxy(added)
    assert (reader.count, later.count) == (1, 0)
    assert kept.facts == decoded.facts == added.facts
    np.testing.assert_array_equal(as_array(kept.image()), as_array(decoded.image()))


def test_a_proxy_that_is_damaged_on_the_disk_is_made_again(tmp_path: Path) -> None:
    added = first_of(tmp_path)[0].artworks.add("art.png", png(CUTOUT))
    decoded = first_of(tmp_path)[0].artworks.proxy(added)
    [file] = (tmp_path / "cache").iterdir()
    file.write_bytes(file.read_bytes()[:-300])
    again, reader = first_of(tmp_path)
    np.testing.assert_array_equal(as_array(again.artworks.proxy(added).image()), as_array(decoded.image()))
    assert reader.count == 1
    third, later = first_of(tmp_path)
    third.artworks.proxy(added)
    assert later.count == 0


def test_a_backup_leaves_the_cache_out(tmp_path: Path) -> None:
    services, _ = first_of(tmp_path / "data")
    first_of(tmp_path / "data")[0].artworks.proxy(services.artworks.add("art.png", png(CUTOUT)))
    write_backup(tmp_path / "data", tmp_path / "backup.zip")
    assert not [name for name in ZipFile(tmp_path / "backup.zip").namelist() if "cache" in name]
