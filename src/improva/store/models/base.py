"""The base of stored models."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field


class StoredModel(BaseModel):
    """A value that is stored as JSON. Unknown keys are ignored: another version of Improva may have written them."""

    model_config = ConfigDict(extra="ignore")


RowId = Annotated[int, Field(ge=0, le=2**63 - 1)]
"""Id of a row: SQLite stores integers of 64 bits (SQLite file format, 2.1)."""
