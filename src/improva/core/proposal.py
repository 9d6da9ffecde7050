"""The suggested placement of a pair, by stated rules on the artwork and the panel."""

from __future__ import annotations

import math
from dataclasses import dataclass

from .artwork.reading import ArtFacts
from .artwork.traits import Traits
from .design import PanelContent, Placement
from .fit import can_roll, place
from .sewing.linked_panels import first_follow, seam_of
from .template import Panel, Template
from .tiling import nearest_count, step_of

MOST_LOST = 0.4
"""Most of a picture that a cover may crop: two fifths would hide its subject. From memory."""

MOST_LOST_DRAWING = 0.08
"""A drawing on an even background, such as a poster, has words or a frame near its edges. From memory."""

MOTIF_SHARE = 0.86
"""Share of the print area for a single motif with some margin. From memory."""

TALLEST_TILE = 0.62
"""A tile that fills more than this share of a blank does not look like a pattern. From memory."""


@dataclass(frozen=True)
class Proposal:
    """A suggested placement and its reason, in one sentence. None leaves the panel empty."""

    placement: PanelContent | None
    why: str


def _pattern(panel: Panel, facts: ArtFacts) -> Placement:
    level = panel.level()
    claimed = facts.size.claimed_mm
    least = TALLEST_TILE * min(level.trim_mm)
    width = min(claimed[0], least * claimed[0] / max(claimed))
    if level.closes:
        around = nearest_count(level.trim_mm[0], width, step_of(level, "grid"))
        return Placement("repeat", repeats_around=around)
    return Placement("repeat", scale=round(width / claimed[0], 4))


def _lost(panel: Panel, facts: ArtFacts) -> float:
    """Return the share of the picture that a cover crops."""
    field = panel.field("bent")
    _, _, w, h = place(panel, facts.size, Placement("cover")).box
    return 1 - field.file_mm[0] * field.file_mm[1] / (w * h)


def propose_placement(template: Template, panel: Panel, facts: ArtFacts, traits: Traits) -> Proposal:
    """Return the suggested content of a panel: panels that lie on others continue them; see :func:`propose_own_placement` for
    the rest."""
    if (follow := first_follow(template, panel)) is not None:
        beneath = template.panel(seam_of(template, follow.seam).leader)
        return Proposal(follow, f"It shows what lies there on the {beneath.title.lower()}.")
    return propose_own_placement(template, panel, facts, traits)


def contain_scale(panel: Panel, kind: str) -> float:
    """Return the scale at which an artwork of a kind is shown whole: a cut-out gets air round it, and on a blank that is cut
    along it there is room for its border and for the sewing allowance."""
    if kind != "cutout":
        return 1.0
    if panel.shape == "cutout":
        return math.floor(1000 * (1 - 2 * (panel.safe_mm + panel.allowance_mm) / min(panel.trim_mm))) / 1000
    return MOTIF_SHARE


def propose_own_placement(template: Template, panel: Panel, facts: ArtFacts, traits: Traits) -> Proposal:
    """Return the suggested placement of a panel that does not follow another.

    1. A panel that starts empty stays so.
    2. A cut-out is shown whole with air around it; on a mug on front and back, beside the handle's gap.
    3. A drawing that runs off all edges and meets itself is a pattern and repeats, but where the blank wants one motif.
    4. Where covering would lose a tenth of a drawing on an even ground, all of it is shown and its background extended.
    5. Where covering would lose more than two fifths of a picture, a mug shows all of it on front and back.
    6. Otherwise the blank's own fit.
    """
    if panel.starts == "empty":
        return Proposal(None, "This side stays empty until you place artwork on it.")
    motif = template.default_fit == "contain"
    if traits.kind == "cutout":
        scale = contain_scale(panel, traits.kind)
        if panel.gap_mm:
            return Proposal(Placement("contain", copies=2, scale=scale), "A cut-out on a mug goes on front and back.")
        return Proposal(Placement("contain", scale=scale), "A cut-out is shown whole, with some air round it.")
    if traits.all_over and traits.joint <= template.limit("joint_delta_e") and not motif:
        # on a sewn blank, tiles have the same size on all panels
        return Proposal(
            _pattern(template.panels[0] if template.seams else panel, facts), "A pattern that meets itself is repeated."
        )
    lost = _lost(panel, facts) if template.default_fit == "cover" else 0.0
    if traits.ground and lost > MOST_LOST_DRAWING:
        reason = "All of a drawing is shown and its background extended" + (", on front and back." if panel.gap_mm else ".")
        return Proposal(Placement("contain", background=traits.ground, copies=2 if panel.gap_mm else 1), reason)
    if lost > MOST_LOST and panel.gap_mm:
        return Proposal(
            Placement("contain", copies=2, scale=0.9), "Covering would lose most of it, so front and back show all of it."
        )
    if lost > MOST_LOST:
        return Proposal(Placement("cover"), "The blank is covered, though much of the picture is lost.")
    return Proposal(Placement(template.default_fit), f"This blank wants {template.default_fit}.")  # type: ignore[arg-type]


def adapt_placement(placement: Placement, source: Panel, target: Panel) -> Placement:
    """Return a placement adapted to another blank's panel: shift and spacing keep their share of the trim.

    The number of repeats round is kept where it closes there; the fit, turn, scale, copies and ground as they are.
    """
    a, b = source.field(placement.lay).trim_mm, target.field(placement.lay).trim_mm
    shift = (placement.shift_mm[0] * b[0] / a[0], placement.shift_mm[1] * b[1] / a[1])
    around = placement.repeats_around
    step = step_of(target, placement.repeat_kind)
    if around is not None and around % step:
        around += 1
    turn = placement.rotate_deg
    if placement.fit == "repeat" and target.closes:
        turn = round(turn / 90) * 90.0
    return placement.changed(
        shift_mm=(round(shift[0], 3), round(shift[1], 3)),
        spacing_mm=placement.spacing_mm * b[0] / a[0],
        repeats_around=around,
        rotate_deg=turn,
        roll_mm=placement.roll_mm * b[0] / a[0] if can_roll(target, placement) else 0.0,
    )
