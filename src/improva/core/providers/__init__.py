"""Compare print providers: landed cost, and delivery time from the seller's own samples."""

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
