"""Orders as a table: one per row, with a column for each open place."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass

from ..csv_cells import read_text_cell
from ..errors import ListingError

ORDER = "order"
"""Column that holds the name of an order."""

MOST_ORDERS, MOST_BYTES = 500, 5_000_000
NAME = re.compile(r"[^\w.-]+")


@dataclass(frozen=True)
class Order:
    """One order: its name, safe for file names, and the values of its open places."""

    name: str
    values: dict[str, str]


@dataclass(frozen=True)
class OrderProblem:
    """An order that cannot be made, and the reason; ``line`` is its line in the table."""

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
        data: the file. Its first line names the columns: ``order`` and the open places.
        fields: the open places of the design.

    Returns:
        orders with their lines, and rows that are none.

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
    orders: list[tuple[int, Order]] = []
    problems: list[OrderProblem] = []
    seen: set[str] = set()
    try:
        for row in rows:
            values = {name: read_text_cell((row[columns[name.casefold()]] or "").strip()) for name in (ORDER, *fields)}
            name = NAME.sub("-", values.pop(ORDER)).strip("-.")[:60]
            empty = [field for field, value in values.items() if not value]
            if not name and len(empty) == len(fields):
                continue
            line = rows.line_num
            if not name:
                problems.append(OrderProblem(f"line {line}", line, "It has no order number."))
            elif name.casefold() in seen:
                problems.append(OrderProblem(name, line, "Another line has this order number."))
            elif empty:
                problems.append(OrderProblem(name, line, f"Nothing is given for '{empty[0]}'."))
            else:
                seen.add(name.casefold())
                orders.append((line, Order(name, values)))
    except csv.Error as wrong:
        raise ListingError(f"Line {rows.line_num} of the table cannot be read: {wrong}.") from wrong
    if len(orders) > MOST_ORDERS:
        raise ListingError(f"{len(orders)} orders are too many at once: send up to {MOST_ORDERS}.")
    return orders, problems
