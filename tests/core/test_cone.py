"""The flat development of a tapered wall, compared with its closed form and with a mesh unrolled triangle by triangle."""

import math

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from improva.core.errors import TemplateError
from improva.core.geometry import Cone, cone_from_measures

rounds = st.floats(40, 600)
heights = st.floats(30, 500)
IN = 25.4


def cones() -> st.SearchStrategy[Cone]:
    def ok(measures: tuple[float, float, float]) -> bool:
        top, bottom, height = measures
        spread = abs(top - bottom) / (2 * math.pi)
        return abs(top - bottom) > 0.5 and spread < height

    return st.tuples(rounds, rounds, heights).filter(ok).map(lambda m: Cone(*m))


@given(cones())
def test_the_ring_of_a_frustum_matches_the_closed_form(cone: Cone) -> None:
    # Textbook: R / r = L1 / L2, R - r = slant, arc = radius · angle, slant² = height² + (r1 - r2)².
    long, short = max(cone.top_mm, cone.bottom_mm), min(cone.top_mm, cone.bottom_mm)
    assert cone.outer_radius_mm / cone.inner_radius_mm == pytest.approx(long / short, rel=1e-6)
    assert cone.outer_radius_mm - cone.inner_radius_mm == pytest.approx(cone.slant_mm)
    assert cone.sweep_rad * cone.outer_radius_mm == pytest.approx(long)
    assert cone.sweep_rad * cone.inner_radius_mm == pytest.approx(short, rel=1e-6)
    assert cone.slant_mm**2 == pytest.approx(cone.height_mm**2 + ((long - short) / (2 * math.pi)) ** 2)


@given(cones())
def test_the_flat_area_equals_the_area_of_the_wall(cone: Cone) -> None:
    # Lateral area of a frustum: π (r1 + r2) · slant.
    wall = (cone.top_mm + cone.bottom_mm) / 2 * cone.slant_mm
    assert Polygon(cone.outline(points=2000)).area == pytest.approx(wall, rel=1e-4)


@given(cones(), st.floats(0, 1), st.floats(0, 1))
def test_every_flat_point_survives_the_round_trip_to_the_wall(cone: Cone, u: float, v: float) -> None:
    x, y = u * cone.round_mm, v * cone.slant_mm
    fx, fy = cone.to_flat(x, y)
    assert np.allclose(cone.to_level(fx, fy), (x, y), atol=1e-4)


@given(cones())
def test_the_box_encloses_the_ring_tightly(cone: Cone) -> None:
    points = np.array(cone.outline(points=1001))
    low, high = points.min(axis=0), points.max(axis=0)
    assert low == pytest.approx((0, 0), abs=cone.round_mm * 2e-3)
    assert high == pytest.approx(cone.box_mm, abs=cone.round_mm * 2e-3)
    assert points.min() > -1e-6


def unrolled(mesh: trimesh.Trimesh, start: int) -> np.ndarray:
    """Unroll a strip of triangles, each hinged to the one before along their shared edge: (faces, 3, 2)."""
    flat = np.full((len(mesh.faces), 3, 2), np.nan)
    done = {start}
    a, b, c = mesh.triangles[start]
    ab = np.linalg.norm(b - a)
    x = np.dot(c - a, b - a) / ab
    flat[start] = [[0, 0], [ab, 0], [x, math.sqrt(max(0, np.dot(c - a, c - a) - x * x))]]
    queue = [start]
    neighbours: dict[int, list[int]] = {}
    for one, two in mesh.face_adjacency:
        neighbours.setdefault(int(one), []).append(int(two))
        neighbours.setdefault(int(two), []).append(int(one))
    while queue:
        face = queue.pop()
        for other in neighbours.get(face, []):
            if other in done:
                continue
            shared = [v for v in mesh.faces[other] if v in mesh.faces[face]]
            p, q = (flat[face][list(mesh.faces[face]).index(v)] for v in shared)
            (apex,) = [v for v in mesh.faces[other] if v not in shared]
            far = next(flat[face][i] for i, v in enumerate(mesh.faces[face]) if v not in shared)
            dp, dq = (np.linalg.norm(mesh.vertices[apex] - mesh.vertices[v]) for v in shared)
            along = (q - p) / np.linalg.norm(q - p)
            side = np.array([-along[1], along[0]])
            if np.dot(far - p, side) > 0:
                side = -side
            t = (dp**2 - dq**2 + np.dot(q - p, q - p)) / (2 * np.linalg.norm(q - p))
            at = p + along * t + side * math.sqrt(max(0.0, dp**2 - t**2))
            for i, v in enumerate(mesh.faces[other]):
                flat[other][i] = at if v == apex else (p if v == shared[0] else q)
            done.add(other)
            queue.append(other)
    return flat


