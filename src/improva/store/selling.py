"""Costs of the shop and of each blank, and the price of each pair."""

from __future__ import annotations

import json
from typing import Any

from .database import Database

SHOP = "shop"
PLAN = "plan"
FIRST_CURRENCY = "USD"


class Selling:
    """Costs and prices of one data folder, as plain values."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def shop(self) -> dict[str, Any]:
        """Return the shop's currency, fees, tax and shipping; empty before they are set."""
        return self._database.setting(SHOP) or {}

    def keep_shop(self, shop: dict[str, Any]) -> None:
        """Store the shop's settings."""
        self._database.keep_setting(SHOP, shop)

    def plan(self) -> dict[str, Any]:
        """Return the settings of the plan; empty before they are set."""
        return self._database.setting(PLAN) or {}

    def keep_plan(self, plan: dict[str, Any]) -> None:
        """Store the settings of the plan."""
        self._database.keep_setting(PLAN, plan)

    def costs(self, template_id: str) -> dict[str, Any]:
        """Return the costs of one piece of a blank; empty before they are set."""
        row = self._database.connection.execute(
            "SELECT costs FROM blank_costs WHERE template_id = ?", (template_id,)
        ).fetchone()
        return dict(json.loads(row[0])) if row else {}

    def keep_costs(self, template_id: str, costs: dict[str, Any]) -> None:
        """Store the costs of one piece of a blank."""
        text = json.dumps(costs, ensure_ascii=False)
        with self._database.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO blank_costs (template_id, costs) VALUES (?, ?)", (template_id, text))

    def sale(self, artwork_id: int, template_id: str) -> dict[str, Any]:
        """Return the price of a pair; empty before it is set."""
        row = self._database.connection.execute(
            "SELECT sale FROM pair_sale WHERE artwork_id = ? AND template_id = ?", (artwork_id, template_id)
        ).fetchone()
        return dict(json.loads(row[0])) if row else {}

    def keep_sale(self, artwork_id: int, template_id: str, sale: dict[str, Any]) -> None:
        """Store the price of a pair."""
        text = json.dumps(sale, ensure_ascii=False)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT OR REPLACE INTO pair_sale (artwork_id, template_id, sale) VALUES (?, ?, ?)",
                (artwork_id, template_id, text),
            )

    def priced(self, artwork_id: int, template_id: str) -> str | None:
        """Return a pair's price with its currency, or None."""
        price = self.sale(artwork_id, template_id).get("price")
        return f"{price} {self.shop().get('currency', FIRST_CURRENCY)}" if price and price.strip("0.") else None
