"""The demo range: the shop of the Summit Line, an invented mountain railway. Its sources are drawn by ``demo/draw``."""

from __future__ import annotations

from importlib import resources

import cv2
import numpy as np
import pyvips

from ..core.artwork.pixels import Artwork, as_array
from ..core.artwork.svg import draw_svg
from ..core.artwork.traits import find_traits
from ..core.design import Placing
from ..store import ArtRow, Artworks, Pairs

TUMBLER = "tumbler-20oz-straight"


def _png(name: str, px: tuple[int, int], tag_dpi: float, on: list[int] | None = None) -> bytes:
    """A vector source drawn at a size, with a density tag that may or may not be true of any print."""
    source = resources.files(__name__).joinpath(name).read_bytes()
    drawn = draw_svg(source)
    image = draw_svg(source, (max(px) + 1) / max(drawn.width, drawn.height)).crop(0, 0, *px)
    image = image.flatten(background=on) if on else image
    return bytes(image.copy(xres=tag_dpi / 25.4, yres=tag_dpi / 25.4).pngsave_buffer(compression=6))


PAPER = (244, 238, 224)


def _scan(name: str, side_px: int, dpi: float) -> bytes:
    """A drawing as a scanner sees it: on yellowed paper with its grain, a little shade to one side, and dust."""
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


def lay_out(artworks: Artworks, pairs: Pairs) -> None:
    """Put the demo's artworks on an empty board. A board with anything on it, now or before, is left alone."""
    if artworks.ever_any():
        return

    def add(title: str, file_name: str, data: bytes) -> ArtRow:
        art = Artwork.read(data)
        return artworks.add(title, file_name, art, find_traits(art.proxy()))

    dusk = add("Dusk on the Summit Line", "dusk-wrap.png", _png("dusk.svg", (2790, 2460), 300, [20, 27, 61]))
    add("Signals", "signals.svg", resources.files(__name__).joinpath("flags.svg").read_bytes())
    conductor = add("The conductor", "conductor-cutout.png", _png("marmot.svg", (2160, 2700), 300))
    # Laid out for a screen and tagged 300 afterwards: 192 true dpi on the wrap, which the tag hides.
    add("Timetable going up", "timetable_300dpi.png", _png("timetable.svg", (1786, 1574), 300, [243, 234, 215]))
    add("The ibex", "ibex-scan.jpg", _scan("ibex.svg", 2400, 300))
    pairs.place(dusk.id, TUMBLER, {"wrap": Placing(fit="cover")})
    pairs.place(conductor.id, TUMBLER, {"wrap": Placing(fit="contain", scale=0.8, background="#dfe7e4")})
