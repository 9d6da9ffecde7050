"""Ranges of prices that lose, against trying every coin; and what a per cent is of."""

from dataclasses import replace
from decimal import Decimal as D

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from improva.core.pricing import Costs, Fee, PercentOf, Region, Sale, Tax, margin_of, never_short_from, safe_price, short_ranges
from improva.core.pricing.costs import FreeShipping
from improva.core.pricing.money import MOST, PriceError, currency

YEN = currency("JPY")
TRIED = 5000
"""Prices that are tried one by one."""


def left(costs: Costs, price: int, discount: D) -> D:
    """Return what the worst sale leaves at a price."""
    extra = max(costs.extras, key=lambda name: costs.extras[name], default=None)
    return min(
        margin_of(costs, Sale(D(price), part, region.title, extra)).left
        for region in costs.regions
        for part in (D(0), discount)
    )


REGIONS = st.builds(
    Region,
    st.just("Home"),
    st.integers(0, 900).map(D),
    st.integers(0, 900).map(D),
    st.sampled_from(["as elsewhere", "never", "from"]),
    st.integers(0, 3000).map(D),
)


@settings(max_examples=30)
@given(
    st.integers(0, 900),
    st.lists(REGIONS, min_size=1, max_size=3),
    st.integers(0, 30),
    st.integers(0, 25),
    st.integers(0, 40),
    st.one_of(st.none(), st.integers(1, 3000)),
)
def test_every_price_that_loses_lies_in_a_range(
    blank: int, regions: list[Region], percent: int, tax: int, off: int, free: int | None
) -> None:
    costs = Costs(
        YEN,
        D(blank),
        extras={"XL": D(40)},
        regions=tuple(replace(region, title=str(i)) for i, region in enumerate(regions)),
        fees=(Fee("Fee", D(percent), D(30)),),
        tax=Tax("within the price", D(tax)),
        free_from=None if free is None else D(free),
    )
    discount = D(off)
    ranges = short_ranges(costs, discount)
    losing = {price for price in range(TRIED) if left(costs, price, discount) < 0}
    inside = {price for low, high in ranges for price in range(int(low), int(min(high, D(TRIED))) + 1) if price < TRIED}
    assert losing <= inside
    assert len(inside - losing) <= 8 * len(regions), "no more than rounding explains"
    for _, high in ranges:
        assert high >= TRIED or left(costs, int(high), discount) < 0, "a range ends with a loss"
    safe = never_short_from(costs, discount)
    assert safe is not None
    if safe < TRIED:
        assert safe == max(losing, default=-1) + 1
    lowest = safe_price(costs, discount, D(0))
    assert lowest <= safe and left(costs, int(lowest), discount) >= 0


SHIPPED = Costs(
    blank=D("6.00"),
    print=D("3.00"),
    regions=(Region("Home", D("5.00"), D("4.50")), Region("Far", D("12.00"), D("11.00"))),
    fees=(Fee("Marketplace", D(10)),),
    free_from=D(20),
)


def test_free_shipping_makes_a_second_range_of_losses() -> None:
    """By hand: below 20, Far loses while 0.9 (p + 11) < 21, up to 12.33; from 20 on while 0.9 p < 21, up to 23.33."""
    ranges = short_ranges(SHIPPED, D(0))
    assert [(str(low), str(high)) for low, high in ranges] == [("0", "12.32"), ("20.00", "23.32")]
    assert never_short_from(SHIPPED, D(0)) == D("23.33") and safe_price(SHIPPED, D(0), D(0)) == D("12.33")


def test_a_rounded_price_does_not_fall_into_the_second_range() -> None:
    """By hand: 6.60 are left of Far from 0.9 p - 11.10 = 6.60, p = 19.67 on, but from 20 on only when 0.9 p - 21 = 6.60, p = 30.67."""
    assert safe_price(SHIPPED, D(0), D("6.60")) == D("19.67")
    assert safe_price(SHIPPED, D(0), D("6.60"), ending=D("0.99")) == D("19.99")
    assert safe_price(SHIPPED, D(0), D("6.60"), ending=D(0)) == 31


@pytest.mark.parametrize(
    ("free", "own", "shipping"),
    [("as elsewhere", "0", "0"), ("never", "0", "11.00"), ("from", "60", "11.00"), ("from", "30", "0")],
)
def test_a_region_has_its_own_threshold(free: FreeShipping, own: str, shipping: str) -> None:
    far = Region("Far", D("12.00"), D("11.00"), free, D(own))
    costs = replace(SHIPPED, regions=(SHIPPED.regions[0], far))
    assert margin_of(costs, Sale(D(40), region="Far")).shipping == D(shipping)
    assert margin_of(costs, Sale(D(40), region="Home")).shipping == 0


@pytest.mark.parametrize(("of", "price"), [("net", "17.86"), ("paid", "19.01")])
def test_a_per_cent_is_of_the_revenue_or_of_what_the_buyer_pays(of: PercentOf, price: str) -> None:
    """By hand, 20 % of tax within the price, no fees, 10 of costs: net is p / 1.2; left = net - 10.

    32.8 % of net: net = 10 / 0.672 = 14.881, p = 17.857. 30.74 % of the price: p (1 / 1.2 - 0.3074) = 10, p = 19.013.
    """
    costs = Costs(blank=D(10), regions=(Region("Home", D(0)),), tax=Tax("within the price", D(20)))
    wanted = D("32.8") if of == "net" else D("30.74")
    found = safe_price(costs, D(0), wanted, of)
    assert abs(found - D(price)) <= D("0.03")
    margin = margin_of(costs, Sale(found))
    assert margin.left * 100 >= wanted * margin.whole(of)
    below = margin_of(costs, Sale(found - D("0.03")))
    assert below.left * 100 < wanted * below.whole(of)
    assert margin.percent is not None and margin.percent_paid is not None and margin.percent > margin.percent_paid


def test_where_every_price_loses_there_is_no_safe_one() -> None:
    costs = replace(SHIPPED, fees=(Fee("All of it", D("95")),), tax=Tax("within the price", D(100)))
    assert short_ranges(costs, D(0))[-1][1] == MOST and never_short_from(costs, D(0)) is None
    with pytest.raises(PriceError, match="No price"):
        safe_price(costs, D(0), D(0))
