"""Several sizes cut from one file: important content stays inside the smallest size's safe line."""

from dataclasses import replace

import numpy as np
import pytest

from improva.catalogue import template
from improva.core.design import Placement
from improva.core.errors import TemplateError
from improva.core.preflight import run_preflight
from improva.core.template_file import parse_template
from tests.conftest import art_of

HOODIE = template("hoodie-all-over")
BACK = HOODIE.panel("back")


def block(left: int, right: int) -> np.ndarray:
    """A dark motif on white, at 1 px per mm of the back's trim: 600 × 700 px."""
    picture = np.full((700, 600, 3), 255, np.uint8)
    picture[300:500, left:right] = (30, 40, 90)
    return picture


@pytest.mark.parametrize(
    ("left", "right", "large", "small"),
    [(200, 400, "pass", "pass"), (60, 540, "pass", "warn"), (20, 580, "warn", "warn")],
)
def test_the_smallest_size_sets_the_safe_area(left: int, right: int, large: str, small: str) -> None:
    # of 600 mm the largest size keeps 30 mm at either side free; S, 0.86 of it, (600 - 516) / 2 + 30 = 72 mm
    art = art_of(block(left, right))
    placement = Placement("stretch", scale=600 / 624)
    for blank, wanted in ((replace(HOODIE, grading="scaled"), large), (HOODIE, small)):
        checks = {c.id: c for c in run_preflight(blank, BACK, art, placement).checks}
        assert checks["safe-area"].status == wanted, checks["safe-area"].message
    if small == "warn":
        assert "size S" in checks["safe-area"].message
        assert checks["safe-area"].measured == pytest.approx(72 - left, abs=3)


def test_an_unknown_grading_is_reported() -> None:
    data = {"id": "x", "title": "X", "kind": "own", "grading": "stretched", "panels": [{"id": "p", "trim": [100, 100]}]}
    with pytest.raises(TemplateError, match="grading"):
        parse_template(data)
