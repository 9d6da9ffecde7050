"""Preparation steps of artwork, each a function on a picture. The original is never changed."""

from .picture import Picture, picture_of
from .preparation import (
    Preparation,
    Step,
    after_step,
    artwork_of,
    first_picture,
    parse_step,
    preparation_from_dict,
    prepare,
    prepared_picture,
    shown,
    step_from_dict,
)
from .step import Field, StepKind
from .steps import ALL, KINDS, LAID

__all__ = [
    "ALL",
    "KINDS",
    "LAID",
    "Field",
    "Picture",
    "Preparation",
    "Step",
    "StepKind",
    "after_step",
    "artwork_of",
    "first_picture",
    "parse_step",
    "picture_of",
    "preparation_from_dict",
    "prepare",
    "prepared_picture",
    "shown",
    "step_from_dict",
]
