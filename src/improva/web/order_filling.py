"""A pair's design with its open places, and the pair as it is for one order."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from ..core.errors import BadPiece
from ..core.orders import filled_words, least_cap
from ..core.orders.filling import FIELD
from ..core.pieces import Lettering
from ..core.template import Panel
from ..core.words.font import open_font
from .desk import Desk
from .order_shapes import OpenPlace
from .piece_shapes import PIECES, FramesBody, LetteringBody
from .work import Work

SHRUNK_FROM = 0.995
"""Words at less than this share of their design's size are told to be smaller."""


def open_places(work: Work) -> list[OpenPlace]:
    """The places in a pair's design that an order fills: ``{names}`` in words, and slots of frames that were left open."""
    found: dict[str, OpenPlace] = {}
    for panel in work.template.panels:
        for body in PIECES.validate_python(list(work.laid_on(panel).kept)):
            if isinstance(body, LetteringBody):
                for name in FIELD.findall(body.text):
                    found.setdefault(
                        name.strip(), OpenPlace(name=name.strip(), kind="words", panel=panel.title, about=body.text)
                    )
            elif isinstance(body, FramesBody):
                for i, slot in enumerate(body.slots):
                    if slot.field:
                        found.setdefault(
                            slot.field,
                            OpenPlace(
                                name=slot.field, kind="photograph", panel=panel.title, about=f"picture {i + 1} in the frames"
                            ),
                        )
    return list(found.values())


def _filled(
    desk: Desk, work: Work, panel: Panel, kept: Any, values: Mapping[str, str], photos: Mapping[str, int], told: list[str]
) -> dict[str, Any]:
    """One kept piece as it is for an order; ``told`` takes what is to be seen. Raises :class:`BadPiece`."""
    if isinstance(kept, FramesBody):
        slots = [slot.model_copy(update={"art": photos[slot.field], "focus": (0.5, 0.5), "zoom": 1.0}) if slot.field in photos else slot
                 for slot in kept.slots]  # fmt: skip
        return kept.model_copy(update={"slots": slots}).model_dump()
    if isinstance(kept, LetteringBody) and FIELD.search(kept.text):
        lettering = kept.to_core(lambda _: _nobody())
        assert isinstance(lettering, Lettering)
        least = least_cap(work.template, lettering, kept.least_caps)
        filled = filled_words(lettering, values, open_font(desk.font(kept.font)), panel, least)
        if filled.share < SHRUNK_FROM:
            told.append(
                f"'{filled.lettering.text}' is set at {100 * filled.share:.0f} % of its size, with capitals of {filled.cap_mm:.2g} mm."
            )
        same = {"text": filled.lettering.text, "sizing": "size", "size_mm": filled.lettering.size_mm}
        return kept.model_copy(update=same).model_dump()
    return kept.model_dump()  # type: ignore[no-any-return]


def _nobody() -> Any:
    raise AssertionError("words need no artwork")


def work_for(desk: Desk, work: Work, name: str, values: Mapping[str, str], photos: Mapping[str, int]) -> tuple[Work, list[str]]:
    """A pair as it is for one order, and what is to be seen about it.

    Raises:
        BadPiece: words are too long, or a letter is missing.
    """
    told: list[str] = []
    pieces = {}
    for panel_id, kept in work.row.pieces.items():
        panel = work.template.panel(panel_id)
        pieces[panel_id] = [_filled(desk, work, panel, body, values, photos, told) for body in PIECES.validate_python(kept)]
    notes = "\n".join(part for part in (f"Order {name}", work.row.printing.get("notes", "")) if part)
    row = replace(work.row, pieces=pieces, printing={**work.row.printing, "notes": notes})
    return desk.pair(work.art, work.template, row), told


def check_for(desk: Desk, work: Work) -> list[str]:
    """What the checks say to a pair; raises :class:`BadPiece` with the first that stops it."""
    told = []
    for panel in work.printed:
        laying = work.laying(panel)
        assert laying is not None, "what is printed is laid"
        for check in desk.judge(work, panel, laying)["checks"]:
            if check["status"] == "fail":
                raise BadPiece(f"{check['title']}: {check['message']}")
            if check["status"] == "warn":
                told.append(f"{check['title']}: {check['message']}")
    return told
