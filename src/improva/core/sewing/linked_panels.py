"""Panels that continue another panel's design past a seam, also over several panels."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from ..design import Design, LinkedPanel
from ..errors import PlacementError
from ..template import Panel, Template
from .edges import motion_of
from .motion import Motion
from .seams import Follow, Seam

Corrections = Mapping[str, tuple[float, float]]
"""Corrections by seam id: the offset of the following panel on its first panel, in mm right and down."""


@dataclass(frozen=True)
class Link:
    """The panel that leads another one, directly or through others, and the motion of its points on to the leader."""

    leader: str
    motion: Motion


def seam_of(template: Template, seam_id: str) -> Seam:
    """Return the seam of an id. Raises :class:`PlacementError` with the ids that exist."""
    for seam in template.seams:
        if seam.id == seam_id:
            return seam
    known = ", ".join(seam.id for seam in template.seams) or "none"
    raise PlacementError(f"{template.title} has no seam '{seam_id}'. Its seams: {known}.")


def check_follow(template: Template, panel: Panel, follow: Follow) -> Seam:
    """Return the seam that a panel follows. Raises :class:`PlacementError` where the seam leads elsewhere or does not allow
    that way."""
    seam = seam_of(template, follow.seam)
    if seam.follower != panel.id or seam.leader == panel.id:
        raise PlacementError(f"Past the seam '{seam.title}' it is {seam.follower} that follows {seam.leader}, not {panel.id}.")
    if follow.way == "alone" or follow.way not in seam.ways:
        raise PlacementError(f"Past the seam '{seam.title}' a design can: {', '.join(seam.ways)}.")
    return seam


def joint(template: Template, follow: Follow, corrections: Corrections) -> Motion:
    """Return the motion of the follower's points on to its leader, with the calibration applied."""
    seam = seam_of(template, follow.seam)
    motion = motion_of(seam, template.panel(seam.leader), template.panel(seam.follower), follow.way)
    return motion.moved(*corrections.get(seam.id, (0.0, 0.0)))


def first_leader(template: Template, panel: Panel, follows: Mapping[str, Follow], corrections: Corrections) -> Link | None:
    """Return the first leader of a panel; None for a panel with a placement of its own. Raises :class:`PlacementError` for a
    ring of followers."""
    motion, at, met = Motion(), panel.id, [panel.id]
    while at in follows:
        seam = check_follow(template, template.panel(at), follows[at])
        motion = motion.then(joint(template, follows[at], corrections))
        at = seam.leader
        if at in met:
            raise PlacementError(f"{' follows '.join([*met, at])}: one of them must have its own placement.")
        met.append(at)
    return None if at == panel.id else Link(at, motion)


def first_follow(template: Template, panel: Panel) -> Follow | None:
    """Return what a panel follows before the seller decides: the first seam whose usual way is not *alone*."""
    for seam in template.seams:
        if seam.follower == panel.id and seam.ways[0] != "alone":
            return Follow(seam.id, seam.ways[0])
    return None


def linked_designs(
    template: Template, own: Callable[[Panel], Design], corrections: Corrections | None = None
) -> dict[str, Design]:
    """Return the design of every panel: followers as the template links them, all others as ``own`` makes them."""
    follows = {p.id: follow for p in template.panels if (follow := first_follow(template, p))}
    designs = {}
    for panel in template.panels:
        by = first_leader(template, panel, follows, corrections or {})
        leader = by and LinkedPanel(own(template.panel(by.leader)), by.motion)
        designs[panel.id] = Design(template, panel, (), linked=leader) if leader else own(panel)
    return designs


__all__ = [
    "Corrections",
    "Follow",
    "Link",
    "check_follow",
    "first_follow",
    "first_leader",
    "joint",
    "linked_designs",
    "seam_of",
]
