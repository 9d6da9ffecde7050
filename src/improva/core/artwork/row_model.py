"""Tell rows of lettering from other rows of parts: a logistic regression whose numbers were fitted to a labelled set.

``python -m improva.bench.lettering_fit`` fits them again, prints this table, and says how they do on pictures that
they were not fitted to.
"""

from __future__ import annotations

import numpy as np

from ..colour import Floats

MEASURES: dict[str, tuple[float, float, float, float]] = {
    "uneven pitch": (0.2315, 0.2603, -0.3673, -0.0362),
    "sharpness of edges": (1.2586, 0.4146, 0.6085, -0.0864),
    "edges beside the letters": (0.1420, 0.2250, -1.1053, 0.2192),
    "other parts close to it": (0.7325, 1.2459, -1.1534, 0.4884),
    "letters joined": (0.8648, 0.7092, -2.5656, -0.4638),
    "length of lines": (2.2911, 2.0853, 2.8172, -0.5307),
    "number of letters": (1.7208, 0.5498, 1.5114, -0.3496),
    "contrast": (4.6319, 0.3962, 1.0131, 0.0836),
    "off the line": (0.0135, 0.0439, -0.3547, -0.0502),
    "share of the box filled": (0.4690, 0.1495, 1.0272, -0.2538),
    "thickness of strokes": (0.2386, 0.1988, -0.3961, -0.2458),
    "uneven gaps": (0.1286, 0.2680, 0.1915, 0.1869),
    "gaps": (0.0789, 0.2959, 0.3737, -0.0387),
    "height": (2.5994, 0.8969, 1.1380, -0.2880),
}
"""For each measure: mean and standard deviation in the labelled set, and the weights of the value and of its square."""

CONSTANT = 0.4136
THRESHOLD = 3.0
"""Score from which a row counts as lettering: false alarms cost the seller's trust, so it lies above 0."""

FARTHEST = 4.0
"""Values count as no farther from the mean than so many deviations."""


def score(measures: Floats) -> float:
    """Return the logarithm of the odds that a row with these measures is lettering."""
    mean, deviation, weight, square = np.array(list(MEASURES.values())).T
    z = np.clip((measures - mean) / deviation, -FARTHEST, FARTHEST)
    return float(z @ weight + (z * z) @ square + CONSTANT)
