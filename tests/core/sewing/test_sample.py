"""A photograph of a sample, at any rotation and scale, gives the offset of a sewn panel."""

import math

import numpy as np
import pytest

from improva.catalogue import template
from improva.core.design import Placement
from improva.core.errors import PlacementError
from improva.core.proposal import propose_placement
from improva.core.sewing.sample import known_points, measure_shift
from improva.core.sewing.seams import LaidOn
from improva.core.template_file import parse_template
from tests.conftest import art_of
from tests.core.sewing.test_seams import HOODIE, TWO_HALVES
from tests.core.test_proposal import find_traits

POCKET = HOODIE.panel("pocket")


def test_corners_are_found_again() -> None:
    assert known_points(POCKET) == ((70, 0), (270, 0))
    assert known_points(template("tote-gusset").panel("gusset")) == ((0, 0), (1180, 0))


@pytest.mark.parametrize(("turn", "scale", "off"), [(0, 5.0, (3.0, -2.0)), (17, 2.2, (-6.5, 1.25)), (-160, 9.0, (0.4, 0.0))])
def test_rotation_and_scale_of_the_photograph_do_not_matter(turn: float, scale: float, off: tuple[float, float]) -> None:
    a = math.radians(turn)
    to_px = scale * np.array([[math.cos(a), -math.sin(a)], [math.sin(a), math.cos(a)]])
    seen = lambda p: to_px @ np.array(p) + (900, 700)  # noqa: E731
    corners = np.array([seen(p) for p in known_points(POCKET)])
    edge = np.array((12.0, 117.0))
    found = measure_shift(known_points(POCKET), corners, seen(edge), seen(edge + off))
    assert found == pytest.approx(off, abs=1e-9)


def test_points_without_information_are_refused() -> None:
    known, corner = known_points(POCKET), np.array((100.0, 100.0))
    with pytest.raises(PlacementError, match="upon each other"):
        measure_shift(known, np.array([corner, corner + 3]), corner, corner)
    with pytest.raises(PlacementError, match="more than a seam is ever off"):
        measure_shift(known, np.array([corner, corner + np.array((200, 0))]), corner, corner + np.array((0, 150)))


def test_an_attached_panel_without_an_offset_starts_from_the_safe_areas() -> None:
    import tomllib

    text = TWO_HALVES.replace('{ id = "upper", trim = [300, 200]', '{ id = "upper", safe = 20, trim = [300, 200]')
    text = text.replace('{ id = "lower", trim = [300, 150]', '{ id = "lower", safe = 5, trim = [100, 80]')
    text = text[: text.index("[[seams]]")] + '[[seams]]\nid = "patch"\non = "upper"\npanel = "lower"\n'
    (seam,) = parse_template(tomllib.loads(text)).seams
    assert isinstance(seam, LaidOn) and seam.offset_mm == (100, 15)  # middles on one line, both safe tops at 20


def test_a_pattern_has_the_same_scale_on_all_panels() -> None:
    rng = np.random.default_rng(2)
    tile = np.full((240, 240, 3), 200, np.uint8)
    tile[:, ::24] = rng.integers(0, 90, 3)
    tile[::24] = rng.integers(0, 90, 3)
    art = art_of(tile)
    traits = find_traits(art)
    scales = {propose_placement(HOODIE, p, art.facts, traits).placement for p in HOODIE.panels if p.id != "pocket"}
    (placement,) = scales
    assert isinstance(placement, Placement) and placement.fit == "repeat"
