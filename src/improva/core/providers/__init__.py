"""Print providers compared: what a piece costs at the buyer's door, and how long it takes, by the seller's own samples."""

from .landed import Landed, Offer, Route, landed
from .samples import CHECKS, Days, Result, Sample, days_of, usual_days

__all__ = [
    "CHECKS",
    "Days",
    "Landed",
    "Offer",
    "Result",
    "Route",
    "Sample",
    "days_of",
    "landed",
    "usual_days",
]
