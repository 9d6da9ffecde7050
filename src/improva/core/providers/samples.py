"""Sample orders: their dates, their delivery times, and how they compare with the proof."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from itertools import pairwise
from statistics import median
from typing import Literal

from ..errors import ListingError

Result = Literal["good", "off"]
CHECKS = ("colour", "seam", "alignment", "size")
"""Properties of a sample that are compared with the proof. Common practice, no published source."""


@dataclass(frozen=True)
class Sample:
    """One sample order. Dates are ISO days, empty until known.

    ``provider`` is empty where the seller pressed it.
    """

    provider: str
    ordered: str
    shipped: str = ""
    delivered: str = ""
    checks: Mapping[str, Result] = field(default_factory=dict)
    note: str = ""

    def __post_init__(self) -> None:
        if unknown := set(self.checks) - set(CHECKS):
            raise ListingError(f"'{unknown.pop()}' is not checked of a sample: {', '.join(CHECKS)} are.")
        if not self.ordered:
            raise ListingError("Say when the sample was ordered.")
        named = [
            (name, _day(value))
            for name, value in (("ordered", self.ordered), ("shipped", self.shipped), ("delivered", self.delivered))
            if value
        ]
        for (first, before), (second, after) in pairwise(named):
            if after < before:
                raise ListingError(f"It was {second} on {after}, before it was {first} on {before}: correct one of the dates.")


@dataclass(frozen=True)
class Days:
    """Days since the order: to shipping, in transit, and in total; None while unknown."""

    to_ship: float | None
    on_the_way: float | None
    in_all: float | None


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise ListingError(f"'{text}' is not a day: write it as 2026-05-30.") from None


def _between(first: str, second: str) -> int | None:
    return (_day(second) - _day(first)).days if first and second else None


def days_of(sample: Sample) -> Days:
    """Return the durations of a sample order."""
    return Days(
        _between(sample.ordered, sample.shipped),
        _between(sample.shipped, sample.delivered),
        _between(sample.ordered, sample.delivered),
    )


def usual_days(samples: Sequence[Sample]) -> Days:
    """Return a provider's median durations over the seller's own samples."""
    every = [days_of(sample) for sample in samples]

    def middle(values: list[float | None]) -> float | None:
        known = [value for value in values if value is not None]
        return float(median(known)) if known else None

    return Days(middle([d.to_ship for d in every]), middle([d.on_the_way for d in every]), middle([d.in_all for d in every]))
