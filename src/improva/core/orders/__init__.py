"""Personalised orders: a design with open places, filled from what a buyer sends."""

from .personalisation import Filled, filled_words, least_cap
from .rows import Order, OrderProblem, read_orders

__all__ = [
    "Filled",
    "Order",
    "OrderProblem",
    "filled_words",
    "least_cap",
    "read_orders",
]
