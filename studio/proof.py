"""Prove a scene pack: a mock-up with art that the scene was not baked with, against a path trace of the same art as a texture."""

from __future__ import annotations

import io
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image
from skimage.metrics import structural_similarity

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork
from improva.core.colour import delta_e_2000, lab, srgb_from_linear
from improva.core.design import Design, Piece, Placement
from improva.core.ink import colour_reflectance, printed
from improva.core.mockup.composite import ShadedView, shade_plain_parts
from improva.core.mockup.render import UNDERBASE, render_mockup
from improva.core.mockup.tone import develop
from improva.core.mockup.view import make_view
from improva.core.template import Panel, Template
from improva.io.scene_pack import read_info, read_passes
from studio import bake
from studio.bake import Scene
from studio.tracing import denoised, mitsuba

Picture = NDArray[np.uint8]
Size = tuple[int, int]

SIZE, SAMPLES, SEED = (640, 480), 64, 9000
"""Of the path trace; bakes have other seeds."""

TEXEL_MM = 1.0
"""Of cloth that a print lies on."""


@dataclass(frozen=True)
class Proof:
    """How far a mock-up is from the truth.

    Attributes:
        error: mean colour difference, ΔE2000.
        most: its 95th percentile.
        similar: structural similarity (Wang et al. 2004).
    """

    error: float
    most: float
    similar: float

    def __str__(self) -> str:
        return f"ΔE2000 mean {self.error:.3f}, 95th percentile {self.most:.2f}; SSIM {self.similar:.4f}"


def blank_of(scene: Scene) -> Template:
    return template(scene.pack["templates"][0])


def known_colours(scene: Scene) -> dict[str, str]:
    """Return the parts' colours for a mock-up that shows every part as it was baked: plain colours in place of surfaces."""
    return {r["id"]: _hex(bake.usual(r)) for r in scene.regions if "panel" not in r}


def _hex(linear: NDArray[np.floating]) -> str:
    return "#" + "".join(f"{round(255 * float(v)):02x}" for v in srgb_from_linear(np.asarray(linear)))


def shaded(folder: Path, scene: Scene, size: Size, colours: Mapping[str, str]) -> ShadedView:
    """Return a scene pack's view with its plain parts in colours."""
    info = read_info(folder)
    return shade_plain_parts(make_view(info, read_passes(info), size), {**known_colours(scene), **colours})


def whole(panel: Panel) -> Placement:
    """Return the placement by which art covers exactly the trim."""
    w, h = panel.file_mm
    return Placement("stretch", scale=1 - 2 * panel.bleed_mm / min(w, h))


def mocked_up(view: ShadedView, scene: Scene, art: Artwork) -> Picture:
    """Return the mock-up with the art on every panel."""
    blank = blank_of(scene)
    designs = [Design(blank, panel, (Piece("art", art.facts.size, whole(panel)),)) for panel in blank.panels]
    return render_mockup(view, designs, lambda _: art, 0)


def traced(scene: Scene, art: Picture, size: Size, colours: Mapping[str, str], samples: int = SAMPLES) -> Picture:
    """Return a path trace of the scene with the art (h, w, 3) on every panel."""
    by_id = {r["id"]: r for r in scene.regions}
    every = {**known_colours(scene), **colours}
    shown: dict[str, Any] = {part: _plain(colour) for part, colour in every.items()}
    blank = colour_reflectance(blank_of(scene).blank_colour)
    for name, region in by_id.items():
        if "panel" not in region:
            continue
        if "box_mm" in region:
            cloth = by_id[region["on"]]
            shown[region["on"]] = _texture(_on_cloth(art, region["box_mm"], cloth["size_mm"], every[region["on"]]))
        else:
            shown[name] = _texture(printed(art, UNDERBASE if "on" in region else blank))
    light = bake.trace(scene, size, shown, samples, seed=SEED)
    return develop(denoised(light[..., :3], light), scene.exposure)


def _on_cloth(art: Picture, box_mm: list[float], size_mm: list[float], colour: str) -> NDArray[np.float32]:
    """Return a canvas of cloth with a print on it, (h, w, 3) linear."""
    w, h = (round(v / TEXEL_MM) for v in size_mm)
    canvas = np.empty((h, w, 3), np.float32)
    canvas[:] = colour_reflectance(colour)
    x, y, bw, bh = (round(v / TEXEL_MM) for v in box_mm)
    canvas[y : y + bh, x : x + bw] = printed(
        np.asarray(cv2.resize(art, (bw, bh), interpolation=cv2.INTER_AREA), np.uint8), UNDERBASE
    )
    return canvas


def _texture(linear: NDArray[np.floating]) -> dict[str, Any]:
    pixels = np.ascontiguousarray(linear, np.float32)
    return {"type": "bitmap", "bitmap": mitsuba().Bitmap(pixels), "raw": True, "filter_type": "bilinear"}


def _plain(colour: str) -> dict[str, Any]:
    return {"type": "rgb", "value": [float(v) for v in colour_reflectance(colour)]}


def compared(picture: Picture, truth: Picture) -> Proof:
    """Return how far a picture is from the truth."""
    error = delta_e_2000(lab(picture), lab(truth))
    similar = structural_similarity(picture, truth, channel_axis=2)  # type: ignore[no-untyped-call]
    return Proof(float(error.mean()), float(np.percentile(error, 95)), float(similar))


def art(w: int = 480, h: int = 420) -> Picture:
    """Return art that no scene was baked with: slow waves of colour whose sides meet, a light and a dark rectangle."""
    turn, down = 2 * np.pi * np.arange(w)[None] / w, np.linspace(0, 1, h)[:, None]
    waves = [128 + 90 * np.cos(turn) * (1 - down), 120 + 80 * np.sin(turn) + 0 * down, 90 + 100 * down + 0 * turn]
    picture = np.stack(waves, -1).clip(0, 255).astype(np.uint8)
    picture[h * 5 // 14 : h // 2, w * 5 // 12 : w * 7 // 12] = (250, 240, 220)
    picture[h * 13 // 21 : h * 11 // 14, w * 43 // 96 : w * 53 // 96] = (30, 30, 50)
    return picture


def drawn() -> Artwork:
    """Return :func:`art` as an artwork."""
    file = io.BytesIO()
    Image.fromarray(art()).save(file, "PNG")
    return Artwork.read(file.getvalue())


def prove(
    folder: Path, scene: Scene, colours: Mapping[str, str] | None = None, size: Size = SIZE, samples: int = SAMPLES
) -> Proof:
    """Prove a scene pack, with some of its parts in other colours."""
    colours = colours or {}
    picture = mocked_up(shaded(folder, scene, size, colours), scene, drawn())
    return compared(picture, traced(scene, art(), size, colours, samples))
