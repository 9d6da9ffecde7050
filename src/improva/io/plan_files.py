"""Write a plan as CSV and as iCalendar."""

from __future__ import annotations

import csv
import hashlib
import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from ..core.csv_cells import text_cell
from ..core.plan import Day, Kind, Task

DOES: dict[Kind, str] = {
    "print": "Print", "press": "Press", "order": "Order", "fix": "Fix", "picture": "Make mock-ups", "list": "List",
}  # fmt: skip
COLUMNS = ("day", "task", "pieces", "minutes", "title", "why", "press", "temperature_c", "seconds")
FOLD_OCTETS = 75


@dataclass(frozen=True)
class SampleDay:
    """A sample on its way and the day on which it is expected."""

    id: int
    title: str
    provider: str
    day: date


def plan_csv(days: Sequence[Day], samples: Sequence[SampleDay]) -> str:
    """Return a plan as a table: a line for each task of each day, then the samples that are expected."""
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\r\n")
    table.writerow(COLUMNS)
    for day in days:
        for task in day.tasks:
            heat = (
                (text_cell(task.heat.method), f"{task.heat.temperature_c:g}", f"{task.heat.seconds:g}")
                if task.heat
                else ("", "", "")
            )
            told = (text_cell(task.title), text_cell(task.why))
            table.writerow((day.date.isoformat(), DOES[task.kind], task.count, f"{task.minutes:g}", *told, *heat))
    for sample in samples:
        told = (text_cell(sample.title), text_cell(sample.provider))
        table.writerow((sample.day.isoformat(), "Sample expected", 1, "", *told, "", "", ""))
    return out.getvalue()


def _escaped(text: str) -> str:
    """Escape a text value: RFC 5545, 3.3.11."""
    for plain, escaped in (("\\", "\\\\"), (";", "\\;"), (",", "\\,"), ("\r\n", "\\n"), ("\n", "\\n"), ("\r", "\\n")):
        text = text.replace(plain, escaped)
    return "".join(letter for letter in text if letter >= " " or letter == "\t")


def _folded(line: str) -> str:
    """Fold a content line to at most 75 octets, never within a character: RFC 5545, 3.1."""
    lines, now = [], ""
    for letter in line:
        if len((now + letter).encode()) > FOLD_OCTETS:
            lines.append(now)
            now = " "
        now += letter
    return "\r\n".join([*lines, now])


def _event(uid: str, day: date, summary: str, about: str, now: datetime) -> Iterator[str]:
    yield from (
        "BEGIN:VEVENT",
        f"UID:{hashlib.sha256(uid.encode()).hexdigest()[:24]}@improva.invalid",
        f"DTSTAMP:{now:%Y%m%dT%H%M%SZ}",
        f"DTSTART;VALUE=DATE:{day:%Y%m%d}",
        f"DTEND;VALUE=DATE:{day + timedelta(days=1):%Y%m%d}",
        f"SUMMARY:{_escaped(summary)}",
        *([f"DESCRIPTION:{_escaped(about)}"] if about else []),
        "TRANSP:TRANSPARENT",
        "END:VEVENT",
    )


def _summary(task: Task) -> str:
    pieces = f"{task.count} × " if task.count > 1 else ""
    return f"{DOES[task.kind]}: {pieces}{task.title}"


def plan_calendar(days: Sequence[Day], samples: Sequence[SampleDay], now: datetime) -> str:
    """Return a plan as iCalendar (RFC 5545): an all-day event for each task, and one for each sample that is expected.

    ``now`` in UTC. The same task on the same day keeps its UID, so that a calendar takes a newer plan over an older one.
    """
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Improva//Plan//EN", "CALSCALE:GREGORIAN"]
    for day in days:
        for task in day.tasks:
            about = "\n".join(filter(None, (f"{task.minutes:.0f} minutes", task.heat.title if task.heat else "", task.why)))
            uid = f"{day.date} {task.kind} {task.artwork_id} {task.template_id} {task.why}"
            lines += _event(uid, day.date, _summary(task), about, now)
    for sample in samples:
        lines += _event(f"sample {sample.id}", sample.day, f"Sample expected: {sample.title}", sample.provider, now)
    return "\r\n".join(_folded(line) for line in [*lines, "END:VCALENDAR"]) + "\r\n"
