"""The application in this process."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from improva.app.render_cache import RenderCache
from improva.web.app import create_app
from tests.web.client import ApiClient, client_of

RENDER_CACHE = RenderCache()


@pytest.fixture(autouse=True)
def one_render_cache(monkeypatch: pytest.MonkeyPatch) -> None:
    """Open scenes once for all tests of a process; their cache keys depend on content and not on the data folder."""
    monkeypatch.setattr("improva.app.services.RenderCache", lambda: RENDER_CACHE)


@pytest.fixture
def client(tmp_path: Path) -> Iterator[ApiClient]:
    app = create_app(tmp_path / "data")
    yield client_of(app)
    app.extensions["jobs"].close()
