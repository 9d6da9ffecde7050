"""A seeded year of a seller's work, and the response times on it."""

from __future__ import annotations

import tempfile
from collections.abc import Iterable
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np
import pyvips
from flask import Flask

from ..app.reports import report_summary
from ..core.artwork.pixels import Artwork
from ..core.artwork.traits import find_traits
from ..web.app import create_app
from .pictures import plain_art
from .timing import median, row, times_of


def bench_year(artworks: int = 1000, blanks: int = 15, visited: int = 40) -> list[dict[str, Any]]:
    """Measure the board, its rows and the bench's requests on a year's records. Check reports are already stored."""
    with tempfile.TemporaryDirectory() as folder:
        rows = [int(n) for n in np.random.default_rng(2).choice(np.arange(1, artworks + 1), visited, replace=False)]
        app, names = seed_year(Path(folder), artworks, blanks, rows)
        client = app.test_client()
        opened = median(lambda: client.get("/api/board"), 5)
        pairs = [(n, names[i % len(names)]) for i, n in enumerate(rows)]
        parts = ("", "/jobs", "/selling", "/press", "/mockup-settings", "/listing", "/history", "/orders")
        addresses = [
            *(f"/api/board/{n}" for n in rows),
            *(f"/api/pairs/{n}/{t}{part}" for n, t in pairs for part in parts),
            *(f"/api/search?words={words}" for words in ("artwork 7", "a.png", "nothing of this name")),
        ]

        def get(at: str) -> None:
            assert (answer := client.get(at)).status_code == 200, (at, answer.text)

        times = [opened, *(times_of(partial(get, at), 1)[0] for at in addresses)]
        worst = float(np.percentile(times, 95))
        return [
            row(f"opening a board of {artworks} × {blanks}", opened, "1 s", 1.0, 1.0),
            row(f"any answer on {artworks} × {blanks}, 95th percentile", worst, "300 ms", 0.3, 1.0),
        ]


def seed_year(folder: Path, artworks: int, blanks: int, proved: Iterable[int]) -> tuple[Flask, list[str]]:
    """Make an application in `folder` with a number of artworks (numbered from 1) on a number of blanks; also return the
    blanks' names. Every pair has a placement, two made files and two jobs; the artworks `proved` have check reports."""
    app = create_app(folder)
    services = app.extensions["services"]
    art = Artwork.read(plain_art(0))
    traits, rng = find_traits(art), np.random.default_rng(2)
    for n in range(1, artworks + 1):
        noise = pyvips.Image.new_from_array(rng.integers(0, 255, (8, 8, 3), dtype=np.uint8)).pngsave_buffer()
        services.store.artworks.add(f"Artwork {n}", f"{n}.png", Artwork(bytes(noise), art.facts), traits)
    names = list(services.blanks.all())[:blanks]
    services.store.blanks.set_board(names)
    _records(services, artworks, names)
    proved = list(proved)
    for template in services.blanks.on_board():
        report = services.preflight.report(services.pairs.load(1, template.id))
        for n in proved:
            services.store.preflight_reports.get_or_make(
                services.pairs.load(n, template.id).report_key, lambda report=report: report, report_summary
            )
    return app, names


def _records(services: Any, artworks: int, names: list[str]) -> None:
    """Store a year's records: a placement, two made files and two jobs for every pair."""
    pairs = [(n, name) for n in range(1, artworks + 1) for name in names]
    with services.store.database.writing() as connection:
        connection.executemany("INSERT INTO pair (artwork_id, template_id, step) VALUES (?, ?, 1)", pairs)
        placement = '{"wrap": {"fit": "cover", "shift_mm": [1, 2], "scale": 1.1, "rotate_deg": 0, "background": null}}'
        connection.executemany(
            "INSERT INTO placement (artwork_id, template_id, step, placement) VALUES (?, ?, 1, ?)",
            ((*pair, placement) for pair in pairs),
        )
        for kind in ("print", "picture"):
            connection.executemany(
                "INSERT INTO made_file (key, artwork_id, template_id, kind, placement_key, file_name) VALUES (?, ?, ?, ?, 'p', 'a.png')",
                ((f"{kind} {art} {name}", art, name, kind) for art, name in pairs),
            )
            connection.executemany(
                "INSERT INTO job (kind, parameters, title, artwork_id, template_id, state) VALUES (?, '{}', 'A job', ?, ?, 'done')",
                ((kind, *pair) for pair in pairs),
            )
