"""A pair's listing as it stands: what was decided, what is proposed, what speaks against it."""

from __future__ import annotations

from dataclasses import asdict
from decimal import Decimal, InvalidOperation

from ..core.errors import BadListing, BadScene
from ..core.listing import (
    Market,
    Missing,
    Slot,
    TextFinding,
    Texts,
    alt_text,
    check_texts,
    licence_reasons,
    missing_kinds,
    proposed_slots,
    put_together,
)
from ..core.listing.words import FIELDS
from ..scenes import scenes_of
from ..store.database import key_of
from .desk import Desk
from .listing_shapes import (
    ArtWordsBody,
    BlankWordsBody,
    HandedShape,
    ListingSlot,
    ListingState,
    MarketShape,
    MissingShape,
    OverrulingShape,
    ShownSlot,
    TextFindingShape,
    TextsShape,
    shot_body,
)
from .sell_shapes import SaleBody, ShopBody
from .shots import Shot, shot_of
from .show_shapes import Showing
from .showing import showing_of
from .work import Work


def markets_of(desk: Desk) -> list[MarketShape]:
    """Every marketplace with its limits."""
    return [MarketShape(id=name, own=not market.invented, **asdict(market)) for name, market in desk.listings.markets().items()]


class Listed:
    """A pair's listing, put together. ``market_id`` is the marketplace that was chosen, or the first."""

    def __init__(self, desk: Desk, work: Work) -> None:
        self.desk, self.work = desk, work
        kept = desk.listings.listing(*work.pair)
        markets = desk.listings.markets()
        self.market_id: str = kept["market"] if kept.get("market") in markets else next(iter(markets))
        self.market: Market = markets[self.market_id]
        self.scenes = scenes_of(work.template)
        self.printed = {panel.id for panel in work.printed}
        self.showing: Showing = showing_of(work)
        chosen = kept.get("slots")
        self.decided = chosen is not None
        proposed = proposed_slots(self.scenes, self.printed, self.market.pictures_most)
        slots = proposed if chosen is None else [ListingSlot.model_validate(each).to_core() for each in chosen]
        self.slots = [slot for slot in slots if self._known(slot)]
        self.turning = next((info for info in self.scenes if info.turns), None)
        self.can_film = self.turning is not None and self.market.film_s >= 4
        self.film = self.can_film and bool(kept.get("film", True))
        self.art_words = ArtWordsBody.model_validate(desk.listings.art_words(work.art.id))
        self.blank_words = BlankWordsBody.model_validate(desk.listings.blank_words(work.template.id))
        self.texts: Texts = put_together(
            work.template, work.art.title, self.art_words.to_core(), self.blank_words.to_core(), self.market.tags_most
        )
        self.shop = ShopBody.model_validate(desk.selling.shop())
        self.sale = SaleBody.model_validate(desk.selling.sale(*work.pair))
        arts = {work.art.id: work.art} | {row.id: row for panel in work.printed for row in work.laid_on(panel).arts.values()}
        altered = any(work.laid_on(panel).extras for panel in work.printed)
        self.reasons = licence_reasons([(row.title, row.origin, row.altered or altered) for row in arts.values()])
        self.overruling = desk.listings.overruling(*work.pair, self.reasons) if self.reasons else None

    def _known(self, slot: Slot) -> bool:
        """Whether a slot can be pictured: scenes and colours come and go."""
        try:
            self.shot(slot)
        except BadScene:
            return False
        return True

    def shot(self, slot: Slot) -> Shot:
        """A slot as a shot, lit and captioned as the pair's pictures are. Raises :class:`BadScene`."""
        return shot_of(self.work, shot_body(slot), self.showing)

    def missing(self) -> list[Missing]:
        """Kinds of pictures that it lacks."""
        return missing_kinds(self.slots, self.scenes, self.printed)

    def title_of(self, slot: Slot) -> str:
        """What a slot shows, for the seller."""
        info = self.shot(slot).info
        said = "from near by" if slot.close else "with measures" if slot.measured else (slot.view or "").replace("-", " ")
        return ", ".join(part for part in (info.title, said, *slot.colours.values()) if part)

    def alt(self, slot: Slot) -> str:
        """What a slot shows, for a buyer who does not see it."""
        view = "the print from near by" if slot.close else "with its size" if slot.measured else slot.view or "front"
        name = self.art_words.name or self.work.art.title
        return alt_text(
            name, self.work.template, self.shot(slot).info.title, view, list(slot.colours.values()), self.market.alt_most
        )

    @property
    def price(self) -> str | None:
        """The price, once there is one."""
        try:
            return self.sale.price if Decimal(self.sale.price) > 0 else None
        except InvalidOperation:
            return None

    def findings(self) -> list[TextFinding]:
        """What is to be said of words, pictures and price."""
        found = check_texts(self.texts, self.market)
        shorter = min(self.showing.sizes[0])
        if not self.slots:
            found.append(TextFinding("pictures", "fail", "There is no picture: a listing needs one at least."))
        if len(self.slots) > self.market.pictures_most:
            found.append(TextFinding("pictures", "fail", f"{len(self.slots)} pictures, and {self.market.pictures_most} are taken.",
                                     len(self.slots), self.market.pictures_most))  # fmt: skip
        if shorter < self.market.least_px:
            found.append(TextFinding("pictures", "fail", f"Pictures are made {shorter} px on their shorter side, and {self.market.least_px} are needed: "
                                     "choose a larger size at the Show station.", shorter, self.market.least_px))  # fmt: skip
        if self.showing.format == "jpg" and self.showing.clear:
            found.append(
                TextFinding("pictures", "fail", "A JPEG cannot be transparent: choose PNG or WebP at the Show station.")
            )
        if self.price is None:
            found.append(TextFinding("price", "fail", "It has no price yet."))
        return found

    def check(self) -> None:
        """Raises :class:`BadListing` where it may not or cannot go out."""
        if self.reasons and self.overruling is None:
            raise BadListing(f"It may not be listed. {' '.join(self.reasons)}")
        if not self.work.printed:
            raise BadListing("Nothing is printed on it yet.")
        if wrong := [each for each in self.findings() if each.status == "fail"]:
            raise BadListing(f"It cannot be listed yet: {wrong[0].of}: {wrong[0].message}")


