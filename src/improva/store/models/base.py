"""The base of stored models."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class StoredModel(BaseModel):
    """A value that is stored as JSON. Unknown keys are ignored: another version of Improva may have written them."""

    model_config = ConfigDict(extra="ignore")
