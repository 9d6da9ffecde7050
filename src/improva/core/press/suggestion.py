"""Suggest press settings from the log by a stated rule, and name the entries that support them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..errors import PressError
from .faults import FAULT_IDS
from .figures import COOLEST_C, LONGEST_S, Figures

Result = Literal["good", "usable", "spoiled"]

RULE = (
    "The settings of the newest pressing of this blank in this press that came out good; where none did, those of the newest; "
    "before the first, the maker's figures or else common practice. If the newest pressing had these very settings and a fault "
    "that settings correct, they move by one step: pale: a tenth longer; scorched: 5 °C less; lines: a tenth shorter and one step "
    "lighter. Where the maker's figures are known they win, unless you choose your log's."
)


@dataclass(frozen=True)
class Pressing:
    """One log entry with the settings that were used."""

    id: int
    on: str
    figures: Figures
    result: Result
    faults: tuple[str, ...] = ()
    note: str = ""

    def __post_init__(self) -> None:
        unknown = [fault for fault in self.faults if fault not in FAULT_IDS]
        if unknown:
            raise PressError(f"The fault '{unknown[0]}' is not known: choose of {', '.join(FAULT_IDS)}.")


@dataclass(frozen=True)
class Suggestion:
    """Suggested settings, the reason, and the ids of the log entries that support them."""

    figures: Figures
    why: tuple[str, ...]
    evidence: tuple[int, ...]


LIGHTER = {"firm": "medium", "medium": "light", "light": "light"}


def _moved(figures: Figures, fault: str) -> tuple[Figures, str] | None:
    if fault == "pale":
        longer = {name: min(LONGEST_S, round(getattr(figures, name) * 1.1)) for name in ("main_s", "side_s", "end_s")}
        return figures.changed(**longer), "it came out pale, so a tenth longer"
    if fault == "scorched":
        return figures.changed(temperature_c=max(COOLEST_C, figures.temperature_c - 5)), "it was scorched, so 5 °C less"
    if fault == "lines":
        shorter = {name: round(getattr(figures, name) * 0.9) for name in ("main_s", "side_s", "end_s")}
        return figures.changed(**shorter, pressure=LIGHTER[figures.pressure]), "it had lines, so a tenth shorter and lighter"
    return None


def _same(one: Figures, other: Figures) -> bool:
    return all(
        getattr(one, name) == getattr(other, name) for name in ("temperature_c", "main_s", "side_s", "end_s", "pressure")
    )


def suggest(log: list[Pressing], start: Figures) -> Suggestion:
    """Return the settings that :data:`RULE` derives from a log.

    Args:
        log: pressings of one blank and finish in one press, the newest first.
        start: the maker's figures, or common practice.
    """
    good = next((entry for entry in log if entry.result == "good"), None)
    if good is not None:
        count = sum(entry.result == "good" for entry in log)
        figures = good.figures.changed(source="log", note=f"pressed on {good.on}, came out good")
        why = [f"{count} of {len(log)} pressings came out good; the newest of them, on {good.on}, by these settings."]
        evidence = [good.id]
    else:
        figures, why, evidence = start, [], []
    newest = log[0] if log else None
    if newest is None or newest is good:
        return Suggestion(figures, tuple(why), tuple(evidence))
    if good is None:
        figures = newest.figures.changed(source="log", note=f"from the pressing on {newest.on}")
        why = [f"None of {len(log)} pressings came out good yet; from the newest, on {newest.on}."]
    if not _same(figures, newest.figures):
        why.append(f"The newest pressing, on {newest.on}, tried others and came out {newest.result}.")
        return Suggestion(figures, tuple(why), (*evidence, newest.id))
    for fault in newest.faults:
        moved = _moved(figures, fault)
        if moved is not None:
            figures, reason = moved[0].changed(source="log"), moved[1]
            why.append(f"The newest pressing, on {newest.on}: {reason}.")
    evidence.append(newest.id)
    return Suggestion(figures, tuple(why), tuple(evidence))
