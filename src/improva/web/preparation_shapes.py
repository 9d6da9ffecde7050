"""What requests and answers about preparing artwork look like."""

from __future__ import annotations

import math
from typing import Any, Literal

from pydantic import Field

from ..core.origin import Origin
from ..core.prepare import Field as StepField
from ..core.prepare import Preparation, StepKind, preparation_from_dict
from ..core.prepare.step import FieldKind
from .shapes import Art, Shape

Fraction = tuple[float, float]


class FieldShape(Shape):
    """A value that a step takes."""

    name: str
    title: str
    kind: FieldKind
    default: float | str | bool | list[Any] | None = Field(description="None: found from the picture")
    unit: str
    least: float | None
    most: float | None
    choices: list[tuple[str, str]]
    hint: str

    @classmethod
    def of(cls, field: StepField) -> FieldShape:
        """From the core's value."""
        least, most = (v if math.isfinite(v) else None for v in (field.least, field.most))
        default = list(field.default) if isinstance(field.default, tuple) else field.default
        return cls(name=field.name, title=field.title, kind=field.kind, default=default, unit=field.unit, least=least,
                   most=most, choices=list(field.choices), hint=field.hint)  # fmt: skip


class KindShape(Shape):
    """A kind of step, with the values it takes."""

    id: str
    title: str
    says: str
    reshapes: bool = Field(description="A place on the picture before it is another place after it")
    fields: list[FieldShape]

    @classmethod
    def of(cls, kind: StepKind) -> KindShape:
        """From the core's value."""
        return cls(id=kind.id, title=kind.title, says=kind.says, reshapes=kind.reshapes,
                   fields=[FieldShape.of(field) for field in kind.fields])  # fmt: skip


class Kinds(Shape):
    """Every kind of step, in the order in which they are usually taken."""

    kinds: list[KindShape]


class StepBody(Shape):
    """One step, with the values that differ from its kind's own."""

    kind: str
    values: dict[str, float | str | bool | list[Any] | None] = Field(default_factory=dict)
    on: bool = True


class PreparationBody(Shape):
    """Steps in their order, and the print width by which their mm count."""

    steps: list[StepBody]
    width_mm: float | None = None

    def to_core(self) -> Preparation:
        """The core's value. Raises :class:`BadStep`."""
        return preparation_from_dict(self.model_dump())


class SwatchShape(Shape):
    """A main colour, the share of the picture nearest to it, and its contrast on white (WCAG 2.2)."""

    colour: str
    share: float
    on_white: float


class SpotShape(Shape):
    """A speck or a hole: its middle in fractions of the picture, and its diameter."""

    kind: Literal["speck", "hole"]
    at: Fraction
    size_mm: float


class NeckShape(Shape):
    """A part thinner than the limit: its middle in fractions of the picture, and its width."""

    at: Fraction
    width_mm: float


class Report(Shape):
    """What is found on a prepared picture."""

    px: tuple[int, int]
    size_mm: tuple[float, float]
    enlarged: float
    notes: list[str]
    has_alpha: bool
    palette: list[SwatchShape]
    specks: list[SpotShape]
    neck_mm: float = Field(description="Parts thinner than this are told")
    necks: list[NeckShape]


class OriginBody(Shape):
    """Where an artwork comes from, and what its licence allows."""

    source: Literal["", "own", "ordered", "bought", "free"] = ""
    maker: str = ""
    licence: str = ""
    link: str = ""
    on: str = Field(default="", pattern=r"^(\d{4}-\d{2}-\d{2})?$")
    personal: bool | None = None
    commercial: bool | None = None
    print_on_demand: bool | None = None
    changed: bool | None = None

    def to_core(self) -> Origin:
        """The core's value. Raises :class:`BadArtwork`."""
        return Origin(**self.model_dump())


class Prepared(Shape):
    """An artwork with its preparation."""

    artwork: Art = Field(description="As it is laid on blanks")
    original_px: tuple[int, int]
    original_mm: tuple[float, float] = Field(description="The print size that the file claims")
    steps: list[StepBody]
    width_mm: float | None
    can_undo: bool
    can_redo: bool
    report: Report
    origin: OriginBody
    altered: bool = Field(description="Changed since it was had, by the seller's word or by its steps")
    licence_file: str | None
