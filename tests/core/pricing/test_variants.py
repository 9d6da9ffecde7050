"""Colours and sizes with costs and prices of their own, against sums made by hand."""

import json
from dataclasses import replace
from decimal import Decimal as D

from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st

from improva.cli import main
from improva.core.pricing import Costs, Fee, Region, Sale, cases, margin_of, short_ranges, variants_of

SHIRT = Costs(
    blank=D(8),
    extras={"XL": D(2), "2XL": D(4)},
    regions=(Region("Home", D(4), D(5)), Region("Abroad", D(9), D(7))),
    fees=(Fee("Marketplace", D(10), of="item"),),
)


def test_each_variant_is_sold_at_its_own_price() -> None:
    """2XL at 25: 25 + 5 − 2.50 − 8 − 4 − 4 = 11.50 at home; abroad at 20 % off: 20 + 7 − 2 − 8 − 4 − 9 = 4."""
    large, larger = variants_of(SHIRT, D(20), D(20), {"2XL": D(25)})
    assert (large.title, large.price, large.own) == ("XL", D(20), False)
    assert (larger.price, larger.own, larger.now.left, larger.worst.left) == (D(25), True, D("11.50"), D(4))
    # XL at the list price, 20: 20 + 5 − 2 − 8 − 2 − 4 = 9; abroad at 16: 16 + 7 − 1.60 − 8 − 2 − 9 = 2.40
    assert (large.now.left, large.worst.left) == (D(9), D("2.40"))


def test_the_worst_case_is_that_of_the_variant_that_leaves_least_at_its_price() -> None:
    dear = cases(SHIRT, D(20), D(0))[-1].sale
    assert (dear.price, dear.extra) == (D(20), "2XL"), "without prices of their own the dearest one is worst"
    now = cases(SHIRT, D(20), D(0), {"2XL": D(40)})[-1].sale
    assert (now.price, now.extra) == (D(20), "XL")
    low = cases(SHIRT, D(20), D(0), {"XL": D(12)})[-1].sale
    assert (low.price, low.extra) == (D(12), "XL")


def test_the_list_price_does_not_bear_variants_with_their_own() -> None:
    both = short_ranges(SHIRT, D(0))
    without = short_ranges(SHIRT.without(["2XL"]), D(0))
    assert without[-1][1] < both[-1][1]
    assert SHIRT.without([]) == SHIRT and SHIRT.without(["XL", "2XL"]) == replace(SHIRT, extras={})


@given(st.integers(1, 90), st.integers(0, 60), st.dictionaries(st.sampled_from(["XL", "2XL"]), st.integers(1, 90).map(D)))
def test_no_sale_of_any_variant_leaves_less_than_the_worst_case(price: int, off: int, prices: dict[str, D]) -> None:
    worst = cases(SHIRT, D(price), D(off), prices)[-1].margin.left
    for extra in (None, "XL", "2XL"):
        at = prices.get(extra, D(price)) if extra else D(price)
        for region in SHIRT.regions:
            for part in (D(0), D(off)):
                assert margin_of(SHIRT, Sale(at, part, region.title, extra)).left >= worst


def test_a_shell_takes_the_price_of_a_variant() -> None:
    run = [
        "price",
        "--cost",
        "8",
        "--price",
        "20",
        "--shipping",
        "4",
        "--charged",
        "5",
        "--extra",
        "2XL=4",
        "--price-of",
        "2XL=25",
        "--json",
    ]
    report = json.loads(CliRunner().invoke(main, run).output)
    assert report["variants"] == [{"title": "2XL", "price": 25.0, "own": True, "left": 14.0, "worst": 14.0}]
    assert CliRunner().invoke(main, [*run[:-3], "--price-of", "3XL=25"]).exit_code != 0
