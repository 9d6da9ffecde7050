"""Batches as they are asked for and answered."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...app.batches import BatchKind
from .common import In, Out

MOST_PAIRS = 20_000


class PairRefIn(In):
    """A pair by its ids."""

    artwork_id: int
    template_id: str


class BatchIn(In):
    """What is to be made of which pairs."""

    kind: BatchKind
    pairs: list[PairRefIn] = Field(min_length=1, max_length=MOST_PAIRS)
    preset: str | None = Field(
        default=None, description="A preset by its name; without one, what each pair has chosen, or all its scenes"
    )


class SkippedPairOut(Out):
    """A pair of which nothing is made, and why."""

    title: str
    why: str


class BatchOut(Out):
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
    problems: list[SkippedPairOut] = Field(description="What failed, the first few")


class BatchListOut(Out):
    """Batches, the newest first, and what the newest one left out."""

    batches: list[BatchOut]
    left_out: list[SkippedPairOut] = Field(default_factory=list)


class BatchPath(BaseModel):
    """Which batch."""

    batch_id: int
