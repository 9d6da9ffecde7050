"""A pair's listing: the seller's decisions, suggestions for the rest, and the reasons against listing it."""

from __future__ import annotations

from decimal import Decimal, InvalidOperation

from ..core.errors import ListingError, SceneError
from ..core.findings import Finding
from ..core.listing import (
    Market,
    Missing,
    Slot,
    Texts,
    alt_text,
    assemble_texts,
    check_texts,
    licence_reasons,
    missing_kinds,
    not_offered,
    proposed_slots,
)
from ..store.models.listings import ArtWordsModel, BlankWordsModel, ListingSlotModel, shot_body
from ..store.models.mockups import MockupSettings
from ..store.models.selling import CostsModel, SaleModel, ShopModel
from .mockup_settings import settings_of_pair
from .pair import Pair
from .services import Services
from .shots import Shot, shot_of


class ListingDraft:
    """A pair's listing with decisions and suggestions combined. ``market_id`` is the selected marketplace, or the first."""

    def __init__(self, services: Services, pair: Pair) -> None:
        self.services, self.pair = services, pair
        stored = services.store.listings.listing(*pair.ids)
        markets = services.store.listings.markets()
        self.market_id: str = stored["market"] if stored.get("market") in markets else next(iter(markets))
        self.market: Market = markets[self.market_id]
        self.scenes = pair.scenes
        self.printed = {panel.id for panel in pair.printed}
        self.mockup_settings: MockupSettings = settings_of_pair(pair)
        chosen = stored.get("slots")
        self.decided = chosen is not None
        self.offered = services.store.blanks.offered(pair.template.id)
        proposed = proposed_slots(self.scenes, self.printed, self.market.pictures_most, self.offered)
        slots = proposed if chosen is None else [ListingSlotModel.model_validate(each).to_core() for each in chosen]
        self.slots = [slot for slot in slots if self._known(slot)]
        self.turning = next((info for info in self.scenes if info.turns), None)
        self.can_film = self.turning is not None and self.market.film_s >= 4
        self.film = self.can_film and bool(stored.get("film", True))
        self.art_words = ArtWordsModel.model_validate(services.store.listings.art_words(pair.art.id))
        self.blank_words = BlankWordsModel.model_validate(services.store.listings.blank_words(pair.template.id))
        self.texts: Texts = assemble_texts(
            pair.template, pair.art.title, self.art_words.to_core(), self.blank_words.to_core(), self.market.tags_most
        )
        self.shop = ShopModel.model_validate(services.store.selling.shop())
        self.sale = SaleModel.model_validate(services.store.selling.sale(*pair.ids))
        arts = {pair.art.id: pair.art} | {row.id: row for panel in pair.printed for row in pair.pieces_on(panel).arts.values()}
        altered = any(pair.pieces_on(panel).extras for panel in pair.printed)
        origins = [(row.title, row.origin, row.altered or altered) for row in arts.values()]
        self.reasons = licence_reasons(origins, self.shop.unchanged_stops)
        self.overruling = services.store.listings.overruling(*pair.ids, self.reasons) if self.reasons else None

    def _known(self, slot: Slot) -> bool:
        """Return whether a slot's scene and colours still exist."""
        try:
            self.shot(slot)
        except SceneError:
            return False
        return True

    def shot(self, slot: Slot) -> Shot:
        """Return the shot of a slot, with the light and captions of the pair's mock-ups. Raises :class:`SceneError`."""
        return shot_of(self.pair, shot_body(slot), self.mockup_settings)

    def missing(self) -> list[Missing]:
        """Return the kinds of pictures that the listing lacks."""
        return missing_kinds(self.slots, self.scenes, self.printed, self.offered)

    def title_of(self, slot: Slot) -> str:
        """Return the slot's title for the seller."""
        info = self.shot(slot).info
        words = "close-up" if slot.close else "with measures" if slot.measured else (slot.view or "").replace("-", " ")
        return ", ".join(part for part in (info.title, words, *slot.colours.values()) if part)

    def alt(self, slot: Slot) -> str:
        """Return the slot's alternative text for buyers who cannot see it."""
        view = "a close-up of the print" if slot.close else "with its size" if slot.measured else slot.view or "front"
        name = self.art_words.name or self.pair.art.title
        return alt_text(
            name, self.pair.template, self.shot(slot).info.title, view, list(slot.colours.values()), self.market.alt_most
        )

    @property
    def own_prices(self) -> dict[str, str]:
        """Return the prices of colours and sizes that have their own, and that the blank still comes in."""
        costs = CostsModel.model_validate(self.services.store.selling.costs(self.pair.template.id))
        return {extra.title: self.sale.prices[extra.title] for extra in costs.extras if extra.title in self.sale.prices}

    @property
    def price(self) -> str | None:
        """Return the price, or None before there is one."""
        try:
            return self.sale.price if Decimal(self.sale.price) > 0 else None
        except InvalidOperation:
            return None

    def findings(self) -> list[Finding]:
        """Return the findings on texts, pictures and price."""
        result = check_texts(self.texts, self.market)
        shorter = min(self.mockup_settings.sizes[0])
        if not self.slots:
            result.append(Finding("fail", "There is no picture: a listing needs one at least.", "pictures"))
        if len(self.slots) > self.market.pictures_most:
            result.append(
                Finding(
                    "fail",
                    f"{len(self.slots)} pictures, and {self.market.pictures_most} are taken.",
                    "pictures",
                    len(self.slots),
                    self.market.pictures_most,
                )
            )
        if shorter < self.market.least_px:
            result.append(
                Finding(
                    "fail",
                    f"Pictures are made {shorter} px on their shorter side, and {self.market.least_px} are needed: "
                    "choose a larger size at the Mock-ups station.",
                    "pictures",
                    shorter,
                    self.market.least_px,
                )
            )
        if self.mockup_settings.format == "jpg" and self.mockup_settings.clear:
            result.append(
                Finding("fail", "A JPEG cannot be transparent: choose PNG or WebP at the Mock-ups station.", "pictures")
            )
        if wrong := not_offered(self.slots, self.scenes, self.offered):
            result.append(
                Finding(
                    "warn",
                    f"The pictures show {', '.join(wrong)}, which you do not offer: choose what you offer at Blanks, or take "
                    "these pictures out.",
                    "pictures",
                )
            )
        if self.price is None:
            result.append(Finding("fail", "It has no price yet.", "price"))
        return result

    def check(self) -> None:
        """Raises :class:`ListingError` where the pair must not or cannot be listed."""
        if self.reasons and self.overruling is None:
            raise ListingError(f"It may not be listed. {' '.join(self.reasons)}")
        if not self.pair.printed:
            raise ListingError("Nothing is printed on it yet.")
        if wrong := [each for each in self.findings() if each.status == "fail"]:
            raise ListingError(f"It cannot be listed yet: {wrong[0].subject}: {wrong[0].message}")
