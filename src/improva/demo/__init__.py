"""The demo range: the shop of the Summit Line, an invented mountain railway. Its sources are drawn by ``demo/draw``."""

from __future__ import annotations

import io
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from importlib import resources
from typing import Any

import cv2
import numpy as np
import pyvips
from PIL import Image

from ..catalogue import templates
from ..core.artwork.pixels import Artwork, as_array
from ..core.artwork.svg import draw_svg
from ..core.artwork.traits import Traits, find_traits
from ..core.design import Placement
from ..core.origin import Origin
from ..core.preparation import Preparation, Step
from ..core.press import Pressing, common_figures
from ..store import Artworks, Database, Origins, Pairs, Preparations, Pressings
from .shop import set_up_shop

TUMBLER, BLANKET = "tumbler-20oz-straight", "blanket-upright"


def _png(name: str, px: tuple[int, int], tag_dpi: float, on: list[int] | None = None) -> bytes:
    """Return a vector source drawn at a size, with a dpi tag that may be wrong for a print."""
    source = resources.files(__name__).joinpath(name).read_bytes()
    drawn = draw_svg(source)
    image = draw_svg(source, (max(px) + 1) / max(drawn.width, drawn.height)).crop(0, 0, *px)
    image = image.flatten(background=on) if on else image
    return bytes(image.copy(xres=tag_dpi / 25.4, yres=tag_dpi / 25.4).pngsave_buffer(compression=2))


PAPER = (244, 238, 224)


def _scan(name: str, side_px: int, dpi: float) -> bytes:
    """Return a drawing as scanned: on yellowed, grainy paper, shaded to one side, with dust."""
    source = resources.files(__name__).joinpath(name).read_bytes()
    drawn = draw_svg(source, (side_px + 1) / draw_svg(source).width).crop(0, 0, side_px, side_px)
    ink = as_array(drawn).astype(np.float32)
    rng = np.random.default_rng(1911)
    cover = ink[..., 3:] / 255
    shade = 1 - 0.006 * np.linspace(0, 1, side_px, dtype=np.float32)[None, :, None]
    scan = (ink[..., :3] * cover + np.array(PAPER, np.float32) * (1 - cover)) * shade
    scan += rng.normal(0, 0.8, (side_px, side_px, 1)).astype(np.float32)
    pixels = (scan.clip(0, 255) + 0.5).astype(np.uint8)
    for x, y, r in zip(*rng.integers(40, side_px - 40, (2, 34)), rng.integers(1, 5, 34), strict=True):
        cv2.circle(pixels, (int(x), int(y)), int(r), (176, 160, 138), -1, cv2.LINE_AA)
    image = pyvips.Image.new_from_array(pixels).copy(interpretation="srgb", xres=dpi / 25.4, yres=dpi / 25.4)
    return bytes(image.jpegsave_buffer(Q=94, subsample_mode="off"))


def _small(data: bytes, width_px: int) -> bytes:
    """Return a photograph as sent in a message: small and heavily compressed."""
    image = pyvips.Image.new_from_buffer(data, "")
    return bytes(image.resize(width_px / image.width).jpegsave_buffer(Q=70))


def _cmyk(data: bytes) -> bytes:
    """Return a photograph as a print shop delivered it: CMYK without a profile."""
    file = io.BytesIO()
    Image.open(io.BytesIO(data)).convert("CMYK").save(file, "TIFF", compression="tiff_lzw", dpi=(300, 300))
    return file.getvalue()


OWN = Origin("own", on="2026-05-30")
DRAWN_AT_ONCE = 3


