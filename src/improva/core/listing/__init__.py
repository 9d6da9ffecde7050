"""Listings: texts, the order of pictures, licences and marketplaces' limits."""

from .checks import check_texts
from .licence import Overruling, licence_reasons
from .markets import MARKETS, Market
from .slots import KINDS, Missing, Offered, Slot, SlotKind, missing_kinds, not_offered, proposed_slots, sold_parts
from .words import ArtWords, BlankWords, Texts, alt_text, assemble_texts

__all__ = [
    "KINDS",
    "MARKETS",
    "ArtWords",
    "BlankWords",
    "Market",
    "Missing",
    "Offered",
    "Overruling",
    "Slot",
    "SlotKind",
    "Texts",
    "alt_text",
    "assemble_texts",
    "check_texts",
    "licence_reasons",
    "missing_kinds",
    "not_offered",
    "proposed_slots",
    "sold_parts",
]
