"""Draw all the demo's vector sources again: ``python -m demo.draw``."""

from __future__ import annotations

from pathlib import Path

from . import dusk, flags, ibex, marmot, timetable

TARGET = Path("src/improva/demo")


def main() -> None:
    for module in (dusk, flags, ibex, marmot, timetable):
        name = module.__name__.rpartition(".")[2]
        (TARGET / f"{name}.svg").write_text(module.draw(), encoding="utf-8")


if __name__ == "__main__":
    main()
