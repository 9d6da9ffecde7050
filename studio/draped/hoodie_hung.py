"""A hoodie on a hanger. Lengths in cm; x right, y away from the viewer, z up; the hoodie's neck is at the origin."""

from __future__ import annotations

import numpy as np

from studio.cloth.mesh import Cloth, sew
from studio.cloth.obstacles import Obstacle
from studio.cloth.simulation import Simulation
from studio.draped import hoodie
from studio.draped.tshirt_hung import hanger

PADDED = 1.0
"""How much thicker this hanger is than a shirt's, which the coarse mesh of fleece would cut."""

FALLING, RESTING = 170, 50


def hung() -> Cloth:
    """Return a hoodie that hangs still on a hanger, its hood behind it."""
    made, seams = hoodie.panels(hoodie.SPACING)
    at = hoodie.placed(made, np.array([0.0, 0.0, 2.6]), lambda x, z: 0.0 * x)
    cloth = sew(made, at, seams, hoodie.CLOTH)
    thin = hanger()
    bar = Obstacle.of(lambda points: thin(points) - PADDED, (-28.0, -7.0, -16.0), (28.0, 7.0, 7.0), 0.5, 0.5)
    hoodie.finished(cloth)
    simulation = Simulation(cloth, [bar], damping=4.0, fastest=50.0)
    weight = simulation.gravity
    simulation.gravity = weight + np.array([0.0, 250.0, 0.0])  # the hood falls to the back
    simulation.run(FALLING // 3)
    simulation.gravity = weight
    simulation.run(FALLING - FALLING // 3)
    simulation.damping = 12.0
    simulation.run(RESTING)
    return cloth
