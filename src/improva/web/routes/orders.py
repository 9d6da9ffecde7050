"""Personalised orders, from a table or by hand: a print file, proofs and a ticket for each."""

from __future__ import annotations

import json
from dataclasses import asdict
from typing import Any

from ...app.foreign_files import read_orders_table
from ...app.order_items import approved_orders, order_items, put_state
from ...app.orders import Parts, example_table, orders_with_photos
from ...app.pair import Pair
from ...app.personalisation import OpenPlace, open_places
from ...core.errors import ListingError
from ...core.orders import OrderProblem, missing_values
from ...core.output import slug
from ...store.models.orders import OrderIssueModel
from ..context import jobs, load_pair, services
from ..presenters.jobs import job_out
from ..presenters.orders import items_out
from ..routing import Routes
from ..schemas.common import PAIR_AT, PairPath
from ..schemas.orders import ItemStateIn, OpenPlaceOut, OrderIn, OrderItemsOut, OrdersForm, OrdersStateOut
from ..schemas.printing import JobOut

api = Routes("orders")


def _load(path: PairPath) -> tuple[Pair, list[OpenPlace]]:
    pair = load_pair(path)
    return pair, open_places(pair)


def _start(
    pair: Pair, orders: list[dict[str, Any]], problems: list[OrderProblem], parts: Parts, what: str = ""
) -> dict[str, Any]:
    issues = [
        OrderIssueModel(name=p.name, why=f"line {p.line}: {p.why}" if p.line else p.why, made=False).model_dump()
        for p in problems
    ]
    if not orders:
        raise ListingError(
            f"None of these orders can be made. {issues[0]['name']}: {issues[0]['why']}"
            if issues
            else "There is no order in this table."
        )
    parameters = {**pair.job_parameters, "orders": orders, "issues": issues, "parts": parts}
    title = f"{len(orders)} {what}{'order' if len(orders) == 1 else 'orders'} of {pair.title}"
    return job_out(services, jobs.start("orders", parameters, title, *pair.ids)).model_dump()


def _check_open_places(places: list[OpenPlace]) -> None:
    if not places:
        raise ListingError(
            "This design has no open place: write {name} in its words, or leave a slot of its frames open for a photograph."
        )


@api.get(f"{PAIR_AT}/orders", responses={200: OrdersStateOut})
def get_orders(path: PairPath) -> dict[str, Any]:
    """Return the places that an order fills, and the results of the last orders."""
    pair, places = _load(path)
    issues, count = list[OrderIssueModel](), 0
    last = next((row for row in jobs.table.of_pair(*pair.ids) if row.kind == "orders" and row.state == "done"), None)
    file = services.store.made_files.named(last.files[0]) if last and last.files else None
    if file is not None and (report := file[1].with_suffix(".json")).exists():
        stored = json.loads(report.read_bytes())
        issues, count = [OrderIssueModel.model_validate(each) for each in stored["issues"]], len(stored["made"])
    return OrdersStateOut(
        places=[OpenPlaceOut(**asdict(place)) for place in places],
        example=example_table(places),
        issues=issues,
        made=count,
        held=last is not None and last.parameters.get("parts", "all") != "all",
        items=items_out(services, order_items(services, pair)),
    ).model_dump()


@api.post(f"{PAIR_AT}/orders", responses={200: JobOut})
def make_orders(path: PairPath, form: OrdersForm) -> dict[str, Any]:
    """Start a job for a table of orders. Raises :class:`ListingError` for a table that cannot be read."""
    pair, places = _load(path)
    _check_open_places(places)
    rows, problems = read_orders_table(services.reader, form.file.stream.read(), [place.name for place in places])
    photos = {file.filename or "": file.stream.read() for file in form.photos}
    orders, more = orders_with_photos(services, places, rows, photos)
    return _start(pair, orders, [*problems, *more], "proofs" if form.held else "all")


@api.post(f"{PAIR_AT}/order", responses={200: JobOut})
def make_order(path: PairPath, body: OrderIn) -> dict[str, Any]:
    """Start a job for one order that was filled in by hand.

    Raises :class:`ListingError` where a field is empty.
    """
    pair, places = _load(path)
    _check_open_places(places)
    values = {place.name: body.values.get(place.name, "").strip() for place in places if place.kind == "words"}
    photos = {place.name: body.photos.get(place.name) for place in places if place.kind == "photograph"}
    if reasons := missing_values({**values, **photos}):
        raise ListingError(reasons[0])
    for art in photos.values():
        services.artworks.get(art or 0)
    return _start(
        pair,
        [{"name": slug(body.name), "values": values, "photos": photos, "quantity": body.quantity}],
        [],
        "proofs" if body.held else "all",
    )


@api.post(f"{PAIR_AT}/orders/approved", responses={200: JobOut})
def print_approved(path: PairPath) -> dict[str, Any]:
    """Start a job for the print files and tickets of the approved items.

    Raises :class:`ListingError` where there is none, or where the design is another one than the buyers approved.
    """
    pair = load_pair(path)
    return _start(pair, approved_orders(services, pair), [], "prints", "approved ")


@api.get("/api/orders", responses={200: OrderItemsOut})
def list_order_items() -> dict[str, Any]:
    """List the order items of all pairs, those made last first."""
    return OrderItemsOut(items=items_out(services, order_items(services))).model_dump()


@api.put("/api/orders/state", responses={200: OrderItemsOut})
def put_order_state(body: ItemStateIn) -> dict[str, Any]:
    """Note how far some items have come.

    Raises :class:`ListingError` where changes are asked for without saying which.
    """
    put_state(services, body.ids, body.state, body.words)
    return list_order_items()
