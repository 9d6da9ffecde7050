"""Checks that depend on the product: safe area, lettering, strokes, visibility and gamut on this blank."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
import pyvips
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageCms, ImageDraw
from shapely import Point, Polygon

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork
from improva.core.artwork.traits import find_traits
from improva.core.design import Placement
from improva.core.errors import ArtworkError
from improva.core.output import soft_proof
from improva.core.preflight import CheckResult, PreflightReport, run_preflight
from improva.core.preflight.result import WHY
from improva.core.template import Template
from tests.conftest import art_of, quadrants
from tests.pictures import little_cms_round_trip, narrow_profile

IN = 25.4


def run_checks(
    blank: Template | str, art: Artwork, panel: str | None = None, profile: bytes | None = None, **placement: Any
) -> PreflightReport:
    found = template(blank) if isinstance(blank, str) else blank
    return run_preflight(found, found.panel(panel), art, Placement(**placement), profile)


def check(proof: PreflightReport, name: str) -> CheckResult | None:
    return next((c for c in proof.checks if c.id == name), None)


def found(proof: PreflightReport, name: str) -> CheckResult:
    verdict = check(proof, name)
    assert verdict is not None
    return verdict


def after(blank: str, art: Artwork, name: str, nth: int = 0, **placement: Any) -> PreflightReport:
    """Return the check's result after a finding's fix is applied."""
    verdict = found(run_checks(blank, art, **placement), name)
    fix = [verdict.fix, *verdict.more][nth]
    assert fix is not None
    return run_checks(
        blank, art, **{**placement, **{k: tuple(v) if isinstance(v, list) else v for k, v in fix.placement.items()}}
    )


def sheet(w: int, h: int, draw: Callable[[ImageDraw.ImageDraw], None], colour: tuple[Any, ...] = (244, 238, 222)) -> Artwork:
    picture = Image.new("RGB", (w, h), colour)
    draw(ImageDraw.Draw(picture))
    return art_of(np.asarray(picture))


def disc_at_edge(d: ImageDraw.ImageDraw) -> None:
    d.ellipse((10, 300, 410, 700), fill=(150, 30, 40))


@pytest.mark.parametrize("edge_px", [10, 40, 120])
def test_a_motif_past_the_safe_line_is_measured_and_moved_in(edge_px: int) -> None:
    """Known geometry: a disc whose left edge is ``edge_px`` of 1250 px from the trim of a 12.5 in flag."""
    art = sheet(1250, 1800, lambda d: d.ellipse((edge_px, 700, edge_px + 400, 1100), fill=(150, 30, 40)))
    verdict = found(run_checks("garden-flag", art), "safe-area")
    past = 0.5 * IN - edge_px / 1250 * 12.5 * IN
    if past < 0.5:
        assert verdict.status == "pass"
        return
    assert verdict.status == "warn" and verdict.measured == pytest.approx(past, abs=0.7)
    assert verdict.where[0][0] == pytest.approx(edge_px / 1250 * 12.5 * IN, abs=2)
    assert found(after("garden-flag", art, "safe-area"), "safe-area").status == "pass"


def test_the_fix_extends_an_even_background() -> None:
    proof = after("garden-flag", sheet(1250, 1800, disc_at_edge), "safe-area")
    assert found(proof, "bare-edge").status == "pass"


def test_a_cut_out_is_recognised_by_its_alpha() -> None:
    rgba = np.zeros((1800, 1250, 4), np.uint8)
    rgba[600:1200, 5:800] = (20, 80, 160, 255)
    verdict = found(run_checks("garden-flag", art_of(rgba), fit="contain"), "safe-area")
    assert verdict.status == "warn" and verdict.measured == pytest.approx(0.5 * IN - 5 / 1250 * 12.5 * IN, abs=0.7)


def test_the_words_in_a_picture_are_checked() -> None:
    rng = np.random.default_rng(3)
    base = Image.fromarray(rng.integers(60, 120, (18, 12, 3), dtype=np.uint8)).resize((1250, 1800), Image.Resampling.BICUBIC)
    plain = art_of(np.asarray(base))
    assert found(run_checks("garden-flag", plain), "safe-area").status == "pass"
    ImageDraw.Draw(base).text((8, 900), "WHISTLE POST", fill=(250, 240, 220), font_size=90)
    verdict = found(run_checks("garden-flag", art_of(np.asarray(base))), "safe-area")
    assert verdict.status == "warn" and "Words" in verdict.message


def test_a_pattern_that_runs_off_the_edge_on_purpose_is_safe() -> None:
    def dots(d: ImageDraw.ImageDraw) -> None:
        for x in range(0, 1300, 50):
            for y in range(0, 1850, 50):
                d.ellipse((x - 18, y - 18, x + 18, y + 18), fill=(30, 90, 70))

    assert found(run_checks("garden-flag", sheet(1250, 1800, dots)), "safe-area").status == "pass"


def test_a_cut_panel_is_judged_by_its_own_safe_line_not_by_its_box() -> None:
    """A mark in the armhole of a hoodie's front: inside the safe line of the box, outside that of the outline."""
    panel = template("hoodie-all-over").panel("front")

    def marked(x_mm: float, y_mm: float) -> CheckResult:
        px = 2.0  # a millimetre

        def draw(d: ImageDraw.ImageDraw) -> None:
            d.rectangle(((x_mm - 6) * px, (y_mm - 6) * px, (x_mm + 6) * px, (y_mm + 6) * px), fill=(150, 30, 40))

        art = sheet(round(panel.trim_mm[0] * px), round(panel.trim_mm[1] * px), draw)
        return found(run_checks("hoodie-all-over", art, "front", fit="contain", background="#f4eede"), "safe-area")

    assert marked(300, 350).status == "pass"
    at_armhole = marked(82, 180)
    assert at_armhole.status == "warn" and at_armhole.where[0][0] == pytest.approx(76, abs=8)
    # smaller sizes are cut from the middle of the same file: it is size S's safe line, 0.86 of the largest's
    middle, share = (300.0, 350.0), 0.86
    line = [(m + share * (p - m) for p, m in zip(point, middle, strict=True)) for point in panel.line(panel.safe_mm / share)]
    distance = Polygon([tuple(point) for point in line]).distance(Point(82, 180))
    assert 0 < distance < (at_armhole.measured or 0) < distance + 14
    assert marked(30, 60).status == "pass"  # beyond the cut: nobody will ever see it


