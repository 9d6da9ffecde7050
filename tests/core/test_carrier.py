"""Extra paper around a wrap: position of tab and marks on straight and tapered walls, and the size of the file."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import LineString, MultiLineString, Point, Polygon, box

from improva.catalogue import templates
from improva.core.design import Design, Piece, Placement
from improva.core.errors import OutputError
from improva.core.geometry.cone import cone_from_measures
from improva.core.output import Carrier, PrintSettings, carries, make_print, marks_of, tab_of
from improva.core.output.carrier import MARKS_MM
from improva.core.template import Panel
from improva.io.jpeg import jfif_header
from tests.conftest import art_of, quadrants

ART = art_of(quadrants(93, 82))
SIDES = st.sampled_from(["left", "right"])


def cup(top: float, bottom: float, height: float) -> Panel:
    cone = cone_from_measures(top, bottom, height)
    assume(cone is not None and cone.sweep_rad < 2.5)
    assert cone is not None
    return Panel("wrap", "Wrap", cone.box_mm, closes=True, shape="cone", cone=cone)


@given(st.floats(150, 400), st.floats(150, 400), st.floats(60, 250), SIDES, st.floats(2, 40))
def test_a_tapered_tab_is_square_to_its_end_and_lies_outside_the_ring(
    top: float, bottom: float, height: float, side: str, tab_mm: float
) -> None:
    panel = cup(top, bottom, height)
    carrier = Carrier(side, tab_mm, True)  # type: ignore[arg-type]
    tab, ring = Polygon(tab_of(panel, carrier)), Polygon(panel.line())
    assert tab.area == pytest.approx(tab_mm * panel.cone.slant_mm, rel=1e-6)  # type: ignore[union-attr]
    assert tab.intersection(ring).area < 1e-3 * tab.area and tab.distance(ring) < 1e-6
    left, above, right, below = PrintSettings(carrier=carrier).margins_mm(panel)
    x, y, w, h = panel.file_box
    file = box(x - left, y - above, x + w + right, y + h + below).buffer(1e-6)
    assert file.contains(tab)
    marks = MultiLineString([LineString([(a, b), (c, d)]) for a, b, c, d in marks_of(panel, carrier)])
    assert file.contains(marks) and len(marks.geoms) == 4 and marks.distance(ring) > 0.1
    middle = panel.cone.to_flat(panel.cone.round_mm / 2, panel.cone.slant_mm / 2)  # type: ignore[union-attr]
    assert (tab.centroid.x < middle[0]) == (side == "left")


@given(st.floats(50, 300), st.floats(50, 300), st.floats(0, 6), SIDES, st.floats(1, 40))
def test_a_straight_tab_is_as_high_as_the_print(w: float, h: float, bleed: float, side: str, tab_mm: float) -> None:
    panel = Panel("wrap", "Wrap", (w, h), bleed_mm=bleed, closes=True)
    carrier = Carrier(side, tab_mm, True)  # type: ignore[arg-type]
    tab = Polygon(tab_of(panel, carrier))
    x0, y0, x1, y1 = tab.bounds
    assert (x1 - x0, y1 - y0) == pytest.approx((tab_mm, h + 2 * bleed))
    assert x1 == pytest.approx(-bleed) if side == "left" else x0 == pytest.approx(w + bleed)
    for a, b, c, d in marks_of(panel, carrier):
        assert a == pytest.approx(c) and (a == pytest.approx(-bleed) or a == pytest.approx(w + bleed))
        assert all(v <= -bleed + 1e-9 or v >= h + bleed - 1e-9 for v in (b, d))
    size = PrintSettings(carrier=carrier).file_mm(panel)
    assert size == pytest.approx((w + 2 * bleed + tab_mm, h + 2 * bleed + 2 * MARKS_MM))


@pytest.mark.parametrize("mirror", [False, True])
@pytest.mark.parametrize("carrier", [Carrier(), Carrier("left", 8), Carrier("right", 12, True), Carrier(marks=True)])
@pytest.mark.parametrize("blank", sorted(templates()))
def test_the_file_has_the_announced_size(blank: str, carrier: Carrier, mirror: bool) -> None:
    template = templates()[blank]
    panel = template.panels[0]
    settings = PrintSettings(36, mirror, carrier=carrier)
    design = Design(template, panel, (Piece("art", ART.facts.size, Placement()),))
    if not carries(panel) and not carrier.bare:
        with pytest.raises(OutputError, match="straight ends"):
            make_print(design, lambda _: ART, settings)
        return
    made = make_print(design, lambda _: ART, settings)
    assert made.px == settings.file_px(panel) and made.size_mm == settings.file_mm(panel)
    for px, mm in zip(made.px, made.size_mm, strict=True):
        assert px == pytest.approx(mm / 25.4 * 36, abs=1.6)  # every part is rounded to whole pixels
    sheet = box(0, 0, *made.size_mm).buffer(1e-6)
    for x, y, w, h in (made.bleed, made.trim):
        assert sheet.contains(box(x, y, x + w, y + h))
    tab = tab_of(panel, carrier)
    if tab:
        left, top, *_ = settings.margins_mm(panel)
        x, y = np.add(np.mean(tab, axis=0), (left + panel.bleed_mm, top + panel.bleed_mm))
        at = (made.size_mm[0] - x if mirror else x, y)
        pixel = made.image.getpoint(*(int(v / 25.4 * 36) for v in at))
        assert [round(v) for v in pixel[:3]] == [255, 255, 255] and sheet.contains(Point(at))


def test_without_tab_and_marks_there_is_no_extra_paper() -> None:
    assert Carrier().bare and Carrier("left", 0).bare and Carrier("none", 5).bare
    assert not Carrier("left", 5).bare and not Carrier(marks=True).bare
    for wrong in ({"tab": "top"}, {"tab": "left", "tab_mm": -1}, {"tab": "left", "tab_mm": 61}):
        with pytest.raises(OutputError):
            Carrier(**wrong)


@pytest.mark.parametrize(("dpi", "told"), [((300, 300), (300, 300)), ((149.6, 72.2), (150, 72)), ((0.2, 99_999), (1, 65_535))])
def test_the_jfif_header_says_whole_dots_an_inch(dpi: tuple[float, float], told: tuple[int, int]) -> None:
    """ITU-T T.871, 10.1: APP0, length 16, "JFIF", version 1.02, units 1 for inch, then the two densities."""
    header = jfif_header(dpi)
    assert header[:2] == b"\xff\xe0" and len(header) == 18 and header[4:9] == b"JFIF\0" and header[9:12] == b"\x01\x02\x01"
    assert (int.from_bytes(header[12:14]), int.from_bytes(header[14:16])) == told and header[16:] == b"\0\0"
