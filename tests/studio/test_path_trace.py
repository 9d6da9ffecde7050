"""Proof of the method: a mock-up compared with a path trace of the same scene with the same art as a texture."""

from functools import cache
from pathlib import Path

import cv2
import numpy as np
import pytest

from improva.core.colour import delta_e_2000, lab
from improva.core.ink import colour_reflectance, printed
from improva.core.mockup.composite import ShadedView, composite
from improva.io.scene_pack import read_info, read_passes
from studio import bake, packing, proof
from studio.scenes import SCENES
from tests.scenery import packs

CUP, MUG, PILLOW = "straight-tumbler-matte", "mug-15oz-studio", "pillow-square-lying"
SAMPLES = {CUP: 64, MUG: 64, PILLOW: 44}
SIZES = {CUP: (480, 360), MUG: (480, 360), PILLOW: (640, 480)}  # cloth takes more pixels to be like itself
PARTS = {CUP: {"lid": "#1d1f23", "straw": "#a8322b"}, MUG: {"handle": "#a8322b", "inside": "#f1f0ec"}, PILLOW: {}}
"""Parts in colours of their own; grounds as the scene has them, for what a product and its ground send to each other is
baked on the scene's own ground.
"""


@cache
def shipped(name: str) -> ShadedView:
    """A shipped scene with coloured plain parts."""
    return proof.shaded(packs()[name].folder, SCENES[name], SIZES[name], PARTS[name])


@cache
def truth(name: str) -> np.ndarray:
    """Path-trace the same scene with the art as a texture."""
    return proof.traced(SCENES[name], proof.art(), SIZES[name], PARTS[name], SAMPLES[name])


@pytest.mark.parametrize("name", [CUP, MUG, PILLOW])
def test_a_mock_up_matches_a_path_trace(name: str) -> None:
    """Three shipped packs: a cup, a glazed mug with a handle, and cloth."""
    found = proof.compared(proof.mocked_up(shipped(name), SCENES[name], proof.drawn()), truth(name))
    print(f"{name}: {found}")
    assert found.error <= 1.0
    assert found.similar >= 0.99


def test_multiplying_art_over_a_picture_is_worse() -> None:
    """Flat art multiplied over a picture of the white blank, the usual method by hand, is far from the truth."""
    shaded, blank = shipped(CUP), colour_reflectance(proof.blank_of(SCENES[CUP]).blank_colour)
    white_art = np.ascontiguousarray(printed(np.full((8, 8, 3), 255, np.uint8), blank)[..., ::-1])
    white = composite(shaded, {"wrap": white_art})[..., ::-1]
    seen = shaded.view.maps["wrap"]
    h, w = seen.rows.stop - seen.rows.start, seen.columns.stop - seen.columns.start
    flat = cv2.resize(proof.art()[:, 120:360], (w, h), interpolation=cv2.INTER_AREA)
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
