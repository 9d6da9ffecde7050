"""Findings on what a seller offers: a listing's texts, its price and its mock-ups."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class Finding:
    """A finding that a seller should read before listing.

    Attributes:
        status: ``fail`` for what a marketplace refuses, ``warn`` for what harms a sale.
        message: one sentence: what is wrong, with its numbers.
        subject: the part that it concerns, such as ``title``; empty for the whole set.
        measured, limit: the two numbers that were compared; None where there are none.
    """

    status: Literal["warn", "fail"]
    message: str
    subject: str = ""
    measured: float | None = None
    limit: float | None = None
