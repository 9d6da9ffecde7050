"""The application in this process."""

from __future__ import annotations

import pytest

from improva.work.darkroom import Darkroom

DARKROOM = Darkroom()


@pytest.fixture(autouse=True)
def one_darkroom(monkeypatch: pytest.MonkeyPatch) -> None:
    """Scenes are opened once for all tests of a process: they are kept by their content, whatever the data folder."""
    monkeypatch.setattr("improva.web.desk.Darkroom", lambda: DARKROOM)
