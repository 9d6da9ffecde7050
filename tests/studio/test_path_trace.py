"""Proof of the method: a mock-up compared with a path trace of the same scene with the same art as a texture."""

from functools import cache
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pytest
from skimage.metrics import structural_similarity

from improva.catalogue import template
from improva.core.colour import delta_e_2000, lab, srgb_from_linear
from improva.core.design import Design, Piece, Placement
from improva.core.ink import colour_reflectance, printed
from improva.core.mockup.composite import ShadedView, composite, shade_plain_parts
from improva.core.mockup.render import render_mockup
from improva.core.mockup.tone import develop
from improva.core.mockup.view import make_view
from improva.io.scene_pack import read_info, read_passes
from studio import bake, packing
from studio.scenes import SCENES
from studio.tracing import denoised, mitsuba
from tests.conftest import art_of, closed_wave
from tests.scenery import packs


def hex_of(linear: np.ndarray) -> str:
    return "#" + "".join(f"{round(255 * float(v)):02x}" for v in srgb_from_linear(linear))


CUP, MUG, PILLOW = "straight-tumbler-matte", "mug-15oz-studio", "pillow-square-lying"
SAMPLES = {CUP: 64, MUG: 64, PILLOW: 44}
SIZES = {CUP: (480, 360), MUG: (480, 360), PILLOW: (640, 480)}  # cloth takes more pixels to be like itself
PARTS = {CUP: {"lid": "#1d1f23", "straw": "#a8322b"}, MUG: {"handle": "#a8322b", "inside": "#f1f0ec"}, PILLOW: {}}
"""Parts in colours of their own; grounds as the scene has them, for what a product and its ground send to each other is
baked on the scene's own ground.
"""
COLOURS = {
    name: {**parts, **{r["id"]: hex_of(bake.usual(r)) for r in SCENES[name].regions if r["id"] in ("table", "wall")}}
    for name, parts in PARTS.items()
}


def art() -> np.ndarray:
    picture = closed_wave(480, 420)
    picture[150:210, 200:280] = (250, 240, 220)
    picture[260:330, 215:265] = (30, 30, 50)
    return picture


def blank_of(name: str) -> np.ndarray:
    return colour_reflectance(template(SCENES[name].pack["templates"][0]).blank_colour)


@cache
def shipped(name: str) -> ShadedView:
    """A shipped scene with coloured plain parts."""
    info = packs()[name]
    return shade_plain_parts(make_view(info, read_passes(info), SIZES[name]), COLOURS[name])


@cache
def truth(name: str) -> np.ndarray:
    """Path-trace the same scene with the art as a texture."""
    scene = SCENES[name]
    pixels = np.ascontiguousarray(printed(art(), blank_of(name)))
    texture = {"type": "bitmap", "bitmap": mitsuba().Bitmap(pixels), "raw": True, "filter_type": "bilinear"}
    region = next(r["id"] for r in scene.regions if "panel" in r)
    parts = {part: plain(colour) for part, colour in COLOURS[name].items()}
    traced = bake.trace(scene, SIZES[name], {region: texture, **parts}, SAMPLES[name], seed=9000)
    return develop(denoised(traced[..., :3], traced), scene.exposure)


def plain(colour: str) -> dict[str, Any]:
    return {"type": "rgb", "value": [float(v) for v in colour_reflectance(colour)]}


@pytest.mark.parametrize("name", [CUP, MUG, PILLOW])
def test_a_mock_up_matches_a_path_trace(name: str) -> None:
    """Three shipped packs: a cup, a glazed mug with a handle, and cloth."""
    drawn, blank = art_of(art()), template(SCENES[name].pack["templates"][0])
    panel = blank.panel()
    design = Design(blank, panel, (Piece("art", drawn.facts.size, whole(panel)),))
    picture = render_mockup(shipped(name), [design], lambda _: drawn, 0)
    error = delta_e_2000(lab(picture), lab(truth(name)))
    similar = structural_similarity(picture, truth(name), channel_axis=2)  # Wang et al. 2004
    print(f"{name}: ΔE2000 mean {error.mean():.3f}, 95th percentile {np.percentile(error, 95):.2f}; SSIM {similar:.4f}")
    assert error.mean() <= 1.0
    assert similar >= 0.99


def whole(panel: Any) -> Placement:
    """The art covers exactly the trim, so the whole picture is visible."""
    bleed = 1 - 2 * panel.bleed_mm / panel.file_mm[0]
    return Placement("stretch", scale=bleed)


def test_multiplying_art_over_a_picture_is_worse() -> None:
    """Flat art multiplied over a picture of the white blank, the usual method by hand, is far from the truth."""
    shaded = shipped(CUP)
    white_art = np.ascontiguousarray(printed(np.full((8, 8, 3), 255, np.uint8), blank_of(CUP))[..., ::-1])
    white = composite(shaded, {"wrap": white_art})[..., ::-1]
    seen = shaded.view.maps["wrap"]
    h, w = seen.rows.stop - seen.rows.start, seen.columns.stop - seen.columns.start
    flat = cv2.resize(art()[:, 120:360], (w, h), interpolation=cv2.INTER_AREA)
    usual = white.copy()
    usual[seen.rows, seen.columns] = (white[seen.rows, seen.columns].astype(float) * flat / 255).astype(np.uint8)
    window = (seen.rows, seen.columns)
    assert delta_e_2000(lab(usual[window]), lab(truth(CUP)[window])).mean() > 4


def test_a_pack_lists_the_contents_of_its_scene(tmp_path: Path) -> None:
    """Cover, shade, depth and measurements of a very small bake."""
    scene = SCENES[CUP]
    made = bake.bake(scene, (96, 72), 4, report=lambda _: None)
    packing.write_pack(tmp_path, scene, made, samples=4)
    info = read_info(tmp_path)
    passes = read_passes(info)
    assert passes.cover is not None and passes.shade is not None and passes.depth is not None
    # The cup's height on the picture agrees with what its cover spans; its measure says the same
    rows = np.flatnonzero((passes.cover > 0.5).sum(axis=1) >= 8)
    height = next(m for m in info.measures if m.title == "Height")
    assert abs((rows[-1] - rows[0]) - (height.start[1] - height.end[1])) <= 4
    assert passes.cover[:, 0].max() == 0 and passes.cover[36, 48] == 1
    assert 100 < passes.depth[36, 48] < 130  # it stands 118 cm away
    shadow = passes.shade[60:, 52:].min()
    assert shadow < 0.8 and np.median(passes.shade[:12, :24]) > 0.9, "few samples are noisy: the middle one tells"
