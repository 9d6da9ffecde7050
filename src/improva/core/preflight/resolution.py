"""Checks of resolution: pixels per printed inch, and the dpi tag."""

from __future__ import annotations

import math

from ..fit import first_size
from ..units import MM_PER_IN, inches
from .result import CheckResult, Fix, Status
from .subject import Subject

TAG_TOLERANCE = 1.05
ROUNDING_PX = 3
ARC_MINUTES = 3437.75
"""Minutes of arc in a radian, 180 · 60 / π."""


def _size_in(subject: Subject) -> str:
    _, _, w, h = subject.placed.box
    return f"{inches(w):.2f} × {inches(h):.2f} in"


def sharpness(subject: Subject, dpi: float) -> tuple[Status, float, str]:
    """Rate a resolution on a blank: the status, the limit, and a few words.

    Half a dpi is the rounding of whole pixels, not a finding. Limits: common practice, no published source.
    """
    least, good = subject.template.least_dpi, subject.template.good_dpi
    if round(dpi) >= good:
        return "pass", good, "sharp"
    if round(dpi) >= least:
        return "warn", good, "soft when looked at closely"
    return "fail", least, f"under the {least:.0f} dpi that print providers take"


def check_resolution(subject: Subject) -> CheckResult:
    """Measure the effective resolution in the worse direction, in dpi."""
    least, good = subject.template.least_dpi, subject.template.good_dpi
    if subject.facts.vector:
        doubt = " It holds a picture made of pixels, which may still be coarse." if subject.facts.embeds_raster else ""
        dpi = subject.panel.dpi
        return CheckResult(
            "resolution",
            "Sharpness",
            "warn" if doubt else "pass",
            dpi,
            least,
            "dpi",
            f"Vector artwork: sharp at any size.{doubt}",
        )
    px, dpi = [round(v) for v in subject.facts.true_px], min(subject.placed.dpi)
    enlarged = f"enlarged ×{subject.facts.enlarged:.3g}, but " if subject.facts.enlarged > 1 else ""
    message = f"{enlarged}{px[0]} × {px[1]} px{' of its own' if enlarged else ''} over {_size_in(subject)} is {dpi:.0f} dpi"
    message = message[0].upper() + message[1:]
    status, limit, advice = sharpness(subject, dpi)
    if status == "pass":
        return CheckResult("resolution", "Sharpness", "pass", dpi, limit, "dpi", f"{message}: {advice}.")
    _, _, w, h = subject.placed.box
    need = [math.ceil(side / MM_PER_IN * good - 0.5) for side in (w, h)]
    if all(abs(a - b) <= ROUNDING_PX for a, b in zip(need, subject.field.file_px(good), strict=True)):
        need = list(subject.field.file_px(good))
    export = f"Export it at {need[0]} × {need[1]} px for {good:.0f} dpi; changing the dpi tag adds nothing."
    fix = _smaller(subject, least) if status == "fail" else None
    return CheckResult("resolution", "Sharpness", status, dpi, limit, "dpi", f"{message}, {advice}. {export}", fix)


def eye_dpi(viewing_mm: float) -> float:
    """Return the resolution of the finest detail that the eye separates at a distance: one minute of arc.

    Source: ISO 8596, visual acuity 1.0; an inch seen from d inches holds d·tan(1′) of them: 3438 / d.
    """
    return ARC_MINUTES / inches(viewing_mm)


def check_eye(subject: Subject) -> CheckResult:
    """Compare the effective resolution with what the eye resolves at the product's viewing distance."""
    distance = subject.limit("viewing_mm")
    need = eye_dpi(distance)
    if subject.facts.vector:
        return CheckResult(
            "eye",
            "Sharpness at viewing distance",
            "pass",
            None,
            round(need, 1),
            "dpi",
            "Vector artwork: as fine as the eye resolves.",
        )
    dpi = min(subject.placed.dpi)
    message = f"At {distance:.0f} mm the eye resolves {need:.0f} dpi"
    if round(dpi) >= min(round(need), subject.template.good_dpi):
        return CheckResult(
            "eye", "Sharpness at viewing distance", "pass", dpi, round(need, 1), "dpi", f"{message}; the print is as fine."
        )
    return CheckResult(
        "eye",
        "Sharpness at viewing distance",
        "warn",
        dpi,
        round(need, 1),
        "dpi",
        f"{message}; the print has {dpi:.0f}.",
    )


def _smaller(subject: Subject, least: float) -> Fix | None:
    """Fix: print the whole picture smaller, at the least accepted resolution."""
    placement = subject.placement.changed(fit="contain", scale=1.0)
    if subject.placed.tiling is not None:
        return None
    w, _ = first_size(subject.field, subject.facts.size, placement)
    fitting = subject.facts.true_px[0] / inches(w)
    scale = min(1.0, fitting / least)
    if scale < 0.05:
        return None
    return Fix(f"Print it smaller, at {max(fitting, least):.0f} dpi", {"fit": "contain", "scale": round(scale - 5e-5, 4)})


def check_tag(subject: Subject) -> CheckResult:
    """Compare the dpi tag with the true resolution, so that a new tag does not look like an improvement."""
    true, tag = min(subject.placed.dpi), subject.facts.tagged_dpi
    if subject.facts.vector:
        return CheckResult("tag", "Dpi tag", "pass", None, None, "dpi", "Vector artwork: it has no dpi of its own.")
    if tag is None:
        return CheckResult(
            "tag",
            "Dpi tag",
            "pass",
            None,
            round(true, 2),
            "dpi",
            f"The file carries no dpi tag; at this size it has {true:.0f}.",
        )
    tagged = min(tag) / subject.facts.enlarged
    if tagged > true * TAG_TOLERANCE and true < subject.template.good_dpi:
        return CheckResult(
            "tag",
            "Dpi tag",
            "warn",
            tagged,
            round(true, 2),
            "dpi",
            f"The file is tagged {tagged:.0f} dpi, but printed at {_size_in(subject)} it has {true:.0f}. "
            "The tag is only a note; the pixels count.",
        )
    return CheckResult(
        "tag",
        "Dpi tag",
        "pass",
        tagged,
        round(true, 2),
        "dpi",
        f"Tagged {tagged:.0f} dpi; at this size it has {true:.0f}, which is what counts.",
    )
