"""The inner loops of the simulation, compiled by Numba: lengths and hinges by extended position-based dynamics.

Source: Macklin, Müller and Chentanez, "XPBD: Position-Based Simulation of Compliant Constrained Dynamics" (2016), with one
iteration a substep as in Macklin et al., "Small Steps in Physics Simulation" (2019). Gradients of the angle of a hinge: Bridson, Marino
and Fedkiw, "Simulation of Clothing with Folds and Wrinkles" (2003), section 4.

Positions are (n, 3) in cm, ``weight`` (n,) is the inverse of mass in 1/g, zero where a point is held.
"""

from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

Points = NDArray[np.float64]
Indices = NDArray[np.int64]


@njit(cache=True)
def project_lengths(at: Points, weight: Points, edges: Indices, rest: Points, softness: float) -> None:
    """Bring edges back to their lengths, in order; ``softness`` is compliance by the square of the time step, in 1/g."""
    for k in range(len(edges)):
        i, j = edges[k]
        w = weight[i] + weight[j]
        if w == 0.0:
            continue
        x, y, z = at[j, 0] - at[i, 0], at[j, 1] - at[i, 1], at[j, 2] - at[i, 2]
        length = math.sqrt(x * x + y * y + z * z)
        if length < 1e-12:
            continue
        pull = (length - rest[k]) / (w + softness) / length
        a, b = weight[i] * pull, weight[j] * pull
        at[i, 0] += a * x
        at[i, 1] += a * y
        at[i, 2] += a * z
        at[j, 0] -= b * x
        at[j, 1] -= b * y
        at[j, 2] -= b * z


@njit(cache=True)
def hinge_angle(at: Points, i: int, j: int, k: int, m: int, gradient: Points) -> float:
    """Return the angle in radians by which a hinge is bent, and write its gradient (4, 3); 0 and a zero gradient where degenerate."""
    gradient[:] = 0.0
    ex, ey, ez = at[j, 0] - at[i, 0], at[j, 1] - at[i, 1], at[j, 2] - at[i, 2]
    ax, ay, az = at[k, 0] - at[i, 0], at[k, 1] - at[i, 1], at[k, 2] - at[i, 2]
    bx, by, bz = at[m, 0] - at[i, 0], at[m, 1] - at[i, 1], at[m, 2] - at[i, 2]
    n1x, n1y, n1z = ey * az - ez * ay, ez * ax - ex * az, ex * ay - ey * ax
    n2x, n2y, n2z = by * ez - bz * ey, bz * ex - bx * ez, bx * ey - by * ex
    n1, n2 = n1x * n1x + n1y * n1y + n1z * n1z, n2x * n2x + n2y * n2y + n2z * n2z
    e2 = ex * ex + ey * ey + ez * ez
    if n1 < 1e-16 or n2 < 1e-16 or e2 < 1e-16:
        return 0.0
    e = math.sqrt(e2)
    sine = ((n1y * n2z - n1z * n2y) * ex + (n1z * n2x - n1x * n2z) * ey + (n1x * n2y - n1y * n2x) * ez) / e
    angle = math.atan2(sine, n1x * n2x + n1y * n2y + n1z * n2z)
    # how far along the edge the opposite points lie: shares of their gradients that both ends take
    s = (ax * ex + ay * ey + az * ez) / e2
    t = (bx * ex + by * ey + bz * ez) / e2
    u, v = -e / n1, -e / n2
    gradient[2, 0], gradient[2, 1], gradient[2, 2] = u * n1x, u * n1y, u * n1z
    gradient[3, 0], gradient[3, 1], gradient[3, 2] = v * n2x, v * n2y, v * n2z
    for axis in range(3):
        gradient[0, axis] = -(1 - s) * gradient[2, axis] - (1 - t) * gradient[3, axis]
        gradient[1, axis] = -s * gradient[2, axis] - t * gradient[3, axis]
    return angle


@njit(cache=True)
def project_hinges(at: Points, weight: Points, hinges: Indices, rest: Points, softness: Points) -> None:
    """Turn hinges back towards their angles; ``softness`` (k,) is compliance by the square of the time step, in 1/(g·cm²)."""
    gradient = np.zeros((4, 3))
    for h in range(len(hinges)):
        i, j, k, m = hinges[h]
        angle = hinge_angle(at, i, j, k, m, gradient)
        w = 0.0
        for corner in range(4):
            square = gradient[corner, 0] ** 2 + gradient[corner, 1] ** 2 + gradient[corner, 2] ** 2
            w += weight[hinges[h, corner]] * square
        if w == 0.0:
            continue
        apart = angle - rest[h]
        if apart > math.pi:
            apart -= 2 * math.pi
        elif apart < -math.pi:
            apart += 2 * math.pi
        turn = -apart / (w + softness[h])
        for corner in range(4):
            point = hinges[h, corner]
            for axis in range(3):
                at[point, axis] += weight[point] * turn * gradient[corner, axis]
