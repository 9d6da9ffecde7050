"""Lists of steps: read, run in order, switched off, refused; and the artwork that they give."""

import numpy as np
import pytest
from PIL import Image

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork, as_array
from improva.core.design import Placement
from improva.core.errors import StepError
from improva.core.preflight import run_preflight
from improva.core.preparation import (
    KINDS,
    Preparation,
    Step,
    artwork_of,
    first_picture,
    parse_step,
    prepare,
    prepared_picture,
    step_from_dict,
)
from tests.conftest import BLANK, art_of, encoded, quadrants
from tests.core.preparation.test_cut import disc, on_paper


def scan() -> Artwork:
    return art_of(on_paper(disc((20, 30, 60))).pixels[..., :3], dpi=(254, 254))


def prepared(art: Artwork, *steps: str, width_mm: float | None = None) -> Artwork:
    return artwork_of(prepare(art, Preparation(tuple(parse_step(s) for s in steps), width_mm)), art.facts)


def test_steps_are_read_as_they_are_written() -> None:
    assert parse_step("trim") == Step("trim")
    assert parse_step("cut:tolerance=8, reach=everywhere").values == {"tolerance": "8", "reach": "everywhere"}
    values = KINDS["cut"].values(parse_step("cut:tolerance=8,add=0.5/0.25;1/0,decontaminate=no,paper=#FFEEDD").values)
    assert values["tolerance"] == 8
    assert values["add"] == ((0.5, 0.25), (1, 0))
    assert values["decontaminate"] is False
    assert values["paper"] == "#ffeedd"
    assert KINDS["recolour"].values(parse_step("recolour:pairs=#112233>#445566;#000000>#ffffff").values)["pairs"][1] == (
        "#000000",
        "#ffffff",
    )


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("polish", "no step 'polish': choose one of cut"),
        ("cut:sharpness=3", "takes no 'sharpness'"),
        ("cut:tolerance=300", "number from 0 to 255"),
        ("cut:tolerance=nan", "number from 0"),
        ("cut:tolerance", "not name=value"),
        ("cut:reach=some", "choose one of contiguous"),
        ("border:colour=red", "write a colour as #rrggbb"),
        ("crop:box=0.5/0/0.6/1", "x/y/width/height"),
        ("cut:add=2/0", "points as"),
        ("recolour:pairs=#112233", "pairs as"),
        ("", "is not a step"),
        ("cut:decontaminate=perhaps", "yes or no"),
    ],
)
def test_unreadable_steps_are_reported(text: str, told: str) -> None:
    with pytest.raises(StepError, match=told):
        parse_step(text)


def test_steps_run_in_order_and_switched_off_steps_do_not_run() -> None:
    picture = first_picture(art_of(quadrants(40, 40)), Preparation())
    crop, turn = Step("crop", {"box": [0, 0, 0.5, 0.5]}), Step("turn", {"degrees": 90})
    one = prepared_picture(picture, Preparation((crop, turn))).pixels[5, 5]
    other = prepared_picture(picture, Preparation((turn, crop))).pixels[5, 5]
    assert tuple(one[:3]) == (220, 30, 30)
    assert tuple(other[:3]) == (30, 60, 200)
    off = prepared_picture(picture, Preparation((crop, Step("turn", on=False))))
    assert (off.pixels == picture.pixels[:20, :20]).all()
    assert step_from_dict(turn.as_dict()) == turn


def test_the_original_s_pixels_are_never_altered() -> None:
    picture = first_picture(scan(), Preparation())
    before = picture.pixels.copy()
    for kind in KINDS:
        try:
            prepared_picture(picture, Preparation((Step("cut"), Step(kind))))
            prepared_picture(picture, Preparation((Step(kind),)))
        except StepError:
            pass
        assert (picture.pixels == before).all(), kind


def test_the_same_steps_give_the_same_file() -> None:
    art = scan()
    steps = ("cut", "border:mm=2", "scatter:count=3,least=10,most=12,width=40,height=40")
    assert prepared(art, *steps).data == prepared(art, *steps).data


def test_a_millimetre_is_measured_on_the_print() -> None:
    """400 px tagged 254 dpi are 40 mm: a border of 2 mm is 20 px; printed 80 mm wide it is 10 px."""
    for width_mm, px in ((None, 20), (80, 10)):
        art = prepared(scan(), "cut", "trim", f"border:mm={2}", "trim", width_mm=width_mm)
        assert art.facts.px[0] == pytest.approx(300 + 2 * px, abs=2)
        assert art.facts.tagged_dpi is not None and art.facts.tagged_dpi[0] == pytest.approx(
            254 * (1 if width_mm is None else 0.5), abs=0.5
        )


def test_no_hidden_colour_is_left_in_the_file() -> None:
    pixels = as_array(prepared(scan(), "cut").image())
    assert (pixels[pixels[..., 3] == 0] == 0).all()


def test_a_small_copy_looks_like_the_full_size_result() -> None:
    art = art_of(on_paper(disc((20, 30, 60), size=1200, radius=450)).pixels[..., :3])
    preparation = Preparation((Step("cut"), Step("border", {"mm": 3}), Step("turn", {"degrees": 20})))
    whole, small = prepare(art, preparation), prepared_picture(first_picture(art, preparation, 400), preparation)
    w, h = small.pixels.shape[1::-1]
    reduced = np.asarray(Image.fromarray(whole.pixels).resize((w, h), Image.Resampling.BOX)).astype(int)
    assert np.abs(reduced[..., 3] - small.pixels[..., 3]).mean() < 2
    assert whole.size_mm == pytest.approx(small.size_mm, rel=0.01)


def test_an_enlarged_picture_is_checked_by_its_original_pixels() -> None:
    art, blank = art_of(quadrants(), dpi=(50, 50)), template(BLANK)
    larger = prepared(art, "enlarge:factor=2.1")
    assert larger.facts.px == (976, 861)
    for fit in ("cover", "actual"):
        before, after = (
            next(c for c in run_preflight(blank, blank.panel(), a, Placement(fit=fit)).checks if c.id == "resolution")
            for a in (art, larger)
        )
        assert after.measured == pytest.approx(before.measured, rel=0.002), fit
        assert after.status == before.status == "fail"
        assert after.message.startswith("Enlarged ×2.1, but 465 × 410 px of its own over")


def test_vector_art_is_rendered_at_print_resolution() -> None:
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="96" height="48"><circle cx="48" cy="24" r="20" fill="#123"/></svg>'
    art = prepared(Artwork.read(svg), "trim")
    assert art.facts.px == pytest.approx((125, 125), abs=2), "40 CSS px are 10.6 mm, 125 px at 300 dpi"
    assert not art.facts.vector
    assert prepared(Artwork.read(svg), "trim", width_mm=254).facts.px[0] == pytest.approx(1250, abs=4)


def test_exceeded_limits_are_reported() -> None:
    with pytest.raises(StepError, match="41 steps are too many"):
        Preparation((Step("trim"),) * 41)
    with pytest.raises(StepError, match="print width"):
        Preparation((), 0)
    with pytest.raises(StepError, match="Step 2, cut-out border: This picture has no transparent ground"):
        prepared(art_of(quadrants(40, 40)), "flip", "border")
    huge = encoded(Image.new("L", (13000, 13000)))
    with pytest.raises(StepError, match="up to 160 megapixels can be prepared"):
        prepared(Artwork.read(huge), "flip")
