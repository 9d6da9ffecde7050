"""Request and response models of batches."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...app.batches import BatchKind
from ...store.models.base import RowId
from ...store.models.file_names import FileNamesModel
from .common import In, Out

MOST_PAIRS = 20_000


class PairRefIn(In):
    """A pair by its ids."""

    artwork_id: RowId
    template_id: str


class BatchIn(In):
    """What to make of which pairs."""

    kind: BatchKind
    pairs: list[PairRefIn] = Field(min_length=1, max_length=MOST_PAIRS)
    preset: str | None = Field(
        default=None, description="A preset by its name; without one, what each pair has chosen, or all its scenes"
    )


class FileNamesIn(In, FileNamesModel):
    """Patterns for names of files in archives."""


class SkippedPairOut(Out):
    """A pair that a batch skips, and the reason."""

    title: str
    why: str


class BatchOut(Out):
    """The progress of a batch."""

    id: RowId
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
    """Batches, the newest first, and the pairs that the newest one skipped."""

    batches: list[BatchOut]
    left_out: list[SkippedPairOut] = Field(default_factory=list)


class BatchPath(BaseModel):
    """Path of a batch."""

    batch_id: RowId
