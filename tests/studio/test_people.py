"""Bodies: how they are posed, where their hands go, and how far cloth is from them."""

import numpy as np
import pytest

from studio.cloth.simulation import _slowed
from studio.cloth.surface import Surface
from studio.people import field, poses
from studio.people.body import Body, between, triangles
from studio.people.skin import TONES, tone_map, tucked
from studio.people.smooth import finer, finer_places
from studio.people.unpack import BUILDS, targets_of
from studio.people.unpack import between as steps

PEOPLE = ("ash", "birch", "cedar", "damson", "elm")


@pytest.mark.parametrize("name", PEOPLE)
def test_a_body_is_as_large_as_a_person_and_stands_on_the_ground(name: str) -> None:
    body = Body(name)
    assert 160 < np.ptp(body.at[:13380, 2]) < 195 and body.at[:13380, 2].min() == pytest.approx(0, abs=1e-3)
    assert body.posed({}) == pytest.approx(body.at, abs=1e-3)
    a, b, c = (body.at[triangles(body.skin)[:, i]] for i in range(3))
    volume = float(np.einsum("ij,ij->", a, np.cross(b, c))) / 6
    assert 45_000 < abs(volume) < 115_000  # cm³: a person weighs about a gram each


@pytest.mark.parametrize("name", PEOPLE)
@pytest.mark.parametrize("side", ["L", "R"])
def test_an_arm_reaches_its_place(name: str, side: str) -> None:
    body = Body(name)
    hand = body.joint("root") + np.array([20.0 if side == "L" else -20.0, -15.0, 12.0])
    pose = poses.arm(body, side, tuple(hand.tolist()), (1.0 if side == "L" else -1.0, 0.3, 0.0))
    turned, begun = body.frames(pose)
    wrist = begun[body.bones.index(f"wrist.{side}")]
    assert np.linalg.norm(wrist - hand) < 1  # joints of the upper arm lie a little beside its line
    assert np.linalg.det(turned) == pytest.approx(np.ones(len(turned)))


def test_hands_behind_the_back_are_not_seen_from_the_front() -> None:
    body = Body("ash")
    _, begun = body.frames(poses.hands_behind(body))
    for side in "LR":
        wrist = begun[body.bones.index(f"wrist.{side}")]
        assert wrist[1] > 8 and abs(wrist[0]) < 12  # behind, and no wider than the trunk


def test_an_unknown_bone_is_named() -> None:
    with pytest.raises(ValueError, match="no such bones: tail"):
        Body("ash").posed({"tail": (0, 0, 1)})


def test_a_pose_between_two() -> None:
    assert between({"head": (10.0, 0.0, 0.0)}, {"jaw": (0.0, 4.0, 0.0)}, 0.25) == {
        "head": (7.5, 0.0, 0.0),
        "jaw": (0.0, 1.0, 0.0),
    }


def test_distances_from_a_ball() -> None:
    points = np.array([[x, y, z] for x in (-1.0, 1.0) for y in (-1.0, 1.0) for z in (-1.0, 1.0)])
    faces = np.array([[0, 1, 3, 2], [4, 6, 7, 5], [0, 4, 5, 1], [2, 3, 7, 6], [0, 2, 6, 4], [1, 5, 7, 3]])
    at, quads = points, faces
    for _ in range(4):
        at, quads = finer(at, quads)
        at /= np.linalg.norm(at, axis=1, keepdims=True)
    grid = field.grid(np.full(3, -1.5), np.full(3, 1.5), 0.25)
    found = field.distances(at, triangles(quads), grid)
    assert np.abs(found - (np.linalg.norm(grid, axis=-1) - 1)).max() < 0.01


def test_a_cube_becomes_round() -> None:
    """Catmull and Clark: a cube's corner moves to 5/9 of its place, and the mesh stays closed."""
    points = np.array([[x, y, z] for x in (-1.0, 1.0) for y in (-1.0, 1.0) for z in (-1.0, 1.0)])
    faces = np.array([[0, 1, 3, 2], [4, 6, 7, 5], [0, 4, 5, 1], [2, 3, 7, 6], [0, 2, 6, 4], [1, 5, 7, 3]])
    at, quads = finer(points, faces)
    assert at[:8] == pytest.approx(points * 5 / 9) and len(quads) == 24 and len(at) == 26
    assert (np.bincount(quads.ravel())[:8] == 3).all()


def test_places_on_a_map_follow_their_faces() -> None:
    corners = np.array([[[0.0, 0], [1, 0], [1, 1], [0, 1]]])
    finer_ones = finer_places(corners)
    assert finer_ones.shape == (4, 4, 2) and finer_ones[0] == pytest.approx(np.array([[0, 0], [0.5, 0], [0.5, 0.5], [0, 0.5]]))


@pytest.mark.parametrize("name", PEOPLE)
def test_skin_has_a_tone_of_its_own_and_is_uneven(name: str) -> None:
    shown = tone_map(name, 256)
    assert shown.mean(axis=(0, 1)) == pytest.approx(TONES[name].base, rel=0.08)
    assert 0.01 < shown[..., 1].std() / shown[..., 1].mean() < 0.2


