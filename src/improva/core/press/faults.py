"""Pressing faults and their likely causes, in order. Common practice, no published source."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Cause:
    """A cause and what to do about it."""

    why: str
    do: str


@dataclass(frozen=True)
class Fault:
    """A visible fault with its causes, the likeliest first."""

    id: str
    title: str
    looks: str
    causes: tuple[Cause, ...]


FAULTS: tuple[Fault, ...] = (
    Fault(
        "ghosting",
        "Ghosting",
        "a second, faint copy beside the print",
        (
            Cause("The paper moved while it was hot.", "Tape it firmer, and take it off in one pull without sliding."),
            Cause("Air lay between paper and blank.", "Smooth it outward from the middle before taping; tape rim and foot."),
            Cause("The paper was lifted and laid back.", "Peek at one corner only, and hold the rest down."),
        ),
    ),
    Fault(
        "lines",
        "Lines, or paper sticks",
        "edges of paper or tape stand in the print; the paper comes off in shreds",
        (
            Cause("Too much pressure.", "Press lighter: just enough that nothing moves."),
            Cause("Too long under heat.", "Take a tenth of the time off."),
            Cause(
                "The paper's edge lay on the print.",
                "Use paper larger than the print and tear its edges instead of cutting them.",
            ),
        ),
    ),
    Fault(
        "pale",
        "Pale",
        "colours weak all over or at the ends",
        (
            Cause("Too little time.", "Press a tenth longer, or once more after a peek."),
            Cause("Too little heat at the blank.", "Let the press warm through, and measure the heat at the platen."),
            Cause("The ends of the blank draw heat away.", "Press the bottom and the top in turn."),
            Cause("The print was made for the wrong side of the paper or with plain ink.", "Check paper and ink."),
        ),
    ),
    Fault(
        "scorched",
        "Scorched",
        "whites yellow, blacks brownish",
        (
            Cause("Too much heat.", "Go down by 5 °C."),
            Cause("Too long under heat.", "Take a tenth of the time off."),
        ),
    ),
    Fault(
        "seam",
        "Seam missed",
        "a bare line where the ends meet",
        (
            Cause("The ends do not press.", "Press with the seam down first, and once more with the seam up."),
            Cause("The print is shorter than the blank is round.", "Measure the blank round, and set its template by it."),
            Cause("The ends were cut crooked.", "Trim along the marks, flush at the end without the tab."),
        ),
    ),
    Fault(
        "specks",
        "Specks",
        "small bare or blue dots",
        (
            Cause("Lint or dust under the paper.", "Wipe the blank and roll the cloth just before taping."),
            Cause("Damp that boils out.", "Press the bare cloth for some seconds first; keep paper dry."),
            Cause("Dust baked on the platen.", "Clean the cold platen and use fresh cover paper."),
        ),
    ),
)

_BY_ID = {fault.id: fault for fault in FAULTS}
FAULT_IDS = tuple(_BY_ID)


def likely_causes(fault_ids: tuple[str, ...]) -> list[tuple[Fault, Cause]]:
    """Return the causes of several faults in one order: every fault's first cause, then every second one, and so on."""
    faults = [_BY_ID[i] for i in dict.fromkeys(fault_ids) if i in _BY_ID]
    most = max((len(fault.causes) for fault in faults), default=0)
    return [(fault, fault.causes[n]) for n in range(most) for fault in faults if n < len(fault.causes)]
