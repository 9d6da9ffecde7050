"""Logging in to a board that other computers reach."""

from __future__ import annotations

from limits import parse
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from ..app.access import Password

FROM_ONE_ADDRESS, FROM_ALL = parse("5 per minute"), parse("30 per minute")
"""Most attempts to log in. From memory: enough for typing errors, and 43 000 guesses a day against a good password are few."""


class Login:
    """The log-in of one server.

    Args:
        password: of the data folder.
        needed: whether users must log in.
    """

    def __init__(self, password: Password, needed: bool) -> None:
        self._password, self.needed = password, needed
        self._attempts = MovingWindowRateLimiter(MemoryStorage())

    def may_try(self, address: str) -> bool:
        """Count an attempt from an address; False where there were too many in the last minute."""
        return self._attempts.hit(FROM_ONE_ADDRESS, address) and self._attempts.hit(FROM_ALL)

    def accepts(self, password: str) -> bool:
        """Return whether this is the password."""
        return self._password.matches(password)
