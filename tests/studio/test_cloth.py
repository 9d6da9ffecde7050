"""Simulated cloth against what is known of cloth."""

import math

import numpy as np
import pytest
from numpy.typing import NDArray
from scipy.integrate import solve_bvp, trapezoid
from scipy.optimize import brentq

from studio.cloth.crossings import crossings
from studio.cloth.material import GRAVITY, Material
from studio.cloth.mesh import Cloth, sew, unsewn
from studio.cloth.obstacles import Obstacle, ball, box
from studio.cloth.panels import Panel, cut, rectangle
from studio.cloth.projection import hinge_angle
from studio.cloth.simulation import Simulation

Points = NDArray[np.float64]


def level(panel: Panel, z: float = 0.0) -> Points:
    return np.column_stack([panel.flat, np.full(len(panel.flat), z)])


def test_a_panel_is_cut_into_triangles_that_fill_its_outline() -> None:
    panel = rectangle("sheet", 12, 7, 0.6)
    cloth = unsewn(panel, level(panel), Material(0.02, 50, 0.05))
    assert cloth.flat_areas().sum() == pytest.approx(84) and cloth.areas().sum() == pytest.approx(84)
    assert cloth.mass.sum() == pytest.approx(84 * 0.02)
    np.testing.assert_allclose(panel.flat[panel.sides["right"]][:, 0], 12)
    corners = panel.flat[panel.triangles]
    a, b = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    assert (a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0] > 0).all()
    assert np.quantile(cloth.rest, 0.01) > 0.4 and np.quantile(cloth.rest, 0.99) < 1.0


def test_the_gradient_of_a_hinge_is_that_of_its_angle() -> None:
    at, gradient, other = np.random.default_rng(4).normal(size=(4, 3)), np.zeros((4, 3)), np.zeros((4, 3))
    hinge_angle(at, 0, 1, 2, 3, gradient)
    for corner in range(4):
        for axis in range(3):
            ahead, behind = at.copy(), at.copy()
            ahead[corner, axis] += 1e-6
            behind[corner, axis] -= 1e-6
            change = hinge_angle(ahead, 0, 1, 2, 3, other) - hinge_angle(behind, 0, 1, 2, 3, other)
            assert gradient[corner, axis] == pytest.approx(change / 2e-6, rel=1e-5)


def heavy_elastica(material: Material, length: float) -> float:
    """Return the angle in degrees below the horizon of the chord of a clamped strip: B·θ″ = -w·(L - s)·cos θ, solved by SciPy."""
    stiff = material.bending / (material.density * GRAVITY)
    s = np.linspace(0, length, 60)
    solved = solve_bvp(
        lambda s, y: np.array([y[1], -(length - s) * np.cos(y[0]) / stiff]),
        lambda a, b: np.array([a[0], b[1]]),
        s,
        np.array([s / length, np.full_like(s, 1 / length)]),
    )
    theta = solved.sol(np.linspace(0, length, 400))[0]
    return math.degrees(math.atan2(trapezoid(np.sin(theta)), trapezoid(np.cos(theta))))


@pytest.mark.parametrize("angle", [20.0, 41.5, 60.0])
def test_a_cantilevered_strip_bends_as_its_bending_length_says(angle: float) -> None:
    """Peirce, "The Handle of Cloth as a Measurable Quantity", J. Text. Inst. 21 (1930): c = L·(cos(θ/2) / 8·tan θ)^(1/3).

    ASTM D1388 measures the length at 41.5°, where c = L / 2.
    """
    material, turn, parts = Material(0.02, 1000, 0.05), math.radians(angle), 10
    length = material.bending_length * (8 * math.tan(turn) / math.cos(turn / 2)) ** (1 / 3)
    cell = length / parts
    panel = rectangle("strip", 8 * cell, length + 1.5 * cell, cell, seed=1)  # a hinge stands for half a cell on either side
    cloth = unsewn(panel, level(panel), material)
    held = cloth.at[:, 1] < 2.01 * cell
    cloth.hold(held)
    Simulation(cloth, damping=3, contact=False).run(200)
    clamp = np.sort(cloth.at[held, 1])[-6:].mean() - cell / 2
    tip = cloth.at[np.argsort(panel.flat[:, 1])[-3:]].mean(axis=0)
    measured = math.degrees(math.atan2(-tip[2], tip[1] - clamp))
    assert measured == pytest.approx(heavy_elastica(material, length), abs=2)
    assert measured == pytest.approx(angle, abs=4.5)  # Peirce's formula is an approximation, which is best below 45°


