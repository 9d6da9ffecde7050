"""First placements by stated rules, and placements adapted to other blanks."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw

from improva.catalogue import template, templates
from improva.core.artwork.pixels import Artwork
from improva.core.artwork.traits import find_traits
from improva.core.design import Placement
from improva.core.fit import place
from improva.core.preflight import run_preflight
from improva.core.proposal import Proposal, adapt_placement, propose_placement
from improva.core.sewing.linked_panels import check_follow
from improva.core.sewing.seams import Follow
from tests.conftest import art_of, quadrants


def proposed(blank: str, art: Artwork, panel: str | None = None) -> Proposal:
    found = template(blank)
    return propose_placement(found, found.panel(panel), art.facts, find_traits(art))


def placement(blank: str, art: Artwork) -> Placement:
    found = proposed(blank, art).placement
    assert isinstance(found, Placement)
    return found


def cut_out() -> Artwork:
    rgba = np.zeros((500, 400, 4), np.uint8)
    rgba[60:440, 60:340] = (120, 60, 30, 255)
    return art_of(rgba)


def pattern() -> Artwork:
    picture = Image.new("RGB", (400, 400), (244, 238, 222))
    draw = ImageDraw.Draw(picture)
    for x in range(0, 440, 40):
        for y in range(0, 440, 40):
            draw.ellipse((x - 7, y - 7, x + 7, y + 7), fill=(30, 90, 70))
    return art_of(np.asarray(picture), dpi=(200, 200))


def poster() -> Artwork:
    picture = Image.new("RGB", (900, 800), (244, 238, 222))
    ImageDraw.Draw(picture).rectangle((60, 60, 840, 740), outline=(20, 20, 50), width=10)
    return art_of(np.asarray(picture))


def test_a_cut_out_is_placed_whole_and_twice_on_a_mug() -> None:
    assert (placement("tumbler-20oz-straight", cut_out()).fit, placement("tumbler-20oz-straight", cut_out()).copies) == (
        "contain",
        1,
    )
    assert (placement("mug-11oz", cut_out()).fit, placement("mug-11oz", cut_out()).copies) == ("contain", 2)
    pillow = template("pillow-shaped").panel()
    assert placement("pillow-shaped", cut_out()).scale == pytest.approx(
        1 - 2 * (pillow.safe_mm + pillow.allowance_mm) / 400, abs=1e-3
    )


def test_a_pattern_is_repeated_where_it_covers_and_whole_round_a_wrap() -> None:
    wrap = placement("tumbler-20oz-straight", pattern())
    assert wrap.fit == "repeat" and wrap.repeats_around == 5  # 2 in of its own on 9.3 in
    assert placement("blanket-upright", pattern()).fit == "repeat"
    assert placement("t-shirt", pattern()).fit == "contain"


def test_a_poster_is_not_cropped_and_a_picture_covers() -> None:
    flag = placement("garden-flag", poster())
    assert flag.fit == "contain" and flag.background == "#f4eede"
    assert placement("tumbler-20oz-straight", poster()).fit == "cover"  # nearly its own proportions
    assert placement("garden-flag", art_of(quadrants(800, 1152))).fit == "cover"
    assert placement("mug-11oz", art_of(quadrants(500, 700))).copies == 2


def test_a_back_starts_empty() -> None:
    found = proposed("t-shirt", art_of(quadrants()), "back")
    assert found.placement is None and "empty" in found.why


@pytest.mark.parametrize("blank", list(templates()))
@pytest.mark.parametrize(
    "make", [cut_out, pattern, poster, lambda: art_of(quadrants(900, 300)), lambda: art_of(quadrants(200, 900))]
)
def test_every_proposal_is_valid_and_gives_its_reason(blank: str, make: object) -> None:
    art = make()  # type: ignore[operator]
    traits = find_traits(art)
    for panel in template(blank).panels:
        found = propose_placement(template(blank), panel, art.facts, traits)
        assert found.why.endswith(".")
        if isinstance(found.placement, Follow):
            check_follow(template(blank), panel, found.placement)
        elif found.placement is not None:
            place(panel, art.facts.size, found.placement)


@settings(max_examples=25)
@given(st.sampled_from(sorted(templates())), st.integers(60, 900), st.integers(60, 900))
def test_a_proposed_cover_leaves_no_bare_edge(blank: str, w: int, h: int) -> None:
    art = art_of(quadrants(w, h))
    found = propose_placement(template(blank), template(blank).panels[0], art.facts, find_traits(art)).placement
    if isinstance(found, Placement) and found.fit == "cover":
        checks = {c.id: c for c in run_preflight(template(blank), template(blank).panels[0], art, found).checks}
        assert checks["bare-edge"].status == "pass"


def test_a_copied_placement_keeps_its_share_of_the_print_area() -> None:
    mug, large = template("mug-11oz").panel(), template("mug-15oz").panel()
    moved = adapt_placement(Placement("contain", (mug.trim_mm[0] / 10, 5.0), 0.7, 12.0, "#203040", copies=2), mug, large)
    assert moved.shift_mm[0] == pytest.approx(large.trim_mm[0] / 10, abs=1e-3)
    assert (moved.fit, moved.scale, moved.rotate_deg, moved.background, moved.copies) == ("contain", 0.7, 12.0, "#203040", 2)


def test_a_copied_repeat_still_closes() -> None:
    cloth, wrap = template("garden-flag").panel(), template("tumbler-20oz-tapered").panel()
    moved = adapt_placement(Placement("repeat", repeat_kind="half-drop", repeats_around=5, rotate_deg=40), cloth, wrap)
    assert moved.repeats_around == 6 and moved.rotate_deg == 0
    place(wrap, art_of(quadrants()).facts.size, moved)
