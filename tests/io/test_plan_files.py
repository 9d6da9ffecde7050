"""A plan as CSV and as iCalendar; the calendar is read back by the rules of RFC 5545, written out here."""

import csv
import io
from datetime import UTC, date, datetime

from improva.core.plan import Day, Heat, Task
from improva.io.plan_files import COLUMNS, SampleDay, plan_calendar, plan_csv

NOW = datetime(2026, 11, 30, 8, 5, 9, tzinfo=UTC)
CUP = Heat("Tumbler press", 196.1, 170, "light")
LONG = "Abendrot über dem Karsee, groß; " * 5 + "Ende"
DAYS = [
    Day(
        date(2026, 11, 30),
        (Task("press", 1, "cup", LONG, 3, 5.5, "order A-1, A-2", CUP), Task("list", 2, "mug", "=1+1", 1, 10)),
    ),
    Day(date(2026, 12, 1), (Task("press", 1, "cup", LONG, 2, 5.5, "order A-1, A-2", CUP),)),
]
SAMPLES = [SampleDay(4, "Tarn on mug", "Print works", date(2026, 12, 4))]


def test_the_table_has_a_line_for_each_task_and_sample() -> None:
    rows = list(csv.reader(io.StringIO(plan_csv(DAYS, SAMPLES))))
    assert tuple(rows[0]) == COLUMNS and len(rows) == 5
    assert rows[1] == ["2026-11-30", "Press", "3", "16.5", LONG, "order A-1, A-2", "Tumbler press", "196.1", "170"]
    assert rows[2][4] == "'=1+1", "no spreadsheet computes a title"
    assert rows[4][:2] == ["2026-12-04", "Sample expected"]


def events(text: str) -> list[dict[str, str]]:
    """Unfold (3.1), split into properties (3.1), and unescape texts (3.3.11)."""
    assert text.endswith("\r\n") and all(len(line.encode()) <= 75 for line in text.split("\r\n"))
    found: list[dict[str, str]] = []
    for line in text.replace("\r\n ", "").split("\r\n"):
        name, _, value = line.partition(":")
        if line == "BEGIN:VEVENT":
            found.append({})
        elif found and name != "END":
            found[-1][name] = value.replace("\\n", "\n").replace("\\,", ",").replace("\\;", ";").replace("\\\\", "\\")
    return found


def test_the_calendar_has_an_event_for_each_task_and_sample() -> None:
    text = plan_calendar(DAYS, SAMPLES, NOW)
    assert text.startswith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:")
    found = events(text)
    assert len(found) == 4
    first = found[0]
    assert first["SUMMARY"] == f"Press: 3 × {LONG}"
    assert (first["DTSTART;VALUE=DATE"], first["DTEND;VALUE=DATE"]) == ("20261130", "20261201"), "the end is exclusive (3.6.1)"
    assert first["DTSTAMP"] == "20261130T080509Z"
    assert first["DESCRIPTION"] == "16 minutes\nTumbler press, 196 °C, 170 s\norder A-1, A-2"
    assert found[-1]["SUMMARY"] == "Sample expected: Tarn on mug"


def test_events_keep_their_ids_and_have_their_own() -> None:
    ids = [event["UID"] for event in events(plan_calendar(DAYS, SAMPLES, NOW))]
    assert len(set(ids)) == 4
    assert ids == [event["UID"] for event in events(plan_calendar(DAYS, SAMPLES, datetime(2027, 1, 1, tzinfo=UTC)))]


def test_line_ends_in_a_title_do_not_break_the_calendar() -> None:
    day = Day(date(2026, 11, 30), (Task("list", 1, "mug", "a\r\nEND:VEVENT\x07", 1, 10),))
    (event,) = events(plan_calendar([day], [], NOW))
    assert event["SUMMARY"] == "List: a\nEND:VEVENT"
