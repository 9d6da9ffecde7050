"""The demo shop's costs, fees, prices and listing texts."""

from __future__ import annotations

from ..core.providers import CHECKS, Result, Sample
from ..store import Blanks, Database, Listings, ProviderRow, Providers, Selling

TUMBLER = "tumbler-20oz-straight"

TUMBLER_WORDS = {
    "title": "{design} on an insulated tumbler with lid and straw, 20 oz",
    "text": "A stainless steel tumbler for the compartment table: it keeps tea warm to the summit and water cold to the valley.\n\n"
    "The picture runs all round and is pressed into the coat, so that it neither peels nor fades in the wash. "
    "Hand washing keeps it bright for longest. Every piece is printed when you order it, in our hut at the middle station.",
    "tags": ["insulated tumbler", "cup with straw", "train lover gift", "hiker's cup"],
    "search": "{line} Insulated 20 oz tumbler with lid and straw.",
}
DUSK_WORDS = {
    "name": "Dusk on the Summit Line",
    "line": "The last train of the day crosses the viaduct under the first stars.",
    "tags": ["mountain railway", "night train", "viaduct", "starry dusk", "alpine scenery"],
}
SIGNAL_WORDS = {
    "name": "Signal flags",
    "line": "Every flag that the Summit Line has ever waved, in rows.",
    "tags": ["signal flags", "railway pattern", "flag pattern"],
}


def set_up_shop(database: Database, dusk: int, signals: int) -> None:
    """Store costs, fees, the first price, and the texts of the first blank and of two designs."""
    _prices(database, dusk)
    _colours(database)
    listings = Listings(database)
    listings.keep_blank_words(TUMBLER, TUMBLER_WORDS)
    listings.keep_art_words(dusk, DUSK_WORDS)
    listings.keep_art_words(signals, SIGNAL_WORDS)
    _providers(database, dusk)


def _providers(database: Database, dusk: int) -> None:
    """Store two providers of the tumbler, one near and dear, one far and cheap before customs, and a sample of each."""
    providers = Providers(database)
    near = {
        "piece": "11.90",
        "least_dpi": 150,
        "routes": [{"region": "Valley", "shipping": "4.90"}, {"region": "Over the pass", "shipping": "9.80"}],
    }
    far = {
        "piece": "7.40",
        "least_dpi": 200,
        "routes": [
            {"region": "Valley", "shipping": "6.50", "duty_percent": "19", "handling": "5"},
            {"region": "Over the pass", "shipping": "8.20", "duty_percent": "22", "free_up_to": "20"},
        ],
    }
    for name, origin, offer in (("Middle Station Press", "the valley", near), ("Harbour Works", "overseas", far)):
        providers.keep(ProviderRow(name, origin, ""))
        providers.keep_offer(name, TUMBLER, offer)
    checks: dict[str, Result] = {"colour": "good", "seam": "off"}
    providers.add_sample(
        dusk,
        TUMBLER,
        Sample("Harbour Works", "2026-05-04", "2026-05-09", "2026-05-18", checks, "The seam gapes a little at the foot."),
    )
    providers.add_sample(
        dusk, TUMBLER, Sample("Middle Station Press", "2026-05-12", "2026-05-14", "2026-05-16", dict.fromkeys(CHECKS, "good"))
    )


def _colours(database: Database) -> None:
    """Offer three T-shirts, and mugs with two handles."""
    blanks = Blanks(database)
    blanks.offer("t-shirt", "garment", ["White", "Sage", "Night"])
    blanks.offer("mug-11oz", "handle", ["White", "Pine"])


def _prices(database: Database, dusk: int) -> None:
    """Store the shop's costs and fees, and the price of its first tumbler."""
    selling = Selling(database)
    fees = [
        {"title": "Marketplace", "percent": "6.5", "fixed": "0.20", "of": "item and shipping"},
        {"title": "Payment", "percent": "3", "fixed": "0.25", "of": "all with tax"},
    ]
    selling.keep_shop({"currency": "EUR", "fees": fees, "tax_mode": "within the price", "tax_percent": "10", "free_from": "45"})
    regions = [
        {"title": "Valley", "cost": "4.90", "charged": "4.90"},
        {"title": "Over the pass", "cost": "11.80", "charged": "9.50"},
    ]
    selling.keep_costs(
        TUMBLER,
        {
            "blank": "5.40",
            "print": "1.30",
            "packing": "0.85",
            "regions": regions,
            "extras": [{"title": "Coloured lid", "more": "0.70"}],
        },
    )
    selling.keep_sale(
        dusk, TUMBLER, {"price": "26.99", "discount": "15", "wanted": "20", "wanted_percent": True, "ending": "0.99"}
    )
