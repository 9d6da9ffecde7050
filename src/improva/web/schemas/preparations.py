"""Request and response models of artwork preparation."""

from __future__ import annotations

import math
from typing import Any, Literal

from pydantic import Field

from ...core.origin import Origin
from ...core.preparation import Field as StepField
from ...core.preparation import Preparation, StepKind, preparation_from_dict
from ...core.preparation.step import FieldKind
from .common import ArtworkOut, In, Out

Fraction = tuple[float, float]


class FieldOut(Out):
    """A value of a step."""

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
    def of(cls, field: StepField) -> FieldOut:
        """From the core's value."""
        least, most = (v if math.isfinite(v) else None for v in (field.least, field.most))
        default = list(field.default) if isinstance(field.default, tuple) else field.default
        return cls(
            name=field.name,
            title=field.title,
            kind=field.kind,
            default=default,
            unit=field.unit,
            least=least,
            most=most,
            choices=list(field.choices),
            hint=field.hint,
        )


class KindOut(Out):
    """A kind of step, with its values."""

    id: str
    title: str
    says: str
    reshapes: bool = Field(description="A place on the picture before it is another place after it")
    fields: list[FieldOut]

    @classmethod
    def of(cls, kind: StepKind) -> KindOut:
        """From the core's value."""
        return cls(
            id=kind.id,
            title=kind.title,
            says=kind.says,
            reshapes=kind.reshapes,
            fields=[FieldOut.of(field) for field in kind.fields],
        )


class KindsOut(Out):
    """All kinds of steps, in their usual order."""

    kinds: list[KindOut]


class StepIn(In):
    """One step, with the values that differ from its kind's defaults."""

    kind: str
    values: dict[str, float | str | bool | list[Any] | None] = Field(default_factory=dict)
    on: bool = True


class PreparationIn(In):
    """The steps in order, and the print width that their millimetres refer to."""

    steps: list[StepIn]
    width_mm: float | None = None

    def to_core(self) -> Preparation:
        """The core's value. Raises :class:`StepError`."""
        return preparation_from_dict(self.model_dump())


class SwatchOut(Out):
    """A main colour, the share of the picture nearest to it, and its contrast on white (WCAG 2.2)."""

    colour: str
    share: float
    on_white: float


class SpotOut(Out):
    """A speck or a hole: its centre in fractions of the picture, and its diameter."""

    kind: Literal["speck", "hole"]
    at: Fraction
    size_mm: float


class NeckOut(Out):
    """A thin part: its centre in fractions of the picture, and its width."""

    at: Fraction
    width_mm: float


class PreparationReportOut(Out):
    """Findings on a prepared picture."""

    px: tuple[int, int]
    size_mm: tuple[float, float]
    enlarged: float
    notes: list[str]
    has_alpha: bool
    palette: list[SwatchOut]
    specks: list[SpotOut]
    neck_mm: float = Field(description="Parts thinner than this are reported")
    necks: list[NeckOut]


class OriginIn(In):
    """The origin of an artwork, and its licence."""

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
        """The core's value. Raises :class:`ArtworkError`."""
        return Origin(**self.model_dump())


class PreparationOut(Out):
    """An artwork with its preparation."""

    artwork: ArtworkOut = Field(description="As it is laid on blanks")
    original_px: tuple[int, int]
    original_mm: tuple[float, float] = Field(description="The print size that the file claims")
    steps: list[StepIn]
    width_mm: float | None
    edit_key: str = Field(description="Key of this state, for `based_on` of an edit")
    can_undo: bool
    can_redo: bool
    report: PreparationReportOut
    origin: OriginIn
    altered: bool = Field(description="Changed since it was had, by the seller's word or by its steps")
    licence_file: str | None
