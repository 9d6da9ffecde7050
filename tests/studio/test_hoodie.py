"""The hoodie that is cut from the all-over template: its sides, seams, ribbing, and where its panels lie before it is worn."""

import numpy as np
import pytest
from shapely import Polygon

from improva.catalogue import template
from studio import hoodies
from studio.cloth.crossings import crossings
from studio.cloth.material import FLEECE
from studio.cloth.mesh import sew
from studio.draped import from_template, hoodie, hoodie_flat
from studio.draped.hoodie import BLANK, SCALE
from studio.draped.tshirt import length_of
from studio.scenes import hoodies as scenes
from studio.scenes import hoodies_flat

from .settled_cloth import crossed_edges

SEWN = [seam for seam in BLANK.seams if hasattr(seam, "first")]


@pytest.mark.parametrize("name", hoodie.CUT)
def test_an_outline_is_cut_into_sides_that_follow_one_another(name: str) -> None:
    sides = from_template.sides_of(BLANK, BLANK.panel(name), SCALE)
    lines = list(sides.values())
    for one, other in zip(lines, [*lines[1:], lines[0]], strict=True):
        assert one[-1] == pytest.approx(other[0])
    outline = from_template.flat_of(BLANK.panel(name), SCALE)
    assert sum(map(length_of, lines)) == pytest.approx(length_of(np.concatenate([outline, outline[:1]])), rel=1e-6)
    named = {f"{seam.id}.{role}" for seam in SEWN for role in ("first", "second") if getattr(seam, role).panel == name}
    assert named == {side for side in sides if not side.startswith("edge")}


def test_every_seam_of_the_template_is_sewn() -> None:
    panels, seams = from_template.cut_from(BLANK, hoodie.CUT, SCALE, 4.0)
    assert len(seams) == len(SEWN)
    by_name = {panel.name: panel for panel in panels}
    for (one, side), (other, opposite) in seams:
        assert len(by_name[one].sides[side]) == len(by_name[other].sides[opposite])


def test_ribbing_draws_in_what_it_is_sewn_to() -> None:
    panels = {panel.name: panel for panel in hoodie.panels(4.0)[0]}
    for rib, panel, pull in (("rib-front", "front", hoodie.RIB_PULL), ("cuff-left", "sleeve-left", hoodie.CUFF_PULL)):
        edge = length_of(panels[panel].flat[panels[panel].sides["edge-0"]])
        assert length_of(panels[rib].flat[panels[rib].sides["sewn"]]) == pytest.approx(pull * edge, rel=1e-6)


def test_a_hoodie_that_lies_round_a_body_does_not_pass_through_itself() -> None:
    made, seams = hoodie.panels(3.0)
    at = hoodie.placed(made, np.zeros(3), lambda x, z: 0.0 * x)
    cloth = sew(made, at, seams, hoodie.CLOTH)
    assert len(crossings(cloth.at, cloth.triangles, cloth.edges)) <= 2  # where ribbing meets a side, before it is drawn in
    left, right = (at[name][:, 0] for name in ("sleeve-left", "sleeve-right"))
    assert left.min() > 20 and right.max() < -20 and left.max() == pytest.approx(-right.min(), abs=2)


def test_panels_lie_apart_on_the_hoodies_canvas() -> None:
    boxes = []
    for panel in hoodie.panels(4.0)[0]:
        at = hoodies.CANVAS.on(panel.name, panel.flat)
        assert at.min() >= 0 and (at <= hoodies.CANVAS.size).all(), panel.name
        boxes.append((*at.min(axis=0), *at.max(axis=0)))
    for i, (x0, y0, x1, y1) in enumerate(boxes):
        assert all(x1 <= a or c <= x0 or y1 <= b or d <= y0 for a, b, c, d in boxes[:i]), boxes[i]


WORN = {who.person: who for who in (hoodies.ASH, hoodies.BIRCH, hoodies.DAMSON, hoodies.ELM)}
MOST_CROSSED = 60
"""Edges of some 20 000 that may pass through the cloth: deep in armpits and in the folds over the wrists, where nobody sees them."""


