"""Checks of transparency and colour."""

from __future__ import annotations

import cv2
import numpy as np
import pyvips

from ..colour import delta_e_2000, lab, lab_distance, parse_hex, srgb_from_linear
from ..ink import colour_reflectance, printed
from ..output.profile import soft_proof
from ..render.contour import within_border
from .result import CheckResult, Fix
from .subject import Subject

HALF_LOW, HALF_HIGH = 13, 242
"""Alpha below 5 % or above 95 % counts as none or full: antialiased edges are not haze."""


def check_transparency(subject: Subject) -> CheckResult:
    """Measure the semi-transparent part of the print, in per cent of the printed area."""
    flat, limit = subject.flat, subject.limit("half_percent")
    if flat.shape[2] == 3:
        return CheckResult("transparency", "Transparency", "pass", 0.0, limit, "%", "Nothing is transparent.")
    alpha = flat[..., 3]
    printed = int((alpha >= HALF_LOW).sum())
    if not printed:
        return CheckResult(
            "transparency",
            "Transparency",
            "fail",
            100.0,
            limit,
            "%",
            "Nothing would be printed: the picture is empty or lies outside the print.",
        )
    half = 100 * int(((alpha >= HALF_LOW) & (alpha <= HALF_HIGH)).sum()) / printed
    bare = 100 * float(np.mean(alpha < HALF_LOW))
    ground = f"{bare:.0f} % stays bare and shows the blank"
    if half <= limit:
        return CheckResult("transparency", "Transparency", "pass", round(half, 2), limit, "%", f"{ground}.")
    if subject.template.half_transparent == "fine":
        return CheckResult(
            "transparency",
            "Transparency",
            "pass",
            round(half, 2),
            limit,
            "%",
            f"{ground}; {half:.0f} % of the ink is half transparent, which this blank takes well.",
        )
    return CheckResult(
        "transparency",
        "Transparency",
        "warn",
        round(half, 2),
        limit,
        "%",
        f"{half:.0f} % of the ink is half transparent, which prints as a hard, pale haze here.",
    )


def check_colour_mode(subject: Subject) -> CheckResult:
    """Report whether colours were converted to sRGB, and from what."""
    facts = subject.facts
    if facts.converted_from and facts.mode.startswith("CMYK"):
        return CheckResult(
            "colour-mode",
            "Colour",
            "warn",
            None,
            None,
            "",
            f"Colours were converted from {facts.converted_from} to sRGB and may have shifted: "
            "compare them, or export the artwork as RGB.",
        )
    if facts.converted_from:
        return CheckResult(
            "colour-mode",
            "Colour",
            "pass",
            None,
            None,
            "",
            f"Colours were converted from the profile {facts.converted_from} to sRGB.",
        )
    return CheckResult("colour-mode", "Colour", "pass", None, None, "", f"{facts.mode}: printed as sRGB.")


def check_haze(subject: Subject) -> CheckResult | None:
    """Measure near-white, semi-transparent points away from solid ink, in per cent of the printed area."""
    if not subject.facts.has_alpha or subject.facts.vector:
        return None
    limit, share, box = subject.limit("haze_percent"), 100 * subject.traits.haze, subject.traits.haze_box
    if share <= limit or box is None:
        return CheckResult("haze", "Pale haze", "pass", round(share, 2), limit, "%", "No veil is left round the cut-out.")
    x, y, w, h = subject.placed.box
    where = ((x + box[0] * w, y + box[1] * h, box[2] * w, box[3] * h),)
    return CheckResult(
        "haze",
        "Pale haze",
        "warn",
        round(share, 2),
        limit,
        "%",
        f"{share:.1f} % of the cut-out is a near-white veil away from its edge: clean it with the white point set higher.",
        where=where,
    )


WHITE_STEP = 4.0
"""Lab distance below which a printed point looks like the bare blank. From memory."""