def test_a_limp_strip_hangs_as_a_catenary() -> None:
    """Held at both ends, z = k·cosh(y / k) (Bernoulli, Huygens and Leibniz, 1691)."""
    span, length = 20.0, 30.0
    panel = rectangle("strip", 2, length, 0.5, seed=1)
    part = panel.flat[:, 1] / length
    cloth = unsewn(
        panel,
        np.column_stack([panel.flat[:, 0], (part - 0.5) * span, -9 * np.sin(np.pi * part)]),
        Material(0.02, 5, 0.02),
    )
    cloth.hold((part < 1e-9) | (part > 1 - 1e-9))
    Simulation(cloth, damping=4, contact=False, substeps=60).run(500)
    k = brentq(lambda k: 2 * k * np.sinh(span / 2 / k) - length, 1, 100)
    y = cloth.at[:, 1]
    sag = k * (np.cosh(span / 2 / k) - 1)
    assert np.abs(cloth.at[:, 2] - k * (np.cosh(y / k) - np.cosh(span / 2 / k))).max() < 0.012 * sag


def draped(bending: float) -> tuple[Cloth, int]:
    """A circle of cloth over a ball, and the number of folds that its rim makes."""
    around = np.linspace(0, 2 * np.pi, 300)
    panel = cut("circle", {"rim": 12.0 * np.column_stack([np.cos(around), np.sin(around)])}, 0.95, seed=2)
    at = level(panel, 5.3)
    at[:, 2] += np.random.default_rng(0).normal(0, 0.01, len(at))
    cloth = unsewn(panel, at, Material(0.02, bending, 0.06))
    Simulation(cloth, [Obstacle.of(ball((0, 0, 0), 5.0), (-7, -7, -7), (7, 7, 7), 0.25, 0.4)], damping=1.5).run(80)
    rim = cloth.at[panel.sides["rim"][:-1]]
    radius = np.hypot(rim[:, 0], rim[:, 1])
    return cloth, int(np.abs(np.fft.rfft(radius - radius.mean())).argmax())


def test_a_circle_over_a_ball_folds_and_a_stiffer_one_folds_less() -> None:
    """Cusick, "The Dependence of Fabric Drape on Bending and Shear Stiffness", J. Text. Inst. 56 (1965): stiffer cloth has fewer folds.

    Four to nine for cloth of this size: common practice, no published source.
    """
    (limp, many), (stiff, few) = draped(40.0), draped(1500.0)
    assert 4 <= many <= 9 and few < many
    for cloth in (limp, stiff):
        assert np.quantile(cloth.stretch(), 0.99) < 1.15
        assert cloth.areas().sum() == pytest.approx(cloth.flat_areas().sum(), rel=0.02)
        assert len(crossings(cloth.at, cloth.triangles, cloth.edges)) == 0
        assert np.linalg.norm(cloth.at, axis=1).min() > 4.9


def test_a_strip_that_falls_in_a_heap_does_not_pass_through_itself() -> None:
    panel = rectangle("strip", 4, 26, 0.7, seed=3)
    part = panel.flat[:, 1]
    at = np.column_stack([panel.flat[:, 0] - 2, 0.3 * np.sin(part / 2), part + 0.1])
    cloth = unsewn(panel, at, Material(0.02, 20, 0.1))
    Simulation(cloth, [Obstacle.of(box((0, 0, -1), (24, 24, 2)), (-12, -12, -2), (12, 12, 1), 0.25)], damping=1).run(75)
    assert cloth.at[:, 2].max() < 6 and cloth.at[:, 2].min() > 0  # it lies in folds, one on another
    assert len(crossings(cloth.at, cloth.triangles, cloth.edges)) == 0
    assert np.quantile(cloth.stretch(), 0.99) < 1.15


def test_crossings_are_found() -> None:
    panel = rectangle("sheet", 6, 6, 0.8)
    upright = np.column_stack([panel.flat[:, 0] + 0.3, np.full(len(panel.flat), 3.1), panel.flat[:, 1] - 3])
    one, other = unsewn(panel, level(panel), Material(0.02, 1, 0.05)), unsewn(panel, upright, Material(0.02, 1, 0.05))
    at = np.concatenate([one.at, other.at])
    triangles, edges = (
        np.concatenate([a, b + len(one.at)]) for a, b in ((one.triangles, other.triangles), (one.edges, other.edges))
    )
    assert len(crossings(at, triangles, edges)) > 10
    at[len(one.at) :, 2] += 3.01
    assert len(crossings(at, triangles, edges)) == 0


def test_two_panels_are_sewn_along_a_side() -> None:
    one, other = rectangle("one", 5, 4, 0.8), rectangle("other", 5, 4, 0.8)
    turned = np.column_stack([10 - other.flat[:, 0], 4 - other.flat[:, 1], np.zeros(len(other.flat))])
    material = Material(0.02, 1, 0.05)
    cloth = sew([one, other], {"one": level(one), "other": turned}, [(("one", "right"), ("other", "right"))], material)
    assert len(cloth.at) == len(one.flat) + len(other.flat) - len(one.sides["right"])
    assert cloth.areas().sum() == pytest.approx(40) and (np.bincount(cloth.panel) > 0).all()
    shared = set(one.sides["right"].tolist())
    assert sum(set(edge) <= shared for edge in cloth.hinges[:, :2].tolist()) == len(shared) - 1
    with pytest.raises(ValueError, match="same count"):
        sew([one, other], {"one": level(one), "other": turned}, [(("one", "right"), ("other", "foot"))], material)
