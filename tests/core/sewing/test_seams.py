"""Seams of the shipped blanks and of custom ones: lengths compared with Shapely's; impossible seams are reported."""

import tomllib

import numpy as np
import pytest
from shapely import LineString, Polygon

from improva.catalogue import template, templates
from improva.core.errors import PlacementError, TemplateError
from improva.core.sewing.edges import edge_line, motion_of, pairs
from improva.core.sewing.linked_panels import Follow, check_follow, first_follow, first_leader
from improva.core.sewing.seams import LaidOn, Sewn
from improva.core.template import Template
from improva.core.template_file import parse_template, write_toml

HOODIE = template("hoodie-all-over")
SEWN = [(t, s) for t in templates().values() for s in t.seams if isinstance(s, Sewn)]

TWO_HALVES = """
id = "halves"
title = "Flag of two halves"
kind = "flag"
panels = [
  { id = "upper", trim = [300, 200], bleed = 5, dpi = 100 },
  { id = "lower", trim = [300, 150], bleed = 5, dpi = 100 },
]
[[seams]]
id = "middle"
first = { panel = "upper", start = [0, 200], end = [300, 200] }
second = { panel = "lower", start = [0, 0], end = [300, 0] }
"""


def own(text: str = TWO_HALVES) -> Template:
    return parse_template(tomllib.loads(text), own=True)


@pytest.mark.parametrize(("blank", "seam"), SEWN, ids=lambda v: v.id)
def test_sewn_edges_are_equally_long_except_for_their_ease(blank: Template, seam: Sewn) -> None:
    first, second = edge_line(blank.panel(seam.leader), seam.first), edge_line(blank.panel(seam.follower), seam.second)
    assert second.length - first.length == pytest.approx(seam.ease_mm, abs=2)
    for line, edge in ((first, seam.first), (second, seam.second)):
        ring = LineString(Polygon(blank.panel(edge.panel).line()).exterior.coords)
        assert ring.buffer(0.01).contains(line)  # a stretch of the outline
        assert line.coords[0] == pytest.approx(edge.start, abs=1) and line.coords[-1] == pytest.approx(edge.end, abs=1)
        assert (line.length > ring.length / 2) == (edge.through is not None)


def test_sewn_straight_edges_coincide_and_their_panels_do_not_overlap() -> None:
    for seam in HOODIE.seams:
        if seam.id not in ("side-right", "side-left", "shoulder-left"):
            continue
        leader, follower = HOODIE.panel(seam.leader), HOODIE.panel(seam.follower)
        motion = motion_of(seam, leader, follower)
        on, off = pairs(seam, leader, follower)
        assert np.abs(motion(off) - on).max() < 0.01
        assert Polygon(motion(follower.line())).intersection(Polygon(leader.line())).area < 40  # mm², of 350 000


def test_mirrored_hood_halves_match_along_the_whole_seam() -> None:
    seam = next(s for s in HOODIE.seams if s.id == "hood")
    leader, follower = HOODIE.panel("hood-left"), HOODIE.panel("hood-right")
    on, off = pairs(seam, leader, follower)
    assert on[:, 1].min() < 1  # over the crown, not along the neck and the face, which are shorter
    assert np.abs(motion_of(seam, leader, follower, "mirror")(off) - on).max() < 0.2
    assert np.abs(motion_of(seam, leader, follower, "flow")(off) - on).max() > 50  # two round edges cannot continue


def test_by_default_the_pocket_follows_and_sleeves_do_not() -> None:
    assert first_follow(HOODIE, HOODIE.panel("pocket")) == Follow("pocket", "flow")
    assert first_follow(HOODIE, HOODIE.panel("sleeve-left")) is None
    found = first_leader(HOODIE, HOODIE.panel("pocket"), {"pocket": Follow("pocket")}, {"pocket": (1.5, -2.0)})
    assert found and found.leader == "front" and found.motion.shift_mm == (131.5, 438.0)


