"""Orders as a table: one item per row, with a column for each open place. Rows with the same order number belong together."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..csv_cells import read_text_cell
from ..errors import ListingError

ORDER, QUANTITY = "order", "quantity"
"""Columns that hold an order's number, and how many of an item are wanted; the second may be missing, which means one each."""

MOST_ORDERS, MOST_BYTES, MOST_EACH = 500, 5_000_000, 999
"""Most items of a table, most bytes of it, and most pieces of one item."""

NAME = re.compile(r"[^\w.-]+")


@dataclass(frozen=True)
class Order:
    """One item of an order.

    Attributes:
        name: of the item, safe for file names and different from all others: the order's number, and where an order has
            several items the item's place in it too.
        values: of its open places.
        quantity: how many are wanted.
    """

    name: str
    values: dict[str, str]
    quantity: int = 1


@dataclass(frozen=True)
class OrderProblem:
    """An item that cannot be made, and every reason; ``line`` is its line in the table."""

    name: str
    line: int
    why: str


def _text(data: bytes) -> str:
    if len(data) > MOST_BYTES:
        raise ListingError("This table is too large: send up to 500 orders at once.")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace")  # the default encoding of many spreadsheets


def read_orders(data: bytes, fields: Sequence[str]) -> tuple[list[tuple[int, Order]], list[OrderProblem]]:
    """Read a CSV (RFC 4180; semicolons and tabs are accepted too).

    Args:
        data: the file. Its first line names the columns: ``order``, the open places, and ``quantity`` where it is not
            always 1.
        fields: the open places of the design.

    Returns:
        items with their lines, and rows that are none.

    Raises:
        ListingError: it is no table, a column is missing, or there are too many rows.
    """
    text = _text(data)
    head = text.split("\n", 1)[0]
    mark = max(",;\t", key=head.count)
    rows = csv.DictReader(io.StringIO(text, newline=""), delimiter=mark, restkey="")
    columns = {(name or "").strip().casefold(): name for name in rows.fieldnames or []}
    missing = [name for name in (ORDER, *fields) if name.casefold() not in columns]
    if missing:
        raise ListingError(f"The table has no column '{missing[0]}'. It needs: {', '.join((ORDER, *fields))}.")
    counted = columns.get(QUANTITY) if QUANTITY not in {field.casefold() for field in fields} else None
    items: list[tuple[int, str, Order]] = []
    problems: list[OrderProblem] = []
    try:
        for row in rows:
            values = {name: read_text_cell((row[columns[name.casefold()]] or "").strip()) for name in (ORDER, *fields)}
            number = NAME.sub("-", values.pop(ORDER)).strip("-.")[:60]
            if not number and not any(values.values()):
                continue
            quantity, reasons = _quantity((row[counted] or "").strip() if counted is not None else "")
            reasons = [*([] if number else ["It has no order number."]), *missing_values(values), *reasons]
            line = rows.line_num
            if reasons:
                problems.append(OrderProblem(number or f"line {line}", line, " ".join(reasons)))
            else:
                items.append((line, number, Order(number, values, quantity)))
    except csv.Error as wrong:
        raise ListingError(f"Line {rows.line_num} of the table cannot be read: {wrong}.") from wrong
    if len(items) > MOST_ORDERS:
        raise ListingError(f"{len(items)} orders are too many at once: send up to {MOST_ORDERS}.")
    names = item_names([number for _, number, _ in items])
    return [(line, replace(order, name=name)) for (line, _, order), name in zip(items, names, strict=True)], problems


def missing_values(values: Mapping[str, object]) -> list[str]:
    """Return the sentence that names all open places without a value, or nothing."""
    empty = [f"'{name}'" for name, value in values.items() if not value]
    return [f"Nothing is given for {' and '.join(filter(None, (', '.join(empty[:-1]), empty[-1])))}."] if empty else []


def _quantity(text: str) -> tuple[int, list[str]]:
    """Return a quantity, 1 where nothing is written, and the reason why a text is none."""
    if not text:
        return 1, []
    if re.fullmatch(r"[0-9]{1,4}", text) and 1 <= int(text) <= MOST_EACH:
        return int(text), []
    return 1, [f"The quantity '{text}' is not a whole number from 1 to {MOST_EACH}."]


def item_names(numbers: Sequence[str]) -> list[str]:
    """Return a name for each item: its order's number, with its place in the order where that has several items.

    Names are different in upper and lower case alike, for they become folders; ``1041-2`` may also be an order's own number.
    """
    total = Counter(number.casefold() for number in numbers)
    taken = {number.casefold() for number in numbers if total[number.casefold()] == 1}
    place: Counter[str] = Counter()
    names = []
    for number in numbers:
        key = number.casefold()
        name = number
        if total[key] > 1:
            place[key] += 1
            name = f"{number}-{place[key]}"
            while name.casefold() in taken:
                name = f"{name}-item"
            taken.add(name.casefold())
        names.append(name)
    return names
