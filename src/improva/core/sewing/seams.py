"""Seams of a blank: edges that are sewn together, and panels that lie on others. Lengths in mm."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

Way = Literal["alone", "flow", "mirror"]
"""What a panel shows past a seam: its own design, the continuation of its neighbour's, or the mirrored continuation."""
WAYS: tuple[Way, ...] = get_args(Way)


@dataclass(frozen=True)
class Edge:
    """A stretch of a panel's outline, from ``start`` to ``end`` in mm of its trim.

    It runs along the shorter side, or past the point ``through`` of the outline where the longer one is sewn.
    """

    panel: str
    start: tuple[float, float]
    end: tuple[float, float]
    through: tuple[float, float] | None = None


@dataclass(frozen=True)
class Sewn:
    """Two edges sewn together, start to start.

    Attributes:
        first, second: the edge of the panel that leads, and of the one that may follow it; or both of one panel.
        ease_mm: by how much the second is longer than the first, and worked in.
        ways: what may be chosen for the second panel past this seam; the first of them holds until it is.
    """

    id: str
    title: str
    first: Edge
    second: Edge
    ease_mm: float = 0.0
    ways: tuple[Way, ...] = ("alone", "flow", "mirror")

    @property
    def leader(self) -> str:
        """The panel whose design can continue on the other."""
        return self.first.panel

    @property
    def follower(self) -> str:
        """The panel that can continue the other's design."""
        return self.second.panel


@dataclass(frozen=True)
class LaidOn:
    """A panel that is sewn on to another one, such as a pocket.

    Attributes:
        leader: the panel below.
        offset_mm: where the corner of the follower's trim lies on the leader's trim.
        ways: as of :class:`Sewn`.
    """

    id: str
    title: str
    leader: str
    follower: str
    offset_mm: tuple[float, float]
    ways: tuple[Way, ...] = ("flow", "alone")


Seam = Sewn | LaidOn


@dataclass(frozen=True)
class Face:
    """One side of the sewn product lying flat: panels in stacking order, positioned around a base panel."""

    title: str
    around: str
    panels: tuple[str, ...]


@dataclass(frozen=True)
class Follow:
    """The link of a panel that has no placement of its own: it continues its leader's design past a seam."""

    seam: str
    way: Way = "flow"
