"""What reaches the blank as ink: transparency, and colours that were converted."""

from __future__ import annotations

import numpy as np

from .subject import Subject
from .verdict import Verdict

HALF_LOW, HALF_HIGH = 13, 242
"""Alpha outside 5 to 95 % counts as none or full: edges drawn smooth are not haze."""

HALF_WARN_PERCENT = 2.0
"""From memory: smooth edges alone stay under two per cent of a motif."""


def check_transparency(subject: Subject) -> Verdict:
    """Share of the print that is half transparent, in per cent of what is printed at all."""
    flat = subject.flat
    if flat.shape[2] == 3:
        return Verdict("transparency", "Transparency", "pass", 0.0, HALF_WARN_PERCENT, "%", "Nothing is transparent.")
    alpha = flat[..., 3]
    printed = int((alpha >= HALF_LOW).sum())
    if not printed:
        return Verdict("transparency", "Transparency", "fail", 100.0, HALF_WARN_PERCENT, "%",
                       "Nothing would be printed: the picture is empty or lies outside the print.")  # fmt: skip
    half = 100 * int(((alpha >= HALF_LOW) & (alpha <= HALF_HIGH)).sum()) / printed
    bare = 100 * float(np.mean(alpha < HALF_LOW))
    ground = f"{bare:.0f} % stays bare and shows the blank"
    if half <= HALF_WARN_PERCENT:
        return Verdict("transparency", "Transparency", "pass", round(half, 2), HALF_WARN_PERCENT, "%", f"{ground}.")
    if subject.template.half_transparent == "fine":
        return Verdict("transparency", "Transparency", "pass", round(half, 2), HALF_WARN_PERCENT, "%",
                       f"{ground}; {half:.0f} % of the ink is half transparent, which this blank takes well.")  # fmt: skip
    return Verdict("transparency", "Transparency", "warn", round(half, 2), HALF_WARN_PERCENT, "%",
                   f"{half:.0f} % of the ink is half transparent, which prints as a hard, pale haze here.")  # fmt: skip


def check_colour_mode(subject: Subject) -> Verdict:
    """Whether colours had to be converted to sRGB, and from what."""
    facts = subject.facts
    if facts.converted_from and facts.mode.startswith("CMYK"):
        return Verdict("colour-mode", "Colour", "warn", None, None, "",
                       f"Colours were converted from {facts.converted_from} to sRGB and may have shifted: "
                       "compare them, or export the artwork as RGB.")  # fmt: skip
    if facts.converted_from:
        return Verdict("colour-mode", "Colour", "pass", None, None, "",
                       f"Colours were converted from the profile {facts.converted_from} to sRGB.")  # fmt: skip
    return Verdict("colour-mode", "Colour", "pass", None, None, "", f"{facts.mode}: printed as sRGB.")
