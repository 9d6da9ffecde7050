"""The mirror rule: which print files are mirrored, and how."""

from __future__ import annotations

import pyvips


def is_mirrored(route: str) -> bool:
    """Return whether print files of a route are mirrored: transfer paper is pressed face down, a provider prints as shown."""
    return route == "press"


def mirrored(image: pyvips.Image) -> pyvips.Image:
    """Exchange left and right of a print file, with its paper and marks."""
    return image.fliphor()
