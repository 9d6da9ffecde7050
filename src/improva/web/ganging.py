"""The gang sheet: prints of several pairs together on one sheet or roll."""

from __future__ import annotations

from functools import cached_property
from pathlib import Path
from typing import Any
from urllib.parse import quote, urlencode

from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..core.errors import BadOutput, ImprovaError
from ..core.output import GangItem, GangPlan, GangSheet, Print, PrintSettings, Watch, gang, make_print, size_name, write_gang
from ..store import MadeRow
from ..store.database import key_of
from ..work.jobs import Jobs
from .desk import Desk
from .exporting import printed_laying, printing_of, settings_of
from .parts import part
from .print_shapes import JobShape
from .printing import job_shape
from .shapes import Shape, laying_json
from .work import Work

SETTING = "gang-sheet"
NO_PAIR = (0, "gang")


class GangItemBody(Shape):
    """A side of a pair, and how many of it."""

    artwork_id: int
    template_id: str
    panel: str
    count: int = Field(default=1, ge=0, le=2000)


class GangBody(Shape):
    """What is on the gang sheet, and the sheet; ``length_mm`` null is a roll."""

    items: list[GangItemBody] = Field(default_factory=list, max_length=100)
    width_mm: float = 330.0
    length_mm: float | None = 482.0
    margin_mm: float = 5.0
    gap_mm: float = 3.0
    turn: bool = True
    cut_lines: bool = True


class PutShape(Shape):
    """One print on a sheet."""

    item: int
    sheet: int
    box: tuple[float, float, float, float]
    turned: bool


class GangItemShape(GangItemBody):
    """A side of a pair with its print's title, size and picture."""

    title: str
    size_mm: tuple[float, float]
    print_box: tuple[float, float, float, float] = Field(description="Where the print lies on it, in mm")
    picture: str
    mirrored: bool


class GangState(Shape):
    """The gang sheet, packed."""

    gang: GangBody
    items: list[GangItemShape]
    puts: list[PutShape]
    sheets_mm: list[tuple[float, float]]
    waste: float
    problem: str | None
    jobs: list[JobShape]


class _Packing:
    """A gang sheet's prints, looked up."""

    def __init__(self, desk: Desk, body: GangBody) -> None:
        self._desk, self.body = desk, body

    @cached_property
    def works(self) -> list[tuple[Work, GangItemBody]]:
        """The pairs that are still there; one that was taken off the board is left out."""
        found = []
        there = {row.id for row in self._desk.artworks.all()}
        for item in self.body.items:
            if item.artwork_id not in there:
                continue
            try:
                work = self._desk.work(item.artwork_id, item.template_id)
                printed_laying(work, work.template.panel(item.panel))
            except ImprovaError:
                continue
            found.append((work, item))
        return found

    def settings(self, work: Work, item: GangItemBody) -> PrintSettings:
        """sRGB, since prints of several printers may lie together."""
        asked = printing_of(work).model_copy(update={"own_profile": False})
        return settings_of(self._desk, work, work.template.panel(item.panel), asked)

    def size(self, work: Work, item: GangItemBody) -> tuple[float, float]:
        """An item's size in mm."""
        return self.settings(work, item).file_mm(work.template.panel(item.panel))

    def plan(self) -> GangPlan:
        """Where everything lies. Raises :class:`BadOutput`."""
        body = self.body
        items = [
            GangItem(f"{work.art.title} on {work.template.title}", self.size(work, item), item.count)
            for work, item in self.works
        ]
        return gang(items, GangSheet(body.width_mm, body.length_mm, body.margin_mm, body.gap_mm, body.turn))

    def open_print(self, index: int) -> Print:
        """An item's print."""
        work, item = self.works[index]
        panel = work.template.panel(item.panel)
        open_art = work.opener(self._desk.original(work.art), self._desk.original)
        return make_print(work.design(panel, work.laying(panel)), open_art, self.settings(work, item))


def _kept(desk: Desk) -> GangBody:
    return GangBody.model_validate(desk.database.setting(SETTING) or {})


def state_of(desk: Desk, jobs: Jobs) -> GangState:
    """The gang sheet as it is answered."""
    packing = _Packing(desk, _kept(desk))
    plan, problem = None, None
    try:
        plan = packing.plan()
    except BadOutput as wrong:
        problem = str(wrong) if packing.works else None
    items = [
        GangItemShape(**item.model_dump(), title=f"{work.art.title} on {work.template.title}", size_mm=packing.size(work, item),
                      print_box=packing.settings(work, item).print_box(work.template.panel(item.panel)),
                      picture=_picture(work, item), mirrored=work.mirrored)
        for work, item in packing.works
    ]  # fmt: skip
    body = packing.body.model_copy(update={"items": [item for _, item in packing.works]})
    puts = [PutShape(item=p.item, sheet=p.sheet, box=p.box, turned=p.turned) for p in plan.puts] if plan else []
    return GangState(
        gang=body, items=items, puts=puts, sheets_mm=list(plan.sheets_mm) if plan else [], waste=plan.waste if plan else 0.0,
        problem=problem, jobs=[job_shape(desk, row) for row in jobs.table.of_pair(*NO_PAIR, most=4)],
    )  # fmt: skip


def _picture(work: Work, item: GangItemBody) -> str:
    laying = work.laying(work.template.panel(item.panel))
    asked = urlencode({"panel": item.panel, "placing": laying_json(laying), "width": 400})
    return f"/api/pairs/{work.art.id}/{quote(work.template.id)}/flat?{asked}"


def gang_job(desk: Desk, asked: dict[str, Any], watch: Watch) -> list[str]:
    """Make a gang sheet's file."""
    body = GangBody.model_validate(asked["gang"])
    packing = _Packing(desk, body)
    plan = packing.plan()
    parts = [[*work.subject, work.placing_key, work.route, printing_of(work).model_dump()] for work, _ in packing.works]
    key = key_of("gang", body.model_dump(), parts)
    name = f"gang-sheet_{len(plan.puts)}-prints_{size_name(plan.sheets_mm[0])}.pdf"

    def make(path: Path) -> None:
        write_gang(plan, packing.open_print, path, body.cut_lines, watch)

    desk.made.file(MadeRow(key, "print", "", name), packing.works[0][0].art.id, "gang", make)
    return [key]


def blueprint(desk: Desk, jobs: Jobs) -> APIBlueprint:
    """The addresses of the gang sheet."""
    api = part(desk, "ganging", "printing", "/api/gang")

    @api.get("", responses={200: GangState})
    def state() -> dict[str, Any]:
        """What is on the gang sheet, and how it is packed."""
        return state_of(desk, jobs).model_dump()

    @api.put("", responses={200: GangState})
    def decide(body: GangBody) -> dict[str, Any]:
        """Decide what is on it."""
        desk.database.keep_setting(SETTING, body.model_dump())
        return state()  # type: ignore[no-any-return]

    @api.post("/job", responses={200: JobShape})
    def make() -> dict[str, Any]:
        """Make its file, as a job."""
        packing = _Packing(desk, _kept(desk))
        plan = packing.plan()
        body = packing.body.model_copy(update={"items": [item for _, item in packing.works]})
        told = {"gang": body.model_dump(), "of": [work.placing_key for work, _ in packing.works]}
        return job_shape(desk, jobs.start("gang", told, f"Gang sheet of {len(plan.puts)} prints", *NO_PAIR)).model_dump()

    return api
