"""Custom blanks: from measurements, from pixels, from a provider's guide, and as files."""

import io
import math
import tomllib
from typing import Any

import numpy as np
import pikepdf
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image
from shapely import Polygon, box

from improva.core.design import ArtSize, Placement
from improva.core.errors import ArtworkError, TemplateError
from improva.core.fit import place
from improva.core.guide import laid_over, read_guide, trace
from improva.core.measured_blank import Measures, circumference, measured_template
from improva.core.mockup.drawn import drawn_scenes
from improva.core.mockup.drawn.body import body_figures
from improva.core.mockup.drawn.round_body import _wrap_place
from improva.core.template import Template
from improva.core.template_file import parse_template, write_toml
from tests.conftest import encoded
from tests.pictures import guide_png

IN = 25.4


def made(**measures: Any) -> Template:
    template = measured_template("own-flask", Measures("Hut flask", **measures))
    return parse_template(tomllib.loads(write_toml(template)), own=True)


def test_the_print_of_a_straight_cup_is_a_rectangle_as_wide_as_the_circumference() -> None:
    panel = made(form="round", top_mm=9.3 * IN, bottom_mm=9.3 * IN, height_mm=8.2 * IN).panel()
    assert panel.file_px() == (2790, 2460) and panel.closes and panel.cone is None


def test_a_diameter_and_a_circumference_give_the_same_blank() -> None:
    assert circumference(75) == pytest.approx(math.pi * 75)


def test_the_print_of_a_tapered_cup_is_a_ring() -> None:
    template = made(form="round", top_mm=290, bottom_mm=224, height_mm=180, kind="tumbler")
    panel = template.panel()
    assert panel.shape == "cone" and panel.cone is not None and panel.cone.top_mm == pytest.approx(290)
    assert panel.level().trim_mm == pytest.approx((290, panel.cone.slant_mm))


def test_a_mug_keeps_its_handle_gap() -> None:
    panel = made(form="round", top_mm=257, bottom_mm=257, height_mm=89, gap_mm=41, kind="mug").panel()
    assert panel.trim_mm == pytest.approx((216, 89)) and panel.gap_mm == pytest.approx(41) and not panel.closes


def test_a_tapered_mug_keeps_its_handle_gap() -> None:
    """A latte mug: the ring is that of the whole cone, less the angle of the gap; it comes back from its file."""
    whole = made(form="round", top_mm=283, bottom_mm=220, height_mm=104, kind="mug").panel()
    panel = made(form="round", top_mm=283, bottom_mm=220, height_mm=104, gap_mm=40, kind="mug").panel()
    assert panel.cone is not None and whole.cone is not None
    assert panel.cone.gap_mm == pytest.approx(40) and panel.gap_mm == pytest.approx(40) and not panel.closes
    assert panel.cone.outer_radius_mm == pytest.approx(whole.cone.outer_radius_mm)
    assert panel.cone.sweep_rad == pytest.approx(whole.cone.sweep_rad * (283 - 40) / 283)
    assert panel.level().trim_mm == pytest.approx((243, panel.cone.slant_mm))
    ends = panel.cone.to_flat(np.array([0, 243.0]), np.array([whole.cone.slant_mm] * 2))
    foot_radius = whole.cone.inner_radius_mm
    turn = panel.cone.sweep_rad
    assert math.dist(*zip(*ends, strict=True)) == pytest.approx(2 * foot_radius * math.sin(turn / 2)), (
        "a chord of the foot's arc"
    )
    assert foot_radius * turn == pytest.approx(220 * 243 / 283), "the gap narrows as the cup does"


def test_a_gap_as_wide_as_the_mug_is_refused() -> None:
    with pytest.raises(TemplateError, match="gap at the handle"):
        made(form="round", top_mm=283, bottom_mm=220, height_mm=104, gap_mm=240, kind="mug")


def test_a_tapered_mug_is_pictured_with_its_handle() -> None:
    """The handle's three views, and the wrap's ends at the gap: the middle of the back shows no print."""
    template = made(form="round", top_mm=283, bottom_mm=220, height_mm=104, gap_mm=40, kind="mug")
    scenes = drawn_scenes(template)
    assert {scene.id.rsplit("-", 1)[-1] for scene in scenes} == {"right", "left", "behind"}
    body = body_figures(template)
    assert body.handle and body.rim_r == pytest.approx(283 / 2 / math.pi) and body.foot_r == pytest.approx(220 / 2 / math.pi)
    u, _ = _wrap_place(template.panel(), np.array([0.0, 0.0]), np.array([-1.0, 1.0]), np.array([0.5, 0.5]), 0)
    assert u[0] == pytest.approx(0.5) and not 0 <= u[1] <= 1


def test_pixels_with_and_without_a_density() -> None:
    # Common practice, no published source: 5400 × 4600 px given, no size.
    assert made(form="pixels", file_px=(5400, 4600)).panel().file_px() == (5400, 4600)
    at_600 = made(form="pixels", file_px=(5400, 4600), dpi=600.0)
    assert at_600.panel().file_px() == (5400, 4600) and at_600.panel().file_mm[0] == pytest.approx(9 * IN)
    assert "no density given" in made(form="pixels", file_px=(5400, 4600)).provenance["trim"]


@given(st.integers(400, 20000), st.integers(400, 20000), st.floats(72, 600), st.floats(0, 3))
def test_a_size_in_pixels_is_kept_exactly(w: int, h: int, dpi: float, bleed: float) -> None:
    try:
        panel = made(form="pixels", file_px=(w, h), dpi=dpi, bleed_mm=bleed, safe_mm=0.0).panel()
    except TemplateError:
        return
    assert abs(panel.file_px()[0] - w) <= 1 and abs(panel.file_px()[1] - h) <= 1


