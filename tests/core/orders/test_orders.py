"""Order tables as spreadsheets export them, and words that are longer than their place."""

import csv
import io
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.catalogue import template
from improva.core.csv_cells import read_text_cell, text_cell
from improva.core.errors import ListingError, PieceError
from improva.core.orders import fill_words, read_orders
from improva.core.orders.rows import item_names
from improva.core.pieces import Lettering, lettering_shape
from improva.core.words import WordPath
from improva.core.words.font import open_font
from improva.fonts import font_bytes

BLANK = template("mug-11oz")
PANEL = BLANK.panel()
FONT = open_font(font_bytes("poster"))
FIELDS = ["name", "photo"]


def read(text: str, fields: list[str] | None = None) -> tuple[dict[str, dict[str, Any]], dict[str, str]]:
    orders, problems = read_orders(text.encode(), FIELDS if fields is None else fields)
    return {order.name: order.values for _, order in orders}, {p.name: p.why for p in problems}


@pytest.mark.parametrize("mark", [",", ";", "\t"])
def test_tables_with_any_separator_and_column_order_are_read(mark: str) -> None:
    text = mark.join(["Photo", "ORDER", "note", "Name"]) + "\r\n" + mark.join(["ada.jpg", "1041", "gift", "Ada"]) + "\r\n"
    assert read(text) == ({"1041": {"name": "Ada", "photo": "ada.jpg"}}, {})
    assert read_orders(("﻿" + text).encode(), FIELDS)[0][0][0] == 2, "the line is told as a spreadsheet counts it"
    assert read_orders(text.replace("Ada", "Zoë").encode("cp1252"), FIELDS)[0][0][1].values["name"] == "Zoë"


def test_a_bad_row_is_reported_with_every_reason_and_the_rest_is_read() -> None:
    orders, problems = read("order,name,photo\n1,Ada,a.jpg\n,Bo,b.jpg\n2,,c.jpg\n5,,\n\n3,Di,e.jpg\n,,\n../4,Ed,f.jpg\n")
    assert list(orders) == ["1", "3", "4"], "a name is safe as a folder's"
    assert problems == {
        "line 3": "It has no order number.",
        "2": "Nothing is given for 'name'.",
        "5": "Nothing is given for 'name' and 'photo'.",
    }


def test_an_order_holds_several_items_with_quantities() -> None:
    """No item is dropped: each gets a name of its own."""
    table = "order,name,Quantity\n1041,Ada,\n1042,Bo,2\n1042,Cy,1\n1043,Di,0\n1044,Ed,many\n1045,,1.5\n"
    orders, problems = read_orders(table.encode(), ["name"])
    assert [(o.name, o.values["name"], o.quantity) for _, o in orders] == [
        ("1041", "Ada", 1),
        ("1042-1", "Bo", 2),
        ("1042-2", "Cy", 1),
    ]
    assert {p.name: p.why for p in problems} == {
        "1043": "The quantity '0' is not a whole number from 1 to 999.",
        "1044": "The quantity 'many' is not a whole number from 1 to 999.",
        "1045": "Nothing is given for 'name'. The quantity '1.5' is not a whole number from 1 to 999.",
    }


@given(st.lists(st.sampled_from(["7", "A", "a", "7-1", "7-2", "A-1", "7-1-item"]), max_size=12))
def test_items_have_names_of_their_own(numbers: list[str]) -> None:
    names = item_names(numbers)
    assert len({name.casefold() for name in names}) == len(numbers)
    assert all(name.startswith(number) for name, number in zip(names, numbers, strict=True))


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "no column 'order'"),
        (b"order,name\n1,Ada\n", "no column 'photo'"),
        (b"\x89PNG\r\n\x1a\n\x00\x00", "no column"),
        (b"order,name,photo\n" + b"".join(b"%d,A,b\n" % i for i in range(501)), "501 orders"),
        (b"x" * 5_000_001, "too large"),
    ],
)
def test_a_file_that_is_not_an_order_table_is_refused(data: bytes, said: str) -> None:
    with pytest.raises(ListingError, match=said):
        read_orders(data, FIELDS)


