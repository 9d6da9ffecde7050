"""Every check finds its defect, reports the measured number, and offers a fix that works."""

import io
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork
from improva.core.design import Placement
from improva.core.preflight import CheckResult, PreflightReport, run_preflight
from improva.core.template import Template
from tests.conftest import BLANK, H, W, art_of, closed_wave, encoded, quadrants

Judge = Callable[..., PreflightReport]


@pytest.fixture
def judge(tumbler: Template) -> Judge:
    return lambda art, **placement: run_preflight(tumbler, tumbler.panel(), art, Placement(**placement))


def check(proof: PreflightReport, name: str) -> CheckResult:
    return next(c for c in proof.checks if c.id == name)


def mended(judge: Judge, art: Artwork, name: str, **placement: Any) -> CheckResult:
    fix = check(judge(art, **placement), name).fix
    assert fix is not None
    change = {k: tuple(v) if isinstance(v, list) else v for k, v in fix.placement.items()}
    return check(judge(art, **{**placement, **change}), name)


@pytest.mark.parametrize(
    ("px", "status", "dpi"),
    [((2790, 2460), "pass", 300), ((1786, 1574), "warn", 192), ((1395, 1230), "warn", 150), ((1300, 1147), "fail", 140)],
)
def test_resolution_is_judged_against_its_limits(judge: Judge, px: tuple[int, int], status: str, dpi: int) -> None:
    # Common practice, no published source: 150 dpi is the least that is taken, 300 what sellers aim for.
    found = check(judge(Artwork.read(encoded(Image.new("RGB", px)))), "resolution")
    assert (found.status, round(found.measured or 0), found.unit) == (status, dpi, "dpi")


def test_too_coarse_a_picture_can_be_printed_smaller(judge: Judge) -> None:
    art = art_of(quadrants(1000, 882))
    assert check(judge(art), "resolution").status == "fail"
    after = mended(judge, art, "resolution")
    assert after.status == "warn" and after.measured == pytest.approx(150, abs=0.6)


def test_a_new_tag_is_no_improvement(judge: Judge) -> None:
    # Common practice, no published source: 1786 × 1574 px is 192 dpi on the wrap, whatever is written into the file.
    plain, tagged = (art_of(quadrants(1786, 1574), **tag) for tag in ({"dpi": (96, 96)}, {"dpi": (300, 300)}))
    for art in (plain, tagged):
        assert check(judge(art), "resolution").measured == pytest.approx(192, abs=0.1)
    lie = check(judge(tagged), "tag")
    assert (lie.status, lie.measured) == ("warn", 300) and "192" in lie.message
    assert check(judge(plain), "tag").status == "pass"


