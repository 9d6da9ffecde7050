"""A full disk: the board can still be read, and what cannot be written is answered with one sentence."""

import errno
import io
import os
from dataclasses import replace
from typing import Any

import pytest
from PIL import Image

from improva.core.preparation import Preparation, Step
from tests.conftest import BLANK, encoded
from tests.web.client import ApiClient
from tests.web.helpers import at, drop, placement


@pytest.fixture
def full_disk(client: ApiClient, monkeypatch: pytest.MonkeyPatch) -> dict[str, Any]:
    """A board with one artwork, whose disk is full from now on: its database cannot grow, and no file can be made."""
    art = drop(client)
    database = client.application.extensions["services"].store.database
    database.connection.execute("CREATE TABLE filler (x)")
    pages = database.connection.execute("PRAGMA page_count").fetchone()[0]
    database.connection.execute(f"PRAGMA max_page_count = {pages}")
    with pytest.raises(Exception, match="full"):
        database.connection.execute("INSERT INTO filler VALUES (zeroblob(9000000))")

    def no_space(*_: Any, **__: Any) -> Any:
        raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))

    monkeypatch.setattr("improva.io.atomic.tempfile.mkstemp", no_space)
    monkeypatch.setattr("improva.io.atomic.tempfile.mkdtemp", no_space)
    return art


def test_the_board_can_be_read(client: ApiClient, full_disk: dict[str, Any]) -> None:
    assert client.get("/api/board").status_code == 200
    cell = client.get(f"/api/board/{full_disk['id']}/{BLANK}")
    assert cell.status_code == 200 and client.get(cell.json["shown"]).mimetype == "image/jpeg"
    for address in (
        at(full_disk),
        at(full_disk, "/mockup-settings"),
        at(full_disk, "/listing"),
        "/api/blanks",
        "/api/search?words=a",
    ):
        assert client.get(address).status_code == 200, address


def test_an_artwork_whose_preparation_finds_no_room_stays_on_the_board(client: ApiClient, full_disk: dict[str, Any]) -> None:
    services = client.application.extensions["services"]
    row = services.artworks.imported(full_disk["id"])
    prepared = replace(row, preparation=Preparation((Step("turn", {"degrees": 90}),)))
    (shown,) = [services.artworks._prepared_if_there_is_room(prepared)]
    assert shown.sha256 == row.sha256 and "disk is full" in shown.facts.notes[-1]


def test_what_cannot_be_written_is_answered_with_a_sentence(client: ApiClient, full_disk: dict[str, Any]) -> None:
    file = (io.BytesIO(encoded(Image.new("RGB", (90, 70)))), "new.png")
    dropped = client.post("/api/artworks", data={"file": file})
    large = client.put(f"/api/artworks/{full_disk['id']}/licence", data={"file": (io.BytesIO(b"a licence"), "licence.txt")})
    for answer in (dropped, large):
        assert answer.status_code == 507 and "disk is full" in answer.json["detail"], answer.text


def test_a_change_that_finds_no_room_is_not_half_stored(client: ApiClient, full_disk: dict[str, Any]) -> None:
    change = placement(background="#123456")
    answers = [client.put(at(full_disk, "/placement"), json={**change, "scale": 1 + n / 50}) for n in range(60)]
    failed = [answer for answer in answers if answer.status_code != 200]
    assert failed and all(answer.status_code == 507 and "Nothing was changed" in answer.json["detail"] for answer in failed)
    last = max((n for n, answer in enumerate(answers) if answer.status_code == 200), default=None)
    scale = client.get(at(full_disk)).json["placement"]["scale"]
    assert scale == (1 if last is None else 1 + last / 50)
