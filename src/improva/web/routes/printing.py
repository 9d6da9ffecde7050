"""Print files: settings, plan, jobs, job ticket and soft proof."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.edits import editing
from ...app.errors import NotFoundError
from ...app.pair import Pair
from ...app.print_files import printed_content
from ...app.print_plans import plan_of, printing_of
from ...app.tickets import made_ticket, ticket_name
from ...core.errors import OutputError
from ...core.output import soft_proof
from ...core.render import on_blank
from ...core.template import Panel
from ...io.atomic import work_folder
from ..answers import png_answer
from ..context import jobs, load_pair, rendering, services
from ..presenters.jobs import job_out
from ..presenters.printing import printing_out
from ..routing import Routes, binary
from ..schemas.common import PAIR_AT, PairPath, PanelEditQuery, PanelQuery
from ..schemas.printing import JobListOut, JobOut, JobPath, PrintingIn, PrintJobIn, PrintStateOut, ProofQuery

api = Routes("printing")


def _load(path: PairPath, query: PanelQuery) -> tuple[Pair, Panel]:
    pair = load_pair(path)
    return pair, pair.template.panel(query.panel)


@api.get(f"{PAIR_AT}/printing", responses={200: PrintStateOut})
def get_printing(path: PairPath, query: PanelQuery) -> dict[str, Any]:
    """Return a panel's print settings and the plan of its file."""
    return printing_out(services, *_load(path, query)).model_dump()


@api.put(f"{PAIR_AT}/printing", responses={200: PrintStateOut})
def set_printing(path: PairPath, query: PanelEditQuery, body: PrintingIn) -> dict[str, Any]:
    """Set a pair's print settings."""
    _ = body.paper_mm  # refuses an invalid paper size
    edited = body.model_dump()
    with editing(services.store.database, query.based_on, lambda: printing_of(_load(path, query)[0]).model_dump(), edited):
        services.store.pairs.set_printing(path.artwork_id, path.template_id, edited)
    return printing_out(services, *_load(path, query)).model_dump()


@api.post(f"{PAIR_AT}/print-job", responses={200: JobOut})
def make_print_files(path: PairPath, query: PanelQuery, body: PrintJobIn) -> dict[str, Any]:
    """Start a job that makes print files.

    Raises :class:`OutputError` where the printer cannot print them.
    """
    pair, panel = _load(path, query)
    printing = printing_of(pair)
    plan = plan_of(services, pair, panel, printing)
    if plan.problem:
        raise OutputError(plan.problem)
    every = body.sides == "all"
    if not every:
        printed_content(pair, panel)
    parameters = {**pair.job_parameters, "panel": None if every else panel.id, "printing": printing.model_dump()}
    title = f"{pair.title}: {'all sides' if every else panel.title}"
    return job_out(services, jobs.start("print", parameters, title, *pair.ids)).model_dump()


@api.get(f"{PAIR_AT}/jobs", responses={200: JobListOut})
def list_jobs(path: PairPath) -> dict[str, Any]:
    """List a pair's jobs, the newest first."""
    rows = jobs.table.of_pair(path.artwork_id, path.template_id)
    return JobListOut(jobs=[job_out(services, row) for row in rows]).model_dump()


@api.get("/api/jobs/<int:job_id>", responses={200: JobOut})
def get_job(path: JobPath) -> dict[str, Any]:
    """Return the progress of a job.

    Raises :class:`NotFoundError`.
    """
    row = jobs.table.get(path.job_id)
    if row is None:
        raise NotFoundError("There is no such job.")
    return job_out(services, row).model_dump()


@api.post("/api/jobs/<int:job_id>/stop", responses={200: JobOut})
def stop_job(path: JobPath) -> dict[str, Any]:
    """Stop a job; its unfinished files are removed."""
    jobs.table.stop(path.job_id)
    return get_job(path)


@api.get(f"{PAIR_AT}/ticket", responses={200: binary("application/pdf")})
def download_ticket(path: PairPath) -> Response:
    """Return the job ticket, a PDF of one page.

    Raises :class:`OutputError` where nothing is printed.
    """
    pair = load_pair(path)
    if not pair.printed:
        raise OutputError("Nothing is printed on this blank yet: place the artwork on a side first.")
    with work_folder(services.store.database.work) as folder:
        data = made_ticket(services, pair, folder).read_bytes()
    answer = Response(data, mimetype="application/pdf")
    answer.headers.set("Content-Disposition", "attachment", filename=ticket_name(pair))
    return answer


@api.get(f"{PAIR_AT}/soft-proof", responses={200: binary("image/png")})
def preview_soft_proof(path: PairPath, query: ProofQuery) -> Response:
    """Return a PNG of the print as the blank's ICC profile predicts it.

    Raises :class:`NotFoundError` where the blank has no profile.
    """
    pair, panel = _load(path, query)
    profile = services.blanks.profile(pair.template)
    if profile is None:
        raise NotFoundError("This blank has no ICC profile yet: add the printer's on the shelf of blanks.")
    with rendering():
        shown = on_blank(services.previews.flat(pair, panel, pair.content(panel), query.px))
        return png_answer(soft_proof(shown, profile, query.intent, query.paper))
