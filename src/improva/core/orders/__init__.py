"""Personalised orders: a design with open places, filled from what a buyer sends."""

from .personalisation import Filled, fill_words, least_cap
from .rows import Order, OrderProblem, missing_values, read_orders

__all__ = [
    "Filled",
    "Order",
    "OrderProblem",
    "fill_words",
    "least_cap",
    "missing_values",
    "read_orders",
]
