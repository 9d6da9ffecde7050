"""Response models of order items."""

from __future__ import annotations

from collections.abc import Iterable

from ...app.services import Services
from ...store.order_items import ItemRow
from ..schemas.orders import OrderItemOut


def items_out(services: Services, items: Iterable[ItemRow]) -> list[OrderItemOut]:
    """Return the responses of order items, each with the title of its pair."""
    arts: dict[int, str] = {}
    blanks = services.blanks.all()
    found = []
    for item in items:
        if item.artwork_id not in arts:
            art = services.store.artworks.get(item.artwork_id)
            arts[item.artwork_id] = art.title if art else f"artwork {item.artwork_id}"
        blank = blanks.get(item.template_id)
        found.append(
            OrderItemOut(
                id=item.id,
                artwork_id=item.artwork_id,
                template_id=item.template_id,
                title=f"{arts[item.artwork_id]} on {blank.title if blank else item.template_id}",
                name=item.name,
                quantity=item.quantity,
                values=item.contents["values"],
                held=item.held,
                state=item.state,
                words=item.words,
                changed_at=item.changed_at,
            )
        )
    return found
