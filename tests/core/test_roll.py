"""A wrap rolled round its cup: a cyclic shift that changes no pixel, and a seam that is brought to a calm place."""

from dataclasses import replace

import numpy as np
import pytest
import pyvips
from hypothesis import given
from hypothesis import strategies as st

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork, as_array
from improva.core.design import Design, Piece, Placement
from improva.core.errors import PlacementError
from improva.core.fit import place
from improva.core.preflight import Subject, run_preflight
from improva.core.preflight.result import CheckResult
from improva.core.preflight.seam_measures import calm_roll, detail_by_column
from improva.core.proposal import adapt_placement
from improva.core.render import render, render_level
from improva.core.render.roll import rolled, shorter
from improva.core.template import Template
from tests.conftest import art_of

STRAIGHT, TAPERED = template("tumbler-20oz-straight"), template("tumbler-20oz-tapered")
W, H = 1116, 984
"""The straight wrap at 120 dpi."""


def shown(blank: Template, art: Artwork, size: tuple[int, int], level: bool = False, **placing: object) -> np.ndarray:
    placement = Placement("stretch", **placing)  # type: ignore[arg-type]
    design = Design(blank, blank.panel(), (Piece("art", art.facts.size, placement),))
    return as_array((render_level if level else render)(design, lambda _: art, size))


def noise(w: int = W, h: int = H) -> np.ndarray:
    return np.random.default_rng(4).integers(0, 256, (h, w, 3), np.uint8)


@pytest.mark.parametrize("roll_mm", [25.4, -12.7, 100.0, 236.22])
def test_a_roll_is_a_cyclic_shift_of_whole_pixels(roll_mm: float) -> None:
    art = art_of(noise())
    plain, moved = (shown(STRAIGHT, art, (W, H), roll_mm=by) for by in (0.0, roll_mm))
    assert (moved == np.roll(plain, round(roll_mm * W / STRAIGHT.panel().trim_mm[0]), axis=1)).all()


def test_bleed_goes_on_round_the_cup() -> None:
    panel = replace(STRAIGHT.panel(), trim_mm=(100.0, 20.0), bleed_mm=2.0)
    trim = noise(1000, 200)
    whole = np.pad(trim, ((20, 20), (20, 20), (0, 0)), mode="constant")
    found = as_array(rolled(pyvips.Image.new_from_array(whole, interpretation="srgb"), 30.0, panel))
    middle = found[20:-20, 20:-20]
    assert (middle == np.roll(trim, 300, axis=1)).all()
    assert (found[20:-20, :20] == middle[:, -20:]).all() and (found[20:-20, -20:] == middle[:, :20]).all()


def test_a_tapered_wall_is_rolled_on_its_level_rectangle() -> None:
    art = art_of(noise(800, 500))
    plain, moved = (shown(TAPERED, art, (800, 500), level=True, roll_mm=by) for by in (0.0, 40.0))
    assert (moved == np.roll(plain, round(40 * 800 / TAPERED.panel().level().trim_mm[0]), axis=1)).all()
    with pytest.raises(PlacementError, match="bent"):
        place(TAPERED.panel(), art.facts.size, Placement("stretch", roll_mm=5, lay="flat"))


@pytest.mark.parametrize("blank", ["mug-11oz", "garden-flag"])
def test_what_does_not_close_is_not_rolled(blank: str) -> None:
    art = art_of(noise(60, 60))
    with pytest.raises(PlacementError, match="ends meet"):
        place(template(blank).panel(), art.facts.size, Placement(roll_mm=1))


@given(st.floats(-5000, 5000), st.floats(10, 600))
def test_the_shorter_way_round_is_the_same_place(roll: float, around: float) -> None:
    found = shorter(roll, around)
    assert -around / 2 - 1e-6 <= found <= around / 2 + 1e-6
    turns = (found - roll) / around
    assert turns == pytest.approx(round(turns), abs=1e-6)


def test_a_roll_keeps_its_share_on_another_cup_and_is_dropped_where_ends_do_not_meet() -> None:
    rolled_by = Placement(roll_mm=30.0)
    other = template("tumbler-30oz-tapered").panel()
    there = adapt_placement(rolled_by, STRAIGHT.panel(), other)
    assert there.roll_mm / other.level().trim_mm[0] == pytest.approx(30 / STRAIGHT.panel().trim_mm[0])
    assert adapt_placement(rolled_by, STRAIGHT.panel(), template("mug-11oz").panel()).roll_mm == 0


def cup(busy: tuple[float, float], step: bool = False) -> Artwork:
    """Return a wrap of one colour with a busy stretch (from, to, in shares of its width), whose ends meet or not."""
    pixels = np.full((H, W, 3), (120, 150, 170), np.uint8)
    columns = (np.arange(W) / W - busy[0]) % 1 < (busy[1] - busy[0])
    checks = ((np.arange(H)[:, None] // 8 + np.arange(W)[None] // 8) % 2).astype(bool)
    pixels[checks & columns[None]] = (20, 30, 40)
    if step:
        pixels[:, : W // 3] = (230, 90, 40)
    return art_of(pixels)


def subject_of(art: Artwork, **placing: float) -> Subject:
    return Subject(STRAIGHT, STRAIGHT.panel(), art, Placement("stretch", **placing))  # type: ignore[arg-type]


def test_the_calmest_seam_lies_outside_the_busy_stretch() -> None:
    art = cup((0.7, 1.35))  # the seam at 0 is in its middle
    roll = calm_roll(subject_of(art))
    assert roll is not None
    share = (-roll / STRAIGHT.panel().trim_mm[0]) % 1
    assert 0.37 < share < 0.68, "between the busy stretch's ends"
    there = subject_of(art, roll_mm=roll)
    detail = detail_by_column(there.trim_lab, there.px_per_mm)
    strip = round(STRAIGHT.panel().seam_zone_mm * there.px_per_mm)
    assert np.concatenate([detail[:strip], detail[-strip:]]).max() == 0
    assert calm_roll(there) == pytest.approx(roll, abs=0.3), "it is calm there already"


def test_a_calm_seam_stays_where_it_is() -> None:
    assert calm_roll(subject_of(cup((0.3, 0.6)))) == pytest.approx(0, abs=0.2)


def test_art_whose_ends_do_not_meet_is_not_rolled_into_view() -> None:
    art = cup((0.5, 0.5), step=True)
    assert calm_roll(subject_of(art)) is None
    checks = {c.id: c for c in run_preflight(STRAIGHT, STRAIGHT.panel(), art, Placement("stretch", roll_mm=50.0)).checks}
    told = checks["seam-match"]
    assert told.status == "warn" and "inside the wrap" in told.message
    assert told.fix is not None and told.fix.placement == {"roll_mm": 0.0}
    x, _, w, _ = told.where[0]
    assert x < 50 < x + w


def test_a_busy_seam_is_offered_the_roll() -> None:
    def zone(**placing: float) -> CheckResult:
        report = run_preflight(STRAIGHT, STRAIGHT.panel(), cup((0.9, 1.1)), Placement("stretch", **placing))  # type: ignore[arg-type]
        return next(c for c in report.checks if c.id == "seam-zone")

    told = zone()
    assert told.status == "warn" and told.fix is not None and told.fix.label == "Turn the seam to the calmest place"
    assert zone(**told.fix.placement).status == "pass"
