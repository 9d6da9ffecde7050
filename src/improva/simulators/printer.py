"""A simulated printer: it "prints" into a folder, uses paper and ink, runs low and jams."""

from __future__ import annotations

import json
import shutil
from dataclasses import asdict, dataclass, replace
from pathlib import Path

import numpy as np
import pypdfium2
import pyvips

from ..core.errors import OutputError
from ..core.units import MM_PER_IN, PT_PER_IN
from ..io.atomic import atomic_path

FULL_SHEETS = 50
LOW_SHEETS = 10
FULL_INK_ML = 70.0
LOW_INK_ML = 7.0
INK_ML_PER_M2 = 12.0
"""Ink of one colour per square metre of full coverage, in ml. From memory; precise enough for a simulation."""
INKS = ("cyan", "magenta", "yellow")
LOOK_DPI = 24.0


@dataclass(frozen=True)
class PrinterState:
    """The simulated printer's state: sheets of paper, ink in ml by colour, whether it is jammed, and what it printed."""

    sheets: int = FULL_SHEETS
    ink_ml: tuple[float, float, float] = (FULL_INK_ML,) * 3
    jammed: bool = False
    jam_next: bool = False
    printed: tuple[str, ...] = ()

    @property
    def low(self) -> list[str]:
        """Return warnings about low paper and ink."""
        warnings = [f"paper ({self.sheets} sheets)"] if self.sheets <= LOW_SHEETS else []
        return warnings + [f"{ink} ink" for ink, ml in zip(INKS, self.ink_ml, strict=True) if ml <= LOW_INK_ML]


@dataclass(frozen=True)
class Used:
    """Paper and ink that one print used."""

    sheets: int
    ink_ml: tuple[float, float, float]


def _pages(path: Path) -> list[tuple[np.ndarray, float]]:
    """Return every page reduced, as (h, w, 3) in 0…1, with its area in m²."""
    if path.suffix == ".pdf":
        with pypdfium2.PdfDocument(path) as pdf:
            return [
                (
                    page.render(scale=LOOK_DPI / PT_PER_IN).to_numpy()[..., :3] / 255,
                    page.get_width() * page.get_height() / PT_PER_IN**2 * (MM_PER_IN / 1000) ** 2,
                )
                for page in pdf
            ]
    image = pyvips.Image.new_from_file(str(path))
    area = image.width / image.xres * image.height / image.yres / 1e6
    small = pyvips.Image.thumbnail(str(path), 400)
    small = small.flatten(background=[255, 255, 255]) if small.hasalpha() else small
    return [(np.asarray(small.numpy())[..., :3] / 255, area)]


def needed(path: Path, copies: int) -> Used:
    """Return the sheets and ink that a file needs; a file other than PDF is one sheet. Ink is the darkness of each colour."""
    pages = _pages(path)
    ink = np.sum([(1 - page).reshape(-1, 3).mean(axis=0) * area * INK_ML_PER_M2 for page, area in pages], axis=0) * copies
    return Used(len(pages) * copies, (float(ink[0]), float(ink[1]), float(ink[2])))


class SimulatedPrinter:
    """The printer of one data folder. Its state survives a restart."""

    def __init__(self, folder: Path) -> None:
        self.tray = folder / "printed"
        self._file = folder / "simulated-printer.json"

    def state(self) -> PrinterState:
        """Return the stored state."""
        if not self._file.exists():
            return PrinterState()
        stored = json.loads(self._file.read_text(encoding="utf-8"))
        return PrinterState(**{**stored, "ink_ml": tuple(stored["ink_ml"]), "printed": tuple(stored["printed"])})

    def _keep(self, state: PrinterState) -> PrinterState:
        with atomic_path(self._file) as temporary:
            temporary.write_text(json.dumps(asdict(state)), encoding="utf-8")
        return state

    def refill(self) -> PrinterState:
        """Refill paper and ink."""
        return self._keep(replace(self.state(), sheets=FULL_SHEETS, ink_ml=(FULL_INK_ML,) * 3))

    def clear_jam(self) -> PrinterState:
        """Remove the jammed sheet."""
        return self._keep(replace(self.state(), jammed=False, jam_next=False))

    def jam_at_next(self) -> PrinterState:
        """Jam the next print."""
        return self._keep(replace(self.state(), jam_next=True))

    def print(self, path: Path, name: str, copies: int = 1) -> Used:
        """Print a file: copy it to the tray, and use paper and ink.

        Raises:
            OutputError: it is jammed, or paper or ink do not reach. Nothing is then printed, but for the jammed sheet.
        """
        state = self.state()
        if state.jammed:
            raise OutputError("The simulated printer is jammed: take the sheet out, then print again.")
        if state.jam_next:
            self._keep(replace(state, jammed=True, jam_next=False, sheets=max(0, state.sheets - 1)))
            raise OutputError("The simulated printer has jammed and spoiled a sheet: take it out, then print again.")
        used = needed(path, copies)
        left = tuple(have - use for have, use in zip(state.ink_ml, used.ink_ml, strict=True))
        if used.sheets > state.sheets:
            raise OutputError(f"{used.sheets} sheets are needed and {state.sheets} are in the simulated printer: put in paper.")
        if min(left) < 0:
            raise OutputError(f"The simulated printer's {INKS[int(np.argmin(left))]} ink does not reach: put in ink.")
        self.tray.mkdir(exist_ok=True)
        with atomic_path(self.tray / name) as temporary:
            shutil.copyfile(path, temporary)
        now = replace(state, sheets=state.sheets - used.sheets, ink_ml=(left[0], left[1], left[2]))
        self._keep(replace(now, printed=(*state.printed, f"{name} × {copies}")[-20:]))
        return used
