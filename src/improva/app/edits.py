"""Edits of two people, or in two windows, at the same time: none replaces the other's unseen."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from ..store import Database
from ..store.database import key_of
from .errors import StaleEditError


def edit_key(stored: Any) -> str:
    """Return the key of a stored state, any JSON value. A page sends it back as what its edit is based on."""
    return key_of("edit", stored)[:16]


def refuse_stale(based_on: str | None, now: str, edited: str) -> None:
    """Refuse an edit whose base is not the state that is stored now.

    An edit that changes nothing is accepted: a page that is left sends its last one twice.

    Args:
        based_on: the key that the page was sent with the state that it shows; None replaces whatever is stored.
        now: the key of the stored state.
        edited: the key of the state after the edit.

    Raises:
        StaleEditError: the state has been changed since.
    """
    if based_on not in (None, now) and edited != now:
        raise StaleEditError("This was changed in the meantime, by somebody else or in another window.")


@contextmanager
def editing(database: Database, based_on: str | None, stored: Callable[[], Any], edited: Any) -> Iterator[None]:
    """Store an edit of a whole state inside this block: comparison and storing are one transaction.

    Args:
        database: where the state is stored.
        based_on: see :func:`refuse_stale`.
        stored: reads the stored state, a JSON value.
        edited: the state after the edit.

    Raises:
        StaleEditError: the state has been changed since.
    """
    with database.writing():
        refuse_stale(based_on, edit_key(stored()), edit_key(edited))
        yield