@pytest.mark.parametrize("name", WORN)
def test_a_worn_hoodie_is_kept_and_keeps_its_cloth(name: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(hoodie, "worn", lambda *_: pytest.fail("not in studio/shapes_kept: bake a scene that shows it"))
    assert len(crossed_edges(WORN[name].surface(), FLEECE)) < MOST_CROSSED


@pytest.mark.parametrize("name", WORN)
def test_a_worn_hoodie_sits_where_a_hoodie_sits(name: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """Its hem lies about the hips, its cuffs at the wrists, its hood behind the neck and not over the head."""
    monkeypatch.setattr(hoodie, "worn", lambda *_: pytest.fail("not in studio/shapes_kept: bake a scene that shows it"))
    who = WORN[name]
    at = {panel: points for panel, (_, points) in who.surface().panels.items()}
    names, (_, begun) = who.body.bones, who.body.frames(who.pose(who.body))
    joints = {bone: begun[names.index(bone)] for bone in ("root", "neck01", "wrist.L", "wrist.R", "head")}
    assert abs(at["rib-front"][:, 2].min() - joints["root"][2]) < 8
    for side in ("L", "R"):
        cuff = at[f"cuff-{'left' if side == 'L' else 'right'}"].mean(axis=0)
        assert np.linalg.norm(cuff - joints[f"wrist.{side}"]) < 7
    hood = np.concatenate([at["hood-left"], at["hood-right"]])
    assert hood[:, 2].max() < joints["head"][2] + 2 and hood[:, 1].max() > joints["neck01"][1] + 10


def test_both_kinds_of_print_lie_on_their_panels() -> None:
    for scene in scenes.SCENES:
        print_ = scene.regions[0]
        if "box_mm" not in print_:
            assert {r["panel"] for r in scene.regions if "panel" in r} <= {panel.id for panel in BLANK.panels}
            continue
        x, y, w, h = print_["box_mm"]
        panel = print_["panel"]
        assert (w, h) == pytest.approx(template("hoodie").panel(panel).trim_mm, rel=1e-6)
        outline = Polygon(hoodies.CANVAS.on(panel, from_template.flat_of(BLANK.panel(panel), SCALE)))
        assert outline.buffer(1).contains(Polygon([(x, y), (x + w, y), (x + w, y + h), (x, y + h)])), scene.id


@pytest.mark.parametrize("panel", ["front", "back"])
def test_a_lying_hoodie_is_kept_keeps_its_cloth_and_lies_flat(panel: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """Its sleeves point down to both sides, its hood lies above the neck, and nothing stands higher than a heap of folds."""
    monkeypatch.setattr(hoodie_flat, "flat", lambda *_: pytest.fail("not in studio/shapes_kept: bake a scene that shows it"))
    surface = hoodies_flat.settled(panel)
    assert len(crossed_edges(surface, hoodie.CLOTH)) < 3 * MOST_CROSSED  # of some 36 000: in the hood's folds
    at = {name: points for name, (_, points) in surface.panels.items()}
    every = np.concatenate(list(at.values()))
    assert 0 <= every[:, 2].min() < 0.3 and every[:, 2].max() < 13
    left, right = at["cuff-left"].mean(axis=0), at["cuff-right"].mean(axis=0)
    assert min(abs(left[0]), abs(right[0])) > 48 and left[0] * right[0] < 0 and max(left[1], right[1]) < -25
    assert at["hood-left"][:, 1].max() > 20 and abs(at["rib-front"][:, 1].mean() + 68) < 4


def test_the_pocket_lies_where_the_template_keeps_its_place() -> None:
    keep_out = BLANK.panel("front").keep_out[0].box
    assert np.allclose(hoodies.POCKET / hoodie.SCALE * [10, -10], keep_out[:2])
    assert keep_out[2:] == pytest.approx(BLANK.panel("pocket").trim_mm)
