"""The Print station: how files are made, what will come out, and the jobs that make them."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any, Literal

import pyvips
from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ..core.errors import BadOutput
from ..core.output import PAPERS_MM, carries, proofed
from ..core.render import on_blank
from ..core.template import Panel
from ..store import JobRow
from ..work.jobs import Jobs
from .desk import Desk
from .exporting import plan_of, printed_laying, printing_of
from .files import made_shape
from .parts import part
from .print_shapes import IntentName, JobShape, PrintingBody, PrintState
from .problems import NotHere
from .shapes import PairPath, PanelQuery, Shape
from .ticketing import made_ticket, ticket_name
from .work import Work

PAIR_AT = "/api/pairs/<int:artwork_id>/<template_id>"
PROOF_PX = 1200


class PrintJobBody(Shape):
    """Which files are wanted: the side in front, or all sides in one ZIP."""

    sides: Literal["this", "all"] = "this"


class ProofQuery(PanelQuery):
    """How the soft proof is looked at."""

    paper: bool = Field(default=False, description="White as the paper's own")
    intent: IntentName = "relative"
    px: int = Field(default=PROOF_PX, ge=64, le=2000)


class JobPath(BaseModel):
    """Which job."""

    job_id: int


class JobList(Shape):
    """Jobs, the newest first."""

    jobs: list[JobShape]


def job_shape(desk: Desk, row: JobRow) -> JobShape:
    """A job as it is answered; files that are no longer kept are left out."""
    files = [found for key in row.files if (found := made_shape(desk, key)) is not None]
    return JobShape(id=row.id, kind=row.kind, title=row.title, state=row.state, stopping=row.stopping, share=row.share,
                    problem=row.problem, files=files)  # fmt: skip


def state_of(desk: Desk, work: Work, panel: Panel) -> PrintState:
    """How a panel is printed."""
    asked = printing_of(work)
    return PrintState(
        printing=asked, plan=plan_of(desk, work, panel, asked), papers=PAPERS_MM, can_tab=carries(panel),
        has_profile=desk.profile(work.template) is not None,
    )  # fmt: skip


def blueprint(desk: Desk, jobs: Jobs) -> APIBlueprint:
    """The addresses of printing and of jobs."""
    api = part(desk, "printing", "printing")

    def load(path: PairPath, query: PanelQuery) -> tuple[Work, Panel]:
        work = desk.work(path.artwork_id, path.template_id)
        return work, work.template.panel(query.panel)

    @api.get(f"{PAIR_AT}/printing", responses={200: PrintState})
    def printing(path: PairPath, query: PanelQuery) -> dict[str, Any]:
        """How a side is printed, and what will come out."""
        return state_of(desk, *load(path, query)).model_dump()

    @api.put(f"{PAIR_AT}/printing", responses={200: PrintState})
    def decide(path: PairPath, query: PanelQuery, body: PrintingBody) -> dict[str, Any]:
        """Decide how the files of a pair are made."""
        _ = body.paper_mm  # a paper that is none is refused here
        load(path, query)
        desk.pairs.set_printing(path.artwork_id, path.template_id, body.model_dump())
        return state_of(desk, *load(path, query)).model_dump()

    @api.post(f"{PAIR_AT}/print-job", responses={200: JobShape})
    def print_files(path: PairPath, query: PanelQuery, body: PrintJobBody) -> dict[str, Any]:
        """Make print files, as a job."""
        work, panel = load(path, query)
        asked = printing_of(work)
        plan = plan_of(desk, work, panel, asked)
        if plan.problem:
            raise BadOutput(plan.problem)
        every = body.sides == "all"
        if not every:
            printed_laying(work, panel)
        told = {"artwork_id": work.art.id, "template_id": work.template.id, "panel": None if every else panel.id,
                "printing": asked.model_dump(), "of": work.placing_key}  # fmt: skip
        title = f"{work.art.title} on {work.template.title}: {'all sides' if every else panel.title}"
        return job_shape(desk, jobs.start("print", told, title, work.art.id, work.template.id)).model_dump()

    @api.get(f"{PAIR_AT}/jobs", responses={200: JobList})
    def jobs_of_pair(path: PairPath) -> dict[str, Any]:
        """A pair's jobs, the newest first."""
        rows = jobs.table.of_pair(path.artwork_id, path.template_id)
        return JobList(jobs=[job_shape(desk, row) for row in rows]).model_dump()

    @api.get("/api/jobs/<int:job_id>", responses={200: JobShape})
    def job(path: JobPath) -> dict[str, Any]:
        """How far a job is."""
        row = jobs.table.get(path.job_id)
        if row is None:
            raise NotHere("There is no such job.")
        return job_shape(desk, row).model_dump()

    @api.post("/api/jobs/<int:job_id>/stop", responses={200: JobShape})
    def stop(path: JobPath) -> dict[str, Any]:
        """Stop a job; nothing that it had begun is left."""
        jobs.table.stop(path.job_id)
        return job(path)  # type: ignore[no-any-return]

    @api.get(f"{PAIR_AT}/ticket")
    def ticket(path: PairPath) -> Response:
        """The job ticket, as a PDF of one page."""
        work = desk.work(path.artwork_id, path.template_id)
        if not work.printed:
            raise BadOutput("Nothing is printed on this blank yet: lay the artwork on a side first.")
        with tempfile.TemporaryDirectory() as folder:
            data = made_ticket(desk, work, Path(folder)).read_bytes()
        answer = Response(data, mimetype="application/pdf")
        answer.headers.set("Content-Disposition", "attachment", filename=ticket_name(work))
        return answer

    @api.get(f"{PAIR_AT}/soft-proof")
    def soft_proof(path: PairPath, query: ProofQuery) -> Response:
        """The print as the blank's ICC profile says it comes out, as PNG."""
        work, panel = load(path, query)
        profile = desk.profile(work.template)
        if profile is None:
            raise NotHere("This blank has no ICC profile yet: add the printer's on the shelf of blanks.")
        shown = on_blank(desk.flat(work, panel, work.laying(panel), query.px))
        seen = proofed(shown, profile, query.intent, query.paper)
        return png_answer(seen)

    return api


def png_answer(image: pyvips.Image) -> Response:
    """A picture that is looked at and not kept."""
    return Response(bytes(image.pngsave_buffer(compression=3, keep="none")), mimetype="image/png")
