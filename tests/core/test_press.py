"""Pressing: plans, faults, and what the log teaches. Figures of the trade: common practice, no published source."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.catalogue import template
from improva.core.errors import PressError
from improva.core.press import (
    CAUTIONS,
    FAULTS,
    METHODS,
    Figures,
    Pressing,
    common_figures,
    likely_causes,
    methods_of,
    press_plan,
    suggest,
    total_seconds,
)
from improva.core.units import celsius, fahrenheit

CUP, FLAG, MUG = template("tumbler-20oz-straight"), template("garden-flag"), template("mug-11oz")


@pytest.mark.parametrize(("f", "c"), [(32, 0), (212, 100), (-40, -40), (385, 196.111), (390, 198.889), (98.6, 37)])
def test_fahrenheit_and_celsius_at_known_points(f: float, c: float) -> None:
    """NIST SP 811, appendix B.8; fixed points of water."""
    assert celsius(f) == pytest.approx(c, abs=1e-3) and fahrenheit(c) == pytest.approx(f, abs=2e-3)


@given(st.floats(-300, 1000))
def test_degrees_survive_a_round_trip(c: float) -> None:
    assert celsius(fahrenheit(c)) == pytest.approx(c, abs=1e-9)


def test_a_tumbler_is_pressed_as_the_trade_does_it() -> None:
    """385 °F, light, 55 s seam down, 55 s seam up, 25 to 30 s each side, 10 to 15 s twice at either end if pale."""
    steps = press_plan(CUP, CUP.panel(), "tumbler", common_figures(CUP, "tumbler"))
    heated = [(s.lie, s.seconds) for s in steps if s.kind == "press"]
    assert heated[:2] == [("seam-down", 55), ("seam-up", 55)]
    assert [lie for lie, _ in heated[2:]] == ["side-left", "side-right"] and all(25 <= s <= 30 for _, s in heated[2:])
    ends = [(s.lie, s.seconds) for s in steps if s.kind == "if-pale"]
    assert [lie for lie, _ in ends] == ["bottom", "bottom", "top", "top"] and all(10 <= s <= 15 for _, s in ends)
    again = [s for s in steps if s.kind == "again"]
    assert len(again) == 1 and 30 <= again[0].seconds <= 50
    assert all(s.temperature_f == pytest.approx(385, abs=0.1) and s.pressure == "light" for s in steps if s.seconds)
    assert steps[-1].lie == "cooling" and "gloves" in steps[-1].do and total_seconds(steps) == 164


def test_a_flag_needs_two_positions_on_a_15_inch_platen() -> None:
    """390 °F, 60 s; 12.5 × 18 in on 15 × 15 in."""
    steps = press_plan(FLAG, FLAG.panel(), "flat", common_figures(FLAG, "flat"))
    heated = [s for s in steps if s.kind == "press"]
    assert [s.seconds for s in heated] == [60, 60] and heated[0].temperature_f == pytest.approx(390, abs=0.1)
    assert all(s.part is not None for s in heated)
    kinds = [s.kind for s in steps]
    assert kinds == ["ready", "ready", *(["press", "peek", "again"] * 2), "ready"], "a look after every position"
    assert [s.part for s in steps if s.kind == "peek"] == [s.part for s in heated]
    whole = press_plan(FLAG, FLAG.panel(), "flat", common_figures(FLAG, "flat"), (400, 500))
    assert [s.part for s in whole if s.kind == "press"] == [None]


def test_every_blank_has_a_plan_in_each_press_it_goes_into() -> None:
    from improva.catalogue import templates

    for blank in templates().values():
        for method in methods_of(blank):
            for panel in blank.panels:
                steps = press_plan(blank, panel, method, common_figures(blank, method))
                assert total_seconds(steps) > 0 and {"peek", "again"} <= {s.kind for s in steps}
    with pytest.raises(PressError, match="does not go into"):
        common_figures(FLAG, "mug")
    assert set(METHODS) >= set(methods_of(MUG))


@pytest.mark.parametrize(
    "wrong",
    [{"temperature_c": 500}, {"temperature_c": 20}, {"main_s": 0}, {"main_s": -1}, {"side_s": 1e9}, {"pressure": "huge"}],
)
def test_figures_out_of_range_are_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(PressError):
        Figures(**{"temperature_c": 196, "main_s": 55, **wrong})


def entry(n: int, result: str, *faults: str, **figures: Any) -> Pressing:
    made = Figures(**{"temperature_c": 196.0, "main_s": 50, "side_s": 20, **figures})
    return Pressing(n, f"2026-05-{n:02}", made, result, faults)  # type: ignore[arg-type]


START = Figures(190, 60, source="maker")


def test_before_the_first_pressing_the_makers_figures_apply() -> None:
    assert suggest([], START).figures == START and suggest([], START).evidence == ()


def test_the_newest_good_pressing_gives_the_settings() -> None:
    found = suggest([entry(3, "good", main_s=52), entry(2, "good"), entry(1, "spoiled", "pale")], START)
    assert found.figures.main_s == 52 and found.figures.source == "log" and found.evidence == (3,)
    assert "2 of 3" in found.why[0]


@pytest.mark.parametrize(
    ("fault", "changed"),
    [
        ("pale", {"main_s": 55, "side_s": 22}),
        ("scorched", {"temperature_c": 191.0}),
        ("lines", {"main_s": 45, "pressure": "light"}),
        ("ghosting", {"main_s": 50}),
        ("specks", {"main_s": 50}),
    ],
)
def test_a_fault_under_the_same_settings_moves_them_by_one_step(fault: str, changed: dict[str, Any]) -> None:
    found = suggest([entry(4, "usable", fault, pressure="medium"), entry(3, "good", pressure="medium")], START)
    assert {name: getattr(found.figures, name) for name in changed} == changed and found.evidence == (3, 4)


def test_a_fault_under_other_settings_does_not_change_the_good_ones() -> None:
    found = suggest([entry(4, "spoiled", "pale", main_s=20), entry(3, "good")], START)
    assert found.figures.main_s == 50 and "tried others" in found.why[-1]


def test_without_a_good_pressing_the_newest_is_corrected() -> None:
    found = suggest([entry(2, "usable", "pale"), entry(1, "spoiled", "scorched", temperature_c=210.0)], START)
    assert found.figures.main_s == 55 and found.figures.temperature_c == 196 and found.evidence == (2,)


def test_causes_are_listed_most_likely_first() -> None:
    assert next(cause.why for _, cause in likely_causes(("pale",))) == "Too little time."
    both = [(fault.id, cause.why) for fault, cause in likely_causes(("ghosting", "lines"))]
    assert both[:2] == [("ghosting", "The paper moved while it was hot."), ("lines", "Too much pressure.")]
    assert likely_causes(("unheard",)) == [] and all(fault.causes for fault in FAULTS)
    with pytest.raises(PressError):
        entry(1, "good", "unheard")


def test_cautions_name_the_dangers_and_defer_to_the_makers() -> None:
    told = " ".join(CAUTIONS).lower()
    for word in (
        "gloves",
        "fumes",
        "unattended",
        "children",
        "blade",
        "safety data sheets",
        "local rules",
        "makers' instructions",
    ):
        assert word in told