def check_white(subject: Subject) -> CheckResult | None:
    """Measure the part of a cut-out's solid print that looks like the bare blank, in per cent."""
    if subject.trim_alpha is None or subject.content.kind != "cutout":
        return None
    limit = subject.limit("white_percent")
    solid = subject.trim_alpha > HALF_HIGH
    solid = within_border(subject.trim_lab, solid, subject.px_per_mm)
    blank = lab(np.array([[parse_hex(subject.template.blank_colour)]], np.uint8))
    white = lab(np.array([[(255, 255, 255)]], np.uint8))
    seen = subject.trim_lab
    like = np.minimum(lab_distance(seen, blank), lab_distance(seen, white)) < WHITE_STEP
    share = 100 * float((like & solid).sum()) / max(1, int(solid.sum()))
    if share <= limit:
        return CheckResult(
            "white-on-blank",
            "White on the blank",
            "pass",
            round(share, 1),
            limit,
            "%",
            "Little of the motif is as white as the blank.",
        )
    return CheckResult(
        "white-on-blank",
        "White on the blank",
        "warn",
        round(share, 1),
        limit,
        "%",
        f"{share:.0f} % of the motif is as white as the blank and will not show on it.",
        Fix("Add a background", {"background": "#b9c4c0"}),
    )


DARK_BLANK = 80.0
"""L* below which a blank darkens everything printed on it; halved, because ΔE2000 weighs lightness so there. From memory."""


def check_tint(subject: Subject) -> CheckResult | None:
    """Measure how far the blank's colour shifts the print, mean ΔE2000."""
    limit = subject.limit("tint_delta_e")
    small = np.asarray(cv2.resize(subject.seen, (120, 120), interpolation=cv2.INTER_AREA), np.uint8)
    blank = colour_reflectance(subject.template.blank_colour)
    shifts = [srgb_from_linear(printed(small, paper)) for paper in (blank, np.full(3, float(blank.max()), np.float32))]
    tinted, neutral = (lab((image * 255 + 0.5).astype(np.uint8)) for image in shifts)
    shade = lab(np.array([[parse_hex(subject.template.blank_colour)]], np.uint8))[0, 0, 0]
    shift = float(delta_e_2000(tinted, neutral).mean())
    dark = max(0.0, DARK_BLANK - float(shade)) / 2
    measured = max(shift, dark)
    if measured <= limit:
        return CheckResult(
            "tint", "The blank's colour", "pass", round(measured, 1), limit, "ΔE", "The blank leaves colours as they are."
        )
    return CheckResult(
        "tint",
        "The blank's colour",
        "warn",
        round(measured, 1),
        limit,
        "ΔE",
        f"The blank ({subject.template.blank_colour}) shifts the colours laid on it by ΔE {measured:.0f} on average: "
        "dyes are transparent.",
    )


def check_gamut(subject: Subject) -> CheckResult | None:
    """Measure the part of the print out of the printer's gamut, in per cent; None without a profile."""
    if subject.profile is None:
        return None
    limit, step = subject.limit("gamut_percent"), subject.limit("gamut_delta_e")
    shown = np.asarray(cv2.resize(subject.seen, (300, 300), interpolation=cv2.INTER_AREA), np.uint8)
    proof = soft_proof(pyvips.Image.new_from_array(shown, interpretation="srgb"), subject.profile, "relative").numpy()
    share = 100 * float((delta_e_2000(lab(shown), lab(proof)) > step).mean())
    if share <= limit:
        return CheckResult(
            "gamut",
            "Out-of-gamut colours",
            "pass",
            round(share, 1),
            limit,
            "%",
            f"{100 - share:.0f} % of the print comes out within ΔE {step:g} of what is shown.",
        )
    return CheckResult(
        "gamut",
        "Out-of-gamut colours",
        "warn",
        round(share, 1),
        limit,
        "%",
        f"{share:.0f} % of the print has colours that the printer's profile cannot keep; they come out duller.",
    )
