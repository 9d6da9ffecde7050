"""A T-shirt that lies flat. Lengths in cm; x right, y up in the picture, z towards the viewer."""

from __future__ import annotations

import numpy as np

from studio.cloth.material import JERSEY
from studio.cloth.mesh import Cloth, sew
from studio.draped import tshirt
from studio.draped.laid import lay
from studio.draped.tshirt import Cut
from studio.draped.tshirt_worn import finished, placed


def flat(shirt: Cut, back: bool, seed: int) -> Cloth:
    """Return a shirt that lies on a table, with its front or its back up; its neck is at the origin."""
    panels = tshirt.panels(shirt)
    at = placed(shirt, panels, np.zeros(3), lambda x, z: 0.0 * x)
    if back:
        at = {name: points * [-1, -1, 1] for name, points in at.items()}
    return lay(sew(panels, at, tshirt.SEAMS, JERSEY), lambda made: finished(shirt, made), seed)
