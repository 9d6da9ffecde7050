"""Results of a batch of orders, as stored."""

from __future__ import annotations

from .base import StoredModel


class OrderIssueModel(StoredModel):
    """An order that failed, or succeeded with remarks."""

    name: str
    why: str
    made: bool
