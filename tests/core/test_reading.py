"""Every kind of file that a seller may add: read correctly, or refused with a message."""

import io
import json
from typing import Any

import numpy as np
import pytest
import pyvips
from PIL import Image, ImageCms

from improva.core.artwork import reading
from improva.core.artwork.pixels import Artwork, as_array
from improva.core.artwork.reading import facts_from_dict, read_facts
from improva.core.errors import ArtworkError
from tests.conftest import art_of, encoded, quadrants
from tests.pictures import bomb, gif

COLOURS = {"top left": (220, 30, 30), "top right": (30, 160, 60), "bottom left": (30, 60, 200), "bottom right": (255, 255, 255)}


def corners(art: Artwork) -> dict[str, tuple[int, ...]]:
    pixels = as_array(art.image())[..., :3].astype(int)
    h, w = pixels.shape[:2]
    points = {
        "top left": (h // 4, w // 4),
        "top right": (h // 4, 3 * w // 4),
        "bottom left": (3 * h // 4, w // 4),
        "bottom right": (3 * h // 4, 3 * w // 4),
    }
    return {name: tuple(pixels[y, x]) for name, (y, x) in points.items()}


def near(found: dict[str, Any], tolerance: int) -> bool:
    return all(max(abs(a - b) for a, b in zip(found[k], COLOURS[k], strict=True)) <= tolerance for k in COLOURS)


@pytest.mark.parametrize(
    ("kind", "options", "tolerance"),
    [("PNG", {}, 0), ("JPEG", {"quality": 95}, 6), ("TIFF", {"compression": "tiff_lzw"}, 0), ("WEBP", {"lossless": True}, 0)],
)
def test_every_format_is_read(kind: str, options: dict[str, Any], tolerance: int) -> None:
    art = Artwork.read(encoded(Image.fromarray(quadrants()), kind, **options))
    assert art.facts.format == kind.lower() and art.facts.px == (465, 410)
    assert near(corners(art), tolerance)


@pytest.mark.parametrize("dpi", [72, 150, 300])
@pytest.mark.parametrize("kind", ["PNG", "JPEG", "TIFF"])
def test_density_tags_are_read(kind: str, dpi: int) -> None:
    facts = Artwork.read(encoded(Image.fromarray(quadrants()), kind, dpi=(dpi, dpi))).facts
    assert facts.tagged_dpi == pytest.approx((dpi, dpi), abs=0.02)
    assert facts.size.claimed_mm == pytest.approx((465 / dpi * 25.4, 410 / dpi * 25.4), rel=1e-3)


def test_a_missing_density_tag_is_reported_as_missing() -> None:
    for kind in ("PNG", "JPEG", "WEBP"):
        assert Artwork.read(encoded(Image.fromarray(quadrants()), kind)).facts.tagged_dpi is None


def test_palette_with_transparency() -> None:
    picture = Image.fromarray(quadrants()).quantize(8)
    where_white = picture.getpixel((400, 400))
    art = Artwork.read(encoded(picture, transparency=where_white))
    pixels = as_array(art.image())
    assert art.facts.has_alpha and art.facts.mode == "Palette, 8 bit"
    assert pixels[-1, -1, 3] == 0 and pixels[0, 0, 3] == 255
    assert tuple(pixels[0, 0, :3]) == COLOURS["top left"]


@pytest.mark.parametrize("mode", ["L", "LA", "1"])
def test_grey_becomes_three_bands(mode: str) -> None:
    art = Artwork.read(encoded(Image.fromarray(quadrants()).convert("L").convert(mode)))
    pixels = as_array(art.image())
    assert pixels.shape[2] == (4 if mode == "LA" else 3)
    assert (pixels[..., 0] == pixels[..., 2]).all()


def test_sixteen_bits_become_eight() -> None:
    ramp = np.linspace(0, 65535, 512).astype(np.uint16)
    image = pyvips.Image.new_from_array(np.repeat(np.tile(ramp, (8, 1))[..., None], 3, 2)).copy(interpretation="rgb16")
    art = Artwork.read(image.pngsave_buffer())
    assert art.facts.bits == 16 and "16 bits" in art.facts.notes[0]
    pixels = as_array(art.image())
    assert pixels.dtype == np.uint8
    assert np.abs(pixels[0, :, 0].astype(int) - (ramp // 257)).max() <= 1


def test_cmyk_is_converted_and_reported() -> None:
    art = Artwork.read(encoded(Image.fromarray(quadrants()).convert("CMYK"), "JPEG", quality=95))
    found = corners(art)
    assert art.facts.mode == "CMYK, 8 bit" and art.facts.converted_from == "CMYK"
    assert found["top left"][0] > found["top left"][2] + 60 and found["bottom left"][2] > found["bottom left"][0] + 40
    assert min(found["bottom right"]) > 245


def test_embedded_profiles_are_honoured() -> None:
    # Little CMS is the reference: the same picture with channels swapped by its profile comes out as Pillow converts it.
    picture = Image.fromarray(quadrants())
    wide = ImageCms.ImageCmsProfile(io.BytesIO(bytes(pyvips.Operation.call("profile_load", "p3"))))
    expected = np.asarray(
        ImageCms.profileToProfile(picture, wide, ImageCms.createProfile("sRGB"), ImageCms.Intent.RELATIVE_COLORIMETRIC)
    )
    art = Artwork.read(encoded(picture, icc_profile=wide.tobytes()))
    got = as_array(art.image())
    assert art.facts.converted_from == art.facts.profile is not None
    assert np.abs(got[50, 50].astype(int) - expected[50, 50]).max() <= 3
    assert np.abs(got[50, 50].astype(int) - quadrants()[50, 50]).max() > 3


def test_a_damaged_profile_is_ignored_and_reported() -> None:
    art = Artwork.read(encoded(Image.fromarray(quadrants()), icc_profile=b"not a profile" * 20))
    assert any("damaged" in note for note in art.facts.notes)
    assert near(corners(art), 0)


@pytest.mark.parametrize("orientation", range(1, 9))
def test_every_orientation_tag_is_turned_upright(orientation: int) -> None:
    upright = Image.fromarray(quadrants())
    undo = {2: [0], 3: [3], 4: [1], 5: [5], 6: [2], 7: [6], 8: [4]}  # the transpose that the tag takes back
    stored = upright
    for step in undo.get(orientation, []):
        stored = stored.transpose(Image.Transpose(step))
    exif = Image.Exif()
    exif[0x0112] = orientation
    art = Artwork.read(encoded(stored, "JPEG", quality=95, exif=exif.tobytes()))
    assert art.facts.px == (465, 410)
    assert near(corners(art), 8)
    assert any("upright" in n for n in art.facts.notes) == (orientation != 1)


def test_of_several_pictures_the_first_is_used_and_reported() -> None:
    frames = [Image.fromarray(quadrants()), Image.new("RGB", (465, 410), "black")]
    art = Artwork.read(encoded(frames[0], "WEBP", save_all=True, append_images=frames[1:], lossless=True))
    assert any("2 pictures" in note for note in art.facts.notes)
    assert near(corners(art), 0)


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"),
        (b"a shopping list, renamed", "not a picture"),
        (bomb(), "60000 × 60000"),
        (bomb(0, 0), r"0 pixels|broken"),
        (bomb(40_000, 10), "40000 × 10"),
        (b'<svg xmlns="http://www.w3.org/2000/svg" width="0" height="0"/>', r"no size|0 pixels"),
        (encoded(Image.fromarray(quadrants()))[:40], "broken"),
        (b"\xff\xd8\xff\xe0 nothing more", "broken"),
        (b"II*\0" + b"\xff" * 40, "broken"),
        (b"RIFF\x10\0\0\0WEBPVP8 ", "broken"),
        (b"<html><body>hello</body></html>", "not a picture"),
    ],
)
def test_a_file_that_is_not_a_picture_is_reported(data: bytes, says: str) -> None:
    with pytest.raises(ArtworkError, match=says):
        read_facts(data)


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "TIFF", "WEBP"])
def test_truncated_pictures_are_found_when_decoded(kind: str) -> None:
    rng = np.random.default_rng(0)
    whole = encoded(Image.fromarray(rng.integers(0, 255, (300, 300, 3), dtype=np.uint8)), kind)
    with pytest.raises(ArtworkError, match=r"cut short|broken"):
        Artwork.read(whole[: len(whole) * 2 // 3]).proxy()


def test_animated_gifs_give_their_first_frame() -> None:
    art = Artwork.read(gif(3))
    assert art.facts.format == "gif" and any("3 pictures" in note for note in art.facts.notes)
    pixels = as_array(art.image())
    assert pixels.shape[:2] == (20, 20) and tuple(pixels[5, 5, :3]) == (255, 0, 0)


def test_facts_survive_a_trip_through_json() -> None:
    import json

    facts = art_of(quadrants(), dpi=(300, 300)).facts
    assert facts_from_dict(json.loads(json.dumps(facts.as_dict()))) == facts


def test_a_proxy_is_small_and_keeps_the_facts_of_its_original() -> None:
    art = art_of(quadrants(3000, 2000))
    proxy = art.proxy(500)
    assert proxy.image().width == 500 and proxy.facts.px == (3000, 2000)
    assert art_of(quadrants(100, 80)).proxy(500).image().width == 100


def test_the_limit_leaves_room_for_a_blanket_at_300_dpi() -> None:
    # Common practice, no published source: a throw's print file is 53 × 63 in.
    assert reading.MAX_PIXELS > 53 * 300 * 63 * 300 and reading.MAX_SIDE_PX > 63 * 300


@pytest.mark.parametrize("bands", [3, 4])
def test_a_tiff_in_floating_point_is_linear_light(bands: int) -> None:
    """scRGB (IEC 61966-2-2): linear light, 1 for white; sRGB's curve (IEC 61966-2-1) makes 188 of a half."""
    pixels = np.zeros((40, 50, bands), np.float32)
    pixels[..., :3], pixels[:, 25:, :3] = (0.5, 1.0, 0.0), (2.0, -1.0, 0.0)
    if bands == 4:
        pixels[..., 3] = 255
    image = pyvips.Image.new_from_array(pixels).copy(interpretation="scrgb", xres=300 / 25.4, yres=300 / 25.4)
    art = Artwork.read(bytes(image.tiffsave_buffer()))
    got = as_array(art.image())
    assert got[5, 5, :3].tolist() == [188, 255, 0] and got[5, 40, :3].tolist() == [255, 0, 0]
    facts = art.facts
    assert (facts.px, facts.has_alpha, facts.bits, facts.tagged_dpi) == ((50, 40), bands == 4, 32, (300.0, 300.0))
    assert facts_from_dict(json.loads(json.dumps(facts.as_dict()))) == facts


def test_a_profile_whose_name_is_not_text_is_left_out() -> None:
    profile = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    at = profile.find(b"s\0R\0G\0B")
    assert at > 0
    profile[at - 1 : at + 6] = b"\xd8\x00" * 3 + b"\xd8"
    art = Artwork.read(encoded(Image.new("RGB", (20, 20)), icc_profile=bytes(profile)))
    assert art.facts.px == (20, 20)
