"""Prices in decimal arithmetic: costs, shipping, fees, tax, discounts, profit, and the price for a wanted profit."""

from .costs import Costs, Fee, Region, Sale, Tax
from .margin import Case, Margin, PercentOf, Variant, cases, margin_of, variants_of
from .money import Currency, money
from .price_ranges import short_ranges
from .suggested_price import break_even, margin_curve, never_short_from, price_for, rounded_up, safe_price

__all__ = [
    "Case",
    "Costs",
    "Currency",
    "Fee",
    "Margin",
    "PercentOf",
    "Region",
    "Sale",
    "Tax",
    "Variant",
    "break_even",
    "cases",
    "margin_curve",
    "margin_of",
    "money",
    "never_short_from",
    "price_for",
    "rounded_up",
    "safe_price",
    "short_ranges",
    "variants_of",
]
