"""How the panels of a blank meet: which edge is sewn to which, and which panel lies on another."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

Way = Literal["alone", "flow", "mirror"]
"""What a panel shows past a seam: a design of its own, what lies there on its neighbour, or that turned over at the seam."""
WAYS: tuple[Way, ...] = get_args(Way)


@dataclass(frozen=True)
class Edge:
    """A stretch of a panel's outline, from ``start`` to ``end`` in mm of its trim, the shorter way round.

    Both must lie on the outline. A stretch of a seam's first edge is sewn to its second from start to start.
    """

    panel: str
    start: tuple[float, float]
    end: tuple[float, float]


@dataclass(frozen=True)
class Seam:
    """Two edges sewn together, or a panel that lies on another.

    Attributes:
        first, second: edges that are sewn; the second may be of the same panel. Of what lies on, its panel is the second
            edge's, what it lies on the first's, and neither has a length.
        offset_mm: of what lies on: its trim's corner on the trim beneath. None where edges are sewn.
        ease_mm: by how much the second edge is longer than the first, and worked in.
        ways: what may be chosen for the second panel past this seam; the first of them holds until it is.
    """

    id: str
    title: str
    first: Edge
    second: Edge
    ease_mm: float = 0.0
    offset_mm: tuple[float, float] | None = None
    ways: tuple[Way, ...] = ("alone", "flow", "mirror")

    @property
    def lies_on(self) -> bool:
        """Whether the second panel lies on the first, as a pocket does."""
        return self.offset_mm is not None

    def has(self, panel: str) -> bool:
        """Whether a panel takes part."""
        return panel in (self.first.panel, self.second.panel)
