"""All checks in the order of the work, and their verdict."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from ..artwork.pixels import Artwork
from ..artwork.traits import Traits
from ..design import Placement
from ..fit import Placed
from ..template import Panel, Template
from .coverage import check_bare, check_bleed, check_crop, check_distortion
from .guide import check_guide
from .handle_gap import check_handle_gap
from .ink import check_colour_mode, check_gamut, check_haze, check_tint, check_transparency, check_white
from .pieces import check_letters_there, check_pieces_safe, check_pieces_sharp, check_slots, check_words_contrast
from .resolution import check_eye, check_resolution, check_tag
from .result import CheckResult, Status, worst
from .rights import check_origin
from .sewn_seams import check_near_seams
from .subject import Subject
from .words import check_keep_out, check_lettering, check_safe, check_stroke
from .wrap_seam import check_repeat_joint, check_seam_match, check_seam_zone

CHECKS: tuple[Callable[[Subject], CheckResult | None], ...] = (
    check_resolution,
    check_eye,
    check_tag,
    check_bare,
    check_bleed,
    check_crop,
    check_distortion,
    check_safe,
    check_keep_out,
    check_near_seams,
    check_lettering,
    check_stroke,
    check_seam_match,
    check_seam_zone,
    check_handle_gap,
    check_repeat_joint,
    check_transparency,
    check_haze,
    check_white,
    check_tint,
    check_colour_mode,
    check_gamut,
    check_guide,
    check_pieces_safe,
    check_letters_there,
    check_words_contrast,
    check_pieces_sharp,
    check_slots,
    check_origin,
)

LINKED_CHECKS = (check_resolution, check_bare, check_bleed, check_safe, check_keep_out, check_near_seams, check_transparency)
"""Checks that run for a panel that shows another's design; all others run for the first panel, and are fixed there."""


@dataclass(frozen=True)
class PreflightReport:
    """The preflight report of one artwork on one panel."""

    placed: Placed
    verdict: Status
    checks: tuple[CheckResult, ...]


def run_preflight(
    template: Template,
    panel: Panel,
    art: Artwork,
    placement: Placement,
    profile: bytes | None = None,
    traits: Traits | None = None,
    **more: Any,
) -> PreflightReport:
    """Run every check that applies. ``profile`` is the printer's ICC profile; ``traits`` are the artwork's if already known;
    for ``more`` see :class:`Subject`.

    Raises:
        ArtworkError, PlacementError: the artwork cannot be decoded or placed.
    """
    return run_checks(Subject(template, panel, art, placement, profile, traits, **more))


def run_checks(subject: Subject, more: tuple[CheckResult, ...] = ()) -> PreflightReport:
    """Run every check that applies, and put the results ``more`` first.

    Raises:
        ArtworkError, PlacementError: it cannot be looked at.
    """
    checks = tuple(v for check in (LINKED_CHECKS if subject.linked else CHECKS) if (v := check(subject)) is not None)
    if subject.linked is not None:
        checks = tuple(replace(v, fix=None, more=()) for v in checks)
    checks = more + checks
    return PreflightReport(subject.placed, worst([v.status for v in checks]), checks)
