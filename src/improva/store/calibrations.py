"""Calibrations: where samples show that panels are sewn, by blank and provider, with sample and date."""

from __future__ import annotations

from dataclasses import dataclass

from .database import Database


@dataclass(frozen=True)
class CalibrationRow:
    """What one sample shows: the total shift of a seam's following panel, in mm right and down."""

    id: int
    template_id: str
    provider: str
    seam: str
    right_mm: float
    down_mm: float
    sample: str
    made_on: str


class Calibrations:
    """The calibrations of one data folder. For each seam the newest of its current provider applies."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self, template_id: str) -> list[CalibrationRow]:
        """Return every calibration of a blank, the newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM calibration WHERE template_id = ? ORDER BY id DESC", (template_id,)
        )
        return [CalibrationRow(**dict(row)) for row in rows]

    def add(self, template_id: str, provider: str, seam: str, moved_mm: tuple[float, float], sample: str, made_on: str) -> None:
        """Store a calibration; its provider becomes the one who sews this blank."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO calibration (template_id, provider, seam, right_mm, down_mm, sample, made_on) "
                "VALUES (?, ?, ?, ?, ?, ?, ?)",
                (template_id, provider, seam, *moved_mm, sample, made_on),
            )
        self.sewn_by(template_id, provider)

    def take_back(self, calibration_id: int) -> None:
        """Remove a calibration; the previous one applies again."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM calibration WHERE id = ?", (calibration_id,))

    def provider(self, template_id: str) -> str:
        """Return the provider who sews a blank; empty before one is set."""
        return str(self._database.setting(f"sewn by {template_id}") or "")

    def sewn_by(self, template_id: str, provider: str) -> None:
        """Set the provider who sews a blank; calibrations of others then do not apply."""
        self._database.keep_setting(f"sewn by {template_id}", provider)

    def now(self, template_id: str) -> dict[str, tuple[float, float]]:
        """Return the current shift of each seam in mm right and down."""
        provider, corrections = self.provider(template_id), dict[str, tuple[float, float]]()
        for row in self.all(template_id):
            if row.provider == provider:
                corrections.setdefault(row.seam, (row.right_mm, row.down_mm))
        return corrections
