"""Request and response models of personalised orders."""

from __future__ import annotations

from typing import Literal

from flask_openapi3 import FileStorage
from pydantic import BaseModel, Field

from ...core.orders.rows import MOST_EACH
from ...store.models.base import RowId
from ...store.models.orders import OrderIssueModel
from ...store.order_items import ProofState
from .common import In, Out


class OpenPlaceOut(Out):
    """An open place in a design, to be filled by orders."""

    name: str
    kind: Literal["words", "photograph"]
    panel: str
    about: str = Field(description="What it holds in the design itself, for the seller")


class OrderItemOut(Out):
    """An item of an order; ``words`` are the changes that its buyer asks for."""

    id: int
    artwork_id: int
    template_id: str
    title: str = Field(description="Of its artwork and blank")
    name: str
    quantity: int
    values: dict[str, str] = Field(description="What the buyer wrote, by open place")
    held: bool = Field(description="Whether its print file waits for the buyer's approval")
    state: ProofState
    words: str
    changed_at: str


class OrderItemsOut(Out):
    """Items of orders, those made last first."""

    items: list[OrderItemOut]


class ItemStateIn(In):
    """How far some items have come."""

    ids: list[RowId] = Field(min_length=1, max_length=1000)
    state: ProofState
    words: str = Field(default="", max_length=2000, description="The changes that the buyer asks for")


class OrdersStateOut(Out):
    """A pair's open places, the results of its last orders, and all its items."""

    places: list[OpenPlaceOut]
    example: str = Field(description="The first lines of a table for it")
    issues: list[OrderIssueModel]
    made: int
    held: bool = Field(description="Whether the last orders' print files were held back until approval")
    items: list[OrderItemOut]


class OrdersForm(BaseModel):
    """A table of orders as CSV, and the buyers' pictures that it names."""

    file: FileStorage
    photos: list[FileStorage] = Field(default_factory=list)
    held: bool = Field(default=False, description="Whether print files wait for the buyers' approval")


class OrderIn(In):
    """One order entered by hand. Photographs are the ids of artworks that were imported aside."""

    name: str = Field(min_length=1, max_length=60)
    values: dict[str, str] = Field(default_factory=dict)
    photos: dict[str, RowId] = Field(default_factory=dict)
    quantity: int = Field(default=1, ge=1, le=MOST_EACH)
    held: bool = False