@given(
    st.lists(
        st.tuples(st.integers(1, 10**6), st.text(st.characters(exclude_categories=["Cs", "Cc"]), min_size=1, max_size=20)),
        max_size=20,
        unique_by=lambda row: row[0],
    )
)
def test_tables_written_by_the_csv_module_are_read_back(rows: list[tuple[int, str]]) -> None:
    out = io.StringIO()
    written = csv.writer(out)
    written.writerow(["order", "name"])
    written.writerows(rows)
    orders, problems = read_orders(out.getvalue().encode(), ["name"])
    told = {order.name: order.values["name"] for _, order in orders}
    assert told == {str(number): name.strip() for number, name in rows if name.strip()}
    assert len(problems) == sum(1 for _, name in rows if not name.strip())


def words(text: str = "For {name}", **more: Any) -> Lettering:
    return Lettering(text, "poster", sizing="width", width_mm=60, **more)


def test_a_short_name_keeps_the_designs_size_and_a_long_one_is_made_smaller_to_fit() -> None:
    own = lettering_shape(words(), FONT)
    short = fill_words(words(), {"name": "Jo"}, FONT, PANEL, 1.0)
    assert short.share == 1 and short.cap_mm == pytest.approx(own.cap_mm)
    assert lettering_shape(short.lettering, FONT).cap_mm == pytest.approx(own.cap_mm) and short.lettering.text == "For Jo"
    long = fill_words(words(), {"name": "Maximiliane Wilhelmina"}, FONT, PANEL, 1.0)
    assert long.share < 1 and lettering_shape(long.lettering, FONT).words[0] == pytest.approx(60, rel=1e-3)
    assert long.cap_mm == pytest.approx(own.cap_mm * long.share)
    assert lettering_shape(long.lettering, FONT).cap_mm == pytest.approx(long.cap_mm, rel=1e-3)


def test_too_long_a_name_and_a_letter_that_the_font_lacks_are_refused() -> None:
    with pytest.raises(PieceError, match="too long"):
        fill_words(words(), {"name": "Maximiliane Wilhelmina " * 3}, FONT, PANEL, 5.0)
    with pytest.raises(PieceError, match="The font has no"):
        fill_words(words(), {"name": "雪"}, FONT, PANEL, 1.0)


@given(st.text("abcdefgh ", min_size=1, max_size=60))
def test_no_name_exceeds_its_width_or_grows(name: str) -> None:
    try:
        filled = fill_words(words(), {"name": name}, FONT, PANEL, 0.1)
    except PieceError:
        return
    assert lettering_shape(filled.lettering, FONT).words[0] <= 60.01 and 0 < filled.share <= 1


def test_words_set_by_size_may_fill_the_safe_width_and_keep_their_size_on_a_circle() -> None:
    by_size = Lettering("{name}", "poster", sizing="size", size_mm=20)
    filled = fill_words(by_size, {"name": "Bartholomew the very long " * 2}, FONT, PANEL, 0.5)
    assert lettering_shape(filled.lettering, FONT).words[0] == pytest.approx(PANEL.safe_box[2], rel=1e-3)
    round_ = Lettering("{name}", "poster", sizing="size", size_mm=8, width_mm=60, path=WordPath("circle"))
    assert fill_words(round_, {"name": "Ada of the pass"}, FONT, PANEL, 0.5).share == 1


@pytest.mark.parametrize("text", ["=1+1", "+49", "-5", "@cmd", "=HYPERLINK(0)", "'quoted", "plain", ""])
def test_cells_that_a_spreadsheet_would_compute_are_written_as_text(text: str) -> None:
    """OWASP, CSV Injection: a cell must not begin with =, +, - or @; with an apostrophe before it, it is text."""
    cell = text_cell(text)
    assert cell[:1] not in ("=", "+", "-", "@") and read_text_cell(cell) == text
