"""Request and response models of personalised orders."""

from __future__ import annotations

from typing import Literal

from flask_openapi3 import FileStorage
from pydantic import BaseModel, Field

from ...core.orders.rows import MOST_EACH
from ...store.models.base import RowId
from ...store.models.orders import OrderIssueModel
from .common import In, Out


class OpenPlaceOut(Out):
    """An open place in a design, to be filled by orders."""

    name: str
    kind: Literal["words", "photograph"]
    panel: str
    about: str = Field(description="What it holds in the design itself, for the seller")


class OrdersStateOut(Out):
    """A pair's open places, and the results of its last orders."""

    places: list[OpenPlaceOut]
    example: str = Field(description="The first lines of a table for it")
    issues: list[OrderIssueModel]
    made: int


class OrdersForm(BaseModel):
    """A table of orders as CSV, and the buyers' pictures that it names."""

    file: FileStorage
    photos: list[FileStorage] = Field(default_factory=list)


class OrderIn(In):
    """One order entered by hand. Photographs are the ids of artworks that were imported aside."""

    name: str = Field(min_length=1, max_length=60)
    values: dict[str, str] = Field(default_factory=dict)
    photos: dict[str, RowId] = Field(default_factory=dict)
    quantity: int = Field(default=1, ge=1, le=MOST_EACH)
