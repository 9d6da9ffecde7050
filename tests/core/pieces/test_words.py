"""Words: outlines against FreeType, shaping, paths against their geometry, and files that are not fonts."""

import io
import math

import freetype
import numpy as np
import pytest
from shapely import LinearRing, Polygon, unary_union

from improva.core.errors import FontError, PieceError
from improva.core.words import Font, Setting, WordPath, bent, set_words
from improva.core.words.path import refined
from improva.fonts import FONTS, font_bytes

LETTERS = "HamburgefontsivAEQW&068·é"


def font(font_id: str = "poster") -> Font:
    return Font(font_bytes(font_id))


def area(contours: tuple[np.ndarray, ...]) -> float:
    """Return the union of the contours wound like the largest one, minus those wound the other way; parts may overlap."""
    rings = [LinearRing(contour) for contour in contours]
    sense = max(rings, key=lambda ring: Polygon(ring).area).is_ccw
    inside, holes = (
        unary_union([Polygon(r).buffer(0) for r in rings if (r.is_ccw == sense) == want]) for want in (True, False)
    )
    return float(inside.difference(holes).area)


@pytest.mark.parametrize("font_id", FONTS)
def test_outlines_match_freetype(font_id: str) -> None:
    """Extents in em by FreeType's exact bounding box, and the area its rasteriser covers at 400 px."""
    ours, face = font(font_id), freetype.Face(io.BytesIO(font_bytes(font_id)))
    face.set_pixel_sizes(400, 400)
    for letter in LETTERS:
        if ours.missing(letter):
            continue
        face.load_glyph(face.get_char_index(letter), freetype.FT_LOAD_NO_HINTING | freetype.FT_LOAD_NO_BITMAP)
        box = face.glyph.outline.get_bbox()
        glyph = ours.shape(letter, ligatures=False)[0][0]
        contours = ours.outline(glyph)
        points = np.concatenate(contours)
        theirs = np.array([box.xMin, box.yMin, box.xMax, box.yMax]) / 64 / 400
        assert np.abs(np.concatenate([points.min(axis=0), points.max(axis=0)]) - theirs).max() < 0.0015, letter
        face.glyph.render(freetype.FT_RENDER_MODE_NORMAL)
        covered = sum(face.glyph.bitmap.buffer) / 255 / 400**2
        assert area(contours) == pytest.approx(covered, rel=0.02, abs=2e-4), letter


def test_pairs_are_kerned_and_ligatures_are_set() -> None:
    serif = font("old-style")

    def width(text: str) -> float:
        return sum(g[4] for g in serif.shape(text))

    assert width("AV") < width("A") + width("V") - 0.02
    assert len(serif.shape("fi")) < 2 or serif.shape("fi")[0][0] != serif.shape("f")[0][0]
    assert len(serif.shape("fi", ligatures=False)) == 2


def test_line_spacing_letter_spacing_and_alignment() -> None:
    sans = font("sans-bold")
    one = set_words(sans, "Summit", Setting())
    two = set_words(sans, "Summit\nof it", Setting(leading=1.5))
    assert two.height == pytest.approx(one.height + 1.5)
    wide = set_words(sans, "Summit", Setting(tracking=0.1))
    assert wide.width == pytest.approx(one.width + 5 * 0.1, abs=0.02)
    lefts = []
    for align in ("left", "centre", "right"):
        contours = set_words(sans, "Summit\ni", Setting(align)).contours
        lefts.append(min(float(c[:, 0].min()) for c in contours[-2:]))
    assert lefts[0] < lefts[1] < lefts[2]


def test_missing_letters_are_reported_and_take_no_room() -> None:
    sans = font("sans-bold")
    block = set_words(sans, "Gipfel 山", Setting())
    assert block.missing == ("山",)
    assert block.width == pytest.approx(set_words(sans, "Gipfel ", Setting()).width)
    with pytest.raises(PieceError, match="none of these letters"):
        set_words(sans, "山頂", Setting())
    with pytest.raises(PieceError, match="no words"):
        set_words(sans, " \n ", Setting())
    with pytest.raises(PieceError, match="600 at most"):
        set_words(sans, "a" * 601, Setting())


