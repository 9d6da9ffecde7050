"""The meshes of the scenes: their measures against closed forms, their texture the right way round."""

from pathlib import Path
from typing import Any

import numpy as np
import pytest

from studio import bodies, shapes, surfaces


def read_ply(path: Path) -> tuple[np.ndarray, np.ndarray]:
    head, body = path.read_bytes().split(b"end_header\n", 1)
    count = [int(line.split()[-1]) for line in head.decode().splitlines() if line.startswith("element")]
    vertex = np.frombuffer(body, "<f4", count[0] * 8).reshape(-1, 8)
    face = np.frombuffer(body, [("n", "u1"), ("v", "<i4", 3)], count[1], offset=count[0] * 32)
    assert (face["n"] == 3).all()
    return vertex, face["v"]


def area(vertex: np.ndarray, face: np.ndarray) -> float:
    a, b, c = (vertex[face[:, i], :3].astype(float) for i in range(3))
    return float(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum() / 2)


@pytest.mark.parametrize(
    ("outline", "expected"),
    [
        ([(3.0, 0.0), (3.0, 10.0)], 2 * np.pi * 3 * 10),  # cylinder
        ([(2.0, 0.0), (5.0, 4.0)], np.pi * (2 + 5) * 5),  # frustum: π (r1 + r2) · slant
        ([(0.0, 1.0), (4.0, 1.0)], np.pi * 16),  # disc
    ],
)
def test_areas_of_surfaces_of_revolution(tmp_path: Path, outline: list[Any], expected: float) -> None:
    # Closed forms: Pappus's theorem
    assert area(*read_ply(shapes.revolve(np.array(outline), tmp_path / "s.ply"))) == pytest.approx(expected, rel=2e-4)


def test_the_print_is_as_wide_and_high_as_the_template() -> None:
    wrap = bodies.wrap(bodies.STRAIGHT_20)
    # Common practice, no published source: 9.3 in round, 8.2 in high
    assert 2 * np.pi * wrap[:, 0].max() == pytest.approx(9.3 * 2.54)
    assert np.ptp(wrap[:, 1]) == pytest.approx(8.2 * 2.54)


def test_texture_reads_left_to_right_with_its_seam_at_the_back(tmp_path: Path) -> None:
    vertex, _ = read_ply(shapes.revolve(np.array([(3.0, 0.0), (3.0, 10.0)]), tmp_path / "s.ply"))
    front = vertex[np.abs(vertex[:, 6] - 0.5) < 1e-4]
    assert np.allclose(front[:, 1], -3, atol=1e-3)  # the camera stands at -y
    right = vertex[np.abs(vertex[:, 6] - 0.75) < 1e-4]
    assert np.allclose(right[:, 0], 3, atol=1e-3)
    seam = vertex[(vertex[:, 6] == 0) | (vertex[:, 6] == 1)]
    assert np.allclose(seam[:, 1], 3, atol=1e-3)
    assert np.allclose(vertex[vertex[:, 2] == 10][:, 7], 0) and np.allclose(vertex[vertex[:, 2] == 0][:, 7], 1)


def test_normals_point_outward_and_corners_stay_hard(tmp_path: Path) -> None:
    vertex, _ = read_ply(shapes.revolve(np.array([(3.0, 0.0), (3.0, 5.0), (0.1, 5.0)]), tmp_path / "s.ply"))
    assert np.allclose(np.linalg.norm(vertex[:, 3:6], axis=1), 1, atol=1e-5)
    side = vertex[np.abs(vertex[:, 5]) < 0.5]
    assert ((side[:, :2] * side[:, 3:5]).sum(axis=1) > 0).all()
    assert (vertex[np.abs(vertex[:, 5]) > 0.5][:, 5] > 0.99).all()


def test_profiles_join_without_points_that_repeat() -> None:
    joined = shapes.profile([(1, 0), (1, 2)], shapes.arc((0.5, 2), 0.5, 0, 90, 5))
    assert len(joined) == 6 and np.allclose(joined[-1], (0.5, 2.5))


