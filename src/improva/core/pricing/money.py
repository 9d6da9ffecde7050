"""Amounts of money as decimals in a currency's smallest coin."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal, InvalidOperation

from ..errors import ImprovaError

MOST = Decimal(10) ** 9


class PriceError(ImprovaError):
    """An invalid amount, a percentage out of range, or a profit that no price can reach."""


@dataclass(frozen=True)
class Currency:
    """A currency: its ISO 4217 code, and the number of decimals of its smallest coin."""

    code: str = "USD"
    decimals: int = 2

    @property
    def step(self) -> Decimal:
        """The smallest amount."""
        return Decimal(1).scaleb(-self.decimals)

    def round(self, amount: Decimal) -> Decimal:
        """Round an amount to the smallest coin, halves up, as tills and marketplaces do (common practice, no published
        source)."""
        return amount.quantize(self.step, ROUND_HALF_UP)


WITHOUT_DECIMALS = {"JPY", "KRW", "ISK", "CLP", "VND", "XAF", "XOF", "XPF", "PYG", "UGX", "RWF"}
THREE_DECIMALS = {"KWD", "BHD", "OMR", "JOD", "TND"}


def currency(code: str) -> Currency:
    """Return the currency of a code, with its decimals by ISO 4217 (from memory). Raises :class:`PriceError`."""
    code = code.strip().upper()
    if not (len(code) == 3 and code.isascii() and code.isalpha()):
        raise PriceError(f"'{code}' is not a currency: write its three letters, for example USD or EUR.")
    return Currency(code, 0 if code in WITHOUT_DECIMALS else 3 if code in THREE_DECIMALS else 2)


def money(text: str | int | Decimal, what: str = "amount") -> Decimal:
    """Parse an amount with a decimal point or comma. Raises :class:`PriceError`."""
    try:
        amount = Decimal(str(text).strip().replace(",", "."))
    except InvalidOperation:
        raise PriceError(f"'{text}' is not an {what}: write a number, for example 12.50.") from None
    if not amount.is_finite() or abs(amount) >= MOST:
        raise PriceError(f"'{text}' is out of reach for an {what}.")
    return amount