@pytest.mark.parametrize("measures", [(9.7, 7.9, 6.2), (11.4, 8.8, 7.1), (7, 11, 4)])
def test_a_mesh_unrolled_triangle_by_triangle_gives_the_same_ring(measures: tuple[float, float, float]) -> None:
    """A frustum of 720 facets built by trimesh, cut at its seam and unrolled, has the ring's radii and sweep."""
    top, bottom, height = (m * IN for m in measures)
    cone = Cone(top, bottom, height)
    n = 720
    angle = np.linspace(0, 2 * math.pi, n + 1)
    ring = np.stack([np.cos(angle), np.sin(angle)], -1)
    upper = np.column_stack([ring * top / (2 * math.pi), np.full(n + 1, height)])
    lower = np.column_stack([ring * bottom / (2 * math.pi), np.zeros(n + 1)])
    i = np.arange(n)
    faces = np.concatenate([np.stack([i, i + n + 1, i + 1], 1), np.stack([i + 1, i + n + 1, i + n + 2], 1)])
    mesh = trimesh.Trimesh(np.concatenate([upper, lower]), faces, process=False)
    flat = unrolled(mesh, 0)
    points = np.full((2 * (n + 1), 2), np.nan)
    for face, place in zip(mesh.faces, flat, strict=True):
        points[face] = place
    assert np.isfinite(points).all()
    first, last = points[: n + 1], points[n + 1 :]
    chord = np.linalg.norm(first[0] - first[-1])
    expected = cone.to_flat(0.0, 0.0), cone.to_flat(cone.round_mm, 0.0)
    assert chord == pytest.approx(math.dist(*expected), rel=2e-4)
    across = np.linalg.norm(last[0] - last[-1])
    foot = cone.to_flat(0.0, cone.slant_mm), cone.to_flat(cone.round_mm, cone.slant_mm)
    assert across == pytest.approx(math.dist(*foot), rel=2e-4)
    assert np.linalg.norm(first - last, axis=1) == pytest.approx(cone.slant_mm, rel=1e-5)
    assert mesh.area == pytest.approx(Polygon(cone.outline(points=2000)).area, rel=1e-4)


def test_a_wider_foot_gives_the_same_ring_upside_down() -> None:
    up, down = Cone(300, 200, 150), Cone(200, 300, 150)
    assert up.box_mm == pytest.approx(down.box_mm)
    x, y = up.to_flat(np.array([10.0, 150, 290]), np.array([0.0, 40, 150]))
    fx, fy = down.to_flat(np.array([10.0, 150, 290]), up.slant_mm - np.array([0.0, 40, 150]))
    assert np.allclose(x, fx) and np.allclose(up.box_mm[1] - y, fy)


def test_a_ring_of_more_than_half_a_turn_has_its_whole_diameter_as_width() -> None:
    cone = Cone(600, 60, 60)
    assert cone.sweep_rad > math.pi
    assert cone.box_mm[0] == pytest.approx(2 * cone.outer_radius_mm)


def test_a_straight_wall_is_not_a_cone_and_a_nearly_straight_one_is_nearly_a_rectangle() -> None:
    assert cone_from_measures(236.22, 236.22, 208.28) is None
    nearly = cone_from_measures(236.22, 236.12, 208.28)
    assert nearly is not None and nearly.box_mm == pytest.approx((236.22, 208.28), rel=1e-3)


@pytest.mark.parametrize(
    ("measures", "says"),
    [
        ((0, 200, 100), "round the blank"),
        ((200, -5, 100), "round the blank"),
        ((200, 180, 0), "rim to foot"),
        ((math.nan, 180, 100), "round the blank"),
        ((200, 180, math.inf), "rim to foot"),
        ((2000, 40, 12), "plate"),
        ((9e9, 180, 100), "round the blank"),
    ],
)
def test_impossible_cup_measurements_are_reported(measures: tuple[float, float, float], says: str) -> None:
    with pytest.raises(TemplateError, match=says):
        cone_from_measures(*measures)


@settings(max_examples=40)
@given(cones(), st.floats(0.5, 12))
def test_a_grown_outline_keeps_its_distance_outside(cone: Cone, grown: float) -> None:
    inner, outer = Polygon(cone.outline(points=400)), Polygon(cone.outline(grown, points=400))
    assert outer.buffer(1e-3 * cone.round_mm).contains(inner)
    top = np.array(cone.outline(grown, points=401))[200]
    assert np.abs(Polygon(cone.outline(points=2001)).exterior.distance(__import__("shapely").Point(top)) - grown) < 0.05
