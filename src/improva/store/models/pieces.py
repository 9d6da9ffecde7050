"""Pieces as sent and stored: artworks by id, fonts by key, lengths in mm."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter

from ...core.pieces import ArtRef, Band, Extra, Frames, Lettering, Mixing, Overlay, Slot
from ...core.pieces.blending import Blend, Clip, Mirror
from ...core.pieces.text import Shadow
from ...core.words import Setting, WordPath
from .base import RowId, StoredModel
from .placement import PlacementModel

Pair = tuple[float, float]
MOST_PIECES = 30
FindArt = Callable[[int], ArtRef]
"""Returns the artwork of an id, in the form in which a design refers to it."""


class MixingModel(StoredModel):
    """How a piece is blended."""

    opacity: float = 1.0
    blend: Blend = "normal"
    behind: bool = False
    clipped: Clip = ""
    flip: Mirror = ""
    twin: Mirror = ""

    def mixing(self) -> Mixing:
        """The core's value. Raises :class:`PieceError`."""
        return Mixing(self.opacity, self.blend, self.behind, self.clipped, self.flip, self.twin)


class ShadowModel(StoredModel):
    """A soft shadow."""

    colour: str = "#000000"
    shift_mm: Pair = (0.8, 0.8)
    blur_mm: float = 0.8
    opacity: float = 0.5


class LetteringModel(MixingModel):
    """Words on a panel."""

    kind: Literal["words"] = "words"
    text: str = Field(max_length=2000)
    least_caps: float = Field(
        default=0, ge=0, le=500, description="Filled by an order, capitals get no smaller, in mm; 0: as the blank's limit"
    )
    font: str = "poster"
    align: Literal["left", "centre", "right"] = "centre"
    leading: float = 1.15
    tracking: float = 0.0
    stacked: bool = False
    along: Literal["line", "arc", "circle", "wave", "bulge", "envelope"] = "line"
    amount: float = 0.0
    other: float = 0.0
    waves: float = 1.0
    sizing: Literal["size", "width", "box", "fill"] = "width"
    size_mm: float = 14.0
    width_mm: float = 80.0
    height_mm: float = 30.0
    shift_mm: Pair = (0.0, 0.0)
    rotate_deg: float = 0.0
    fill: str = "#23211e"
    outline: str | None = None
    outline_mm: float = 0.6
    shadow: ShadowModel | None = None
    plaque: Literal["none", "oval", "box", "banner"] = "none"
    plaque_fill: str = "#f6ecd9"
    plaque_line: str | None = None
    plaque_margin_mm: float = 4.0

    def to_core(self, _: FindArt) -> Extra:
        """The core's value. Raises :class:`PieceError`."""
        same = (
            "text",
            "font",
            "sizing",
            "size_mm",
            "width_mm",
            "height_mm",
            "shift_mm",
            "rotate_deg",
            "fill",
            "outline",
            "outline_mm",
            "plaque",
            "plaque_fill",
            "plaque_line",
            "plaque_margin_mm",
        )
        shadow = Shadow(**self.shadow.model_dump()) if self.shadow else None
        return Lettering(
            setting=Setting(self.align, self.leading, self.tracking, self.stacked),
            path=WordPath(self.along, self.amount, self.other, self.waves),
            shadow=shadow,
            mixing=self.mixing(),
            **{name: getattr(self, name) for name in same},
        )


class BandModel(MixingModel):
    """A border along the trim."""

    kind: Literal["band"] = "band"
    sides: Literal["all", "level", "ends"] = "all"
    width_mm: float = 12.0
    colour: str | None = "#24405a"
    art: RowId | None = None
    tile_mm: float = 25.0
    line_mm: float = 0.8
    line_gap_mm: float = 2.0
    line_colour: str = "#ffffff"

    def to_core(self, find: FindArt) -> Extra:
        """The core's value. Raises :class:`PieceError`."""
        pattern = find(self.art) if self.art is not None else None
        same = ("sides", "width_mm", "colour", "tile_mm", "line_mm", "line_gap_mm", "line_colour")
        return Band(pattern=pattern, mixing=self.mixing(), **{name: getattr(self, name) for name in same})


class SlotModel(StoredModel):
    """The content of a slot."""

    art: RowId | None = None
    focus: Pair = (0.5, 0.5)
    zoom: float = 1.0
    field: str = Field(default="", max_length=40, description="Left open for an order's photograph of that name")


class FramesModel(MixingModel):
    """Picture frames."""

    kind: Literal["frames"] = "frames"
    layout: Literal["single", "instant", "strip", "grid", "round"] = "instant"
    across: int = 2
    down: int = 1
    size_mm: Pair = (120.0, 70.0)
    rim_mm: float = 4.0
    gap_mm: float = 5.0
    colour: str = "#ffffff"
    line: str | None = None
    shift_mm: Pair = (0.0, 0.0)
    rotate_deg: float = 0.0
    slots: list[SlotModel] = Field(default_factory=list, max_length=64)

    def to_core(self, find: FindArt) -> Extra:
        """The core's value. Raises :class:`PieceError`."""
        same = ("layout", "across", "down", "size_mm", "rim_mm", "gap_mm", "colour", "line", "shift_mm", "rotate_deg")
        slots = tuple(Slot(find(s.art) if s.art is not None else None, s.focus, s.zoom) for s in self.slots)
        return Frames(slots=slots, mixing=self.mixing(), **{name: getattr(self, name) for name in same})


class OverlayModel(MixingModel):
    """A second artwork."""

    kind: Literal["overlay"] = "overlay"
    art: RowId
    placement: PlacementModel = Field(
        default_factory=lambda: PlacementModel(fit="contain", shift_mm=(0, 0), scale=0.5, rotate_deg=0, background=None)
    )

    def to_core(self, find: FindArt) -> Extra:
        """The core's value. Raises :class:`PieceError` or :class:`PlacementError`."""
        return Overlay(find(self.art), self.placement.to_core(), self.mixing())


PieceModel = Annotated[LetteringModel | BandModel | FramesModel | OverlayModel, Field(discriminator="kind")]
PIECES: TypeAdapter[list[LetteringModel | BandModel | FramesModel | OverlayModel]] = TypeAdapter(list[PieceModel])


def adapted_model(body: Any, moved: Extra) -> dict[str, Any]:
    """Return a stored piece with the lengths of its adapted copy."""
    values: dict[str, Any] = body.model_dump()
    if isinstance(moved, Overlay):
        return {**values, "placement": PlacementModel.of(moved.placement).model_dump()}
    values |= {name: getattr(moved, name) for name in values if name.endswith("_mm") and name != "shadow"}
    if isinstance(moved, Lettering) and moved.shadow is not None:
        values["shadow"] |= {"shift_mm": moved.shadow.shift_mm, "blur_mm": moved.shadow.blur_mm}
    return values


def arts_of(piece: Any) -> list[int]:
    """Return the ids of the artworks that a piece uses."""
    if isinstance(piece, FramesModel):
        return [slot.art for slot in piece.slots if slot.art is not None]
    return [piece.art] if getattr(piece, "art", None) is not None else []
