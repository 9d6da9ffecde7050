"""Draw all the demo's sources again: ``python -m demo.draw``; its photographs too: ``python -m demo.draw views``."""

from __future__ import annotations

import sys
from pathlib import Path

from demo.draw import dusk, flags, ibex, marmot, timetable, views

TARGET = Path("src/improva/demo")


def main() -> None:
    for module in (dusk, flags, ibex, marmot, timetable):
        name = module.__name__.rpartition(".")[2]
        (TARGET / f"{name}.svg").write_text(module.draw(), encoding="utf-8")
    for name in views.VIEWS if "views" in sys.argv else ():
        (TARGET / f"{name}.jpg").write_bytes(views.draw(name))


if __name__ == "__main__":
    main()
