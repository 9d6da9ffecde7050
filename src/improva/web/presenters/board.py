"""Response models of the range board."""

from __future__ import annotations

from typing import Any

from ...app.progress import Progress
from ...app.services import Services
from ...core.template import Template
from ..schemas.common import BoardBlankOut


def cell_values(services: Services, progress: Progress) -> dict[str, Any]:
    """Return one cell as plain values, since a board has many; without a summary, its verdict is still pending."""
    pair, kinds = progress.pair, progress.kinds
    return {
        "artwork_id": pair.art.id,
        "template_id": pair.template.id,
        "fitted": bool(pair.row.placements),
        "pictured": "picture" in kinds,
        "printed": "print" in kinds,
        "pressed": progress.pressed,
        "listed": progress.listed,
        "state": progress.state,
        **(progress.summary or {"verdict": None, "blocker": None, "open": 0}),
        "shown": f"/api/pairs/{pair.art.id}/{pair.template.id}/cell?version={services.previews.cell_key(pair)}",
    }


def board_blank_out(template: Template) -> BoardBlankOut:
    """Return a blank's response for the board's header."""
    first = template.panels[0]
    return BoardBlankOut(
        id=template.id, title=template.title, kind=template.kind, size_mm=first.level().trim_mm, panels=len(template.panels)
    )