def test_a_chain_of_following_panels_leads_to_its_first_panel() -> None:
    follows = {"back": Follow("side-right"), "sleeve-right": Follow("armhole-right-back")}
    found = first_leader(HOODIE, HOODIE.panel("sleeve-right"), follows, {})
    back = first_leader(HOODIE, HOODIE.panel("back"), follows, {})
    assert found and back and found.leader == back.leader == "front"
    seam = next(s for s in HOODIE.seams if s.id == "armhole-right-back")
    step = motion_of(seam, HOODIE.panel("back"), HOODIE.panel("sleeve-right"))
    assert np.allclose(found.motion([(10, 20)]), back.motion(step([(10, 20)])))
    assert first_leader(HOODIE, HOODIE.panel("front"), follows, {}) is None


def test_panels_that_follow_each_other_in_a_circle_are_refused() -> None:
    text = (
        TWO_HALVES
        + """
[[seams]]
id = "round"
first = { panel = "lower", start = [0, 150], end = [300, 150] }
second = { panel = "upper", start = [0, 0], end = [300, 0] }
"""
    )
    blank = own(text)
    with pytest.raises(PlacementError, match="upper follows lower follows upper"):
        first_leader(blank, blank.panel("upper"), {"upper": Follow("round"), "lower": Follow("middle")}, {})


@pytest.mark.parametrize(
    ("follow", "told"),
    [
        (Follow("elbow"), "no seam 'elbow'"),
        (Follow("side-right"), "it is back that follows front"),
        (Follow("pocket", "mirror"), "can: flow, alone"),
        (Follow("pocket", "alone"), "can: flow, alone"),
    ],
)
def test_panels_that_cannot_be_followed_are_reported(follow: Follow, told: str) -> None:
    panel = HOODIE.panel("front" if follow.seam != "pocket" else "pocket")
    with pytest.raises(PlacementError, match=told):
        check_follow(HOODIE, panel, follow)


@pytest.mark.parametrize(
    ("old", "new", "told"),
    [
        ("end = [300, 0]", "end = [280, 0]", r"differ by -20\.0 mm"),
        ("start = [0, 0], end = [300, 0]", "start = [150, 75], end = [300, 0]", "not on the outline"),
        ("start = [0, 0], end = [300, 0]", "start = [0, 0], end = [0, 0]", "starts where it ends"),
        ('panel = "lower", start', 'panel = "middle", start', "no panel: upper, lower"),
        ("start = [0, 200]", "start = 200", "cannot be read"),
        ("start = [0, 200], ", "", "lacks 'start'"),
        ('id = "middle"', 'id = "middle"\nways = ["follow"]', "alone, flow, mirror"),
        ('id = "middle"', 'id = "middle"\nease = 900', "at most"),
        ("start = [0, 200]", "start = [nan, 200]", "not a length"),
    ],
)
def test_impossible_seams_are_reported(old: str, new: str, told: str) -> None:
    assert old in TWO_HALVES
    with pytest.raises(TemplateError, match=told):
        own(TWO_HALVES.replace(old, new))


@pytest.mark.parametrize(("offset", "told"), [("[500, 10]", "mostly beside"), ("[1e9, 0]", "not a length")])
def test_an_attached_panel_must_lie_on_its_base(offset: str, told: str) -> None:
    text = TWO_HALVES + f'\n[[seams]]\nid = "patch"\non = "upper"\npanel = "lower"\noffset = {offset}\n'
    with pytest.raises(TemplateError, match=told):
        own(text)


def test_a_template_file_keeps_its_seams() -> None:
    again = parse_template(tomllib.loads(write_toml(HOODIE)))
    assert again.seams == HOODIE.seams and any(isinstance(s, LaidOn) for s in again.seams)


def test_an_edge_takes_the_shorter_way_also_past_the_first_corner() -> None:
    blank = own()
    first = blank.seams[0]
    assert isinstance(first, Sewn)
    seam = Sewn("s", "s", first.first, first.second)
    line = edge_line(blank.panel("upper"), seam.first)
    assert line.length == pytest.approx(300) and next(iter(line.coords)) == pytest.approx((0, 200))
