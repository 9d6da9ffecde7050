"""Names by a pattern: safe in any archive, never twice the same, and titles of many artworks at once."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.core.errors import PlacementError
from improva.core.output.name_pattern import (
    BATCH_FILES,
    FILE_FIELDS,
    PACK_FILES,
    ArchiveNames,
    checked_pattern,
    file_path,
    numbered,
    renamed,
)

VALUES = {"id": "7", "title": "tarn", "blank": "mug-11oz", "number": "03", "name": "tarn_mug-11oz_front"}


def test_the_first_patterns_name_as_ever() -> None:
    assert file_path(BATCH_FILES, VALUES, ".png") == "7-tarn/mug-11oz/tarn_mug-11oz_front.png"
    assert file_path(PACK_FILES, VALUES, ".jpg") == "03_tarn_mug-11oz_front.jpg"


@pytest.mark.parametrize(
    "wrong", ["", "pictures", "{price}", "{title", "{title!r}", "{title:>9}", "{0}", "{}", "{title.id}", "{title}" * 40]
)
def test_other_patterns_are_refused(wrong: str) -> None:
    with pytest.raises(PlacementError, match="not a pattern"):
        checked_pattern(wrong, FILE_FIELDS)


@given(st.text(max_size=60), st.text(max_size=20))
def test_no_name_leads_out_of_the_archive(text: str, title: str) -> None:
    path = file_path(text.replace("{", "").replace("}", "") + "{title}", {**VALUES, "title": title}, ".png")
    parts = path.split("/")
    assert parts and all(part and part not in (".", "..") for part in parts)
    assert re.fullmatch(r"[\w.,()+=@ /-]+", path, re.ASCII)


def test_equal_names_get_numbers() -> None:
    distinct = ArchiveNames(PACK_FILES, 5).distinct
    assert [distinct("a/b.png"), distinct("a/B.png"), distinct("a/b.png"), distinct("a/b.jpg"), distinct("a.b/c")] == [
        "a/b.png", "a/B-2.png", "a/b-3.png", "a/b.jpg", "a.b/c",
    ]  # fmt: skip


def test_numbers_sort_as_names() -> None:
    assert (numbered(3, 9), numbered(3, 100), numbered(100, 100)) == ("03", "003", "100")


def test_artworks_are_renamed_by_a_pattern() -> None:
    titles = [("Scan 1", "scan_1.png"), ("Scan 2", "scan_2.final.png")]
    assert renamed("Summit {number}", titles) == ["Summit 01", "Summit 02"]
    assert renamed("{title} ({file})", titles, "Scan", "Tarn") == ["Tarn 1 (scan_1)", "Tarn 2 (scan_2.final)"]
    assert renamed("{title}", titles, "Scan 1", "") == ["Artwork", "Scan 2"], "a title is never empty"
    with pytest.raises(PlacementError, match=r"\{file\}"):
        renamed("{name}", titles)
