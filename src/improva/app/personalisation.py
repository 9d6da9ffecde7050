"""Personalised designs: the places that an order fills, and the pair as it is for one order."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from ..core.errors import PieceError
from ..core.orders import fill_words, least_cap
from ..core.orders.personalisation import FIELD
from ..core.pieces import Lettering
from ..core.template import Panel
from ..core.words.font import open_font
from ..store.models.pieces import PIECES, FramesModel, LetteringModel
from .pair import Pair
from .services import Services

SHRUNK_FROM = 0.995
"""Words smaller than this share of their design's size are reported."""


@dataclass(frozen=True)
class OpenPlace:
    """A place in a design that an order fills; ``about`` is its content in the design itself."""

    name: str
    kind: Literal["words", "photograph"]
    panel: str
    about: str


def open_places(pair: Pair) -> list[OpenPlace]:
    """Return the places that an order fills: ``{names}`` in texts, and empty slots of frames."""
    places: dict[str, OpenPlace] = {}
    for panel in pair.template.panels:
        for body in PIECES.validate_python(list(pair.pieces_on(panel).stored)):
            if isinstance(body, LetteringModel):
                for name in FIELD.findall(body.text):
                    places.setdefault(
                        name.strip(), OpenPlace(name=name.strip(), kind="words", panel=panel.title, about=body.text)
                    )
            elif isinstance(body, FramesModel):
                for i, slot in enumerate(body.slots):
                    if slot.field:
                        places.setdefault(
                            slot.field,
                            OpenPlace(
                                name=slot.field, kind="photograph", panel=panel.title, about=f"picture {i + 1} in the frames"
                            ),
                        )
    return list(places.values())


def _filled(
    services: Services,
    pair: Pair,
    panel: Panel,
    value: Any,
    values: Mapping[str, str],
    photos: Mapping[str, int],
    notes: list[str],
) -> dict[str, Any]:
    """Fill one stored piece for an order; remarks to check are appended to ``notes``. Raises :class:`PieceError`."""
    if isinstance(value, FramesModel):
        slots = [
            slot.model_copy(update={"art": photos[slot.field], "focus": (0.5, 0.5), "zoom": 1.0})
            if slot.field in photos
            else slot
            for slot in value.slots
        ]
        return value.model_copy(update={"slots": slots}).model_dump()
    if isinstance(value, LetteringModel) and FIELD.search(value.text):
        lettering = value.to_core(lambda _: _nobody())
        assert isinstance(lettering, Lettering)
        least = least_cap(pair.template, lettering, value.least_caps)
        filled = fill_words(lettering, values, open_font(services.fonts.data(value.font)), panel, least)
        if filled.share < SHRUNK_FROM:
            notes.append(
                f"'{filled.lettering.text}' is set at {100 * filled.share:.0f} % of its size, with capitals of {filled.cap_mm:.2g} mm."
            )
        same = {"text": filled.lettering.text, "sizing": "size", "size_mm": filled.lettering.size_mm}
        return value.model_copy(update=same).model_dump()
    return value.model_dump()  # type: ignore[no-any-return]


def _nobody() -> Any:
    raise AssertionError("words need no artwork")


def pair_of_order(
    services: Services, pair: Pair, name: str, values: Mapping[str, str], photos: Mapping[str, int], quantity: int = 1
) -> tuple[Pair, list[str]]:
    """Return the pair as it is for an item of an order, and remarks to check.

    Raises:
        PieceError: words are too long, or letters are missing. It names every reason.
    """
    remarks, reasons = list[str](), list[str]()
    pieces: dict[str, list[dict[str, Any]]] = {}
    for panel_id, stored in pair.row.pieces.items():
        panel = pair.template.panel(panel_id)
        pieces[panel_id] = []
        for body in PIECES.validate_python(stored):
            try:
                pieces[panel_id].append(_filled(services, pair, panel, body, values, photos, remarks))
            except PieceError as problem:
                reasons.append(str(problem))
    if reasons:
        raise PieceError(" ".join(dict.fromkeys(reasons)))
    notes = "\n".join(part for part in (f"Order {name}", pair.row.printing.get("notes", "")) if part)
    row = replace(pair.row, pieces=pieces, printing={**pair.row.printing, "notes": notes, "copies": quantity})
    return services.pairs.assemble(pair.art, pair.template, row), remarks


def check_findings(services: Services, pair: Pair) -> tuple[list[str], list[str]]:
    """Run the checks on a pair. Return what must be fixed, and what is to be looked at."""
    failures, warnings = list[str](), list[str]()
    for panel in pair.printed:
        content = pair.content(panel)
        assert content is not None, "what is printed is laid"
        for check in services.preflight.check(pair, panel, content)["checks"]:
            said = f"{check['title']}: {check['message']}"
            if check["status"] in ("fail", "warn"):
                (failures if check["status"] == "fail" else warnings).append(said)
    return failures, warnings
