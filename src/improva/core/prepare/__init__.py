"""Preparing artwork: steps in their order, each a function on a picture. The original is never altered."""

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
from .writing import write_picture

__all__ = [
    "ALL", "KINDS", "LAID", "Field", "Picture", "Preparation", "Step", "StepKind", "after_step", "artwork_of", "first_picture", "parse_step", "picture_of",
    "preparation_from_dict", "prepare", "prepared_picture", "shown", "step_from_dict", "write_picture",
]  # fmt: skip
