"""The seller's list of order items: taken from what jobs made, and moved on as buyers approve their proofs."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from ..core.errors import ListingError
from ..store.database import key_of
from ..store.order_items import ItemRow, NewItem, ProofState
from .pair import Pair
from .services import Services


def design_key(pair: Pair) -> str:
    """Return a hash of what a proof shows of the design itself, without what an order puts into it."""
    return key_of("design", pair.art.sha256, pair.template_key, pair.placement_key)


def order_items(services: Services, pair: Pair | None = None) -> list[ItemRow]:
    """Return the items of a pair or of all pairs, with those of jobs that have just ended."""
    table = services.store.order_items
    for job in table.unread():
        file = services.store.made_files.named(job.files[0]) if job.files else None
        report = file[1].with_suffix(".json") if file else None
        told = json.loads(report.read_bytes()) if report and report.exists() else {}
        made, parts = set(told.get("made", ())), job.parameters.get("parts", "all")
        found = [
            NewItem(
                order["name"],
                order.get("quantity", 1),
                {"values": order["values"], "photos": order["photos"]},
                told.get("design", ""),
                parts == "proofs",
            )
            for order in job.parameters["orders"]
            if order["name"] in made and parts != "prints"
        ]
        table.take_in(job, found)
    return table.all(*pair.ids) if pair else table.all()


def put_state(services: Services, ids: Sequence[int], state: ProofState, words: str) -> None:
    """Note how far items have come.

    Raises:
        ListingError: changes are asked for, and nothing says which.
    """
    words = words.strip() if state == "changes" else ""
    if state == "changes" and not words:
        raise ListingError("Write down which changes the buyer asks for.")
    services.store.order_items.put_state(ids, state, words)


def approved_orders(services: Services, pair: Pair) -> list[dict[str, Any]]:
    """Return the approved items whose print files were held, as orders of a job.

    Raises:
        ListingError: there are none, or the design is another one than their buyers approved.
    """
    items = [item for item in order_items(services, pair) if item.held and item.state == "approved"]
    if not items:
        raise ListingError("No held item is approved yet.")
    if other := [item.name for item in items if item.design != design_key(pair)]:
        raise ListingError(
            f"The design has changed since the proof of {', '.join(other[:8])}{' and others' if len(other) > 8 else ''} was made: "
            "make the proof again, or undo the change."
        )
    return [{"name": item.name, "quantity": item.quantity, **item.contents} for item in reversed(items)]
