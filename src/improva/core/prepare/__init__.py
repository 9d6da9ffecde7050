"""Preparing artwork: steps in their order, each a function on a picture. The original is never altered."""

from .picture import Picture, picture_of
from .preparation import Preparation, Prepared, Step, parse_step, prepare, prepared_picture, step_from_dict
from .step import Field, StepKind
from .steps import KINDS

__all__ = [
    "KINDS",
    "Field",
    "Picture",
    "Preparation",
    "Prepared",
    "Step",
    "StepKind",
    "parse_step",
    "picture_of",
    "prepare",
    "prepared_picture",
    "step_from_dict",
]
