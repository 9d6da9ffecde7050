"""Landed cost calculated by hand; days compared with the calendar."""

from datetime import date, timedelta
from decimal import Decimal as D
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.core.errors import ListingError
from improva.core.pricing.money import Currency, PriceError
from improva.core.providers import Days, Offer, Route, Sample, days_of, landed, usual_days

EUR = Currency("EUR")
HOME = Route("Valley", D("4.90"))
FAR = Route("Over the pass", D("11.80"), D("19.6"), D("22.00"), D("6.50"))


def test_the_landed_cost_matches_a_calculation_by_hand() -> None:
    offer = Offer(D("23.40"), (HOME, FAR))
    home, far = landed(offer, "Valley", EUR), landed(offer, "Over the pass", EUR)
    assert home and (home.duty, home.total, home.exposed) == (D("0.00"), D("28.30"), False)
    # (23.40 + 11.80) · 0.196 = 6.8992, with 6.50 of handling 13.3992, so 13.40; 23.40 + 11.80 + 13.40
    assert far and (far.duty, far.total, far.exposed) == (D("13.40"), D("48.60"), True)
    assert landed(offer, "The moon", EUR) is None


def test_below_the_threshold_there_is_no_duty_but_a_customs_fee_may_apply() -> None:
    at_limit = landed(Offer(D("22.00"), (FAR,)), "Over the pass", EUR)
    assert at_limit and (at_limit.duty, at_limit.total, at_limit.exposed) == (D("0.00"), D("33.80"), True)


@pytest.mark.parametrize(
    ("piece", "counts", "duty"),
    [("9.00", False, "0"), ("9.00", True, "4.08"), ("10.20", True, "4.31"), ("22.01", False, "6.63")],
)
def test_a_duty_free_limit_may_count_shipping(piece: str, counts: bool, duty: str) -> None:
    """By hand, 19.6 % of piece and shipping of 11.80: 20.80 is 4.0768, 22.00 is 4.312, 33.81 is 6.62676. The limit is 20.50, or 22."""
    limit = D("20.50") if counts else D("22.00")
    route = Route("Far", D("11.80"), D("19.6"), limit, limit_counts_shipping=counts)
    found = landed(Offer(D(piece), (route,)), "Far", EUR)
    assert found is not None and found.duty == D(duty)


@pytest.mark.parametrize(
    "wrong", [{"shipping": D(-1)}, {"duty_percent": D(301)}, {"free_up_to": D(-5)}, {"handling": D("-0.01")}]
)
def test_impossible_amounts_are_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(PriceError):
        Route("Valley", **wrong)
    with pytest.raises(PriceError):
        Offer(D(-1), ())


@given(st.dates(date(2000, 1, 1), date(2090, 1, 1)), st.integers(0, 400), st.integers(0, 400))
def test_days_agree_with_the_calendar(first: date, to_ship: int, on_the_way: int) -> None:
    shipped = first + timedelta(days=to_ship)
    delivered = shipped + timedelta(days=on_the_way)
    days = days_of(Sample("x", first.isoformat(), shipped.isoformat(), delivered.isoformat()))
    assert days == Days(to_ship, on_the_way, to_ship + on_the_way)


def test_days_over_a_leap_day_and_a_year_by_hand() -> None:
    assert days_of(Sample("x", "2028-02-27", "2028-03-01", "2028-03-08")) == Days(3, 7, 10)
    assert days_of(Sample("x", "2026-12-30", "2027-01-04")) == Days(5, None, None)
    every = [
        Sample("x", "2026-05-01", "2026-05-06", "2026-05-10"),
        Sample("x", "2026-06-01", "2026-06-03"),
        Sample("x", "2026-07-01", "", "2026-07-15"),
    ]
    assert usual_days(every) == Days(3.5, 4, 11.5) and usual_days([]) == Days(None, None, None)


@pytest.mark.parametrize(
    ("told", "said"),
    [
        ({"ordered": ""}, "ordered"),
        ({"ordered": "30.5.2026"}, "not a day"),
        ({"ordered": "2026-02-30"}, "not a day"),
        ({"ordered": "2026-05-30", "shipped": "2026-05-29"}, "before it was ordered"),
        ({"ordered": "2026-05-30", "shipped": "2026-06-05", "delivered": "2026-06-01"}, "before it was shipped"),
        ({"ordered": "2026-05-30", "delivered": "2026-05-01"}, "before it was ordered"),
        ({"ordered": "2026-05-30", "checks": {"smell": "off"}}, "smell"),
    ],
)
def test_impossible_dates_are_reported(told: dict[str, Any], said: str) -> None:
    with pytest.raises(ListingError, match=said):
        Sample("x", **told)
