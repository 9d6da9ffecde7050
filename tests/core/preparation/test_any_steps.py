"""Any combination of steps gives a picture or an error message, and the original is not changed."""

import math

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from improva.core.errors import ImprovaError, StepError
from improva.core.preparation import ALL, KINDS, LAID, Field, Picture, Preparation, Step, StepKind, parse_step, prepared_picture
from improva.core.preparation.steps import KINDS as ORDERED
from improva.fonts import font_bytes
from tests.conftest import encoded, quadrants
from tests.core.preparation.test_border import SQUARE, TRIANGLE, cutout

COLOURS = st.sampled_from(["#ffffff", "#000000", "#c0392b", "#24405a"])


def value_of(field: Field) -> st.SearchStrategy:
    """Return values that a field accepts, with numbers small enough for a fast test."""
    if field.kind == "number":
        low, high = max(field.least, -400), min(field.most, 40 if field.unit in ("mm", "×", "px") else 400)
        return st.floats(low, max(low, high))
    if field.kind == "choice":
        return st.sampled_from([name for name, _ in field.choices])
    if field.kind == "colour":
        return COLOURS if field.default else st.one_of(st.none(), COLOURS)
    if field.kind == "switch":
        return st.booleans()
    fraction = st.floats(0, 1)
    if field.kind == "points":
        return st.lists(st.tuples(fraction, fraction), max_size=3)
    if field.kind == "box":
        return st.sampled_from([(0, 0, 1, 1), (0.2, 0.3, 0.5, 0.4), (0.9, 0.9, 0.1, 0.1), (0, 0, 0.01, 1)])
    return st.lists(st.tuples(COLOURS, COLOURS), max_size=3)


def step_of(kind: StepKind) -> st.SearchStrategy[Step]:
    fields = [field for field in kind.fields if field.name not in ("count", "factor")]
    return st.builds(
        lambda values: Step(kind.id, values), st.fixed_dictionaries({}, optional={f.name: value_of(f) for f in fields})
    )


STEPS = st.one_of([step_of(kind) for kind in KINDS.values()])


@settings(max_examples=120, suppress_health_check=[HealthCheck.too_slow])
@given(st.lists(STEPS, min_size=1, max_size=3), st.booleans())
def test_any_steps_give_a_picture_or_an_error_message(steps: list[Step], opaque: bool) -> None:
    start = cutout(SQUARE, TRIANGLE, size=120)
    if opaque:
        start = Picture(np.dstack([quadrants(110, 90), np.full((90, 110), 255, np.uint8)]), 10.0)
    before = start.pixels.copy()
    try:
        made = prepared_picture(start, Preparation(tuple(steps)))
    except ImprovaError as told:
        assert len(str(told)) > 20
    else:
        h, w, bands = made.pixels.shape
        assert bands == 4 and made.pixels.dtype == np.uint8 and h >= 1 and w >= 1
        assert made.px_per_mm > 0 and made.enlarged >= 1 and all(note.endswith(".") for note in made.notes)
    assert (start.pixels == before).all()


@pytest.mark.parametrize("kind", ALL.values(), ids=lambda kind: kind.id)
def test_every_kind_describes_itself_and_reads_what_it_writes(kind: StepKind) -> None:
    assert kind.title and kind.says.endswith(".") and len({field.name for field in kind.fields}) == len(kind.fields)
    values = kind.values({})
    for field in kind.fields:
        assert field.title and field.wanted
        if field.default not in (None, "", ()):
            written = field.text(field.default)
            assert field.checked(written) == values[field.name], "a default written in a shell is that default"
        if field.kind == "number":
            assert field.least <= field.default <= field.most
            for wrong in (field.least - 1, field.most + 1, math.nan, "many", True, [1]):
                with pytest.raises(StepError, match=field.name):
                    field.checked(wrong)


@settings(max_examples=40)
@given(STEPS)
def test_a_step_written_for_the_shell_reads_back_equal(step: Step) -> None:
    kind = KINDS[step.kind]
    values = kind.values(step.values)
    written = ",".join(
        f"{field.name}={field.text(values[field.name]) if values[field.name] is not None else 'none'}"
        for field in kind.fields
        if values[field.name] not in ((), [])
    )
    again = kind.values(parse_step(f"{step.kind}:{written}" if written else step.kind).values)
    for field in kind.fields:
        if field.kind in ("number", "points", "box") and values[field.name] is not None:
            assert np.allclose(again[field.name], values[field.name], rtol=1e-5, atol=1e-5), "as written with six figures"
        else:
            assert again[field.name] == values[field.name]


def test_the_page_offers_steps_in_the_order_of_the_work() -> None:
    assert list(KINDS) == list(ORDERED) and next(iter(KINDS)) == "cut" and not set(KINDS) & set(LAID)
    places = [kind.id for kind in KINDS.values() if kind.reshapes]
    assert set(places) == {"trim", "crop", "turn", "flip", "border", "seamless", "scatter"}


def test_quarter_turns_and_flips_touch_no_pixel() -> None:
    start = Picture(np.random.default_rng(2).integers(0, 255, (37, 53, 4)).astype(np.uint8), 10.0)
    four = prepared_picture(start, Preparation((Step("turn", {"degrees": 90}),) * 4))
    twice = prepared_picture(start, Preparation((Step("flip"), Step("flip", {"way": "down"}), Step("turn", {"degrees": 180}))))
    assert (four.pixels == start.pixels).all() and (twice.pixels == start.pixels).all()


def test_trimming_leaves_the_requested_margin() -> None:
    trimmed = prepared_picture(cutout(SQUARE), Preparation((Step("trim", {"margin": 2}),)))
    assert trimmed.pixels.shape[:2] == pytest.approx((140, 140), abs=1) and trimmed.size_mm == pytest.approx((14, 14), abs=0.1)
    wider = prepared_picture(cutout(SQUARE), Preparation((Step("trim", {"margin": 20}),)))
    assert wider.pixels.shape[:2] == pytest.approx((500, 500), abs=1), "a margin may be more than there was"


def test_a_picture_behind_shows_where_the_first_is_transparent() -> None:
    files = {"q.png": encoded_quadrants(), "poster": font_bytes("poster")}
    behind = Step("overlay", {"art": "q.png", "fit": "stretch", "behind": True}, files=files)
    made = prepared_picture(cutout(SQUARE), Preparation((behind,))).pixels
    assert tuple(made[50, 50]) == (220, 30, 30, 255) and tuple(made[200, 200]) == (180, 60, 40, 255)
    clipped = Step("words", {"text": "SUMMIT", "width": 40, "clipped": True, "fill": "#00ff00"}, files=files)
    made = prepared_picture(cutout(SQUARE), Preparation((clipped,))).pixels
    assert (made[..., 3] == cutout(SQUARE).alpha).all() and (made[..., 1] == 255).any()
    with pytest.raises(StepError, match="was not given"):
        prepared_picture(cutout(SQUARE), Preparation((Step("words", {"text": "Up"}),)))


def encoded_quadrants() -> bytes:
    from PIL import Image

    return encoded(Image.fromarray(quadrants(200, 200)))
