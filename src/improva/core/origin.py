"""The origin of an artwork, and what its licence allows."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any, Literal, get_args

from .errors import ArtworkError

Source = Literal["", "own", "ordered", "bought", "free"]
SOURCES: tuple[Source, ...] = get_args(Source)
LONGEST = {"maker": 200, "licence": 200, "link": 1000}


@dataclass(frozen=True)
class Origin:
    """The origin that a seller records for an artwork.

    Attributes:
        source: made by the seller (``own``), made to order for them (``ordered``), a ``bought`` element, or a ``free``
            one; empty while nothing is noted.
        maker, licence, link: who made it, what the licence is called, where it was had.
        on: the day it was had, as YYYY-MM-DD.
        personal, commercial, print_on_demand: what the licence allows; None where it is not known.
        changed: whether it was changed since; None leaves it to what the preparing steps tell.
    """

    source: Source = ""
    maker: str = ""
    licence: str = ""
    link: str = ""
    on: str = ""
    personal: bool | None = None
    commercial: bool | None = None
    print_on_demand: bool | None = None
    changed: bool | None = None

    def __post_init__(self) -> None:
        if self.source not in SOURCES:
            raise ArtworkError(f"The source '{self.source}' is not known: choose one of {', '.join(s for s in SOURCES if s)}.")
        for name, longest in LONGEST.items():
            if len(getattr(self, name)) > longest:
                raise ArtworkError(f"The {name} is too long to keep: use {longest} characters at most.")
        if self.link and not self.link.lower().startswith(("http://", "https://")):
            raise ArtworkError("The link must start with http:// or https://, so that it can be opened.")

    def as_dict(self) -> dict[str, Any]:
        """Return plain values, as stored and hashed."""
        return asdict(self)


OWN_WORK: tuple[Source, ...] = ("own", "ordered")
"""Sources of artwork that other sellers cannot have bought as well."""
