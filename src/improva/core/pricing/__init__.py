"""Prices in decimal arithmetic: costs, shipping, fees, tax, discounts, profit, and the price for a wanted profit."""

from .costs import Costs, Fee, Region, Sale, Tax
from .margin import Case, Margin, cases, margin_of
from .money import Currency, money
from .suggested_price import break_even, margin_curve, price_for, rounded_up, safe_price

__all__ = [
    "Case",
    "Costs",
    "Currency",
    "Fee",
    "Margin",
    "Region",
    "Sale",
    "Tax",
    "break_even",
    "cases",
    "margin_curve",
    "margin_of",
    "money",
    "price_for",
    "rounded_up",
    "safe_price",
]