def test_surface_colours_are_valid_reflectances() -> None:
    colour, rough = surfaces.oak(256, 256)
    assert colour.shape == (256, 256, 3) and rough.shape == (256, 256)
    assert 0 < colour.min() <= colour.max() <= 1 and colour[..., 0].mean() > colour[..., 2].mean()
    assert np.array_equal(colour, surfaces.oak(256, 256)[0])  # the same seed, the same plank


def test_part_of_a_revolution_has_its_part_of_the_area(tmp_path: Path) -> None:
    outline = np.array([(3.0, 0.0), (3.0, 10.0)])
    part = shapes.revolve(outline, tmp_path / "part.ply", arc_deg=(30, 330))
    vertex, face = read_ply(part)
    assert area(vertex, face) == pytest.approx(2 * np.pi * 3 * 10 * 300 / 360, rel=1e-3)
    assert np.allclose(np.hypot(vertex[:, 0], vertex[:, 1]), 3, atol=1e-4)
    first = vertex[vertex[:, 6] == 0]
    assert np.allclose(np.degrees(np.arctan2(first[:, 1], first[:, 0])), 30, atol=1e-2)


def test_a_round_bar_has_the_area_of_a_cylinder(tmp_path: Path) -> None:
    line = np.stack([np.linspace(0, 20, 60), np.zeros(60), np.zeros(60)], 1)
    made = read_ply(shapes.tube(line, np.full((60, 2), 1.5), tmp_path / "t.ply", around=96, squareness=2))
    assert area(*made) == pytest.approx(2 * np.pi * 1.5 * 20, rel=2e-3)
    assert np.allclose(np.hypot(made[0][:, 1], made[0][:, 2]), 1.5, atol=1e-3)


def test_a_rounded_bar_is_fuller_than_a_round_one_and_within_its_box(tmp_path: Path) -> None:
    line = np.stack([np.linspace(0, 20, 40), np.zeros(40), np.zeros(40)], 1)
    vertex, _ = read_ply(shapes.tube(line, np.full((40, 2), (1.0, 0.5)), tmp_path / "t.ply", squareness=4))
    assert np.abs(vertex[:, 1]).max() <= 1.0 + 1e-4 and np.abs(vertex[:, 2]).max() <= 0.5 + 1e-4
    corner = np.max(np.abs(vertex[:, 1]) / 1.0 + np.abs(vertex[:, 2]) / 0.5)
    assert corner > np.sqrt(2) + 0.1  # an ellipse's would be the root of 2


def test_a_block_has_its_given_size_and_rounded_edges(tmp_path: Path) -> None:
    vertex, face = read_ply(shapes.block(10, 6, 1.0, 4.0, 0.4, tmp_path / "b.ply"))
    assert np.allclose(np.abs(vertex[:, 0]).max(), 5, atol=1e-3) and np.allclose(np.abs(vertex[:, 1]).max(), 3, atol=1e-3)
    assert vertex[:, 2].min() == pytest.approx(1, abs=1e-4) and vertex[:, 2].max() == pytest.approx(4, abs=1e-4)
    whole = 2 * (10 * 6 + 10 * 3 + 6 * 3)
    assert 0.9 * whole < area(vertex, face) < whole
    assert np.allclose(np.linalg.norm(vertex[:, 3:6], axis=1), 1, atol=1e-4)  # no corner without a slope


def test_a_spline_passes_through_its_points() -> None:
    points: list[tuple[float, ...]] = [(0.0, 0.0, 0.0), (1.0, 2.0, 0.5), (3.0, 2.5, 1.0), (4.0, 0.0, 0.0)]
    line = shapes.spline(points, 400)
    assert np.allclose(line[0], points[0]) and np.allclose(line[-1], points[-1])
    assert all(np.linalg.norm(line - np.array(p), axis=1).min() < 0.02 for p in points)


@pytest.mark.parametrize(
    "draw",
    [surfaces.walnut, surfaces.limed, surfaces.slate, surfaces.marble, surfaces.linen, surfaces.heather, surfaces.washed],
)
def test_drawn_surfaces_repeat_and_are_valid_reflectances(draw: object) -> None:
    picture = draw(160, 160) if draw in (surfaces.walnut, surfaces.limed) else draw(512)  # type: ignore[operator]
    assert picture.shape[:2] in ((160, 160), (512, 512)) and 0 < picture.min() <= picture.max() <= 1 and picture.std() > 0.002
