"""A second artwork on the panel."""

from __future__ import annotations

from dataclasses import dataclass, field

from ..design import Placement
from .blending import ArtRef, Mixing


@dataclass(frozen=True)
class Overlay:
    """A second artwork with a placement of its own: behind or in front of the first, blended, or clipped to it."""

    art: ArtRef
    placement: Placement = field(default_factory=lambda: Placement("contain", scale=0.5))
    mixing: Mixing = field(default_factory=Mixing)
