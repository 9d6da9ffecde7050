"""How heavy, stiff and thick cloths are."""

from __future__ import annotations

from dataclasses import dataclass

GRAVITY = 981.0
"""cm/s²."""


@dataclass(frozen=True)
class Material:
    """A cloth.

    Attributes:
        density: mass of a square centimetre, g.
        bending: flexural rigidity, dyn·cm.
        thickness: of one layer, cm.
        stretch: stiffness of an edge against a change of its length, dyn/cm.
        friction: against itself and most other things, a coefficient.
    """

    density: float
    bending: float
    thickness: float
    stretch: float = 4e5
    friction: float = 0.35

    @property
    def bending_length(self) -> float:
        """Return the bending length in cm: the cube root of flexural rigidity by weight (Peirce 1930; ASTM D1388)."""
        return float((self.bending / (self.density * GRAVITY)) ** (1 / 3))


JERSEY = Material(0.018, 27.0, 0.06)
"""Cotton jersey of a T-shirt, 180 g/m², bending length 1.15 cm. Typical of knits in ASTM D1388's range; from memory."""

FLEECE = Material(0.028, 420.0, 0.22)
"""Brushed fleece of a hoodie or a throw, 280 g/m², bending length 2.5 cm. From memory."""

CANVAS = Material(0.030, 1900.0, 0.07)
"""Cotton canvas of a tote, 300 g/m², bending length 4 cm. From memory."""

POLYESTER = Material(0.011, 24.0, 0.03)
"""Woven polyester of a flag, 110 g/m², bending length 1.3 cm. From memory."""
