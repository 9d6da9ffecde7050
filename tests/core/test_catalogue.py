"""The shipped blanks, compared with figures of the trade. Common practice, no published source, unless named."""

import tomllib
from typing import Any

import pytest

from improva.catalogue import KINDS, template, templates
from improva.core.errors import TemplateError
from improva.core.limits import LIMITS, checked_limits
from improva.core.preflight.resolution import eye_dpi
from improva.core.template import Template
from improva.core.template_file import parse_template, write_toml

ALL = list(templates().values())
IN = 25.4
WANTED = {
    "tumbler-20oz-straight",
    "tumbler-20oz-tapered",
    "tumbler-30oz-tapered",
    "travel-tumbler",
    "mug-11oz",
    "mug-15oz",
    "pen-wrap",
    "pillow-square",
    "pillow-shaped",
    "blanket-upright",
    "blanket-lying",
    "garden-flag",
    "transfer-15in",
    "t-shirt",
    "hoodie",
    "hoodie-all-over",
    "tote-gusset",
}


def test_every_blank_is_there_in_the_order_of_its_kind() -> None:
    assert set(templates()) == WANTED
    kinds = [KINDS.index(t.kind) for t in ALL]
    assert kinds == sorted(kinds)


@pytest.mark.parametrize("blank", ALL, ids=lambda t: t.id)
def test_every_figure_names_its_source(blank: Template) -> None:
    assert blank.provenance
    for name, source in blank.provenance.items():
        assert "common practice, no published source" in source or "from memory" in source or "closed form" in source, name
    assert blank.unprinted and blank.substrate and blank.finishes


@pytest.mark.parametrize("blank", ALL, ids=lambda t: t.id)
def test_a_blank_is_equal_after_a_round_trip_through_its_file(blank: Template) -> None:
    again = parse_template(tomllib.loads(write_toml(blank)))
    assert write_toml(again) == write_toml(blank)
    for one, two in zip(blank.panels, again.panels, strict=True):
        assert one.file_px() == two.file_px() and one.trim_mm == pytest.approx(two.trim_mm, abs=1e-5)
        assert (one.shape, one.closes, one.starts, len(one.keep_out)) == (two.shape, two.closes, two.starts, len(two.keep_out))
    assert (again.limits, again.sizes, again.looks) == (blank.limits, blank.sizes, blank.looks)


@pytest.mark.parametrize(
    ("blank", "panel", "trim_in", "file_px"),
    [
        ("tumbler-20oz-straight", "wrap", (9.3, 8.2), (2790, 2460)),
        ("travel-tumbler", "wrap", (9, 4600 / 600), (5400, 4600)),
        ("pillow-square", "front", (18.1, 18.1), (2220, 2220)),
        ("pillow-shaped", "shape", (400 / IN, 400 / IN), (4724, 4724)),
        ("blanket-upright", "front", (50, 60), (53 * 150, 63 * 150)),
        ("blanket-lying", "front", (60, 50), (63 * 150, 53 * 150)),
        ("garden-flag", "front", (12.5, 18), (3750, 5400)),
        ("transfer-15in", "sheet", (15, 15), (4500, 4500)),
        ("t-shirt", "front", (12, 14), (3000, 3500)),
    ],
)
def test_print_sizes_match_common_practice(blank: str, panel: str, trim_in: tuple[Any, ...], file_px: tuple[Any, ...]) -> None:
    found = template(blank).panel(panel)
    assert tuple(side / IN for side in found.trim_mm) == pytest.approx(trim_in)
    assert found.file_px() == file_px


def test_a_blanket_has_its_zones() -> None:
    front = template("blanket-upright").panel()
    assert front.file_mm == pytest.approx((53 * IN, 63 * IN)) and front.bleed_mm == pytest.approx(1.5 * IN)
    assert front.safe_box[2:] == pytest.approx((45 * IN, 55 * IN))
    assert template("blanket-upright").least_dpi == 150 and template("blanket-upright").unprinted == "the back stays white"


def test_a_shaped_pillows_border_and_sizes() -> None:
    shape = template("pillow-shaped").panel()
    assert 100 <= shape.safe_mm / IN * shape.dpi <= 150.5  # a border of 100 to 150 px
    assert len(template("pillow-shaped").sizes) == 4


def test_mug_prints_leave_a_handle_gap_and_tumbler_prints_close() -> None:
    for blank in ALL:
        first = blank.panels[0]
        assert (first.gap_mm > 0) == (blank.kind == "mug")
        assert first.closes == (blank.kind in ("tumbler", "pen"))
        assert not (first.closes and first.gap_mm)


def test_the_all_over_hoodie_has_a_file_a_panel_and_all_of_them_hold_their_outline() -> None:
    hoodie = template("hoodie-all-over")
    assert [p.id for p in hoodie.panels] == [
        "front",
        "back",
        "sleeve-left",
        "sleeve-right",
        "hood-left",
        "hood-right",
        "pocket",
    ]
    for panel in hoodie.panels:
        x0, y0, x1, y1 = panel.cut().bounds
        assert (
            x0 >= -panel.bleed_mm - 1e-6 and y1 <= panel.trim_mm[1] + panel.bleed_mm + 1e-6 and x1 > 0 and y0 < panel.trim_mm[1]
        )
        assert len(panel.line(panel.safe_mm)) >= 3
    assert hoodie.panel("hood-left").cut().area == pytest.approx(hoodie.panel("hood-right").cut().area, rel=1e-6)


def test_print_files_stay_within_the_size_limits() -> None:
    for panel in (p for t in ALL for p in t.panels):
        w, h = panel.file_px()
        assert w * h < 600_000_000 and min(w, h) >= 300


def test_viewing_distance_and_dpi_follow_one_minute_of_arc() -> None:
    # ISO 8596, acuity 1.0: 3438 / distance in inches. At 12 in some 286 dpi; 300 dpi is resolved from 11.5 in.
    assert eye_dpi(12 * IN) == pytest.approx(3438 / 12, rel=1e-3)
    assert eye_dpi(3437.75 / 300 * IN) == pytest.approx(300)


def test_impossible_limits_are_reported() -> None:
    with pytest.raises(TemplateError, match="no limit 'speed'"):
        checked_limits({"speed": 3})
    for wrong in (-1.0, 1e9, float("nan"), True, "many"):
        with pytest.raises(TemplateError, match="Minimum resolution"):
            checked_limits({"least_dpi": wrong})  # type: ignore[dict-item]
    assert all(limit.least <= limit.default <= limit.most for limit in LIMITS.values())
    sources = ("from memory", "common practice, no published source", "WCAG 2.2")
    assert all(any(source in limit.source for source in sources) for limit in LIMITS.values())


def test_the_sellers_limits_override_the_blanks() -> None:
    shirt = template("t-shirt")
    assert shirt.limit("letter_mm") == 4 and shirt.with_limits({"letter_mm": 9}).limit("letter_mm") == 9
    assert shirt.limit("crop_percent") == LIMITS["crop_percent"].default
    assert shirt.with_limits({}) is shirt
