"""Arrangements of cloth: how each product is cut, sewn, hung or laid before it is simulated."""
