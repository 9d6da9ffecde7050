"""A settled cloth as a smooth surface over its flat panels, as fine as a picture needs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CloughTocher2DInterpolator

from .mesh import Cloth

Points = NDArray[np.float64]


@dataclass(frozen=True)
class Surface:
    """The points of a settled cloth, panel by panel.

    Attributes:
        panels: flat places (n, 2) and positions (n, 3) of each panel's points, in cm.
    """

    panels: Mapping[str, tuple[Points, Points]]

    @classmethod
    def of(cls, cloth: Cloth) -> Surface:
        """Return the surface of a cloth as it lies."""
        found = {}
        for number, name in enumerate(cloth.names):
            chosen = cloth.panel == number
            corners, places = cloth.triangles[chosen].ravel(), cloth.flat[chosen].reshape(-1, 2)
            which, first = np.unique(corners, return_index=True)
            found[name] = places[first], cloth.at[which]
        return cls(found)

    def over(self, panel: str, flat: Points) -> Points:
        """Return the points (…, 3) over flat places (…, 2) in cm inside a panel's outline.

        The surface passes through the cloth's points with a continuous slope (Clough and Tocher); each panel has slopes of its own,
        so that a seam may be a crease.
        """
        places, at = self.panels[panel]
        low, high = places.min(axis=0), places.max(axis=0)
        margin = 1e-6 * (high - low)  # rounding must not put a place on the outline outside of it
        return np.asarray(CloughTocher2DInterpolator(places, at)(np.clip(flat, low + margin, high - margin)), np.float64)
