"""Response models of jobs."""

from __future__ import annotations

from ...app.services import Services
from ...store import JobRow
from ..schemas.printing import JobOut
from .files import made_file_out


def job_out(services: Services, row: JobRow) -> JobOut:
    """Return a job's response, without files that no longer exist."""
    files = [file for key in row.files if (file := made_file_out(services, key)) is not None]
    return JobOut(
        id=row.id,
        kind=row.kind,
        title=row.title,
        state=row.state,
        stopping=row.stopping,
        share=row.share,
        problem=row.problem,
        files=files,
    )
