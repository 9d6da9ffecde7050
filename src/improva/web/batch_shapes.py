"""Batches as they are asked for and answered."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from .shapes import Shape

BatchKind = Literal["pictures", "print", "listing"]
MOST_PAIRS = 20_000


class PairRef(Shape):
    """A pair by its ids."""

    artwork_id: int
    template_id: str


class BatchBody(Shape):
    """What is to be made of which pairs."""

    kind: BatchKind
    pairs: list[PairRef] = Field(min_length=1, max_length=MOST_PAIRS)
    look: str | None = Field(default=None, description="A kept look; without one, what each pair has chosen, or all its scenes")


class LeftOut(Shape):
    """A pair of which nothing is made, and why."""

    title: str
    why: str


class BatchShape(Shape):
    """How far a batch is."""

    id: int
    kind: BatchKind
    title: str
    paused: bool
    under_way: bool
    jobs: int
    done: int
    failed: int
    stopped: int
    share: float
    files: int
    problems: list[LeftOut] = Field(description="What failed, the first few")


class BatchList(Shape):
    """Batches, the newest first, and what the newest one left out."""

    batches: list[BatchShape]
    left_out: list[LeftOut] = Field(default_factory=list)
