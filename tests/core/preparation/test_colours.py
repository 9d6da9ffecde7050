"""Levels, warmth, ink and palettes, against known mixtures and CIE values computed by colour-science."""

import colour
import numpy as np
import pytest

from improva.core.colour import contrast, lab, parse_hex
from improva.core.errors import StepError
from improva.core.preparation.palette import palette
from improva.core.preparation.picture import Picture
from improva.core.preparation.tone import clear_white, recolour, tone
from tests.conftest import quadrants


def picture(rgb: np.ndarray) -> Picture:
    return Picture(np.dstack([rgb, np.full(rgb.shape[:2], 255)]).astype(np.uint8), 10.0)


def flat(*colours: str) -> Picture:
    """Stripes of equal width."""
    row = np.repeat(np.array([parse_hex(c) for c in colours], np.uint8), 60, axis=0)
    return picture(np.broadcast_to(row, (100, *row.shape)).copy())


def test_levels_stretch_the_range_between_black_and_white() -> None:
    ramp = picture(np.repeat(np.arange(256, dtype=np.uint8)[None, :, None], 3, axis=2).repeat(4, axis=0))
    out = tone(ramp, black=50, white=200).pixels[0, :, 0].astype(int)
    assert out[50] == 0
    assert out[200] == 255
    assert out[125] == pytest.approx(127.5, abs=0.6)
    assert tone(ramp, gamma=2).pixels[0, 64, 0] == pytest.approx(255 * (64 / 255) ** 0.5, abs=0.6)
    with pytest.raises(StepError, match="must lie above"):
        tone(ramp, black=200, white=100)


def test_neutral_settings_change_nothing() -> None:
    art = picture(quadrants())
    assert (tone(art).pixels == art.pixels).all()
    assert (recolour(art).pixels == art.pixels).all()


def test_saturation_and_brightness_keep_black_and_white() -> None:
    ends = flat("#000000", "#ffffff")
    for values in ({"saturation": 80}, {"brightness": 60}, {"brightness": -60}):
        assert np.abs(tone(ends, **values).pixels.astype(int) - ends.pixels).max() <= 1


def test_saturation_scales_chroma_in_cie_lab() -> None:
    art = flat("#a05040", "#405a80")
    out = tone(art, saturation=-50).pixels
    for x, name in ((30, "#a05040"), (90, "#405a80")):
        before = colour.XYZ_to_Lab(
            colour.sRGB_to_XYZ(np.array(parse_hex(name)) / 255),
            colour.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"]["D65"],
        )
        after = colour.XYZ_to_Lab(
            colour.sRGB_to_XYZ(out[50, x, :3] / 255), colour.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"]["D65"]
        )
        assert after == pytest.approx(before * [1, 0.5, 0.5], abs=1.2)
    grey = tone(art, saturation=-100).pixels[50, 30, :3].astype(int)
    assert grey.max() - grey.min() <= 2


def test_warmth_moves_towards_amber_and_back() -> None:
    art = flat("#808080")
    warm, cool = (lab(tone(art, warmth=w).pixels[..., :3])[0, 0] for w in (50, -50))
    assert warm[2] > 10 > -10 > cool[2]
    assert warm[1] > 0 > cool[1]


def test_ink_on_white_becomes_its_own_alpha() -> None:
    """The shares of a known mixture of ink and white are recovered (Porter and Duff 1984)."""
    ink, shares = np.array([30, 40, 90]), np.linspace(0, 1, 101)
    mixed = (255 - shares[:, None] * (255 - ink)).round()
    out = clear_white(picture(mixed[None].repeat(5, axis=0)), ink="#1e285a").pixels
    assert np.abs(out[0, :, 3] - 255 * shares).max() <= 2
    assert (out[..., :3] == ink).all()
    found = clear_white(picture(mixed[None].repeat(5, axis=0))).pixels
    assert np.abs(found[0, 0, :3].astype(int) - ink).max() <= 2
    with pytest.raises(StepError, match="differs from white"):
        clear_white(flat("#ffffff", "#fefefe"))


def test_the_palette_of_a_known_mixture_is_found() -> None:
    colours = ["#c0392b"] * 5 + ["#24405a"] * 3 + ["#f6ecd9"] * 2
    found = palette(flat(*colours), 6)
    assert [swatch.colour for swatch in found] == ["#c0392b", "#24405a", "#f6ecd9"]
    assert [swatch.share for swatch in found] == pytest.approx([0.5, 0.3, 0.2], abs=0.02)


def test_the_palette_is_repeatable_and_ignores_hidden_colour() -> None:
    art = picture(quadrants())
    assert palette(art) == palette(art)
    art.pixels[: art.pixels.shape[0] // 2, :, 3] = 0
    assert {swatch.colour for swatch in palette(art)} == {"#1e3cc8", "#ffffff"}
    art.pixels[..., 3] = 0
    assert palette(art) == []


def test_recolouring_moves_a_colour_its_shades_and_its_edges_and_nothing_else() -> None:
    art = flat("#24405a", "#c0392b", "#f6ecd9", "#2b4a66")
    out = recolour(art, pairs=(("#24405a", "#2e6b3a"),)).pixels
    assert np.abs(out[50, 30, :3].astype(int) - parse_hex("#2e6b3a")).max() <= 3
    assert np.abs(out[50, 90, :3].astype(int) - parse_hex("#c0392b")).max() <= 4
    assert np.abs(out[50, 150, :3].astype(int) - parse_hex("#f6ecd9")).max() <= 4
    shade = out[50, 210, :3].astype(int)
    assert shade[1] > shade[2], "a shade of the blue has gone green with it"


def test_every_colour_of_a_black_and_white_drawing_can_be_replaced() -> None:
    out = recolour(flat("#000000", "#ffffff"), pairs=(("#000000", "#24405a"), ("#ffffff", "#f6ecd9"))).pixels
    assert np.abs(out[50, 30, :3].astype(int) - parse_hex("#24405a")).max() <= 3
    assert np.abs(out[50, 90, :3].astype(int) - parse_hex("#f6ecd9")).max() <= 3


def test_contrast_matches_wcag() -> None:
    """WCAG 2.2: 21 for black on white, 1 for a colour on itself; 4.54 for #767676 on white (from memory)."""
    assert contrast("#000000", "#ffffff") == pytest.approx(21)
    assert contrast("#336699", "#336699") == 1
    assert contrast("#767676", "#ffffff") == pytest.approx(4.54, abs=0.01)
