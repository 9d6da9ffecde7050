"""Checks of pieces: each check passes good pieces and finds bad ones."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from PIL import Image

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork
from improva.core.colour import contrast
from improva.core.design import Placement
from improva.core.origin import Origin
from improva.core.pieces import ArtRef, Band, Extra, Frames, Lettering, Mixing, Overlay, Slot
from improva.core.preflight import CheckResult, PreflightReport, run_preflight
from improva.core.template import Template
from improva.fonts import font_bytes
from tests.conftest import BLANK, art_of, encoded, quadrants, traits_of

FONTS = {"poster": font_bytes("poster"), "narrow": font_bytes("narrow")}
WRAP = template(BLANK)
ART = art_of(np.full((1640, 1860, 3), 250, np.uint8))
PHOTO = art_of(quadrants(1200, 900))
REF = ArtRef("photo", PHOTO.facts.size)


def run_checks(
    *extras: Extra, art: Artwork = ART, blank: Template = WRAP, placement: Placement | None = None, **more: Any
) -> PreflightReport:
    return run_preflight(
        blank,
        blank.panel(),
        art,
        placement or Placement(),
        traits=traits_of(art),
        extras=extras,
        fonts=FONTS,
        others={"photo": PHOTO},
        **more,
    )


def check(proof: PreflightReport, name: str) -> CheckResult:
    return next(c for c in proof.checks if c.id == name)


def words(**values: Any) -> Lettering:
    return Lettering("Summit Line", "poster", sizing="width", width_mm=100, **values)


def test_without_pieces_there_are_no_checks_of_pieces() -> None:
    ids = {c.id for c in run_checks().checks}
    assert not ids & {"pieces-safe", "letters", "words-contrast", "pieces-sharp", "slots"}


@pytest.mark.parametrize(("shift", "past"), [((0, 0), 0), ((61, 0), 0), ((70, 0), 8.24), ((-80, 0), 18.24), ((0, 95), None)])
def test_words_past_the_safe_line_are_found_and_moved_back(shift: tuple[float, float], past: float | None) -> None:
    lettering = words(shift_mm=shift)
    found = check(run_checks(lettering), "pieces-safe")
    if past == 0:
        assert found.status == "pass"
        return
    assert found.status == "warn" and found.where and found.fix is not None and found.fix.piece == 0
    if past is not None:
        assert found.measured == pytest.approx(past, abs=0.01)
    mended = replace(lettering, shift_mm=tuple(found.fix.values["shift_mm"]))
    assert check(run_checks(mended), "pieces-safe").status == "pass", "the mend mends"


def test_no_move_fixes_words_too_wide_for_the_safe_area() -> None:
    found = check(run_checks(replace(words(), width_mm=300.0)), "pieces-safe")
    assert found.status == "warn" and found.fix is None


def test_frames_past_the_safe_line_are_found_too() -> None:
    found = check(run_checks(Frames("single", 1, 1, (80, 60), shift_mm=(90, 0), slots=(Slot(REF),))), "pieces-safe")
    assert found.status == "warn" and found.message.startswith("The frames reach")


def test_words_are_not_mistaken_for_a_motif_of_the_artwork() -> None:
    plain = check(run_checks(), "safe-area")
    laid = check(run_checks(words(shift_mm=(100, 0)), Band("all", 20)), "safe-area")
    assert (laid.status, laid.measured) == (plain.status, plain.measured)


def test_missing_letters_are_named() -> None:
    assert check(run_checks(words()), "letters").status == "pass"
    found = check(run_checks(Lettering("Gipfel 山頂 ok", "poster")), "letters")
    assert found.status == "fail" and "山 頂" in found.message and found.measured == 2


@pytest.mark.parametrize(
    ("fill", "status"), [("#23211e", "pass"), ("#777777", "pass"), ("#e0e0e0", "warn"), ("#f5f5f5", "warn")]
)
def test_contrast_of_words_is_measured_against_their_background(fill: str, status: str) -> None:
    found = check(run_checks(words(fill=fill)), "words-contrast")
    assert found.status == status
    assert found.measured == pytest.approx(contrast(fill, "#fafafa"), abs=0.06)
    if status == "warn":
        assert found.fix is not None
        assert check(run_checks(words(fill=found.fix.values["fill"])), "words-contrast").status == "pass"


def test_contrast_counts_the_outline_or_the_plaque_where_there_is_one() -> None:
    assert check(run_checks(words(fill="#f0f0f0", outline="#102030")), "words-contrast").status == "pass"
    assert check(run_checks(words(fill="#f0f0f0", plaque="box", plaque_fill="#102030")), "words-contrast").status == "pass"
    assert check(run_checks(words(fill="#102030", plaque="oval", plaque_fill="#14243a")), "words-contrast").status == "warn"


def test_resolution_of_pictures_in_pieces_is_measured_at_their_printed_size() -> None:
    def dpi(extra: Extra) -> CheckResult:
        return check(run_checks(extra), "pieces-sharp")

    small, large = (Overlay(REF, Placement("contain", scale=s)) for s in (0.3, 1.0))
    assert dpi(small).status == "pass"
    assert dpi(large).status == "fail"
    assert dpi(large).measured == pytest.approx(
        900 / (208.28 / 25.4) if 208.28 * 4 / 3 < 236 else 1200 / (236.22 / 25.4), rel=0.01
    )
    assert dpi(Band(pattern=REF, tile_mm=50)).measured == pytest.approx(1200 / (50 / 25.4), rel=0.12), (
        "tiles close round the wrap"
    )
    frame = Frames("single", 1, 1, (100, 75), 0, 0, slots=(Slot(REF, zoom=4),))
    assert dpi(frame).measured == pytest.approx(1200 / 4 / (100 / 25.4), rel=0.01)
    assert "Picture 1 in the frames" in dpi(frame).message


def test_vector_art_in_pieces_is_sharp_at_any_size() -> None:
    svg = Artwork.read(b'<svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"><circle cx="10" cy="10" r="8"/></svg>')
    extra = Overlay(ArtRef("lines", svg.facts.size), Placement("contain"))
    proof = run_preflight(WRAP, WRAP.panel(), ART, Placement(), extras=(extra,), others={"lines": svg})
    assert "pieces-sharp" not in {c.id for c in proof.checks}


def test_empty_frames_have_to_be_fixed() -> None:
    assert check(run_checks(Frames("grid", 2, 2, (100, 80), slots=(Slot(REF),) * 4)), "slots").status == "pass"
    found = check(run_checks(Frames("grid", 2, 2, (100, 80), slots=(Slot(REF), Slot(), Slot(REF)))), "slots")
    assert found.status == "fail" and found.measured == 2 and "2 frames have no picture" in found.message


def test_small_words_count_as_lettering() -> None:
    tiny = Lettering("Summit", "poster", size_mm=2)
    found = check(run_checks(tiny), "lettering")
    assert found.status == "warn" and found.measured == pytest.approx(2 * 0.66, abs=0.03)
    assert check(run_checks(replace(tiny, size_mm=6)), "lettering").status == "pass"


def test_a_band_or_a_second_artwork_covers_bare_edges() -> None:
    cutout = np.zeros((600, 600, 4), np.uint8)
    cutout[100:500, 100:500] = (200, 40, 40, 255)
    opaque = art_of(quadrants(1200, 300))
    bare = check(run_checks(art=opaque, placement=Placement("contain")), "bare-edge")
    assert bare.status == "warn"
    whole = Overlay(REF, Placement("cover"), Mixing(behind=True))
    assert check(run_checks(whole, art=opaque, placement=Placement("contain")), "bare-edge").status == "pass"
    clipped = replace(whole, mixing=Mixing(clipped="artwork"))
    assert check(run_checks(clipped, art=opaque, placement=Placement("contain")), "bare-edge").status == "warn"


@pytest.mark.parametrize("turn", [0.0, 20.0])
def test_a_cut_out_that_does_not_fit_is_given_a_scale_that_does(turn: float) -> None:
    """Only the printed part of a cut-out counts, and the fix is the largest scale at which all of it is printed."""
    cutout = np.zeros((800, 800, 4), np.uint8)
    cutout[200:600, 200:600] = (200, 40, 40, 255)
    art, blank = art_of(cutout), template("pillow-shaped")
    fits = Placement("contain", scale=1.2, rotate_deg=turn)
    assert check(run_preflight(blank, blank.panel(), art, fits), "crop").status == "pass", "its margin may lie outside"
    too_large = Placement("contain", scale=3, rotate_deg=turn)
    found = check(run_preflight(blank, blank.panel(), art, too_large), "crop")
    assert found.status == "warn" and found.fix is not None and "it fits" in found.fix.label
    mended = check(run_preflight(blank, blank.panel(), art, too_large.changed(**found.fix.placement)), "crop")
    assert mended.status == "pass"
    larger = too_large.changed(scale=found.fix.placement["scale"] * 1.02)
    assert check(run_preflight(blank, blank.panel(), art, larger), "crop").status == "warn", "it is the largest"


@pytest.mark.parametrize(
    ("origin", "altered", "status"),
    [
        (Origin(), False, "pass"),
        (Origin("own"), False, "pass"),
        (Origin("ordered", print_on_demand=None), False, "pass"),
        (Origin("ordered", print_on_demand=False), True, "fail"),
        (Origin("bought"), True, "warn"),
        (Origin("bought", print_on_demand=True), False, "warn"),
        (Origin("bought", print_on_demand=True), True, "pass"),
        (Origin("free", commercial=False, print_on_demand=True), True, "fail"),
        (Origin("free", print_on_demand=True), True, "pass"),
    ],
)
def test_licences(origin: Origin, altered: bool, status: str) -> None:
    assert check(run_checks(origin=origin, altered=altered), "origin").status == status
    assert "origin" not in {c.id for c in run_checks().checks}, "from a shell nothing is known"


def test_a_proxy_with_pieces_is_checked_like_its_original() -> None:
    extras = (words(), Band("level", 10), Frames("single", 1, 1, (60, 50), slots=(Slot(REF),)))
    whole, proxy = (run_checks(*extras, art=a) for a in (ART, ART.proxy()))
    assert [(c.id, c.status) for c in whole.checks] == [(c.id, c.status) for c in proxy.checks]


def test_a_cmyk_photograph_is_placed_in_srgb() -> None:
    cmyk = Artwork.read(encoded(Image.new("CMYK", (900, 900), (0, 255, 255, 0)), "TIFF"))
    proof = run_preflight(
        WRAP, WRAP.panel(), ART, Placement(), extras=(Overlay(ArtRef("c", cmyk.facts.size)),), others={"c": cmyk}
    )
    assert check(proof, "pieces-sharp").status in ("pass", "warn")
