"""Where samples have shown panels to be sewn: kept per blank and provider, each with its sample and its date."""

from __future__ import annotations

from dataclasses import dataclass

from .database import Database


@dataclass(frozen=True)
class CalibrationRow:
    """What one sample has shown: how far past where it was taken to be, in mm right and down in all, a seam's follower lies."""

    id: int
    template_id: str
    provider: str
    seam: str
    right_mm: float
    down_mm: float
    sample: str
    made_on: str


class Calibrations:
    """The calibrations of one data folder. Of each seam the newest of the provider that sews it holds."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self, template_id: str) -> list[CalibrationRow]:
        """Every calibration of a blank, the newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM calibration WHERE template_id = ? ORDER BY id DESC", (template_id,)
        )
        return [CalibrationRow(**dict(row)) for row in rows]

    def add(self, template_id: str, provider: str, seam: str, moved_mm: tuple[float, float], sample: str, made_on: str) -> None:
        """Keep what a sample has shown; the provider is then who sews this blank."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO calibration (template_id, provider, seam, right_mm, down_mm, sample, made_on) "
                "VALUES (?, ?, ?, ?, ?, ?, ?)",
                (template_id, provider, seam, *moved_mm, sample, made_on),
            )
        self.sewn_by(template_id, provider)

    def take_back(self, calibration_id: int) -> None:
        """Forget one; the one before it holds again."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM calibration WHERE id = ?", (calibration_id,))

    def provider(self, template_id: str) -> str:
        """Who sews a blank; nothing where nobody was named."""
        return str(self._database.setting(f"sewn by {template_id}") or "")

    def sewn_by(self, template_id: str, provider: str) -> None:
        """Say who sews a blank: what was learned of others does not hold then."""
        self._database.keep_setting(f"sewn by {template_id}", provider)

    def now(self, template_id: str) -> dict[str, tuple[float, float]]:
        """What holds, by seam: mm right and down."""
        provider, found = self.provider(template_id), dict[str, tuple[float, float]]()
        for row in self.all(template_id):
            if row.provider == provider:
                found.setdefault(row.seam, (row.right_mm, row.down_mm))
        return found
