"""What every settled cloth that ships must be, whatever it looks like."""

from __future__ import annotations

import numpy as np
import pytest
from numpy.typing import NDArray

from studio.cloth.crossings import crossings
from studio.cloth.material import Material
from studio.cloth.mesh import Cloth
from studio.cloth.surface import Surface


def crossed_edges(surface: Surface, material: Material) -> NDArray[np.float64]:
    """Check a cloth's stretch and area, and return the middles (n, 3) of edges that pass through it."""
    at, triangles = surface.sewn()
    flat = np.concatenate([surface.panels[panel][0][surface.triangles[panel]] for panel in surface.panels])
    cloth = Cloth(at, triangles, flat, np.zeros(len(triangles), np.int64), ("cloth",), material)
    assert np.percentile(cloth.stretch(), 99) < 1.15 and np.median(cloth.stretch()) == pytest.approx(1, abs=0.01)
    assert cloth.areas().sum() == pytest.approx(cloth.flat_areas().sum(), rel=0.02)
    return np.asarray(at[cloth.edges[crossings(at, triangles, cloth.edges)[:, 0]]].mean(axis=1))
