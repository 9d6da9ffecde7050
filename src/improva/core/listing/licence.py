"""Whether an artwork may be listed, by its licence and the seller's changes to bought elements."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..origin import OWN_WORK, Origin


@dataclass(frozen=True)
class Overruling:
    """The seller's decision to list in spite of exactly these reasons.

    Attributes:
        at: when, as an ISO time in UTC.
    """

    reasons: tuple[str, ...]
    why: str
    at: str


def licence_reasons(arts: Sequence[tuple[str, Origin, bool]], unchanged_stops: bool = False) -> list[str]:
    """Return the reasons that stop a listing; empty where there are none.

    Args:
        arts: title, origin, and whether it was changed, of every artwork that is printed.
        unchanged_stops: whether bought art that allows print on demand is stopped too where it is used unchanged.
    """
    return [f"{title}: {reason}" for title, origin, altered in arts for reason in _of_one(origin, altered, unchanged_stops)]


def _of_one(origin: Origin, altered: bool, unchanged_stops: bool) -> list[str]:
    if not origin.source:
        return ["no origin is recorded. Record it at the Artwork station."]
    reasons = []
    if origin.print_on_demand is False:
        reasons.append("its licence does not allow print on demand.")
    elif origin.commercial is False:
        reasons.append("its licence does not allow selling.")
    elif origin.source not in OWN_WORK and origin.print_on_demand is None:
        reasons.append("it is not known whether its licence allows print on demand.")
    allowed = origin.print_on_demand and not unchanged_stops
    if origin.source not in OWN_WORK and not altered and not allowed:
        reasons.append("it is used unchanged, as others can have it too.")
    return reasons