def listing_state(desk: Desk, work: Work) -> ListingState:
    """A pair's listing as it is answered."""
    listed = Listed(desk, work)
    findings = listed.findings()
    overruled = listed.overruling
    stopped = bool(listed.reasons) and overruled is None
    return ListingState(
        market=listed.market_id, markets=markets_of(desk), decided=listed.decided,
        slots=[ShownSlot(**asdict(slot), title=listed.title_of(slot), alt=listed.alt(slot)) for slot in listed.slots],
        missing=[MissingShape(kind=m.kind, what=m.what, offered=ListingSlot.of(m.offered)) for m in listed.missing()],
        film=listed.film, can_film=listed.can_film, size=listed.showing.sizes[0],
        stamp=key_of(work.subject, work.placing_key, work.row.colours, listed.showing.model_dump())[:12], art_words=listed.art_words,
        blank_words=listed.blank_words, fields=FIELDS,
        texts=TextsShape(title=listed.texts.title, description=listed.texts.description, tags=list(listed.texts.tags),
                         search=listed.texts.search, left_out=list(listed.texts.left_out)),
        findings=[TextFindingShape(**asdict(each)) for each in findings], price=listed.price, currency=listed.shop.currency,
        stopped=listed.reasons, overruled=OverrulingShape(why=overruled.why, at=overruled.at) if overruled else None,
        ready=not stopped and bool(work.printed) and not any(each.status == "fail" for each in findings),
        handed=[HandedShape(market=h.market, accepted=h.accepted, number=h.number, reasons=list(h.reasons), at=h.at)
                for h in desk.listings.handed_in(*work.pair)[:12]],
    )  # fmt: skip
