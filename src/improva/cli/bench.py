"""``improva bench``: time this project against bare libraries."""

from __future__ import annotations

from .group import as_json_option, main, tell


@main.command()
@as_json_option
def bench(as_json: bool) -> None:
    """Time this project against bare libraries, in one run, as ratios."""
    from ..bench.main import run_all

    results = run_all()
    lines = [f"{r['name']:44} {r['ratio']:6.2f} × {r['floor']}  (limit {r['limit']:g})" for r in results]
    tell(results, as_json, lines)
