"""The contents of a listing pack's ``listing.json``."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class PackPicture(_Part):
    """A picture of a listing; the first one is the cover."""

    file: str = Field(description="Its name in the pack")
    kind: str = Field(description="What it is there to show")
    alt: str = Field(description="What it shows, in words")
    px: tuple[int, int]
    shows: dict[str, str] = Field(description="Design, blank, scene, view and colours")


class PackVariant(_Part):
    """A colour or size with a price of its own."""

    title: str
    price: str = Field(description="A decimal number")


class PackFilm(_Part):
    """The listing's film."""

    file: str
    seconds: float
    alt: str


class PackListing(_Part):
    """The contents of ``listing.json``."""

    format: Literal["listing-pack"] = "listing-pack"
    version: Literal[1] = 1
    market: str = Field(description="Whose limits it was made to")
    reference: str = Field(description="The same for one artwork on one blank at one marketplace, whatever changes")
    title: str
    description: str
    tags: list[str]
    search: str
    price: str | None = Field(description="A decimal number; none where it is not decided")
    currency: str
    variants: list[PackVariant] = Field(default_factory=list, description="Colours or sizes with a price of their own")
    pictures: list[PackPicture]
    film: PackFilm | None = None
    overruled: list[str] = Field(default_factory=list, description="Reasons against listing it that were overruled")
