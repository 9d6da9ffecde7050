"""Any bytes give a picture or an error message, and nothing else."""

import numpy as np
import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st
from PIL import Image

from improva.core.artwork.pixels import Artwork
from improva.core.errors import ArtworkError
from tests.conftest import encoded

NOISE = np.random.default_rng(3).integers(0, 255, (40, 50, 4), dtype=np.uint8)
SEEDS = {
    "png": encoded(Image.fromarray(NOISE), dpi=(300, 300)),
    "jpeg": encoded(Image.fromarray(NOISE[..., :3]), "JPEG", dpi=(300, 300)),
    "cmyk": encoded(Image.fromarray(NOISE[..., :3]).convert("CMYK"), "JPEG"),
    "tiff": encoded(Image.fromarray(NOISE), "TIFF", compression="tiff_lzw"),
    "webp": encoded(Image.fromarray(NOISE), "WEBP"),
    "gif": encoded(Image.fromarray(NOISE[..., :3]), "GIF"),
    "svg": b'<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" width="50" height="40"><rect width="9" height="9"/></svg>',
}


def read_whole(data: bytes) -> None:
    try:
        proxy = Artwork.read(data).proxy(64)
    except ArtworkError as told:
        assert len(str(told)) > 20 and str(told)[0].isupper()
    else:
        assert proxy.image().bands in (3, 4)


@pytest.mark.parametrize("kind", SEEDS)
def test_the_undamaged_files_are_read(kind: str) -> None:
    assert Artwork.read(SEEDS[kind]).proxy(64).image().width <= 64


@settings(max_examples=250, suppress_health_check=[HealthCheck.too_slow])
@given(
    st.sampled_from(sorted(SEEDS)),
    st.lists(st.tuples(st.integers(0, 10_000), st.integers(0, 255)), max_size=12),
    st.floats(0, 1),
)
@example("png", [(16, 255), (17, 255)], 1.0)  # a width of four thousand million
@example("svg", [], 0.5)
def test_damaged_files_give_a_picture_or_a_message(kind: str, flips: list[tuple[int, int]], kept: float) -> None:
    data = bytearray(SEEDS[kind])
    for at, value in flips:
        data[at % len(data)] = value
    read_whole(bytes(data[: int(len(data) * (0.3 + 0.7 * kept))]))


@settings(max_examples=100)
@given(st.binary(max_size=400))
def test_any_bytes_give_a_picture_or_a_message(data: bytes) -> None:
    read_whole(data)


@settings(max_examples=60)
@given(st.text(st.characters(codec="utf-8"), max_size=60), st.text(st.characters(codec="utf-8"), max_size=30))
def test_any_svg_gives_a_picture_or_a_message(inside: str, width: str) -> None:
    read_whole(
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" viewBox="0 0 9 9"><text>{inside}</text></svg>'.encode()
    )
