"""The largest print: a throw blanket at 300 dpi, each implementation in its own process."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

import pyvips

from ..catalogue import template as find_template
from ..core.artwork.pixels import Artwork
from ..core.design import Design, Piece, Placement
from ..core.output import PrintSettings
from ..core.pieces import ArtRef, Band, Frames, Lettering, Slot
from ..core.words import WordPath
from ..fonts import font_bytes
from ..io.pdf import PNG_COMPRESSION
from ..io.print_file import write_print_file

BLANKET = "blanket-upright"
MOST_MB = 500.0


def _ours(art_path: Path, out: Path) -> None:
    """A picture, a patterned border with a line, four framed photographs, and words on an arc."""
    art = Artwork.read(art_path.read_bytes())
    ref = ArtRef("art", art.facts.size)
    extras = (
        Band("all", 60, "#20304a", ref, 80, 3, 5, "#ffffff"),
        Frames("grid", 2, 2, (700, 500), slots=(Slot(ref),) * 4),
        Lettering("The Summit Line", "poster", path=WordPath("arc", 90), sizing="width", width_mm=900),
    )
    blanket = find_template(BLANKET)
    design = Design(
        blanket, blanket.panel(), (Piece("art", art.facts.size, Placement()),), extras, {"poster": font_bytes("poster")}
    )
    write_print_file(design, lambda _: art, out, PrintSettings(300))


def _size() -> tuple[int, int]:
    return find_template(BLANKET).panel().file_px(300)


def _libvips(art_path: Path, out: Path) -> None:
    """A bare resize and save of the same size."""
    w, h = _size()
    image = pyvips.Image.new_from_file(str(art_path), access="sequential")
    factor = max(w / image.width, h / image.height)
    image.resize(factor, kernel="lanczos3").crop(0, 0, w, h).pngsave(str(out), compression=PNG_COMPRESSION)


def _pillow(art_path: Path, out: Path) -> None:
    """The same with Pillow, which holds the whole picture in memory."""
    from PIL import Image, ImageOps

    Image.MAX_IMAGE_PIXELS = None
    with Image.open(art_path) as picture:
        ImageOps.fit(picture, _size(), Image.Resampling.LANCZOS).save(out, "PNG", compress_level=PNG_COMPRESSION)


WAYS = {"ours": _ours, "libvips": _libvips, "pillow": _pillow}


def _alone(way: str, art_path: Path) -> tuple[float, float]:
    """Return seconds and peak memory in MB of one implementation, in a fresh process."""
    result = subprocess.run(
        [sys.executable, "-m", __name__, way, str(art_path)], capture_output=True, text=True, check=True
    ).stdout
    seconds, mb = json.loads(result)
    return float(seconds), float(mb)


def bench_blanket(art: bytes) -> list[dict[str, Any]]:
    """Measure time and memory of a blanket's file, against bare libvips and Pillow."""
    w, h = _size()
    with tempfile.TemporaryDirectory() as folder:
        art_path = Path(folder) / "art.png"
        art_path.write_bytes(art)
        (ours, mb), (bare, _), (pillow, pillow_mb) = (_alone(way, art_path) for way in ("ours", "libvips", "pillow"))

    def row(name: str, value: float, floor: str, against: float, limit: float) -> dict[str, Any]:
        return {
            "name": name,
            "seconds": round(value, 2),
            "floor": floor,
            "floor_seconds": round(against, 2),
            "ratio": round(value / against, 3),
            "limit": limit,
        }

    return [
        row(f"throw blanket {w} × {h} with pattern, frames, words", ours, "bare resize + PNG", bare, 2.0),
        row("the same, memory in MB", mb, f"{MOST_MB:.0f} MB", MOST_MB, 1.0),
        row("the same, time", ours, "Pillow, resize + PNG alone", pillow, 2.0),
        row("the same, memory in MB", mb, "Pillow, resize + PNG alone", pillow_mb, 1.0),
    ]


def _most_mb() -> float:
    """Return this process's peak memory; ``getrusage`` would include the parent process."""
    lines = Path("/proc/self/status").read_text(encoding="ascii").splitlines()
    return int(next(line for line in lines if line.startswith("VmHWM")).split()[1]) / 1024


def _main(way: str, art_path: str) -> None:
    with tempfile.TemporaryDirectory() as folder:
        start = time.perf_counter()
        WAYS[way](Path(art_path), Path(folder) / "out.png")
        seconds = time.perf_counter() - start
    print(json.dumps([seconds, _most_mb()]))


if __name__ == "__main__":
    _main(*sys.argv[1:])
