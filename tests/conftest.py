"""Pictures of known content, and the one blank there is."""

from __future__ import annotations

import fcntl
import io
import os
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import settings
from PIL import Image

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork
from improva.core.artwork.traits import Traits, find_traits
from improva.core.design import Design, Piece, Placement
from improva.core.template import Template
from improva.demo import lay_out
from improva.store import Database

BLANK = "tumbler-20oz-straight"
W, H = 465, 410
"""Pixels in the proportions of the wrap, 50 a printed inch."""


def encoded(picture: Image.Image, kind: str = "PNG", **options: Any) -> bytes:
    file = io.BytesIO()
    picture.save(file, kind, **options)
    return file.getvalue()


def quadrants(w: int = W, h: int = H) -> np.ndarray:
    """Red top left, green top right, blue bottom left, white bottom right: (h, w, 3)."""
    picture = np.full((h, w, 3), 255, np.uint8)
    picture[: h // 2, : w // 2] = (220, 30, 30)
    picture[: h // 2, w // 2 :] = (30, 160, 60)
    picture[h // 2 :, : w // 2] = (30, 60, 200)
    return picture


def closed_wave(w: int = W, h: int = H, broken: bool = False) -> np.ndarray:
    """A picture whose left and right edges match by construction; or do not, if ``broken``."""
    turn = 2 * np.pi * np.arange(w) / w * (0.5 if broken else 1)
    down = np.linspace(0, 1, h)[:, None]
    return (
        np.stack(
            [
                128 + 90 * np.cos(turn)[None] * (1 - down),
                120 + 80 * np.sin(turn if not broken else turn + 0.8)[None] + 0 * down,
                90 + 100 * down + 0 * turn[None],
            ],
            -1,
        )
        .clip(0, 255)
        .astype(np.uint8)
    )


def art_of(pixels: np.ndarray, **options: Any) -> Artwork:
    return Artwork.read(encoded(Image.fromarray(pixels), **options))


settings.register_profile("busy", deadline=None)  # a machine busy with other tests says nothing of a function's speed
settings.load_profile("busy")

_traits = cache(find_traits)


def traits_of(art: Artwork) -> Traits:
    """The measured traits of an artwork, cached: most tests check the same few pictures."""
    return _traits(art) if art.decoded is None else find_traits(art)


@pytest.fixture
def tumbler() -> Template:
    return template(BLANK)


@pytest.fixture
def design_of(tumbler: Template) -> Callable[..., Design]:
    def make(art: Artwork, **placement: Any) -> Design:
        return Design(tumbler, tumbler.panel(), (Piece("art", art.facts.size, Placement(**placement)),))

    return make


@pytest.fixture
def art_file(tmp_path: Path) -> Path:
    path = tmp_path / "quadrants.png"
    path.write_bytes(encoded(Image.fromarray(quadrants(2790, 2460)), dpi=(300, 300)))
    return path


@pytest.fixture(scope="session")
def demo_folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data folder with the demo, created once for all workers of a test run. Copy it before changing it."""
    base = tmp_path_factory.getbasetemp()
    root = base.parent if "PYTEST_XDIST_WORKER" in os.environ else base
    folder, part = root / "demo-range", root / "demo-range.part"
    with (root / "demo-range.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not folder.exists():
            database = Database(part)
            lay_out(database)
            database.connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            database.connection.close()
            part.rename(folder)
    return folder
