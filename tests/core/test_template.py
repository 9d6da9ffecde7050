import copy
import tomllib
from importlib import resources
from typing import Any

import pytest

from improva import catalogue
from improva.core.errors import TemplateError
from improva.core.template_file import parse_template

TOML = tomllib.loads((resources.files(catalogue) / "tumbler-20oz-straight.toml").read_text())


def test_the_straight_tumbler_has_the_trades_figures() -> None:
    # Common practice, no published source: 9.3 in (the circumference) × 8.2 in; 150 dpi least, 300 good; pressed at home.
    blank = catalogue.template("tumbler-20oz-straight")
    panel = blank.panel()
    assert panel.trim_mm == pytest.approx((236.22, 208.28))
    assert panel.file_px() == (2790, 2460)
    assert panel.file_px(150) == (1395, 1230)
    assert (blank.least_dpi, blank.good_dpi, blank.route, panel.closes) == (150, 300, "press", True)
    assert set(blank.provenance) >= {"trim", "safe", "seam_zone", "least_dpi"}


def test_bleed_and_safe_lie_on_either_side_of_the_trim() -> None:
    data = copy.deepcopy(TOML)
    data["panels"][0] |= {"trim": [50, 60], "bleed": 1.5, "safe": 2.5}
    panel = parse_template(data).panel()
    # Common practice, no published source: a 50 × 60 in throw is printed at 53 × 63 in with words inside 45 × 55 in.
    assert panel.file_mm == pytest.approx((53 * 25.4, 63 * 25.4))
    assert panel.safe_box == pytest.approx((63.5, 63.5, 45 * 25.4, 55 * 25.4))
    assert panel.file_box == pytest.approx((-38.1, -38.1, 53 * 25.4, 63 * 25.4))


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"trim": [0, 8.2]}, "can be printed"),
        ({"trim": [9.3]}, "trim is"),
        ({"trim": ["wide", 8.2]}, "not a length"),
        ({"safe": 4.2}, "no room"),
        ({"bleed": -1}, "below 0"),
        ({"unit": "ell"}, "unit"),
        ({"dpi": 9000}, "dpi"),
    ],
)
def test_impossible_panels_are_reported(change: dict[str, Any], says: str) -> None:
    data = copy.deepcopy(TOML)
    data["panels"][0] |= change
    with pytest.raises(TemplateError, match=says):
        parse_template(data)


@pytest.mark.parametrize("missing", ["id", "title", "kind", "panels"])
def test_missing_keys_are_named(missing: str) -> None:
    data = {k: v for k, v in TOML.items() if k != missing}
    with pytest.raises(TemplateError, match=missing):
        parse_template(data)


@pytest.mark.parametrize("change", [{"route": "carry"}, {"blank_colour": "white"}, {"panels": []}, {"least_dpi": "many"}])
def test_impossible_templates_are_reported(change: dict[str, Any]) -> None:
    with pytest.raises(TemplateError):
        parse_template({**TOML, **change})


def test_unknown_names_list_the_known_ones() -> None:
    with pytest.raises(TemplateError, match="tumbler-20oz-straight"):
        catalogue.template("teapot")
    with pytest.raises(TemplateError, match="wrap"):
        catalogue.template("tumbler-20oz-straight").panel("sleeve")


@pytest.mark.parametrize(
    "change",
    [
        {"safe": float("nan")},
        {"bleed": float("inf")},
        {"gap": float("nan")},
        {"id": "../wrap"},
        {"id": ""},
        {"id": "w" * 60},
        {"shape": "star"},
        {"shape": "outline"},
        {"outline": [[0, 0], [1, 1]]},
        {"outline": [[0, 0], [5, 5], [5, 0], [0, 5]]},
        {"outline": [[0, 0], [50, 0], [5, 5]]},
        {"outline": "round"},
        {"cone": {"top": 9}},
        {"keep_out": [{"box": [0, 0, 1, 1]}]},
        {"keep_out": [{"title": "x", "box": [0, 0, 1]}]},
        {"seam_zone": 5},
        {"trim_px": [0, 5]},
    ],
)
def test_hostile_panels_are_reported(change: dict[str, Any]) -> None:
    data = copy.deepcopy(TOML)
    data["panels"][0] |= change
    with pytest.raises(TemplateError):
        parse_template(data)


@pytest.mark.parametrize(
    "change",
    [
        {"looks": {"body": "/etc"}},
        {"looks": {"above": "high"}},
        {"looks": {"below": -3}},
        {"looks": {"above": float("nan")}},
        {"sizes": {"S": 0}},
        {"sizes": {"S": 4}},
        {"sizes": {"S": "small"}},
        {"limits": {"speed": 1}},
        {"limits": {"least_dpi": 0}},
        {"default_fit": "fill"},
        {"title": "x" * 300},
        {"panels": [{"id": "a", "trim": [9, 9]}] * 2},
        {"panels": "none"},
    ],
)
def test_hostile_templates_are_reported(change: dict[str, Any]) -> None:
    with pytest.raises(TemplateError):
        parse_template({**copy.deepcopy(TOML), **change})


def test_unknown_values_of_looks_are_ignored() -> None:
    looks = {"body": "turned", "handle": 1, "spout": "long", "above": 4}
    assert parse_template({**TOML, "looks": looks}).looks == {"body": "turned", "handle": True, "above": 4}
