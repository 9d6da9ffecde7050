"""Response models of blanks."""

from __future__ import annotations

from typing import Any

from ...app.reports import template_report
from ...app.services import Services
from ...core.limits import LIMITS
from ...core.listing import sold_parts
from ...core.template import Template
from ..schemas.blanks import BlankOut, LimitOut, SoldPartOut, TemplateOut


def _limits(template: Template, shipped: dict[str, float], own: dict[str, float]) -> list[LimitOut]:
    return [
        LimitOut(
            name=name,
            title=limit.title,
            unit=limit.unit,
            value=template.limit(name),
            default=shipped.get(name, limit.default),
            least=limit.least,
            most=limit.most,
            source=limit.source,
            changed=name in own,
        )
        for name, limit in LIMITS.items()
    ]


def blank_out(services: Services, template: Template, on_board: bool, own: dict[str, float]) -> BlankOut:
    """Return a blank's response."""
    guides = {p.id: file.file_name for p in template.panels if (file := services.store.blanks.file(template.id, "guide", p.id))}
    profile = services.store.blanks.file(template.id, "profile")
    offered = services.store.blanks.offered(template.id)
    sold = {part.id: part for info in services.scenes.of(template) for part in sold_parts(info)}
    return BlankOut(
        template=TemplateOut(**template_report(template)),
        on_board=on_board,
        limits=_limits(template, services.blanks.shipped_limits(template.id), own),
        guides=guides,
        profile=profile.file_name if profile else None,
        parts=[
            SoldPartOut(id=p.id, title=p.title, colours=p.colours, usual=p.default, offered=offered.get(p.id))
            for p in sold.values()
        ],
    )


def blank_of_id_out(services: Services, template_id: str) -> dict[str, Any]:
    """Return a blank's response by its id. Raises :class:`TemplateError`."""
    template = services.blanks.get(template_id)
    on_board = template_id in {t.id for t in services.blanks.on_board()}
    return blank_out(services, template, on_board, services.store.blanks.limits().get(template_id, {})).model_dump()
