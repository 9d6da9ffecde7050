"""``improva bench``: this project against bare libraries, side by side, as ratios."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pyvips

from ..catalogue import template as find_template
from ..core.artwork.pixels import Artwork
from ..core.artwork.traits import find_traits
from ..core.design import Design, Piece, Placement
from ..core.output import PrintSettings
from ..core.pieces import Lettering, lettering_shape
from ..core.preflight import run_preflight
from ..core.preparation import Picture
from ..core.preparation.cut import cut
from ..core.render.words import words_layer
from ..core.words import WordPath
from ..core.words.font import open_font
from ..fonts import font_bytes
from ..io.pdf import PNG_COMPRESSION
from ..io.print_file import write_print_file
from . import lettering
from .large_prints import bench_blanket
from .load import bench_load
from .pictures import bench_contour, bench_film, bench_first_picture, bench_picture, bench_scenes_memory, bench_thumbnails
from .spectrum import bench_spectra
from .timing import median, row
from .year import bench_year

BLANK = "tumbler-20oz-straight"
PICTURE = (2700, 2025)
LOOK = (900, 900)


def sample_art(width: int = 3600, height: int = 3200) -> bytes:
    """Return a generated picture with gradients, grain and edges, as PNG bytes."""
    y, x = np.mgrid[:height, :width].astype(np.float32)
    grain = np.random.default_rng(1).normal(0, 4, (height, width)).astype(np.float32)
    ridge = (y > height * (0.55 + 0.12 * np.sin(x * 14 * np.pi / width))) * 60
    planes = [60 + 120 * y / height - ridge + grain, 80 + 70 * x / width - ridge / 2 + grain, 150 - 60 * y / height + grain]
    pixels = np.clip(np.stack(planes, -1), 0, 255).astype(np.uint8)
    return bytes(pyvips.Image.new_from_array(pixels).pngsave_buffer(compression=1))


def bench_print(design: Design, art: Artwork) -> dict[str, Any]:
    """Compare a wrap's print file with a bare libvips resize and save of the same pixels."""
    w, h = design.panel.file_px(300)
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "print.png"

        def bare() -> None:
            image = pyvips.Image.new_from_buffer(art.data, "", access="sequential")
            factor = max(w / image.width, h / image.height)
            image.resize(factor, kernel="lanczos3").crop(0, 0, w, h).pngsave(str(path), compression=PNG_COMPRESSION)

        def ours() -> None:
            write_print_file(design, lambda _: art, path, PrintSettings(300, mirror=True))

        return row(f"print file {w} × {h}", median(ours, 5), "bare resize + PNG", median(bare, 5), 1.5)


def bench_proof(design: Design, art: Artwork) -> dict[str, Any]:
    """Measure the checks of a loaded artwork against a limit of 300 ms."""
    proxy, placement = art.proxy(), design.pieces[0].placement
    traits = find_traits(proxy)
    ours = median(lambda: run_preflight(design.template, design.panel, proxy, placement, traits=traits), 5)
    return row("proving one pair", ours, "300 ms", 0.3, 1.0)


def bench_large_proof() -> dict[str, Any]:
    """Measure the checks of a loaded artwork of 25 megapixels."""
    art = Artwork.read(sample_art(5400, 4630))
    proxy, template = art.proxy(), find_template(BLANK)
    traits = find_traits(proxy)
    ours = median(lambda: run_preflight(template, template.panel(), proxy, Placement(), traits=traits), 5)
    return row("proving one pair, 25 megapixels", ours, "300 ms", 0.3, 1.0)


def bench_bend() -> dict[str, Any]:
    """Compare a tapered wrap's print file with a bare libvips resize and map of the same pixels."""
    art, template = Artwork.read(sample_art()), find_template("tumbler-20oz-tapered")
    panel = template.panel()
    design = Design(template, panel, (Piece("art", art.facts.size, Placement()),))
    w, h = panel.file_px()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "print.png"

        def bare() -> None:
            image = pyvips.Image.new_from_buffer(art.data, "").resize(w / art.facts.px[0]).addalpha().copy_memory()
            image.mapim(pyvips.Image.xyz(w, h) * 0.9, interpolate=pyvips.Interpolate.new("bicubic")).pngsave(
                str(path), compression=PNG_COMPRESSION
            )

        def ours() -> None:
            write_print_file(design, lambda _: art, path, PrintSettings(panel.dpi, mirror=True))

        return row(f"tapered print file {w} × {h}", median(ours, 3), "bare resize, map + PNG", median(bare, 3), 3.0)


