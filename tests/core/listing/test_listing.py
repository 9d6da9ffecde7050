"""Which pictures are proposed, how text is composed, and what blocks a listing. Invented text; limits set in the test."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.catalogue import template, templates
from improva.core.errors import ListingError
from improva.core.listing import (
    KINDS,
    ArtWords,
    BlankWords,
    Market,
    Slot,
    alt_text,
    assemble_texts,
    check_texts,
    licence_reasons,
    missing_kinds,
    not_offered,
    proposed_slots,
    sold_parts,
)
from improva.core.mockup.scene import SceneInfo
from improva.core.origin import Origin
from tests.scenery import scenes_of

BLANK = template("mug-11oz")
MARKET = Market("Test", title_least=10, title_most=40, tags_most=3, tag_most=10, search_most=30)


def every_colour(scenes: Sequence[SceneInfo]) -> dict[str, list[str]]:
    """A seller who offers every part in every colour."""
    return {part.id: list(part.colours) for info in scenes for part in sold_parts(info)}


@pytest.mark.parametrize("name", ["mug-11oz", "t-shirt", "tumbler-20oz-straight"])
def test_only_offered_colours_are_pictured(name: str) -> None:
    blank = template(name)
    scenes, printed = scenes_of(blank), {panel.id for panel in blank.panels}
    assert not [slot for slot in proposed_slots(scenes, printed, 10, {}) if slot.colours], "nothing is guessed"
    part = next(part for info in scenes for part in sold_parts(info))
    wanted = [name for name in part.colours if name != part.default][-2:]
    slots = proposed_slots(scenes, printed, 10, {part.id: [part.default or "", *wanted]})
    shown = {slot.colours[part.id] for slot in slots if slot.colours}
    assert shown and shown <= set(wanted)
    assert not_offered(slots, scenes, {part.id: wanted}) == []
    assert not_offered(slots, scenes, {}) == sorted(f"{part.title} in {name}" for name in shown)


@pytest.mark.parametrize("name", sorted(templates()))
def test_one_of_each_kind_comes_before_a_second_of_any(name: str) -> None:
    blank = template(name)
    scenes, printed = scenes_of(blank), {blank.panels[0].id}
    slots = proposed_slots(scenes, printed, 10, every_colour(scenes))
    kinds = [slot.kind for slot in slots]
    assert 1 <= len(slots) <= 10 and kinds[0] == "front" and slots[0].scene_id == scenes[0].id
    assert len({slot.shows for slot in slots}) == len(slots), "no picture twice"
    first = kinds[: len(set(kinds))]
    assert len(set(first)) == len(first)
    assert missing_kinds(slots, scenes, printed, every_colour(scenes)) == []
    for slot in slots:
        scene = next(s for s in scenes if s.id == slot.scene_id)
        assert slot.view in scene.views and all(scene.region(part).colour(c) is not None for part, c in slot.colours.items())


@pytest.mark.parametrize("name", ["t-shirt", "tumbler-20oz-straight", "mug-11oz"])
def test_proposed_pictures_draw_on_all_sets_before_one_is_shown_a_third_time(name: str) -> None:
    blank = template(name)
    scenes, printed = scenes_of(blank), {panel.id for panel in blank.panels}
    slots = proposed_slots(scenes, printed, 10, every_colour(scenes))
    shown = [sum(slot.scene_id == scene.id for slot in slots) for scene in scenes]
    assert min(shown) >= 1 and max(shown) <= max(3, -(-10 // len(scenes)) + 1)
    sides = [slot for slot in slots if slot.kind == "side"]
    assert all(slot.view != slots[0].view for slot in sides)
    dressed = [tuple(slot.colours.values()) for slot in slots if slot.kind == "colour"]
    assert len(set(dressed)) == len(dressed)  # another colour each time


def test_with_few_places_the_clearest_pictures_stay_and_missing_kinds_are_reported() -> None:
    scenes = scenes_of(BLANK)
    slots = proposed_slots(scenes, {"wrap"}, 2, every_colour(scenes))
    assert [slot.kind for slot in slots] == ["front", "side"]
    lacking = missing_kinds(slots, scenes, {"wrap"}, every_colour(scenes))
    assert {m.kind for m in lacking} == {"lifestyle", "detail", "size", "colour"}, "the studio's front shows the bare handle"
    assert missing_kinds([*slots, *(m.offered for m in lacking)], scenes, {"wrap"}, every_colour(scenes)) == []
    assert proposed_slots([], set(), 10, {}) == [] == missing_kinds([], [], set(), {})


def test_a_picture_counts_by_what_it_shows_not_by_what_it_is_called() -> None:
    scenes = scenes_of(BLANK)
    lived = next(s for s in scenes if s.kind == "lifestyle")
    named_otherwise = Slot("side", lived.id, next(iter(lived.views)))
    assert "lifestyle" not in {m.kind for m in missing_kinds([named_otherwise], scenes, {"wrap"}, {})}


@pytest.mark.parametrize(
    ("art", "blank", "title", "search"),
    [
        (ArtWords("Signals"), BlankWords(), "Signals 11 oz mug", "11 oz mug"),
        (ArtWords(line="Rows of flags."), BlankWords("{line} {design}"), "Rows of flags. Sheet", "Rows of flags. 11 oz mug"),
        (ArtWords(), BlankWords("{design}  {line} mug", search=""), "Sheet mug", ""),
    ],
)
def test_text_is_filled_in_and_empty_parts_leave_no_gap(art: ArtWords, blank: BlankWords, title: str, search: str) -> None:
    texts = assemble_texts(replace(BLANK, title="11 oz mug"), "Sheet", art, blank, 3)
    assert (texts.title, texts.search) == (title, search)


@pytest.mark.parametrize(
    ("blank", "name", "title"),
    [("Mug, 11 oz", "Garden", "Garden mug, 11 oz"), ("T-shirt", "Garden", "Garden T-shirt")],
)
def test_a_default_title_reads_as_a_phrase(blank: str, name: str, title: str) -> None:
    assert assemble_texts(replace(BLANK, title=blank), "Sheet", ArtWords(name), BlankWords(), 3).title == title


def test_a_value_begins_with_a_capital_at_the_start_of_a_sentence_and_the_own_line_is_printed_once() -> None:
    blank = replace(BLANK, substrate="coated steel", title="Mug")
    words = BlankWords(text="{line} Take it along. {material}, {material}. Made for you.")
    texts = assemble_texts(blank, "Sheet", ArtWords(line="Rows of flags."), words, 3)
    assert "along. Coated steel, coated steel. Made" in texts.description
    assert texts.description.count("Rows of flags.") == 1
    assert assemble_texts(blank, "Sheet", ArtWords(line="Rows of flags."), BlankWords(text="Fine."), 3).description.startswith(
        "Rows of flags.\n\nFine."
    )


@given(st.lists(st.text(max_size=12), max_size=20), st.lists(st.text(max_size=12), max_size=20), st.integers(0, 15))
def test_tags_are_unique_and_limited_and_none_is_lost(own: list[str], kept: list[str], most: int) -> None:
    texts = assemble_texts(BLANK, "x", ArtWords(tags=tuple(own)), BlankWords(tags=tuple(kept)), most)
    every = [*texts.tags, *texts.left_out]
    assert len(texts.tags) <= most and len({t.casefold() for t in every}) == len(every)
    assert {t.casefold() for t in every} == {" ".join(t.split()).casefold() for t in [*own, *kept] if t.strip()}


def test_limits_are_counted_to_the_letter() -> None:
    def findings(title: str, *tags: str) -> set[tuple[str, str, float | None]]:
        texts = assemble_texts(BLANK, "x", ArtWords(tags=tags), BlankWords(title, "Words.", search="s"), MARKET.tags_most)
        return {(f.subject, f.status, f.measured) for f in check_texts(texts, MARKET)}

    assert findings("m" * 40, "a1", "b1", "c1") == set()
    assert findings("m" * 41, "a1", "b1", "c1") == {("title", "fail", 41)}
    assert findings("m" * 9, "a1", "b1", "c1") == {("title", "fail", 9)}
    assert findings("night and Night train", "a1", "b1", "c1") == {("title", "warn", 2)}
    assert findings("m" * 20, "ten letter", "b1", "c1", "d1") == {("tags", "warn", 4)}
    assert findings("m" * 20, "eleven lett", "b1", "c1") == {("tags", "fail", 11)}
    assert findings("m" * 20, "cup", "b1") == {("tags", "warn", 2)}


@pytest.mark.parametrize("most", [10, 40, 60, 300])
def test_alt_text_fits_its_limit_and_ends_at_a_whole_word(most: int) -> None:
    said = alt_text("Dusk on the Summit Line", BLANK, "On a shelf", "handle-left", ["Ink"], most)
    assert len(said) <= most
    assert (
        said.endswith("handle left, in Ink") if most == 300 else said.endswith("…") and not said[:-1].endswith((",", ":", " "))
    )


OWN, BOUGHT = Origin("own"), Origin("bought", commercial=True, print_on_demand=True)


@pytest.mark.parametrize(
    ("origin", "altered", "told"),
    [
        (OWN, False, []),
        (replace(OWN, print_on_demand=False), False, ["does not allow print on demand"]),
        (BOUGHT, True, []),
        (BOUGHT, False, []),
        (replace(BOUGHT, print_on_demand=None), True, ["not known"]),
        (replace(BOUGHT, print_on_demand=False), False, ["print on demand", "unchanged"]),
        (replace(BOUGHT, print_on_demand=None, commercial=False), True, ["selling"]),
        (Origin(), True, ["no origin is recorded"]),
    ],
)
def test_a_listing_is_stopped_by_its_licence(origin: Origin, altered: bool, told: list[str]) -> None:
    reasons = licence_reasons([("Mine", OWN, False), ("Other", origin, altered)])
    assert len(reasons) == len(told) and all(
        r.startswith("Other: ") and word in r for r, word in zip(reasons, told, strict=True)
    )


def test_unchanged_art_whose_licence_allows_it_is_stopped_only_where_the_seller_wants_so() -> None:
    art = [("Other", BOUGHT, False)]
    assert licence_reasons(art) == []
    (reason,) = licence_reasons(art, unchanged_stops=True)
    assert "unchanged" in reason
    assert licence_reasons([("Other", BOUGHT, True)], unchanged_stops=True) == []


@pytest.mark.parametrize("wrong", [{"title": ""}, {"title_most": 0}, {"title_least": 200}, {"tags_most": -1}, {"film_s": 1000}])
def test_impossible_limits_are_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(ListingError):
        Market(**{"title": "Mine", **wrong})


def test_missing_kinds_are_reported_most_needed_first() -> None:
    assert KINDS[0] == "front" and len(set(KINDS)) == len(KINDS)
