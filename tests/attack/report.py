"""What an attack has found."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field
from typing import Any

SLOW_S, GROWTH_MB = 10.0, 200.0
"""Bounds of the attack: how long any answer may take, and how much the server's memory may grow."""


@dataclass
class Report:
    """Counts of one attack.

    Attributes:
        patience: how many times longer an answer may take: more than once where other tests use the machine too.
        tried: how often something was attacked.
        statuses: answers by status.
        faults: what must not be: errors of the server, slow answers, growth, files elsewhere, lost or doubled results.
        figures: measured values by name.
    """

    name: str
    patience: float = 1.0
    tried: int = 0
    statuses: Counter[int] = field(default_factory=Counter)
    faults: list[str] = field(default_factory=list)
    figures: dict[str, Any] = field(default_factory=dict)

    def answered(self, what: str, status: int, seconds: float) -> None:
        """Note an answer."""
        self.tried += 1
        self.statuses[status] += 1
        if status >= 500 and status != 507:
            self.faults.append(f"{what}: {status}")
        if seconds > SLOW_S * self.patience:
            self.faults.append(f"{what}: {seconds:.1f} s")
        self.figures["slowest answer, s"] = round(max(seconds, self.figures.get("slowest answer, s", 0.0)), 2)

    def grown(self, megabytes: float) -> None:
        """Note how much the server's memory has grown."""
        self.figures["growth, MB"] = round(megabytes)
        if megabytes > GROWTH_MB:
            self.faults.append(f"the server has grown by {megabytes:.0f} MB")

    def lines(self) -> list[str]:
        """Return the report as lines of text."""
        counts = ", ".join(f"{status}: {count}" for status, count in sorted(self.statuses.items()))
        figures = ", ".join(f"{name} {value}" for name, value in self.figures.items())
        head = f"{self.name}: {self.tried} tried, {len(self.faults)} faults; {figures}"
        return [head, *([f"  answers {counts}"] if counts else []), *(f"  FAULT {fault}" for fault in self.faults[:40])]