def sample_scan(side: int = 6000) -> Picture:
    """Return a generated drawing on grainy paper, as input for the cut."""
    rng = np.random.default_rng(1)
    pixels = np.full((side, side, 4), 255, np.uint8)
    pixels[..., :3] = np.clip(np.array([243, 236, 220]) + rng.normal(0, 1, (side, side, 1)), 0, 255)
    for x, y, r in rng.integers(side // 20, side - side // 20, (60, 3)):
        colour = [int(v) for v in rng.integers(0, 200, 3)]
        cv2.circle(pixels, (int(x), int(y)), int(r) // 25 + 5, (*colour, 255), -1, cv2.LINE_AA)
    return Picture(pixels, 11.811)


def bench_cut() -> list[dict[str, Any]]:
    """Measure a cut of a loaded 36-megapixel picture against a limit of 2 s, and against the OpenCV passes that any cut needs."""
    scan = sample_scan()
    table = np.arange(256, dtype=np.uint8).reshape(1, 256)
    ours = median(lambda: cut(scan, add=((0.02, 0.02),)), 5)

    def bare() -> None:
        apart = cv2.absdiff(cv2.LUT(scan.pixels, table), np.array([243, 236, 220, 0], np.float64))
        near = (cv2.max(*cv2.split(apart)[:2]) <= 6).view(np.uint8)
        cv2.floodFill(near, None, (0, 0), 2, flags=4)
        out = scan.pixels.copy()
        out[..., 3][near == 2] = 0

    return [
        row("cutting 6000 × 6000 px from paper, a click", ours, "2 s", 2.0, 1.0),
        row("the same", ours, "bare levels, difference, fill and copy", median(bare, 5), 4.0),
    ]


def bench_words() -> dict[str, Any]:
    """Compare a throw blanket's words, set, bent and drawn over 53 × 63 in, with the same outlines drawn by librsvg alone."""
    template = find_template("blanket-upright")
    panel = template.panel()
    words = Lettering("The Summit Line", "poster", path=WordPath("arc", 90), sizing="width", width_mm=900)
    fonts = {"poster": font_bytes("poster")}
    size = panel.file_px(150)
    ours = median(lambda: words_layer(words, open_font(fonts["poster"]), panel, size).avg(), 5)  # type: ignore[union-attr]
    shape = lettering_shape(words, open_font(fonts["poster"]))
    density = size[0] / panel.file_mm[0]
    w, h = (round(side * density) for side in shape.whole)
    path = "".join("M" + "L".join(f"{x:.3f} {y:.3f}" for x, y in c) + "Z" for c in shape.contours)
    view = f"{-shape.whole[0] / 2} {-shape.whole[1] / 2} {shape.whole[0]} {shape.whole[1]}"
    svg = f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}" height="{h}" viewBox="{view}"><path d="{path}"/></svg>'.encode()
    floor = median(lambda: pyvips.Image.svgload_buffer(svg).embed(0, 0, *size).avg(), 5)
    return row("words on a throw blanket, 150 dpi", ours, "bare librsvg", floor, 2.0)


def bench_lettering() -> list[dict[str, Any]]:
    """Measure false alarms and misses of the search for lettering, in per cent; see :mod:`.lettering`."""
    found = lettering.measure()
    if not found["pictures"]:
        return []
    named = f"{found['pictures']} pictures without words", f"{found['lines']} lines of words over them"
    return [
        row(f"false alarms of lettering, % of {named[0]}", 100 * found["false alarms"], "limit", 2.0, 1.0),
        row(f"lettering missed, % of {named[1]}", 100 * found["misses"], "limit", 5.0, 1.0),
    ]


def run_all() -> list[dict[str, Any]]:
    """Run every benchmark."""
    art = Artwork.read(sample_art())
    template = find_template(BLANK)
    design = Design(template, template.panel(), (Piece("art", art.facts.size, Placement()),))
    return [
        *bench_picture(design, art),
        bench_first_picture(design, art),
        bench_film(design, art),
        bench_thumbnails(),
        bench_scenes_memory(),
        bench_contour(),
        bench_print(design, art),
        bench_proof(design, art),
        bench_large_proof(),
        bench_bend(),
        *bench_cut(),
        bench_words(),
        *bench_year(),
        *bench_load(),
        *bench_blanket(art.data),
        *bench_spectra(art),
        *bench_lettering(),
    ]