def lay_out(database: Database) -> None:
    """Put the demo's artworks on an empty board. A board that has or had contents is left alone."""
    artworks, pairs, origins = Artworks(database), Pairs(database), Origins(database)
    if artworks.ever_any():
        return

    def source(name: str) -> bytes:
        return resources.files(__name__).joinpath(name).read_bytes()

    bought = Origin(
        "bought",
        "a picture library",
        "Standard licence",
        on="2026-04-02",
        personal=True,
        commercial=True,
        print_on_demand=False,
    )
    range_: list[tuple[str, str, Callable[[], bytes], Origin, bool]] = [
        ("Dusk on the Summit Line", "dusk-wrap.png", lambda: _png("dusk.svg", (2790, 2460), 300, [20, 27, 61]), OWN, False),
        ("Signals", "signals.svg", lambda: source("flags.svg"), OWN, False),
        ("The conductor", "conductor-cutout.png", lambda: _png("marmot.svg", (3600, 4500), 500), OWN, False),
        # Laid out for a screen and tagged 300 afterwards: 192 true dpi on the wrap, which the tag hides.
        (
            "Timetable going up",
            "timetable_300dpi.png",
            lambda: _png("timetable.svg", (1786, 1574), 300, [243, 234, 215]),
            OWN,
            False,
        ),
        ("The ibex", "ibex-scan.jpg", lambda: _scan("ibex.svg", 2400, 300), OWN, False),
        ("Tarn, sent by message", "tarn_small.jpg", lambda: _small(source("tarn.jpg"), 640), OWN, False),
        ("Ridges at dusk", "ridges_cmyk.tif", lambda: _cmyk(source("ridges.jpg")), bought, False),
        ("The tarn", "tarn.jpg", lambda: source("tarn.jpg"), OWN, True),
        ("Ridges", "ridges.jpg", lambda: source("ridges.jpg"), OWN, True),
        ("The pass", "pass.jpg", lambda: source("pass.jpg"), OWN, True),
    ]

    def looked_at(make: Callable[[], bytes]) -> tuple[Artwork, Traits]:
        art = Artwork.read(make())
        return art, find_traits(art.proxy())

    with ThreadPoolExecutor(DRAWN_AT_ONCE) as pool:
        drawn = list(pool.map(looked_at, [make for _, _, make, _, _ in range_]))
    rows = []
    for (title, file_name, _, origin, aside), (art, traits) in zip(range_, drawn, strict=True):
        rows.append(artworks.add(title, file_name, art, traits, aside))
        origins.note(rows[-1].id, origin)
    dusk, signals, conductor, _, ibex, _, _, *photos = rows

    pairs.place(dusk.id, TUMBLER, {"wrap": Placement(fit="cover")})
    pairs.place(conductor.id, TUMBLER, {"wrap": Placement(fit="contain", scale=0.8, background="#dfe7e4")})
    _press_log(database, dusk.id)
    set_up_shop(database, dusk.id, signals.id)
    steps = (Step("cut", {"tolerance": 7}), Step("clean", {"specks": 1.2, "holes": 1}), Step("trim", {"margin": 1}))
    Preparations(database).decide(ibex.id, Preparation(steps))
    placement = Placement(fit="contain", scale=0.42, shift_mm=(0, -105), background="#dfe7e4")
    pairs.place(conductor.id, BLANKET, {"front": placement}, {"front": _blanket(signals.id, [photo.id for photo in photos])})


def _press_log(database: Database, dusk: int) -> None:
    """Log two evenings at the press, and begin a gang sheet."""
    log = Pressings(database)
    press = "My tumbler press"
    first = common_figures(templates()[TUMBLER], "tumbler")
    second = first.changed(main_s=60, side_s=30)
    for day, figures, result, faults, note in (
        ("2026-05-28", first, "usable", ("pale",), "pale along the foot"),
        ("2026-05-30", second, "good", (), "deep and even, foot too"),
    ):
        log.add(TUMBLER, "gloss", "tumbler", press, dusk, Pressing(0, day, figures, result, faults, note))  # type: ignore[arg-type]
    wrap = {"artwork_id": dusk, "template_id": TUMBLER, "panel": "wrap", "count": 3}
    mug = {"artwork_id": dusk + 1, "template_id": "mug-11oz", "panel": "wrap", "count": 4}
    database.keep_setting("gang-sheet", {"items": [wrap, mug], "width_mm": 610.0, "length_mm": None})


def _blanket(pattern: int, photos: list[int]) -> list[dict[str, Any]]:
    """Return the blanket's pieces as stored: a patterned border, a name on an arc, three photographs and a banner."""
    words = {"kind": "words", "sizing": "width", "font": "poster"}
    return [
        {
            "kind": "band",
            "width_mm": 90,
            "colour": "#f4ead6",
            "art": pattern,
            "tile_mm": 190,
            "line_mm": 5,
            "line_gap_mm": 9,
            "line_colour": "#bb3e2c",
        },
        {
            **words,
            "text": "The Summit Line",
            "along": "arc",
            "amount": 50,
            "width_mm": 800,
            "shift_mm": [0, -535],
            "fill": "#24405a",
        },
        {
            "kind": "frames",
            "layout": "instant",
            "across": 3,
            "size_mm": [840, 245],
            "rim_mm": 15,
            "gap_mm": 26,
            "line": "#d9d4c8",
            "shift_mm": [0, 350],
            "rotate_deg": -3,
            "slots": [{"art": photo} for photo in photos],
        },
        {
            **words,
            "text": "first train up 6.10",
            "font": "script",
            "width_mm": 420,
            "shift_mm": [0, 570],
            "fill": "#2c201b",
            "plaque": "banner",
            "plaque_fill": "#d9a441",
            "plaque_margin_mm": 18,
        },
    ]
