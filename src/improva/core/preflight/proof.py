"""All checks in the order of the work, and the verdict they come to."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..artwork.pixels import Artwork
from ..design import Placing
from ..fit import Placed
from ..template import Panel, Template
from .fitting import check_bare, check_crop, check_distortion
from .ink import check_colour_mode, check_transparency
from .resolution import check_resolution, check_tag
from .seam import check_seam_match, check_seam_zone
from .subject import Subject
from .verdict import Status, Verdict, worst

CHECKS: tuple[Callable[[Subject], Verdict | None], ...] = (
    check_resolution,
    check_tag,
    check_bare,
    check_crop,
    check_distortion,
    check_seam_match,
    check_seam_zone,
    check_transparency,
    check_colour_mode,
)


@dataclass(frozen=True)
class Proof:
    """The judgement of one artwork on one panel."""

    placed: Placed
    verdict: Status
    checks: tuple[Verdict, ...]


def prove(template: Template, panel: Panel, art: Artwork, placing: Placing) -> Proof:
    """Run every check that applies.

    Raises:
        BadArtwork, BadPlacing: the artwork cannot be decoded or placed.
    """
    subject = Subject(template, panel, art, placing)
    checks = tuple(v for check in CHECKS if (v := check(subject)) is not None)
    return Proof(subject.placed, worst([v.status for v in checks]), checks)
