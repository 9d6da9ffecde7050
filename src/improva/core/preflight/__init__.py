"""Judging a pair of artwork and blank before anything is made of it."""

from .proof import Proof, judged, prove
from .subject import Subject
from .verdict import Fix, Status, Verdict, worst

__all__ = ["Fix", "Proof", "Status", "Subject", "Verdict", "judged", "prove", "worst"]