@given(st.floats(30, 800), st.floats(30, 800), st.floats(36, 1200))
def test_mm_to_px_and_back_is_within_half_a_pixel(w: float, h: float, dpi: float) -> None:
    panel = made(form="flat", width_mm=w, height_mm=h, safe_mm=1.0).panel()
    for mm, px in zip(panel.file_mm, panel.file_px(dpi), strict=True):
        assert abs(px / dpi * IN - mm) <= 0.5 / dpi * IN + 1e-9


@given(
    st.floats(60, 600),
    st.floats(60, 600),
    st.floats(50, 400),
    st.floats(0, 20),
    st.integers(30, 4000),
    st.integers(30, 4000),
    st.floats(-180, 180),
    st.sampled_from(["bent", "flat"]),
)
def test_cover_leaves_no_bare_edge_on_any_cup(
    top: float, bottom: float, height: float, bleed: float, w: int, h: int, turn: float, lay: str
) -> None:
    try:
        panel = made(form="round", top_mm=top, bottom_mm=bottom, height_mm=height, bleed_mm=bleed, safe_mm=2.0).panel()
    except TemplateError:
        return
    placed = place(panel, ArtSize((w, h), (w / 10, h / 10)), Placement("cover", rotate_deg=turn, lay=lay))  # type: ignore[arg-type]
    assert placed.covers(panel.field(lay).file_box)  # type: ignore[arg-type]
    if panel.cone is not None and lay == "flat":
        assert Polygon(placed.corners()).buffer(1e-6).contains(panel.cut().intersection(box(*_span(panel.file_box))))


def _span(b: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    return b[0], b[1], b[0] + b[2], b[1] + b[3]


@pytest.mark.parametrize(
    "wrong",
    [
        {"form": "round", "top_mm": 0, "bottom_mm": 200, "height_mm": 100},
        {"form": "flat", "width_mm": 0, "height_mm": 100},
        {"form": "pixels", "file_px": (0, 400)},
        {"form": "flat", "width_mm": 100, "height_mm": 100, "safe_mm": 60.0},
        {"form": "round", "top_mm": 257, "bottom_mm": 257, "height_mm": 89, "gap_mm": 250},
        {"form": "round", "top_mm": 3000, "bottom_mm": 40, "height_mm": 10},
        {"form": "flat", "width_mm": 1e6, "height_mm": 100},
        {"form": "flat", "width_mm": 100, "height_mm": 100, "blank_colour": "white"},
    ],
)
def test_impossible_blanks_are_reported(wrong: dict[str, Any]) -> None:
    with pytest.raises(TemplateError):
        made(**wrong)


def test_the_transparent_part_of_a_guide_is_the_print_area() -> None:
    guide = read_guide(guide_png())
    found = trace(guide)
    assert guide.px == (600, 500) and guide.claimed_mm == pytest.approx((2 * IN, 500 / 300 * IN), rel=1e-3)
    assert found.trim == pytest.approx((40 / 600, 60 / 500, 520 / 600, 380 / 500)) and found.rectangular == pytest.approx(1)


def test_a_round_print_area_is_reported_as_not_rectangular() -> None:
    yy, xx = np.mgrid[:500, :600]
    rgba = np.zeros((500, 600, 4), np.uint8)
    rgba[(xx - 300) ** 2 + (yy - 250) ** 2 > 200**2] = (0, 120, 200, 255)
    found = trace(read_guide(encoded(Image.fromarray(rgba))))
    assert found.trim == pytest.approx((100 / 600, 50 / 500, 401 / 600, 401 / 500), abs=0.01)
    assert found.rectangular == pytest.approx(math.pi / 4, abs=0.02)


def test_a_guide_without_a_transparent_part_is_refused() -> None:
    assert trace(read_guide(encoded(Image.new("RGB", (300, 200), (200, 0, 90))))).trim is None
    assert trace(read_guide(encoded(Image.new("RGBA", (300, 200))))).trim is None


def test_guides_are_read_from_svg_and_pdf() -> None:
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="9.3in" height="8.2in" viewBox="0 0 93 82"><path fill="#e0409088" fill-rule="evenodd" d="M0 0h93v82H0zM5 5v72h83V5z"/></svg>'
    guide = read_guide(svg)
    assert guide.claimed_mm == pytest.approx((9.3 * IN, 8.2 * IN), rel=1e-3)
    assert trace(guide).trim == pytest.approx((5 / 93, 5 / 82, 83 / 93, 72 / 82), abs=0.01)
    with pikepdf.new() as pdf:
        pdf.add_blank_page(page_size=(360, 288))
        pdf.pages[0].Contents = pdf.make_stream(b"0.8 0.1 0.5 rg 0 0 360 20 re 0 268 360 20 re 0 0 20 288 re 340 0 20 288 re f")
        file = io.BytesIO()
        pdf.save(file)
    page = read_guide(file.getvalue())
    assert page.claimed_mm == pytest.approx((5 * IN, 4 * IN), rel=1e-3)
    assert trace(page).trim == pytest.approx((20 / 360, 20 / 288, 320 / 360, 248 / 288), abs=0.01)


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"a text file named guide.png",
        encoded(Image.new("RGB", (9, 9)), "JPEG"),
        guide_png()[:200],
        b"%PDF-1.7 broken",
        b'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><image href="http://elsewhere/x.png"/></svg>',
    ],
)
def test_bad_guides_are_reported(data: bytes) -> None:
    with pytest.raises(ArtworkError):
        read_guide(data)


def test_a_guide_is_scaled_down_for_display() -> None:
    assert laid_over(read_guide(guide_png()), 300).width == 300
