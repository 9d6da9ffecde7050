"""Dimension lines beside a blank end where the drawn print ends."""

from dataclasses import replace

import numpy as np
import pytest

from improva.app.scenes import open_scene
from improva.catalogue import template, templates
from improva.core.mockup.drawn import draw, drawn_scenes, measures_of

SMALL = (480, 360)
DRAWN = [(blank, i) for blank in templates().values() for i, info in enumerate(drawn_scenes(blank)) if info.measures]


@pytest.mark.parametrize(("blank", "i"), DRAWN, ids=lambda v: getattr(v, "id", str(v)))
def test_each_dimension_line_is_as_long_as_what_it_measures(blank, i) -> None:  # type: ignore[no-untyped-def]
    info = replace(drawn_scenes(blank)[i], px=SMALL)
    first, second = measures_of(info)
    uv = draw(info).maps[info.regions[0].id]
    ys, xs = np.nonzero(~np.isnan(uv[..., 0]))
    for measure in (first, second):
        for x, y in (measure.start, measure.end):
            assert 4 < x < SMALL[0] - 4 and 4 < y < SMALL[1] - 4
    scale = np.hypot(*np.subtract(second.end, second.start)) / second.mm  # px in a mm, where the print is
    assert np.hypot(*np.subtract(first.end, first.start)) / first.mm == pytest.approx(scale, rel=0.04)
    if first.title == "Width":
        assert first.mm == pytest.approx(blank.panels[0].trim_mm[0]) and second.mm == pytest.approx(blank.panels[0].trim_mm[1])
        assert (first.start[0], first.end[0]) == pytest.approx((xs.min(), xs.max() + 1), abs=5)
        assert (second.end[1], second.start[1]) == pytest.approx((ys.min(), ys.max() + 1), abs=5)
    else:  # at the outline of a turned blank the print's edges are level with the ends of the line
        assert first.mm == pytest.approx(blank.panels[0].level().trim_mm[1])
        column = ys[xs == (xs.min() if first.start[0] < SMALL[0] / 2 else xs.max())]
        assert column.min() >= first.end[1] - 4 and column.max() <= first.start[1] + 4
        assert min(abs(first.start[0] - xs.min()), abs(first.start[0] - xs.max())) > 3  # beside the blank, not on it


def test_a_cut_out_is_measured_by_its_own_contour() -> None:
    blank = template("pillow-shaped")
    info = next(i for i in drawn_scenes(blank) if i.measures)
    cut = np.zeros((300, 300), bool)
    cut[60:150, 30:270] = True
    opened, passes = open_scene(info, (960, 720), cut)
    wide, tall = opened.measures
    w, h = blank.panels[0].trim_mm
    assert (wide.mm, tall.mm) == pytest.approx((0.8 * w, 0.3 * h))
    uv = passes.maps[info.regions[0].id]
    ys, xs = np.nonzero(~np.isnan(uv[..., 0]))
    assert (wide.start[0], wide.end[0]) == pytest.approx((xs.min(), xs.max() + 1), abs=6)
    assert (tall.end[1], tall.start[1]) == pytest.approx((ys.min(), ys.max() + 1), abs=6)
