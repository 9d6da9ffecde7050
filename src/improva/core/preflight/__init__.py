"""Judging a pair of artwork and blank before anything is made of it."""

from .proof import Proof, prove
from .verdict import Fix, Status, Verdict

__all__ = ["Fix", "Proof", "Status", "Verdict", "prove"]
