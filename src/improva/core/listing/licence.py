"""Whether an artwork may be listed: what its licence allows, and whether it is sold as it was bought."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..origin import OWN_WORK, Origin


@dataclass(frozen=True)
class Overruling:
    """A seller's word that a listing may go out all the same; it holds for exactly these reasons.

    Attributes:
        at: when, as an ISO time in UTC.
    """

    reasons: tuple[str, ...]
    why: str
    at: str


def licence_reasons(arts: Sequence[tuple[str, Origin, bool]]) -> list[str]:
    """Why a listing is stopped; empty where it may go out.

    Args:
        arts: title, origin, and whether it was changed, of every artwork that is printed.
    """
    return [f"{title}: {reason}" for title, origin, altered in arts for reason in _of_one(origin, altered)]


def _of_one(origin: Origin, altered: bool) -> list[str]:
    if not origin.source:
        return ["it is not noted where it comes from. Note it at the Artwork station."]
    found = []
    if origin.print_on_demand is False:
        found.append("its licence does not allow print on demand.")
    elif origin.commercial is False:
        found.append("its licence does not allow selling.")
    elif origin.source not in OWN_WORK and origin.print_on_demand is None:
        found.append("it is not known whether its licence allows print on demand.")
    if origin.source not in OWN_WORK and not altered:
        found.append("it is used unchanged, as others can have it too.")
    return found
