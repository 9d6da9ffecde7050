"""Positions of panels when the sewn product lies flat."""

from __future__ import annotations

from ..template import Template
from .edges import motion_of
from .linked_panels import Corrections
from .motion import Motion
from .seams import Face


def laid_flat(template: Template, face: Face, corrections: Corrections) -> dict[str, Motion]:
    """Return the motion of each panel of a face, in stacking order, into the plane of the face's base panel.

    A panel is placed by the first of its seams with one that lies there already, as far round as it need be; where samples
    have shown that it is sewn elsewhere, there. Panels that no seam leads to are left out.
    """
    placed = {face.around: Motion()}
    waiting = True
    while waiting:
        waiting = False
        for seam in template.seams:
            ends = seam.leader, seam.follower
            if not set(ends) <= set(face.panels) or sum(end in placed for end in ends) != 1:
                continue
            motion = motion_of(seam, template.panel(seam.leader), template.panel(seam.follower))
            motion = motion.moved(*corrections.get(seam.id, (0.0, 0.0)))
            if seam.leader in placed:
                placed[seam.follower] = motion.then(placed[seam.leader])
            else:
                placed[seam.leader] = motion.back().then(placed[seam.follower])
            waiting = True
    return {panel: placed[panel] for panel in face.panels if panel in placed}
