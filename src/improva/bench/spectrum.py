"""How fine detail falls off in each scene's picture, beside photographs: the slope of the power spectrum."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ..app.render_cache import RenderCache
from ..app.scenes import SceneLibrary
from ..catalogue import template as find_template
from ..core.artwork.pixels import Artwork
from ..core.design import Design, Piece, Placement
from ..core.mockup.camera import as_camera
from ..core.mockup.render import render_mockup
from .timing import row

PHOTOGRAPHS = {"astronaut": -2.764, "chelsea": -2.920, "coffee": -3.095, "rocket": -2.370}
"""Slopes of the photographs that ship in scikit-image, by :func:`slope`; a test measures them again.

Natural scenes have about -2 (Field, J. Opt. Soc. Am. A 4 (1987) 2379); a lens out of focus makes it steeper.
"""

LOW, HIGH = 0.02, 0.35
"""Frequencies between which the slope is taken, in cycles a pixel: coarser ones are composition, finer ones encoding."""

BANDS = 24
SIZE = (1280, 960)

STEEPEST = 1.35
"""Most that a scene's slope may be against that of photographs: many stand before a place that is far out of focus."""


def slope(picture: NDArray[np.uint8]) -> float:
    """Return the slope of a picture's power over frequency, both as logarithms; the picture is (h, w, 3) sRGB.

    Power is that of luma under a Hann window, averaged over all directions in bands of equal width on a logarithmic scale.
    """
    luma = cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2GRAY).astype(np.float64)
    h, w = luma.shape
    window = np.hanning(h)[:, None] * np.hanning(w)[None, :]
    power = np.abs(np.fft.rfft2((luma - luma.mean()) * window)) ** 2
    frequency = np.hypot(np.fft.fftfreq(h)[:, None], np.fft.rfftfreq(w)[None, :])
    edges = np.geomspace(LOW, HIGH, BANDS + 1)
    band = np.digitize(frequency.ravel(), edges) - 1
    inside = (band >= 0) & (band < BANDS)
    mean = np.bincount(band[inside], power.ravel()[inside], BANDS) / np.maximum(np.bincount(band[inside], minlength=BANDS), 1)
    middle, seen = np.sqrt(edges[1:] * edges[:-1]), mean > 0
    if seen.sum() < 2:
        return 0.0  # an even picture has no detail to fall off
    return float(np.polyfit(np.log(middle[seen]), np.log(mean[seen]), 1)[0])


def bench_spectra(art: Artwork) -> list[dict[str, Any]]:
    """Compare each shipped scene's slope with the mean slope of photographs; a steeper one lacks fine detail."""
    render_cache, usual = RenderCache(), float(np.mean(list(PHOTOGRAPHS.values())))
    rows = []
    for name, info in sorted(SceneLibrary().packs().items()):
        blank = find_template(info.templates[0])
        designs = [Design(blank, panel, (Piece("art", art.facts.size, Placement()),)) for panel in blank.panels]
        picture = render_mockup(render_cache.shaded_view(info, SIZE, {}), designs, lambda _: art, 0.0)
        found = slope(as_camera(np.ascontiguousarray(picture)))
        rows.append(row(f"slope of the spectrum, {name}", found, "photographs", usual, STEEPEST))
    return rows
