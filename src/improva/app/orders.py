"""Personalised orders: per order a print file, proofs for approval and a ticket."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from pathlib import Path
from typing import Any, Literal

from ..core.csv_cells import text_cell
from ..core.errors import ImprovaError, ListingError, PieceError, Stopped
from ..core.orders import Order, OrderProblem
from ..core.output import slug
from ..core.progress import Progress
from ..io.atomic import atomic_path, atomic_write, work_folder
from ..io.ticket import write_ticket
from ..stages import versions
from ..store.database import key_of
from ..store.models.mockups import MockupSettings, ShotModel
from ..store.models.orders import OrderIssueModel
from .artworks import plain_name
from .made_files import keep_file
from .mockups import make_picture
from .order_items import design_key
from .pair import Pair
from .personalisation import OpenPlace, check_findings, pair_of_order
from .print_files import make_set, make_side
from .print_plans import printing_of
from .services import Services
from .shots import shot_of
from .tickets import ticket_of

PROOF_PX = (1600, 1200)


DESIGN = "All orders"
"""Name under which the report says what is to be checked on the design itself."""


Parts = Literal["all", "proofs", "prints"]
"""What a job makes of each item: everything; its proofs alone, while the print file waits for the buyer; or print file and ticket."""

ENDINGS: dict[Parts, str] = {"all": "orders", "proofs": "proofs", "prints": "approved"}
"""How a job's archive is called."""

Files = list[tuple[str, Path | bytes]]


def _made_for(
    services: Services, pair: Pair, order: dict[str, Any], parts: Parts, progress: Progress
) -> tuple[Files, list[str]]:
    """Return an item's files by name, and remarks to check. Raises :class:`ImprovaError` with every reason why it cannot be made."""
    name = order["name"]
    now, notes = pair_of_order(services, pair, name, order["values"], order["photos"], order.get("quantity", 1))
    failures, warnings = check_findings(services, now)
    if failures:
        raise PieceError(" ".join(failures))
    notes += warnings
    files = [] if parts == "proofs" else _for_production(services, now, name, progress)
    return [*files, *([] if parts == "prints" else _proofs(services, now, name))], notes


def _for_production(services: Services, pair: Pair, name: str, progress: Progress) -> Files:
    """Return print file and ticket."""
    printing = printing_of(pair)
    if len(pair.printed) > 1:
        *_, print_file = make_set(services, pair, printing, progress)
    else:
        *_, print_file = make_side(services, pair, pair.printed[0], printing, progress)
    with work_folder(services.store.database.work) as folder:
        ticket = folder / "ticket.pdf"
        write_ticket(ticket_of(services, pair), ticket)
        written = ticket.read_bytes()
    return [(f"{name}_print{print_file.suffix}", print_file), (f"{name}_ticket.pdf", written)]


def _proofs(services: Services, pair: Pair, name: str) -> Files:
    """Return pictures for the buyer's approval: all views of the first scene, since the buyer's text may be on any side."""
    info = services.scenes.first(pair.template)
    shots = [shot_of(pair, ShotModel(scene_id=info.id, view=view), MockupSettings(camera=False)) for view in info.views]
    return [(f"{name}_proof_{slug(shot.view)}.jpg", make_picture(services, pair, shot, PROOF_PX, "jpg")[2]) for shot in shots]


def _table(issues: list[OrderIssueModel], made: dict[str, int]) -> str:
    """Return the results as CSV; ``made`` holds the quantity of each item that was made."""
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(["order", "quantity", "state", "to check"])
    by_name: dict[str, list[OrderIssueModel]] = {}
    for issue in issues:
        by_name.setdefault(issue.name, []).append(issue)
    for name in dict.fromkeys([*made, *by_name]):
        reasons = " ".join(issue.why for issue in by_name.get(name, []))
        state = "" if name == DESIGN else "made" if name in made else "not made"
        rows.writerow([text_cell(name), made.get(name, ""), state, text_cell(reasons)])
    return out.getvalue()


