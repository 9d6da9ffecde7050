"""Personalised orders: a table and a folder of pictures, or one order by hand; per order a print file, a proof and a ticket."""

from __future__ import annotations

import csv
import io
import json
import tempfile
import zipfile
from pathlib import Path
from typing import Any

from flask import request
from flask_openapi3 import APIBlueprint
from werkzeug.datastructures import FileStorage

from ..core.artwork.pixels import Artwork
from ..core.artwork.traits import find_traits
from ..core.errors import BadListing, ImprovaError, Stopped
from ..core.orders import Order, OrderProblem, read_orders
from ..core.output import Watch, beside, slug, write_beside
from ..core.output.ticket import write_ticket
from ..store import MadeRow
from ..store.database import key_of
from ..work.jobs import Jobs
from .artworks import plain_name, title_of
from .bench import PAIR_AT
from .desk import Desk
from .exporting import make_set, make_side, printing_of
from .order_filling import check_for, open_places, work_for
from .order_shapes import OpenPlace, OrderBody, OrderIssue, OrdersState
from .parts import part
from .picturing import make_picture
from .print_shapes import JobShape
from .printing import job_shape
from .shapes import PairPath
from .shots import shot_of
from .show_shapes import ShotBody, Showing
from .ticketing import ticket_of
from .work import Work

PROOF_PX = (1600, 1200)
REPORT = "_orders.json"


def _made_for(
    desk: Desk, work: Work, name: str, order: dict[str, Any], watch: Watch
) -> tuple[list[tuple[str, Path | bytes]], list[str]]:
    """One order's files under their names, and what is to be seen. Raises an error of ours where it cannot be made."""
    now, told = work_for(desk, work, name, order["values"], order["photos"])
    told += check_for(desk, now)
    printing = printing_of(now)
    panels = now.printed
    if len(panels) > 1:
        key = make_set(desk, now, printing, watch)
        found = desk.made.named(key)
        assert found is not None, "it was made just now"
        print_file = found[1]
    else:
        print_file = make_side(desk, now, panels[0], printing, watch)[2]
    proofs = _proofs(desk, now, name)
    with tempfile.TemporaryDirectory() as folder:
        ticket = Path(folder) / "ticket.pdf"
        write_ticket(ticket_of(desk, now), ticket)
        written = ticket.read_bytes()
    files: list[tuple[str, Path | bytes]] = [
        (f"{name}_print{print_file.suffix}", print_file),
        *proofs,
        (f"{name}_ticket.pdf", written),
    ]
    return files, told


def _proofs(desk: Desk, work: Work, name: str) -> list[tuple[str, Path | bytes]]:
    """Pictures for the buyer's approval: every view of the scene it is shown in at first, for what is theirs may be on any side."""
    info = desk.first_scene(work.template)
    shots = [shot_of(work, ShotBody(scene_id=info.id, view=view), Showing()) for view in info.views]
    return [(f"{name}_proof_{slug(shot.view)}.jpg", make_picture(desk, work, shot, PROOF_PX, "jpg")[2]) for shot in shots]


def _table(issues: list[OrderIssue], made: list[str]) -> str:
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(["order", "state", "what is to be seen"])
    by_name: dict[str, list[OrderIssue]] = {}
    for issue in issues:
        by_name.setdefault(issue.name, []).append(issue)
    for name in dict.fromkeys([*made, *by_name]):
        rows.writerow([name, "made" if name in made else "not made", " ".join(issue.why for issue in by_name.get(name, []))])
    return out.getvalue()


def orders_job(desk: Desk, asked: dict[str, Any], watch: Watch) -> list[str]:
    """Do a job of orders: each is made or told, one that fails stops no other."""
    work = desk.work(asked["artwork_id"], asked["template_id"])
    issues = [OrderIssue.model_validate(each) for each in asked["issues"]]
    made: list[str] = []
    name = f"{slug(work.art.title)}_{work.template.id}_orders.zip"
    key = key_of("orders", work.subject, work.placing_key, work.row.printing, asked["orders"], asked["issues"], name)

    def make(target: Path) -> None:
        with beside(target) as temporary, zipfile.ZipFile(temporary, "w", zipfile.ZIP_STORED) as archive:
            for i, order in enumerate(asked["orders"]):
                part = watch.part(i / len(asked["orders"]), (i + 1) / len(asked["orders"]))
                try:
                    files, told = _made_for(desk, work, order["name"], order, part)
                except Stopped:
                    raise
                except ImprovaError as problem:
                    issues.append(OrderIssue(name=order["name"], why=str(problem), made=False))
                    continue
                made.append(order["name"])
                issues.extend(OrderIssue(name=order["name"], why=why, made=True) for why in told)
                for inside, file in files:
                    if isinstance(file, bytes):
                        archive.writestr(f"{order['name']}/{inside}", file)
                    else:
                        archive.write(file, f"{order['name']}/{inside}")
            archive.writestr("orders.csv", _table(issues, made))
        report = {"made": made, "issues": [issue.model_dump() for issue in issues]}
        write_beside(target.with_suffix(".json"), json.dumps(report, ensure_ascii=False).encode())

    desk.keep(MadeRow(key, "print", work.placing_key, name), work, make)
    return [key]