def test_content_in_a_sleeve_or_beneath_a_pocket_is_found() -> None:
    low = sheet(1250, 1800, lambda d: d.ellipse((400, 1000, 800, 1400), fill=(150, 30, 40)))
    high = sheet(1250, 1800, lambda d: d.ellipse((400, 20, 800, 420), fill=(150, 30, 40)))
    assert found(run_checks("garden-flag", low), "keep-out").status == "pass"
    verdict = found(run_checks("garden-flag", high), "keep-out")
    assert (
        verdict.status == "warn"
        and "sleeve" in verdict.message
        and verdict.where == (template("garden-flag").panel().keep_out[0].box,)
    )


def lettering(px: int, w: int = 1250, h: int = 1800) -> Artwork:
    return sheet(w, h, lambda d: d.text((w // 3, h // 2), "SIGNAL BOX", fill=(20, 20, 40), font_size=px))


@pytest.mark.parametrize(("px", "status"), [(30, "warn"), (200, "pass")])
def test_small_lettering_is_judged_by_product(px: int, status: str) -> None:
    verdict = found(run_checks("garden-flag", lettering(px)), "lettering")
    cap = ImageDraw.Draw(Image.new("L", (9, 9))).textbbox((0, 0), "SIGNAL", font_size=px)
    height = (cap[3] - cap[1]) / 1250 * 12.5 * IN
    assert verdict.status == status and verdict.measured == pytest.approx(height, rel=0.1)


def test_the_same_words_are_large_enough_on_a_cup_and_too_small_on_a_flag() -> None:
    art = lettering(60, 2790, 2460)
    assert found(run_checks("tumbler-20oz-straight", art), "lettering").status == "pass"
    assert found(run_checks("garden-flag", art, fit="contain"), "lettering").status == "warn"


def test_lettering_is_judged_at_the_smallest_finished_size() -> None:
    art = sheet(1000, 1000, lambda d: d.text((250, 450), "SIGNAL", fill=(20, 20, 40), font_size=40))
    blank = template("pillow-shaped")
    one, all_sizes = (found(run_checks(b, art, fit="contain"), "lettering") for b in (replace(blank, sizes={}), blank))
    assert all_sizes.measured == pytest.approx(0.625 * (one.measured or 0), abs=0.02)


def test_thin_strokes_are_measured_and_the_fix_makes_them_thick_enough() -> None:
    def lines(d: ImageDraw.ImageDraw) -> None:
        for i in range(6):
            d.line((500, 800 + 40 * i, 750, 800 + 40 * i), fill=(20, 20, 40), width=4)

    art = sheet(1250, 1800, lines)
    verdict = found(run_checks("garden-flag", art), "stroke")
    assert verdict.status == "warn" and verdict.measured == pytest.approx(4 / 1250 * 12.5 * IN, abs=0.26)
    assert found(after("garden-flag", art, "stroke"), "stroke").status == "pass"


def test_a_dark_wrap_at_the_handle_gap_is_measured_and_has_two_fixes() -> None:
    dark, white = art_of(np.full((700, 1700, 3), (25, 30, 60), np.uint8)), art_of(np.full((700, 1700, 3), 250, np.uint8))
    assert found(run_checks("mug-11oz", white), "handle-gap").status == "pass"
    verdict = found(run_checks("mug-11oz", dark), "handle-gap")
    assert verdict.status == "warn" and (verdict.measured or 0) > 50 and len(verdict.where) == 2 and len(verdict.more) == 1
    for nth in (0, 1):
        mended = after("mug-11oz", dark, "handle-gap", nth)
        assert found(mended, "handle-gap").status == "pass" and found(mended, "bare-edge").status == "pass"
    for size in ((700, 1700), (1200, 900), (400, 1000)):  # the margin keeps what is shown inside the safe line
        for nth in (0, 1):
            upright = art_of(np.full((*size[::-1], 3), (25, 30, 60), np.uint8))
            x, y, w, h = after("mug-11oz", upright, "handle-gap", nth).placed.box
            panel = template("mug-11oz").panel()
            safe, (tw, th) = panel.safe_mm - 1e-6, panel.trim_mm
            assert min(x, y) >= safe and x + w <= tw / (nth + 1) - safe and y + h <= th - safe
    assert check(run_checks("tumbler-20oz-straight", dark), "handle-gap") is None


def test_words_beside_the_handle_are_found() -> None:
    def words(at: int) -> Artwork:
        def draw(d: ImageDraw.ImageDraw) -> None:
            for y in range(60, 980, 120):
                d.text((at, y), "WHISTLE", fill=(20, 20, 40), font_size=36)

        return sheet(2550, 1050, draw)

    assert found(run_checks("mug-11oz", words(1100)), "handle-zone").status == "pass"
    assert found(run_checks("mug-11oz", words(5)), "handle-zone").status == "warn"


def test_a_pale_haze_is_found_on_the_blank() -> None:
    rgba = np.zeros((400, 400, 4), np.uint8)
    rgba[150:250, 150:250] = (180, 30, 40, 255)
    assert found(run_checks("t-shirt", art_of(rgba), fit="contain"), "haze").status == "pass"
    rgba[20:100, 20:380] = (250, 249, 246, 30)
    verdict = found(run_checks("t-shirt", art_of(rgba), fit="contain"), "haze")
    assert verdict.status == "warn" and len(verdict.where) == 1


def test_white_on_white_is_reported_and_a_background_fixes_it() -> None:
    rgba = np.zeros((400, 400, 4), np.uint8)
    rgba[50:350, 50:350] = (255, 255, 255, 255)
    rgba[150:250, 150:250] = (20, 40, 90, 255)
    verdict = found(run_checks("mug-11oz", art_of(rgba), fit="contain"), "white-on-blank")
    assert verdict.status == "warn" and verdict.measured == pytest.approx(100 * (90000 - 10000) / 90000, abs=1)
    assert check(after("mug-11oz", art_of(rgba), "white-on-blank", fit="contain"), "white-on-blank") is None


def test_a_coloured_blank_tints_and_a_white_one_does_not() -> None:
    art = art_of(quadrants(600, 530))
    blank = template("tumbler-20oz-straight")
    assert found(run_checks(blank, art), "tint").status == "pass"
    for colour in ("#e8c9a0", "#7fa8c9", "#3a3a3c"):
        assert found(run_checks(replace(blank, blank_colour=colour), art), "tint").status == "warn"


def test_colours_outside_a_printers_gamut_are_found() -> None:
    vivid, dull = art_of(quadrants(400, 360)), art_of(np.full((360, 400, 3), 140, np.uint8))
    assert check(run_checks("t-shirt", vivid), "gamut") is None
    srgb = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    assert found(run_checks("tumbler-20oz-straight", vivid, profile=srgb), "gamut").status == "pass"
    narrow = narrow_profile()
    verdict = found(run_checks("tumbler-20oz-straight", vivid, profile=narrow), "gamut")
    assert verdict.status == "warn" and (verdict.measured or 0) > 50
    assert found(run_checks("tumbler-20oz-straight", dull, profile=narrow), "gamut").status == "pass"


def test_a_soft_proof_matches_little_cms() -> None:
    """Compared with Little CMS, called through Pillow's conversion from profile to profile."""
    narrow, shown = narrow_profile(), quadrants(60, 60)
    proof = soft_proof(pyvips.Image.new_from_array(shown, interpretation="srgb"), narrow, "relative").numpy()
    assert np.abs(proof.astype(int) - little_cms_round_trip(shown, narrow, "RGB")).max() <= 1
    with pytest.raises(ArtworkError, match="not an ICC profile"):
        soft_proof(pyvips.Image.new_from_array(shown, interpretation="srgb"), b"a text file named printer.icc", "relative")


def guided(inset: float) -> Artwork:
    """A plain background with a magenta frame ``inset`` mm inside the trim of a garden flag, at 4 px per mm."""

    def frame(d: ImageDraw.ImageDraw) -> None:
        a = inset * 4
        d.rectangle((a, a, 1270 - a, 1829 - a), outline=(230, 0, 120), width=3)

    return sheet(1270, 1829, frame)


def test_a_guide_left_in_is_found_and_a_border_elsewhere_is_not() -> None:
    assert found(run_checks("garden-flag", guided(0.5 * IN)), "guide").status == "fail"
    assert found(run_checks("garden-flag", guided(0.5 * IN + 6)), "guide").status == "pass"
    assert found(run_checks("garden-flag", sheet(1270, 1829, lambda d: None)), "guide").status == "pass"


def test_bleed_is_measured_and_covered() -> None:
    blanket, art = "blanket-upright", art_of(np.full((600, 500, 3), 90, np.uint8))
    w = 50 + 2 * 1.5
    short = found(run_checks(blanket, art, scale=52 / w), "bleed")
    assert (
        short.status == "warn" and short.measured == pytest.approx(1.0 * IN, abs=0.6) and short.limit == pytest.approx(1.5 * IN)
    )
    assert found(after(blanket, art, "bleed", scale=52 / w), "bleed").status == "pass"
    assert found(run_checks(blanket, art, scale=52 / w, background="#303030"), "bleed").status == "pass"
    assert check(run_checks("garden-flag", art), "bleed") is None


def test_tiles_that_do_not_match_are_reported_and_both_fixes_work() -> None:
    ramp = np.stack(
        [
            np.outer(np.linspace(30, 220, 200), np.ones(240)),
            np.outer(np.ones(200), np.linspace(20, 240, 240)),
            np.full((200, 240), 90),
        ],
        -1,
    )
    art = art_of(ramp.astype(np.uint8))
    verdict = found(run_checks("tumbler-20oz-straight", art, fit="repeat", repeats_around=5), "repeat-joint")
    assert verdict.status == "warn" and (verdict.measured or 0) > 10 and verdict.where
    for nth in (0, 1):
        assert (
            found(
                after("tumbler-20oz-straight", art, "repeat-joint", nth, fit="repeat", repeats_around=5), "repeat-joint"
            ).status
            == "pass"
        )


def test_a_single_motif_on_a_shirt_has_no_bare_edges() -> None:
    assert found(run_checks("t-shirt", art_of(quadrants(900, 600)), fit="contain"), "bare-edge").status == "pass"
    assert found(run_checks("garden-flag", art_of(quadrants(900, 600)), fit="contain"), "bare-edge").status == "warn"


def test_the_resolution_limit_depends_on_viewing_distance() -> None:
    art = art_of(np.zeros((820, 930, 3), np.uint8))  # 100 dpi on the wrap
    near = found(run_checks("tumbler-20oz-straight", art), "eye")
    far = found(run_checks(template("tumbler-20oz-straight").with_limits({"viewing_mm": 2000}), art), "eye")
    assert (near.status, far.status) == ("warn", "pass") and far.limit == pytest.approx(3438 / (2000 / IN), abs=0.1)


def test_every_check_says_why_it_matters() -> None:
    art = art_of(quadrants(300, 260))
    for blank in ("tumbler-20oz-straight", "mug-11oz", "blanket-upright", "hoodie-all-over", "t-shirt"):
        for verdict in run_checks(blank, art, fit="repeat").checks + run_checks(blank, art).checks:
            assert verdict.why == WHY[verdict.id] and verdict.why.endswith(".")


def test_stored_traits_give_the_same_verdicts() -> None:
    art = lettering(40)
    blank = template("garden-flag")
    assert run_preflight(blank, blank.panel(), art, Placement()) == run_preflight(
        blank, blank.panel(), art, Placement(), traits=find_traits(art)
    )


@settings(max_examples=8)
@given(
    st.sampled_from(["tumbler-20oz-tapered", "mug-15oz", "garden-flag", "t-shirt"]), st.integers(200, 2400), st.floats(1.05, 3)
)
def test_more_pixels_are_never_judged_worse_on_any_blank(blank: str, width: int, factor: float) -> None:
    order = ["pass", "warn", "fail"]
    sizes = (width, round(width * factor))
    less, more = (run_checks(blank, art_of(np.full((round(w * 0.8), w), 128, np.uint8))) for w in sizes)
    for name in ("resolution", "eye"):
        assert order.index(found(more, name).status) <= order.index(found(less, name).status)


def test_the_white_border_of_a_cut_out_is_not_taken_for_its_motif() -> None:
    """A border that is meant to be cut along, or to vanish on the blank, is no motif that will not show."""
    rgba = np.zeros((400, 400, 4), np.uint8)
    rgba[50:350, 50:350] = (255, 255, 255, 255)
    rgba[75:325, 75:325] = (20, 40, 90, 255)
    rgba[80:320:20, 80:320] = (160, 90, 30, 255)
    for blank in ("pillow-shaped", "mug-11oz"):
        verdict = found(run_checks(blank, art_of(rgba), fit="contain"), "white-on-blank")
        assert verdict.status == "pass" and verdict.measured == pytest.approx(0, abs=1), blank