def test_vector_art_is_sharp_at_any_size(judge: Judge) -> None:
    art = Artwork.read(b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 93 82"><path d="M0 0h93v82H0z"/></svg>')
    proof = judge(art, scale=20)
    assert check(proof, "resolution").status == check(proof, "tag").status == "pass"


@settings(max_examples=8)
@given(st.integers(200, 1200), st.floats(1.01, 3))
def test_more_pixels_are_never_judged_worse(width: int, factor: float) -> None:
    order, blank = ["pass", "warn", "fail"], template(BLANK)
    less, more = (
        run_preflight(blank, blank.panel(), Artwork.read(encoded(Image.new("L", (int(w), int(w * H / W))))), Placement())
        for w in (width, width * factor)
    )
    assert order.index(check(more, "resolution").status) <= order.index(check(less, "resolution").status)


@pytest.mark.parametrize(
    ("placement", "gap"),
    [
        ({"fit": "contain"}, 13.97),
        ({"shift_mm": (25.0, 0.0)}, 25.0),
        ({"scale": 0.9}, 11.8),
        ({"fit": "stretch", "rotate_deg": 4}, 6.0),
    ],
)
def test_bare_edges_are_measured_and_covered(judge: Judge, placement: dict[str, Any], gap: float) -> None:
    art = art_of(quadrants(600, 600) if placement.get("fit") == "contain" else quadrants())
    found = check(judge(art, **placement), "bare-edge")
    assert found.status == "warn" and found.where
    assert found.measured == pytest.approx(gap, abs=3 if "rotate_deg" in placement else 0.1)
    assert mended(judge, art, "bare-edge", **placement).status == "pass"


def test_a_picture_outside_its_panel_is_reported_and_brought_back(judge: Judge) -> None:
    art = art_of(quadrants())
    found = check(judge(art, shift_mm=(5000.0, 0.0)), "bare-edge")
    assert found.status == "warn" and found.measured == pytest.approx(236.2, abs=0.1) and "wholly outside" in found.message
    assert mended(judge, art, "bare-edge", shift_mm=(5000.0, 0.0)).status == "pass"


def test_a_background_or_a_cut_out_makes_bare_edges_acceptable(judge: Judge) -> None:
    assert check(judge(art_of(quadrants(600, 600)), fit="contain", background="#203040"), "bare-edge").status == "pass"
    cut = np.dstack([quadrants(600, 600), np.tile(np.linspace(0, 255, 600).astype(np.uint8), (600, 1))])
    assert check(judge(art_of(cut), fit="contain"), "bare-edge").status == "pass"
    assert check(judge(art_of(cut), fit="cover", shift_mm=(30.0, 0.0)), "bare-edge").status == "warn"


def test_the_cropped_share_is_measured(judge: Judge) -> None:
    art = art_of(quadrants(930, 410))  # twice as wide as the wrap, so half of it is lost
    found = check(judge(art), "crop")
    assert found.status == "warn" and found.measured == pytest.approx(50, abs=0.2)
    assert mended(judge, art, "crop").measured == 0
    assert check(judge(art_of(quadrants())), "crop").measured == pytest.approx(0, abs=0.1)


@pytest.mark.parametrize(("most", "status"), [(100.0, "warn"), (60.0, "warn"), (38.0, "fail")])
def test_a_seller_decides_from_which_crop_on_it_must_be_fixed(most: float, status: str) -> None:
    blank = replace(template(BLANK), limits={"crop_fix_percent": most})
    report = run_preflight(blank, blank.panel(), art_of(quadrants(930, 410)), Placement("cover"))
    assert check(report, "crop").status == status


@pytest.mark.parametrize(
    ("size", "status", "bent"), [((465, 410), "pass", 0), ((500, 410), "warn", 7.5), ((930, 410), "fail", 100)]
)
def test_stretching_is_measured(judge: Judge, size: tuple[int, int], status: str, bent: float) -> None:
    found = check(judge(art_of(quadrants(*size)), fit="stretch"), "distortion")
    assert found.status == status and found.measured == pytest.approx(bent, abs=0.2)
    if status != "pass":
        assert mended(judge, art_of(quadrants(*size)), "distortion", fit="stretch").status == "pass"


def test_a_pattern_that_closes_passes_and_a_broken_one_does_not(judge: Judge) -> None:
    closed, broken = (check(judge(art_of(closed_wave(broken=b))), "seam-match") for b in (False, True))
    assert closed.status == "pass" and (closed.measured or 9) < 2
    assert broken.status == "warn" and (broken.measured or 0) > 3 * (broken.limit or 0) / 1.5 and len(broken.where) == 2


def test_the_seam_is_judged_against_contrast_within_the_art(judge: Judge) -> None:
    """Stripes as abrupt as the seam hide it; a smooth sky does not hide the same step."""
    stripes = np.zeros((H, W, 3), np.uint8)
    stripes[:, ::2] = 230
    smooth = np.tile(np.linspace(20, 230, W).astype(np.uint8)[None, :, None], (H, 1, 3))
    assert check(judge(art_of(stripes)), "seam-match").status == "pass"
    assert check(judge(art_of(smooth)), "seam-match").status == "warn"


def lettered(x: int, width: int = W) -> Artwork:
    picture = Image.new("RGB", (width * 4, H * 4), (240, 230, 210))
    draw = ImageDraw.Draw(picture)
    for y in range(100, H * 4 - 100, 90):
        draw.text((x * 4 - 60, y), "WHISTLE", fill=(20, 20, 40), font_size=60)
    return art_of(np.asarray(picture))


def test_words_at_the_seam_are_found_and_words_elsewhere_are_not(judge: Judge) -> None:
    assert check(judge(lettered(W // 2)), "seam-zone").status == "pass"
    found = check(judge(lettered(10)), "seam-zone")
    assert found.status == "warn" and len(found.where) == 2


def test_words_at_the_seam_are_shifted_away_where_there_is_room(judge: Judge) -> None:
    art = lettered(int(W * 0.3) + 4, width=int(W * 1.6))
    before = check(judge(art), "seam-zone")
    assert before.status == "warn" and before.fix is not None
    assert mended(judge, art, "seam-zone").status == "pass"


def test_transparency_is_judged_by_product(tumbler: Template) -> None:
    hazy = art_of(np.dstack([quadrants(), np.full((H, W), 120, np.uint8)]))
    shirt = replace(tumbler, half_transparent="warn")
    assert check(run_preflight(tumbler, tumbler.panel(), hazy, Placement()), "transparency").status == "pass"
    assert check(run_preflight(shirt, shirt.panel(), hazy, Placement()), "transparency").status == "warn"
    nothing = art_of(np.dstack([quadrants(), np.zeros((H, W), np.uint8)]))
    assert check(run_preflight(tumbler, tumbler.panel(), nothing, Placement()), "transparency").status == "fail"


def test_cmyk_gives_a_warning(judge: Judge) -> None:
    cmyk = Artwork.read(encoded(Image.fromarray(quadrants()).convert("CMYK"), "JPEG"))
    assert check(judge(cmyk), "colour-mode").status == "warn"
    assert check(judge(art_of(quadrants())), "colour-mode").status == "pass"


def test_the_verdict_is_that_of_the_worst_check(judge: Judge) -> None:
    assert judge(art_of(quadrants(300, 264))).verdict == "fail"
    assert judge(art_of(np.repeat(np.repeat(closed_wave(), 6, 0), 6, 1))).verdict == "pass"


def test_a_proxy_is_checked_like_its_original(tumbler: Template) -> None:
    pixels = Image.open(io.BytesIO(lettered(10).data)).resize((2790, 2460))
    art = art_of(np.asarray(pixels))
    assert max(art.proxy().reduced(10_000).width, 0) < art.facts.px[0]
    for one, two in zip(
        *(run_preflight(tumbler, tumbler.panel(), a, Placement()).checks for a in (art, art.proxy())), strict=True
    ):
        assert (one.id, one.status) == (two.id, two.status)
