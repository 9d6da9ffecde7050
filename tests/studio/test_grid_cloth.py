"""Cloth by position-based dynamics: lengths are kept, pinned points stay, a pillow has its thickness."""

from typing import Any

import numpy as np
import pytest

from studio import grid_cloth
from studio.kept import place_of


def flat(rows: int = 12, columns: int = 16) -> np.ndarray:
    return np.stack(np.meshgrid(np.arange(columns, dtype=float), np.arange(rows, dtype=float)), -1)


def grid(rows: int = 12, columns: int = 16, **more: Any) -> grid_cloth.Grid:
    at = np.concatenate([flat(rows, columns), np.zeros((rows, columns, 1))], axis=2)
    return grid_cloth.Grid(at, flat(rows, columns), **more)


def lengths(at: np.ndarray) -> np.ndarray:
    return np.concatenate([np.linalg.norm(np.diff(at, axis=axis), axis=-1).ravel() for axis in (0, 1)])


def test_a_sheet_pulled_out_of_shape_returns_to_its_lengths() -> None:
    sheet = grid()
    sheet.at += np.random.default_rng(1).normal(0, 0.25, sheet.at.shape)
    assert np.abs(lengths(sheet.at) - 1).max() > 0.3
    for _ in range(200):
        sheet.project()
    assert np.abs(lengths(sheet.at) - 1).max() < 0.03


def test_every_pair_of_neighbours_is_constrained_once() -> None:
    sheet = grid(5, 7)
    straight = [group for group in sheet.groups if group[3] == 1.0]
    assert sum(rest.size for *_, rest, _ in straight) == 5 * 6 + 4 * 7  # a grid's edges
    for a, b, rest, _ in sheet.groups:
        assert sheet.flat[a].shape == sheet.flat[b].shape and rest.shape == sheet.flat[a].shape[:2]
        touched = np.zeros((5, 7), int)
        touched[a] += 1
        touched[b] += 1
        diagonal = a[0] != b[0] and a[1] != b[1]
        assert touched.max() <= (2 if diagonal else 1)  # a group moves no point twice, so that its order does not matter


def test_pinned_points_stay_and_the_rest_hangs_from_them() -> None:
    held = np.ones((12, 16))
    held[0] = 0
    sheet = grid(held=held)
    top = sheet.at[0].copy()
    for _ in range(300):
        sheet.step(np.array([0.0, 0.0, -0.02]), 0.05, 12)
    assert np.array_equal(sheet.at[0], top)
    assert sheet.at[-1, :, 2].mean() < -9 and np.abs(lengths(sheet.at) - 1).max() < 0.12


def test_a_floor_supports_the_cloth() -> None:
    sheet = grid()
    sheet.at[..., 2] += 3

    def floor(at: np.ndarray, _: np.ndarray) -> None:
        at[..., 2] = np.maximum(at[..., 2], 0)

    for _ in range(200):
        sheet.step(np.array([0.0, 0.0, -0.02]), 0.05, 4, floor)
    assert sheet.at[..., 2].min() == 0 and sheet.at[..., 2].max() < 0.1


@pytest.fixture(scope="module")
def pillow() -> tuple[np.ndarray, np.ndarray]:
    return grid_cloth.pillow(40.0, points=29, half=6.0, steps=110)


def test_a_pillow_is_sewn_along_its_edge_and_as_thick_as_asked(pillow: tuple[np.ndarray, np.ndarray]) -> None:
    front, back = pillow
    edge = np.zeros(front.shape[:2], bool)
    edge[0] = edge[-1] = edge[:, 0] = edge[:, -1] = True
    assert np.allclose(front[edge], back[edge], atol=1e-9)
    assert 4.0 < -front[..., 1].min() <= 6.6 and 4.0 < back[..., 1].max() <= 6.6
    assert (front[~edge][:, 1] <= back[~edge][:, 1] + 1e-6).all()  # the sheets do not pass through each other


def test_a_stuffed_cover_draws_in_its_sides_more_than_its_corners(pillow: tuple[np.ndarray, np.ndarray]) -> None:
    front, _ = pillow
    middle = len(front) // 2
    corner, side = np.abs(front[0, 0, 0]), np.abs(front[middle, 0, 0])
    assert side < corner <= 20.5  # the well-known dog ears
    assert np.abs(lengths(front) / (40 / 28) - 1).mean() < 0.06


def test_a_finer_grid_passes_through_the_points() -> None:
    coarse = np.random.default_rng(2).normal(0, 1, (6, 8, 3)).cumsum(axis=0)
    fine = grid_cloth.finer(coarse, 4)
    assert fine.shape == (21, 29, 3)
    assert np.allclose(fine[0, 0], coarse[0, 0], atol=1e-6) and np.allclose(fine[-1, -1], coarse[-1, -1], atol=1e-6)


def test_normals_point_to_the_viewer_if_rows_run_down() -> None:
    x, z = np.meshgrid(np.arange(5.0), -np.arange(4.0))
    normal = grid_cloth.normals(np.stack([x, 0 * x, z], -1))
    assert (normal[..., 1] < 0).all() and np.allclose(normal[..., [0, 2]], 0)


def test_the_stored_pillow_was_made_by_the_current_code() -> None:
    assert place_of("pillow", grid_cloth).exists(), "run 'python -m studio pillow-square-lying' once and commit what it keeps"
