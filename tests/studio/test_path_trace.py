"""Proof of the method: a composite against a path trace of the same scene with the same art as a texture."""

from pathlib import Path

import cv2
import numpy as np
import pytest
from skimage.metrics import structural_similarity

from improva.catalogue import template
from improva.core.colour import delta_e_2000, lab
from improva.core.design import Design, Piece, Placing
from improva.core.ink import colour_reflectance, printed
from improva.core.mockup.composite import composite, light_plain_parts
from improva.core.mockup.pack import read_info, read_passes
from improva.core.mockup.picture import mock_up
from improva.core.mockup.tone import develop
from improva.core.mockup.view import make_view
from studio import bake, packing, straight_tumbler
from tests.conftest import art_of, closed_wave

SIZE = (160, 120)
BAKE_SAMPLES, TRUTH_SAMPLES = 640, 1280
WRAPPED = "tumbler-20oz-straight"
LID, STRAW = "#1d1f23", "#a8322b"
BLANK = colour_reflectance(template(WRAPPED).blank_colour)


@pytest.fixture(scope="module")
def pack(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("scene")
    light, maps, seconds = bake.bake(straight_tumbler.scene, straight_tumbler.PACK, SIZE, BAKE_SAMPLES, report=lambda _: None)
    packing.write_pack(
        folder,
        straight_tumbler.PACK,
        light,
        maps,
        exposure=straight_tumbler.EXPOSURE,
        seconds=seconds,
        samples=BAKE_SAMPLES,
        dwa_level=5.0,
    )
    return folder


def art() -> np.ndarray:
    picture = closed_wave(480, 420)
    picture[150:210, 200:280] = (250, 240, 220)
    picture[260:330, 215:265] = (30, 30, 50)
    return picture


@pytest.fixture(scope="module")
def truth() -> np.ndarray:
    mi = bake.mitsuba()
    rho = printed(art(), BLANK)
    texture = {"type": "bitmap", "bitmap": mi.Bitmap(np.ascontiguousarray(rho)), "raw": True, "filter_type": "bilinear"}
    parts = {name: plain(hex_) for name, hex_ in (("lid", LID), ("straw", STRAW))}
    traced = bake.render(straight_tumbler.scene, SIZE, {"wrap": texture, **parts}, TRUTH_SAMPLES, seed=9000)
    return develop(bake.denoised(traced[..., :3], traced), straight_tumbler.EXPOSURE)


def plain(colour: str) -> dict:
    return {"type": "rgb", "value": [float(v) for v in colour_reflectance(colour)]}


def test_a_composite_is_as_good_as_a_path_trace(pack: Path, truth: np.ndarray) -> None:
    info = read_info(pack)
    view = make_view(info, read_passes(info), SIZE)
    lit = light_plain_parts(view, {"lid": LID, "straw": STRAW})
    drawn, blank = art_of(art()), template(WRAPPED)
    design = Design(blank, blank.panel(), (Piece("art", drawn.facts.size, Placing("stretch")),))
    picture = mock_up(lit, [design], lambda _: drawn, 0)
    error = delta_e_2000(lab(picture), lab(truth))
    similar = structural_similarity(picture, truth, channel_axis=2)  # Wang et al. 2004
    print(f"ΔE2000 mean {error.mean():.3f}, 95th percentile {np.percentile(error, 95):.2f}; SSIM {similar:.4f}")
    assert error.mean() <= 1.0
    assert similar >= 0.99


def test_the_usual_way_is_worse(pack: Path, truth: np.ndarray) -> None:
    """Flat art multiplied over a picture of the white blank, as is done by hand, is far from the truth."""
    info = read_info(pack)
    view = make_view(info, read_passes(info), SIZE)
    lit = light_plain_parts(view, {"lid": LID, "straw": STRAW})
    white = composite(lit, {"wrap": np.ascontiguousarray(printed(np.full((8, 8, 3), 255, np.uint8), BLANK)[..., ::-1])})[
        ..., ::-1
    ]
    seen = view.maps["wrap"]
    h, w = seen.rows.stop - seen.rows.start, seen.columns.stop - seen.columns.start
    flat = cv2.resize(art()[:, 120:360], (w, h), interpolation=cv2.INTER_AREA)
    usual = white.copy()
    usual[seen.rows, seen.columns] = (white[seen.rows, seen.columns].astype(float) * flat / 255).astype(np.uint8)
    window = (seen.rows, seen.columns)
    assert delta_e_2000(lab(usual[window]), lab(truth[window])).mean() > 4