def test_skin_is_drawn_in_under_cloth_but_not_beyond_its_edge() -> None:
    x, y = np.meshgrid(np.arange(0.0, 20.0), np.arange(0.0, 20.0))
    flat = np.stack([x.ravel(), y.ravel()], axis=1)
    cell = np.arange(19)[:, None] * 20 + np.arange(19)
    one, other = np.stack([cell, cell + 1, cell + 21], -1), np.stack([cell, cell + 21, cell + 20], -1)
    sheet = Surface(
        {"sheet": (flat, np.column_stack([flat, np.zeros(400)]))}, {"sheet": np.concatenate([one, other]).reshape(-1, 3)}
    )
    skin = np.array([[10.0, 10.0, -0.5], [-3.0, 10.0, -0.5], [10.0, 10.0, -6.0]])
    moved = tucked(skin, np.array([[0.0, 0, 1]] * 3), sheet, 0.5)
    assert moved[:, 2] == pytest.approx([-1.0, -0.5, -6.0], abs=0.02)


def test_a_build_is_a_weighted_sum_of_targets() -> None:
    """Shares of age, muscle, weight and sex add up to one person."""
    for build in BUILDS.values():
        found = targets_of(build)
        universal = sum(share for name, share in found.items() if "universal" in name)
        origin = sum(share for name, share in found.items() if name.count("-") == 2 and "universal" not in name)
        assert universal == pytest.approx(1) and origin == pytest.approx(1)
    assert steps(0.25, "low", "middle", "high") == {"low": 0.5, "middle": 0.5}
    assert steps(0.75, "low", "middle", "high") == {"middle": 0.5, "high": 0.5}


def test_fingers_are_drawn_together_at_their_roots_and_palms_stay() -> None:
    body = Body("birch")
    pose = poses.arms_out(body)
    joints = body.frames(pose)[1]
    roots = joints[[body.bones.index(f"finger{finger}-1.{side}") for finger in range(1, 6) for side in "LR"]]
    drawn = body.handless(pose)
    moved = np.linalg.norm(drawn - body.posed(pose), axis=1) > 0.1
    assert moved.sum() > 500
    assert np.linalg.norm(drawn[moved][:, None] - roots[None], axis=2).min(axis=1).max() < 1e-6
    wrist = joints[body.bones.index("wrist.L")]
    assert (np.linalg.norm(drawn[~moved] - wrist, axis=1) < 5).sum() > 20


@pytest.mark.parametrize("name", PEOPLE)
@pytest.mark.parametrize("side", ["L", "R"])
def test_a_hand_at_rest_is_bent_towards_its_palm_with_its_fingers_together(name: str, side: str) -> None:
    body = Body(name)
    open_, rest = (body.frames(pose)[1] for pose in ({}, poses.hand_at_rest(body, side)))

    def at(joints: np.ndarray, bone: str) -> np.ndarray:
        return np.asarray(joints[body.bones.index(f"{bone}.{side}")])

    for finger in (2, 3, 4, 5):
        wrist = at(rest, "wrist")
        tips = [np.linalg.norm(at(joints, f"finger{finger}-3") - wrist) for joints in (open_, rest)]
        assert 0.6 * tips[0] < tips[1] < tips[0] - 0.3  # bent, and no fist
    spread = [np.linalg.norm(at(joints, "finger2-3") - at(joints, "finger5-3")) for joints in (open_, rest)]
    assert spread[1] < spread[0]
    thumb = [np.linalg.norm(at(joints, "finger1-3") - at(joints, "finger2-1")) for joints in (open_, rest)]
    assert thumb[1] < thumb[0]


def test_a_larger_body_has_all_its_lengths_in_proportion() -> None:
    usual, tall = Body("birch"), Body("birch", 1.1)
    assert tall.at == pytest.approx(1.1 * usual.at) and tall.joint("head") == pytest.approx(1.1 * usual.joint("head"))
    pose = poses.arms_out(tall)
    reach = np.linalg.norm(tall.frames(pose)[1][tall.bones.index("wrist.L")] - tall.joint("upperarm01.L"))
    assert reach < 1.1 * 49.5  # arms are no longer than they are


def test_gaps_that_a_ball_does_not_fit_into_are_filled() -> None:
    """Two walls 3 cm apart: the gap is filled for a ball of 2.5 cm, and stays open for one of 1 cm; other surfaces do not move."""
    grid = field.grid(np.array([-8.0, -8.0, -8.0]), np.array([8.0, 8.0, 8.0]), 0.5)
    walls = (np.abs(np.abs(grid[..., 0]) - 3.5) - 2.0).astype(np.float32)
    middle = tuple(n // 2 for n in walls.shape)
    assert walls[middle] == pytest.approx(1.5)
    assert field.bridged(walls, 2.5, 0.5)[middle] < 0 < field.bridged(walls, 1.0, 0.5)[middle]
    outside = grid[..., 0] > 6
    assert np.abs(field.bridged(walls, 2.5, 0.5) - walls)[outside].max() < 0.6


def test_cloth_that_is_caught_moves_no_faster_than_its_share() -> None:
    moved = np.array([[3.0, 4.0, 0.0], [0.1, 0.0, 0.0]])
    _slowed(moved, 1.0)
    assert moved == pytest.approx(np.array([[0.6, 0.8, 0.0], [0.1, 0.0, 0.0]]))
