"""When samples on their way are to be expected."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from ..providers import Sample, usual_days

DAYS_TO_SHIP, DAYS_IN_ALL = 5, 9
"""Days until a sample ships and until it arrives, where the seller has none of this provider yet: quick for overseas.
Common practice, no published source."""


@dataclass(frozen=True)
class Expected:
    """The day on which a sample is expected, and whether that is known from the seller's own samples of this provider."""

    day: date
    own: bool


def expected_on(sample: Sample, others: Sequence[Sample]) -> Expected | None:
    """Return when a sample is expected; None where it has arrived.

    ``others`` are all samples of the same provider. A shipped one is expected after the usual days in transit.
    """
    if sample.delivered:
        return None
    usual = usual_days([other for other in others if other.delivered])
    if sample.shipped:
        days, start = usual.on_the_way, sample.shipped
        usual_guess = DAYS_IN_ALL - DAYS_TO_SHIP
    else:
        days, start, usual_guess = usual.in_all, sample.ordered, DAYS_IN_ALL
    return Expected(date.fromisoformat(start) + timedelta(days=round(usual_guess if days is None else days)), days is not None)
