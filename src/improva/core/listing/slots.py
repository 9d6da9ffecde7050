"""Suggest a listing's pictures and their order: the clearest first, at least one of each kind."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import islice
from typing import Literal, get_args

from ..mockup.scene import Region, SceneInfo

SlotKind = Literal["front", "side", "lifestyle", "detail", "size", "unprinted", "colour"]
KINDS: tuple[SlotKind, ...] = get_args(SlotKind)
"""Kinds of pictures, in the order in which a listing needs them. Common practice, no published source."""

NEEDED = {
    "front": "the front, as clear as can be",
    "side": "another side",
    "lifestyle": "the product where it is used",
    "detail": "a close-up of the print",
    "size": "its size, with measures",
    "unprinted": "what is not printed",
    "colour": "another colour that it is sold in",
}
MOST_COLOURS = 3

Offered = Mapping[str, Sequence[str]]
"""Names of the colours that the seller offers, by part of the blank. A part that is not in it comes in its usual colour only."""

MORE: tuple[SlotKind, ...] = ("lifestyle", "side", "colour", "size", "unprinted")
"""Kinds of which a listing shows more than one picture, in this order where their scenes are shown equally often."""


@dataclass(frozen=True)
class Slot:
    """A picture of a listing: a scene in a view and colours, perhaps a close-up or with measures."""

    kind: SlotKind
    scene_id: str
    view: str | None = None
    colours: dict[str, str] = field(default_factory=dict)
    measured: bool = False
    close: bool = False

    @property
    def shows(self) -> tuple[object, ...]:
        """Return what distinguishes the slot from others."""
        return self.scene_id, self.view, tuple(sorted(self.colours.items())), self.measured, self.close


@dataclass(frozen=True)
class Missing:
    """A kind of picture that a listing lacks, and a slot that would show it."""

    kind: SlotKind
    what: str
    offered: Slot


def sold_parts(info: SceneInfo) -> list[Region]:
    """Return the visible parts of the product that come in several colours: the cloth under a print, or unprinted parts."""
    beneath = {r.on for r in info.regions}
    return [
        r
        for r in info.regions
        if r.panel is None and not r.around and len(r.colours) > 1 and (info.unprinted or r.id in beneath)
    ]


def _candidates(scenes: Sequence[SceneInfo], printed: set[str], offered: Offered) -> dict[SlotKind, list[Slot]]:
    lead = scenes[0]
    front = next(iter(lead.views))
    lived = [s for s in scenes if s.kind == "lifestyle" and any(r.panel in printed for r in s.regions)]
    bare = [s for s in scenes if s.unprinted or any(r.panel and r.panel not in printed for r in s.regions)]
    sides = [
        Slot("side", info.id, view)
        for info in scenes
        if info.kind not in ("lifestyle", "detail")
        for view in info.views
        if (info.id, view) != (lead.id, front)
    ]
    sides = [slot for slot in sides if slot.view != front] or sides
    sides.sort(key=lambda slot: slot.scene_id != lead.id)
    dressed = [s for s in scenes if s.kind != "detail"]
    near = [s for s in scenes if s.kind == "detail" and any(r.panel in printed for r in s.regions)]
    return {
        "front": [Slot("front", lead.id, front)],
        "side": sides,
        "lifestyle": [Slot("lifestyle", s.id, next(iter(s.views))) for s in lived],
        "detail": [Slot("detail", s.id, next(iter(s.views))) for s in near] or [Slot("detail", lead.id, front, close=True)],
        "size": [Slot("size", s.id, next(iter(s.views)), measured=True) for s in scenes if s.measures],
        "unprinted": [Slot("unprinted", s.id, list(s.views)[-1] if not s.turns else next(iter(s.views))) for s in bare],
        "colour": [Slot("colour", s.id, next(iter(s.views)), chosen) for s in dressed for chosen in _dresses(s, offered)],
    }


def _dresses(info: SceneInfo, offered: Offered) -> Iterable[dict[str, str]]:
    """Return other offered colours of the part that is offered in most: a garment before its cords."""

    def others(part: Region) -> list[str]:
        usual = part.colours.get(part.default or "", part.default)
        return [name for name in offered.get(part.id, ()) if name in part.colours and part.colours[name] != usual]

    choices = {part.id: others(part) for part in sold_parts(info)}
    part = max(choices, key=lambda name: len(choices[name]), default="")
    return ({part: name} for name in islice(choices.get(part, ()), MOST_COLOURS))


def proposed_slots(scenes: Sequence[SceneInfo], printed: set[str], most: int, offered: Offered) -> list[Slot]:
    """Suggest the pictures of a listing: one of each possible kind, then more, of the scenes that are shown least.

    Args:
        scenes: of the blank, the one it is shown in at first first.
        printed: panels that carry something.
        most: how many pictures there may be.
        offered: colours that the seller offers; no other ones are pictured.
    """
    if not scenes:
        return []
    among = _candidates(scenes, printed, offered)
    slots: list[Slot] = []

    def used(slot: Slot) -> tuple[int, int]:
        """How often a slot's scene, and its colours, are shown already: pictures of other sets and colours are more worth seeing."""
        colours = sum(slot.colours != {} and slot.colours == other.colours for other in slots)
        return sum(slot.scene_id == other.scene_id for other in slots), colours

    def take(kinds: Iterable[SlotKind]) -> bool:
        left = [slot for kind in kinds for slot in among[kind] if all(slot.shows != other.shows for other in slots)]
        if left and len(slots) < most:
            slots.append(min(left, key=used))
        return bool(left) and len(slots) < most

    for kind in KINDS:
        take([kind])
    while take(MORE):
        pass
    return slots


def not_offered(slots: Sequence[Slot], scenes: Sequence[SceneInfo], offered: Offered) -> list[str]:
    """Return what slots show and the seller does not offer, for example ``Handle in Pine``."""
    parts = {part.id: part for info in scenes for part in sold_parts(info)}
    shown = {(part, name) for slot in slots for part, name in slot.colours.items() if part in parts}
    return [
        f"{parts[part].title} in {name}"
        for part, name in sorted(shown)
        if name not in offered.get(part, (parts[part].default or "",))
    ]


def missing_kinds(slots: Sequence[Slot], scenes: Sequence[SceneInfo], printed: set[str], offered: Offered) -> list[Missing]:
    """Return the possible kinds that no slot shows, each with a slot that does.

    One picture can be of several kinds: a front with what is not printed beside it shows both.
    """
    if not scenes:
        return []
    among = _candidates(scenes, printed, offered)
    shown = {slot.kind for slot in slots} | {
        kind for slot in slots for kind, group in among.items() if any(slot.shows == other.shows for other in group)
    }
    return [Missing(kind, NEEDED[kind], among[kind][0]) for kind in KINDS if kind not in shown and among[kind]]