def orders_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Run a job of orders. An item that fails is reported and does not stop the others.

    What the checks say of the design itself is reported once, not again for every item.
    """
    pair = services.pairs.load(parameters["artwork_id"], parameters["template_id"])
    issues = [OrderIssueModel.model_validate(each) for each in parameters["issues"]]
    made: dict[str, int] = {}
    parts: Parts = parameters.get("parts", "all")
    name = f"{slug(pair.art.title)}_{pair.template.id}_{ENDINGS[parts]}.zip"
    key = key_of(
        "orders",
        versions("listings"),
        pair.subject,
        pair.placement_key,
        pair.row.printing,
        parameters["orders"],
        parameters["issues"],
        parts,
        name,
    )

    def make(target: Path) -> None:
        _, known = check_findings(services, pair)
        issues.extend(OrderIssueModel(name=DESIGN, why=why, made=True) for why in known)
        with atomic_path(target) as temporary, zipfile.ZipFile(temporary, "w", zipfile.ZIP_STORED) as archive:
            for i, order in enumerate(parameters["orders"]):
                part = progress.part(i / len(parameters["orders"]), (i + 1) / len(parameters["orders"]))
                try:
                    files, notes = _made_for(services, pair, order, parts, part)
                except Stopped:
                    raise
                except ImprovaError as problem:
                    issues.append(OrderIssueModel(name=order["name"], why=str(problem), made=False))
                    continue
                made[order["name"]] = order.get("quantity", 1)
                issues.extend(OrderIssueModel(name=order["name"], why=why, made=True) for why in notes if why not in known)
                for inside, file in files:
                    if isinstance(file, bytes):
                        archive.writestr(f"{order['name']}/{inside}", file)
                    else:
                        archive.write(file, f"{order['name']}/{inside}")
            archive.writestr("orders.csv", _table(issues, made))
        report = {"made": list(made), "issues": [issue.model_dump() for issue in issues], "design": design_key(pair)}
        atomic_write(target.with_suffix(".json"), json.dumps(report, ensure_ascii=False).encode())

    return [keep_file(services, pair, "print", key, name, make)[0]]


def orders_with_photos(
    services: Services, places: list[OpenPlace], rows: list[tuple[int, Order]], files: dict[str, bytes]
) -> tuple[list[dict[str, Any]], list[OrderProblem]]:
    """Store the buyers' photographs as artworks, and return the orders that name them and those with a problem.

    Raises nothing for a photograph that is missing or broken: its order is listed with the reason.
    """
    by_name = {plain_name(name).casefold(): data for name, data in files.items()}
    wanted = [place.name for place in places if place.kind == "photograph"]
    photo_ids: dict[str, int | str] = {}

    def art_of(name: str) -> int:
        key = plain_name(name).casefold()
        if key not in by_name:
            raise ListingError(f"The picture '{name}' is not among the files.")
        if key not in photo_ids:
            try:
                photo_ids[key] = services.artworks.add(name, by_name[key], aside=True).id
            except ImprovaError as broken:
                photo_ids[key] = f"{name}: {broken}"
        photo = photo_ids[key]
        if isinstance(photo, str):
            raise ListingError(photo)
        return photo

    orders: list[dict[str, Any]] = []
    problems = []
    for line, order in rows:
        photos, reasons = dict[str, int](), list[str]()
        for name in wanted:
            try:
                photos[name] = art_of(order.values[name])
            except ListingError as problem:
                reasons.append(str(problem))
        if reasons:
            problems.append(OrderProblem(order.name, line, " ".join(dict.fromkeys(reasons))))
            continue
        orders.append({"name": order.name, "values": order.values, "photos": photos, "quantity": order.quantity})
    return orders, problems


def example_table(places: list[OpenPlace]) -> str:
    """Return an example table of orders for some open places, as CSV."""
    buyers = ("1041", "Ada", 1), ("1042", "Bo", 2), ("1042", "Cy", 1)
    lines = [
        [number, *(name if place.kind == "words" else f"{name.lower()}.jpg" for place in places), str(quantity)]
        for number, name, quantity in buyers
    ]
    return "".join(f"{','.join(line)}\n" for line in (["order", *(place.name for place in places), "quantity"], *lines))
