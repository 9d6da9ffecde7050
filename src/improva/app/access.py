"""The password of a board that other computers reach, stored as a salted hash beside the database."""

from __future__ import annotations

import json
import secrets
from pathlib import Path

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from ..core.errors import ImprovaError
from ..io.atomic import atomic_write

FILE = "access.json"
LEAST_LENGTH = 8
MOST_BYTES = 1024
"""Longest password that is hashed. Longer ones would only cost time."""


class PasswordError(ImprovaError):
    """The password is missing or cannot be used."""


class Password:
    """The password of one data folder, and the secret that signs its sessions.

    Both lie in a file that only its owner can read, and that backups leave out. Argon2id hashes the password, with the
    parameters of RFC 9106 (section 4, the low-memory recommendation), which are the library's defaults.
    """

    def __init__(self, folder: Path) -> None:
        self._file = folder / FILE

    def _stored(self) -> dict[str, str]:
        try:
            stored = json.loads(self._file.read_text(encoding="utf-8"))
            return {"hash": str(stored["hash"]), "secret": str(stored["secret"])}
        except FileNotFoundError:
            return {}
        except (OSError, ValueError, KeyError, TypeError) as broken:
            raise PasswordError(f"'{self._file}' is damaged: delete it and set the password again.") from broken

    @property
    def is_set(self) -> bool:
        """Return whether there is a password. Raises :class:`PasswordError` where its file is damaged."""
        return bool(self._stored())

    @property
    def secret(self) -> str:
        """Return the secret that signs sessions. Raises :class:`PasswordError` where no password is set."""
        stored = self._stored()
        if not stored:
            raise PasswordError("No password is set.")
        return stored["secret"]

    def set(self, password: str) -> None:
        """Set the password. Every session ends, unless the password is the same as before.

        Raises:
            PasswordError: it is shorter than :data:`LEAST_LENGTH` or longer than :data:`MOST_BYTES`.
        """
        if len(password) < LEAST_LENGTH:
            raise PasswordError(f"The password has {len(password)} characters: choose at least {LEAST_LENGTH}.")
        if len(password.encode()) > MOST_BYTES:
            raise PasswordError(f"The password is longer than {MOST_BYTES} bytes: choose a shorter one.")
        if self.is_set and self.matches(password):
            return
        stored = {"hash": PasswordHasher().hash(password), "secret": secrets.token_hex(32)}
        self._file.parent.mkdir(parents=True, exist_ok=True)
        atomic_write(self._file, json.dumps(stored).encode(), mode=0o600)

    def matches(self, password: str) -> bool:
        """Return whether this is the password."""
        stored = self._stored()
        if not stored or len(password.encode()) > MOST_BYTES:
            return False
        try:
            return PasswordHasher().verify(stored["hash"], password)
        except (VerificationError, InvalidHashError):
            return False
