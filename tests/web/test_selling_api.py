"""The Sell station's prices: stored for blank, shop and pair; sums equal the core's; impossible ones are refused and change
nothing."""

from decimal import Decimal as D
from pathlib import Path

from improva.core.pricing import Costs, Fee, Region, Sale, margin_of
from improva.web.app import create_app
from tests.web.client import ApiClient, client_of
from tests.web.helpers import at, drop

COSTS = {
    "blank": "4.80",
    "print": "2.10",
    "packing": "0.60",
    "regions": [{"title": "Home", "cost": "5.40", "charged": "4.95"}, {"title": "Abroad", "cost": "12.30", "charged": "9.90"}],
    "extras": [{"title": "Coloured inside", "more": "1.35"}],
}
SHOP = {
    "currency": "EUR",
    "fees": [
        {"title": "Marketplace", "percent": "6.5"},
        {"title": "Payment", "percent": "3", "fixed": "0.25", "of": "all with tax"},
    ],
    "tax_mode": "none",
    "tax_percent": "0",
    "free_from": None,
}
SALE = {
    "price": "24.99",
    "discount": "20",
    "wanted": "25",
    "wanted_percent": True,
    "percent_of": "net",
    "ending": "0.99",
    "prices": {},
}


def test_a_price_is_calculated_in_every_case_and_one_is_suggested(client: ApiClient) -> None:
    art = drop(client)
    first = client.get(at(art, "/selling")).json
    assert not first["known"] and first["cases"][0]["left"] == "0.00" and first["problem"] is None
    state = client.put(at(art, "/selling"), json={"shop": SHOP, "costs": COSTS, "sale": SALE}).json
    costs = Costs(
        blank=D("4.80"),
        print=D("2.10"),
        packing=D("0.60"),
        extras={"Coloured inside": D("1.35")},
        regions=(Region("Home", D("5.40"), D("4.95")), Region("Abroad", D("12.30"), D("9.90"))),
        fees=(Fee("Marketplace", D("6.5")), Fee("Payment", D(3), D("0.25"), "all with tax")),
    )
    now, off, worst = state["cases"]
    assert now["left"] == "13.94" and off["left"] == "9.42"  # by hand, as in the core's test but for the listing's 0.20
    assert worst["region"] == "Abroad" and worst["extra"] == "Coloured inside"
    suggested = D(state["suggested"])
    left = margin_of(costs, Sale(suggested, D(20), "Abroad", "Coloured inside"))
    assert str(suggested).endswith(".99") and left.percent is not None and left.percent >= 25
    below = margin_of(costs, Sale(suggested - 1, D(20), "Abroad", "Coloured inside"))
    assert below.percent is not None and below.percent < 25
    prices = [D(price) for price, _, _ in state["curve"]]
    assert (
        prices == sorted(prices)
        and prices[0] == 0
        and prices[-1] > suggested
        and all(D(n) >= D(w) for _, n, w in state["curve"])
    )


def test_costs_belong_to_the_blank_fees_to_the_shop_and_the_price_to_the_pair(client: ApiClient) -> None:
    one, two = drop(client), drop(client, None, "again.png")
    client.put(at(one, "/selling"), json={"shop": SHOP, "costs": COSTS, "sale": SALE})
    mug = f"/api/pairs/{two['id']}/mug-11oz"
    there = client.get(f"{mug}/selling").json
    assert there["shop"]["currency"] == "EUR" and not there["known"] and there["sale"]["price"] == "0"
    assert client.get(at(one)).json["priced"] == "24.99 EUR" and client.get(mug).json["priced"] is None
    again = client_of(create_app(Path(client.application.extensions["services"].store.database.folder)))
    assert again.get(at(one, "/selling")).json["sale"] == SALE  # a restart loses nothing


def test_impossible_prices_are_refused_and_change_nothing(client: ApiClient) -> None:
    """One value that the API's model refuses and one that the core refuses; the core's tests cover the others."""
    art = drop(client)
    before = client.put(at(art, "/selling"), json={"shop": SHOP, "costs": COSTS, "sale": SALE}).json
    for change, says in (({"costs": {**COSTS, "regions": []}}, "regions"), ({"sale": {"price": "-4"}}, "less than nothing")):
        answer = client.put(at(art, "/selling"), json=change)
        assert answer.status_code == 422 and says in answer.json["detail"], answer.text
        assert client.get(at(art, "/selling")).json == before


def test_a_target_that_no_price_reaches_is_reported(client: ApiClient) -> None:
    art = drop(client)
    sale = {**SALE, "wanted": "95"}
    state = client.put(at(art, "/selling"), json={"shop": SHOP, "costs": COSTS, "sale": sale}).json
    assert state["suggested"] is None and state["break_even"] is not None
    assert client.get("/api/pairs/99/mug-11oz/selling").status_code == 404


def test_a_marketplace_has_fees_of_its_own(client: ApiClient) -> None:
    """Of 20.00 the shop's fee takes a tenth, the second marketplace's a quarter; nothing else costs."""
    art = drop(client)
    url = at(art, "/selling")
    state = client.get(url).json
    first = state["market"]
    markets = [market["id"] for market in client.get(at(art, "/listing")).json["markets"]]
    other = next(market for market in markets if market != first)
    shop = {
        "fees": [{"title": "Fee", "percent": "10"}],
        "market_fees": {other: [{"title": "Fee", "percent": "25"}]},
    }
    told = client.put(url, json={"shop": shop, "sale": {**SALE, "price": "20", "discount": "0"}}).json
    assert told["cases"][0]["left"] == "18.00" and told["market"] == first
    assert client.put(at(art, "/listing"), json={"market": other}).status_code == 200
    moved = client.get(url).json
    assert moved["cases"][0]["left"] == "15.00" and moved["market"] == other and moved["market_title"]
    bad = {**shop, "market_fees": {other: [{"title": "A", "percent": "60"}, {"title": "B", "percent": "60"}]}}
    assert client.put(url, json={"shop": bad}).status_code == 422


def test_a_variant_has_a_price_of_its_own(client: ApiClient) -> None:
    art = drop(client)
    state = client.put(at(art, "/selling"), json={"shop": SHOP, "costs": COSTS, "sale": SALE}).json
    (variant,) = state["variants"]
    assert (variant["title"], variant["more"], variant["price"], variant["own"]) == ("Coloured inside", "1.35", "24.99", False)
    dear = client.put(at(art, "/selling"), json={"sale": {**SALE, "prices": {"Coloured inside": "29.99"}}}).json
    (variant,) = dear["variants"]
    assert variant["own"] and D(variant["left"]) > D(state["variants"][0]["left"])
    assert D(dear["break_even"]) < D(state["break_even"]), "the list price does not have to bear it any more"
    assert client.put(at(art, "/selling"), json={"sale": {**SALE, "prices": {"Coloured inside": "x"}}}).status_code == 422
