import pytest

from improva.core import units
from improva.core.errors import PlacementError


def test_an_inch_is_25_4_mm_exactly() -> None:
    # NIST SP 811, appendix B.8
    assert units.mm_from_in(1) == 25.4
    assert units.inches(25.4) == 1


def test_points_are_72_to_the_inch() -> None:
    # ISO 32000-1, 8.3.2.3: user space unit 1/72 inch. ISO 216: A4 is 210 mm wide, 595.28 pt.
    assert units.points(25.4) == 72
    assert units.points(210) == pytest.approx(595.2756, abs=1e-4)


def test_png_density_is_px_per_metre() -> None:
    # W3C PNG, pHYs chunk: pixels per unit, unit the metre. 300 / 0.0254 = 11811.02
    assert units.px_per_metre(300) == 11811


def test_a_page_laid_out_at_96_dpi_is_192_dpi_on_the_wrap() -> None:
    # Common practice, no published source: 1786 × 1574 px over 9.3 × 8.2 in; 300 dpi needs 2790 × 2460.
    assert round(units.effective_dpi(1786, units.mm_from_in(9.3))) == 192
    assert round(units.effective_dpi(1574, units.mm_from_in(8.2))) == 192
    assert (units.pixels(units.mm_from_in(9.3), 300), units.pixels(units.mm_from_in(8.2), 300)) == (2790, 2460)


@pytest.mark.parametrize("mm", [0.0, -1.0, float("nan")])
def test_a_missing_print_size_is_an_error(mm: float) -> None:
    with pytest.raises(PlacementError, match="no printed size"):
        units.effective_dpi(100, mm)
