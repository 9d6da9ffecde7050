"""What requests and answers about personalised orders look like."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from .shapes import Shape


class OpenPlace(Shape):
    """A place in a design that an order fills."""

    name: str
    kind: Literal["words", "photograph"]
    panel: str
    about: str = Field(description="What it holds in the design itself, for the seller")


class OrderIssue(Shape):
    """An order that was not made, or was made with something to be seen."""

    name: str
    why: str
    made: bool


class OrdersState(Shape):
    """A pair's open places, and what its last orders came to."""

    places: list[OpenPlace]
    example: str = Field(description="The first lines of a table for it")
    issues: list[OrderIssue]
    made: int


class OrderBody(Shape):
    """One order, filled by hand. Photographs are artworks that were added aside, by their ids."""

    name: str = Field(min_length=1, max_length=60)
    values: dict[str, str] = Field(default_factory=dict)
    photos: dict[str, int] = Field(default_factory=dict)