def test_right_to_left_words_run_right_to_left() -> None:
    """HarfBuzz orders the clusters of a right-to-left script from the right."""
    assert [g[1] for g in font().shape("ab")] == [0, 1]
    clusters = [g[1] for g in font().shape("אב")]
    assert clusters == sorted(clusters, reverse=True)


def test_an_arc_keeps_lengths_along_its_middle_line() -> None:
    block = set_words(font(), "SUMMIT LINE", Setting())
    radius = block.width / math.radians(120)
    for contour, curved in zip(block.contours, bent(block, WordPath("arc", 120)), strict=True):
        flat = refined(contour)
        r = np.hypot(curved[:, 0], curved[:, 1] + radius)
        assert r == pytest.approx(radius + flat[:, 1])
        angle = np.arctan2(curved[:, 0], curved[:, 1] + radius)
        assert angle * radius == pytest.approx(flat[:, 0], abs=1e-9)


def test_a_circle_has_its_diameter_and_its_middle_at_the_origin() -> None:
    block = set_words(font(), "ROUND THE MOUNTAIN", Setting())
    for across in (9.0, -9.0):
        curved = bent(block, WordPath("circle", across=across))
        r = np.concatenate([np.hypot(*c.T) for c in curved])
        y = np.concatenate([refined(c)[:, 1] for c in block.contours])
        assert r == pytest.approx(np.abs(across / 2 + y))
        middle = np.concatenate(curved)[:, 1].mean()
        assert np.sign(middle) == np.sign(across), "outside above, inside below"
    with pytest.raises(PieceError, match="smaller than the letters"):
        bent(block, WordPath("circle", across=0.3))


def test_wave_bulge_and_envelope_move_outlines_by_their_formulas() -> None:
    block = set_words(font(), "HHHHHHHHH", Setting())
    flat = np.concatenate([refined(c) for c in block.contours])
    wave, bulge, envelope = (
        np.concatenate(bent(block, path))
        for path in (WordPath("wave", 30, waves=2), WordPath("bulge", 50), WordPath("envelope", 40, -20))
    )
    u = flat[:, 0] / (block.width / 2)
    assert wave[:, 1] - flat[:, 1] == pytest.approx(0.3 * np.sin(2 * math.pi * (u + 1)))
    assert bulge[:, 1] == pytest.approx(flat[:, 1] * (1 + 0.5 * (1 - u**2)))
    top = np.isclose(flat[:, 1], block.height / 2)
    assert envelope[top, 1] == pytest.approx(block.height / 2 + 0.4 * block.height * (1 - u[top] ** 2))
    low = np.isclose(flat[:, 1], -block.height / 2)
    assert envelope[low, 1] == pytest.approx(-block.height / 2 + 0.2 * block.height * (1 - u[low] ** 2))
    assert np.array_equal(np.concatenate(bent(block, WordPath())), np.concatenate(block.contours))


@pytest.mark.parametrize(
    "data", [b"", b"no font at all", b"\0\1\0\0" + b"\xff" * 200, b"wOF2" + b"\0" * 60, b"OTTO\0\xff\0\0" * 9]
)
def test_broken_fonts_are_reported(data: bytes) -> None:
    with pytest.raises(FontError):
        Font(data)


def test_a_truncated_or_damaged_font_is_reported_or_read() -> None:
    whole = font_bytes("narrow")
    rng = np.random.default_rng(4)
    for _ in range(40):
        data = bytearray(whole[: rng.integers(100, len(whole))] if rng.random() < 0.5 else whole)
        for at in rng.integers(0, len(data), 60):
            data[at] = int(rng.integers(256))
        try:
            set_words(Font(bytes(data)), "Summit", Setting())
        except (FontError, PieceError):
            continue
