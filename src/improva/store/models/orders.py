"""What came of a batch of orders, as stored."""

from __future__ import annotations

from .base import StoredModel


class OrderIssueModel(StoredModel):
    """An order that was not made, or was made with something to be seen."""

    name: str
    why: str
    made: bool
