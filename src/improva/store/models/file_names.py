"""Patterns for the names of files in archives, as stored."""

from __future__ import annotations

from pydantic import Field

from ...core.output.name_pattern import BATCH_FILES, LONGEST, PACK_FILES
from .base import StoredModel


class FileNamesModel(StoredModel):
    """Patterns for the files of a batch and for the pictures of a listing pack."""

    batch: str = Field(default=BATCH_FILES, max_length=LONGEST)
    pack: str = Field(default=PACK_FILES, max_length=LONGEST)