def _photos(desk: Desk, places: list[OpenPlace], rows: list[tuple[int, Order]], files: list[FileStorage]
            ) -> tuple[list[dict[str, Any]], list[OrderProblem]]:  # fmt: skip
    """Orders with their photographs kept as artworks aside, and those whose photograph is missing or broken."""
    by_name = {plain_name(file.filename).casefold(): file for file in files}
    wanted = [place.name for place in places if place.kind == "photograph"]
    kept: dict[str, int | str] = {}

    def art_of(name: str) -> int:
        key = plain_name(name).casefold()
        if key not in by_name:
            raise BadListing(f"The picture '{name}' is not among the files.")
        if key not in kept:
            try:
                art = Artwork.read(by_name[key].stream.read())
                kept[key] = desk.artworks.add(title_of(name), plain_name(name), art, find_traits(art.proxy()), True).id
            except ImprovaError as broken:
                kept[key] = f"{name}: {broken}"
        found = kept[key]
        if isinstance(found, str):
            raise BadListing(found)
        return found

    orders: list[dict[str, Any]] = []
    problems = []
    for line, order in rows:
        try:
            photos = {name: art_of(order.values[name]) for name in wanted}
        except BadListing as problem:
            problems.append(OrderProblem(order.name, line, str(problem)))
            continue
        orders.append({"name": order.name, "values": order.values, "photos": photos})
    return orders, problems


def _example(places: list[OpenPlace]) -> str:
    head = ",".join(["order", *(place.name for place in places)])
    return f"{head}\n{','.join(['1041', *('Ada' if p.kind == 'words' else 'ada.jpg' for p in places)])}\n"


def blueprint(desk: Desk, jobs: Jobs) -> APIBlueprint:
    """The addresses of orders."""
    api = part(desk, "ordering", "orders")

    def load(path: PairPath) -> tuple[Work, list[OpenPlace]]:
        work = desk.work(path.artwork_id, path.template_id)
        return work, open_places(work)

    def start(work: Work, orders: list[dict[str, Any]], problems: list[OrderProblem]) -> dict[str, Any]:
        issues = [
            OrderIssue(name=p.name, why=f"line {p.line}: {p.why}" if p.line else p.why, made=False).model_dump()
            for p in problems
        ]
        if not orders:
            raise BadListing(
                f"None of these orders can be made. {issues[0]['name']}: {issues[0]['why']}"
                if issues
                else "There is no order in this table."
            )
        asked = {
            "artwork_id": work.art.id,
            "template_id": work.template.id,
            "of": work.placing_key,
            "orders": orders,
            "issues": issues,
        }
        title = f"{len(orders)} {'order' if len(orders) == 1 else 'orders'} of {work.art.title} on {work.template.title}"
        return job_shape(desk, jobs.start("orders", asked, title, *work.pair)).model_dump()

    def needed(places: list[OpenPlace]) -> None:
        if not places:
            raise BadListing(
                "This design has no open place: write {name} in its words, or leave a slot of its frames open for a photograph."
            )

    @api.get(f"{PAIR_AT}/orders", responses={200: OrdersState})
    def state(path: PairPath) -> dict[str, Any]:
        """A pair's open places, and what its last orders came to."""
        work, places = load(path)
        issues, made = list[OrderIssue](), 0
        last = next((row for row in jobs.table.of_pair(*work.pair) if row.kind == "orders" and row.state == "done"), None)
        found = desk.made.named(last.files[0]) if last and last.files else None
        if found is not None and (report := found[1].with_suffix(".json")).exists():
            told = json.loads(report.read_bytes())
            issues, made = [OrderIssue.model_validate(each) for each in told["issues"]], len(told["made"])
        return OrdersState(places=places, example=_example(places), issues=issues, made=made).model_dump()

    @api.post(f"{PAIR_AT}/orders", responses={200: JobShape})
    def take(path: PairPath) -> dict[str, Any]:
        """Make the orders of a table: the form's part ``file``, with the pictures as its parts ``photos``."""
        work, places = load(path)
        needed(places)
        table = request.files.get("file")
        if table is None:
            raise BadListing("Send the table of orders as a CSV file.")
        rows, problems = read_orders(table.stream.read(), [place.name for place in places])
        orders, more = _photos(desk, places, rows, request.files.getlist("photos"))
        return start(work, orders, [*problems, *more])

    @api.post(f"{PAIR_AT}/order", responses={200: JobShape})
    def one(path: PairPath, body: OrderBody) -> dict[str, Any]:
        """Make one order that was filled by hand."""
        work, places = load(path)
        needed(places)
        values = {place.name: body.values.get(place.name, "").strip() for place in places if place.kind == "words"}
        photos = {place.name: body.photos.get(place.name) for place in places if place.kind == "photograph"}
        if empty := [name for name, value in {**values, **photos}.items() if not value]:
            raise BadListing(f"Nothing is given for '{empty[0]}'.")
        for art in photos.values():
            desk.art(art or 0)
        return start(work, [{"name": slug(body.name), "values": values, "photos": photos}], [])

    return api
