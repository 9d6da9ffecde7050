"""A mock-up from start to end: the art as a texture, the scene, the file."""

from __future__ import annotations

import io
import math
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from ..artwork.pixels import as_array
from ..colour import Floats
from ..design import Design
from ..errors import BadOutput, BadScene
from ..output.profile import srgb_profile
from ..render import Opener, on_blank, render
from .composite import Lit, composite
from .pack import SceneInfo
from .reflectance import colour_reflectance, printed
from .view import View

PICTURE_FORMATS = {".jpg": "JPEG", ".jpeg": "JPEG", ".png": "PNG", ".webp": "WEBP"}
JPEG_QUALITY = 92
LISTING_SIZES = {"square": (2000, 2000), "landscape": (2700, 2025), "wide": (3000, 2000)}
"""Common practice, no published source: square, 4:3 and 3:2 listing pictures."""


def check_scene(info: SceneInfo, design: Design) -> None:
    """A picture must show the blank that is sold. Raises :class:`BadScene` if it shows another."""
    if design.template.id not in info.templates:
        shown = ", ".join(info.templates)
        raise BadScene(f"The scene '{info.title}' shows {shown}, not {design.template.title}: choose one of its own.")


def print_texture(design: Design, open_art: Opener, view: View) -> dict[str, Floats]:
    """The design's panel as reflectance for each printed region of a view: (h, w, 3) linear, B, G, R."""
    blank = colour_reflectance(design.template.blank_colour)
    prints: dict[str, Floats] = {}
    for region in view.info.regions:
        if region.panel == design.panel.id:
            art = as_array(on_blank(render(design, open_art, view.maps[region.id].texture_px)))
            bleed = tuple(
                round(design.panel.bleed_mm / mm * px) for mm, px in zip(design.panel.file_mm, art.shape[1::-1], strict=True)
            )
            trim = art[bleed[1] : art.shape[0] - bleed[1], bleed[0] : art.shape[1] - bleed[0]]
            prints[region.id] = printed(np.asarray(cv2.cvtColor(trim, cv2.COLOR_RGB2BGR), np.uint8), blank[::-1])
    for region in view.info.regions:
        if region.panel and region.id not in prints:
            prints[region.id] = np.ascontiguousarray(np.broadcast_to(blank[::-1], (16, 16, 3)).astype(np.float32))
    return prints


def mock_up(lit: Lit, design: Design, open_art: Opener, angle_deg: float) -> NDArray[np.uint8]:
    """The picture of a design in a scene, (h, w, 3) sRGB in R, G, B order.

    Raises:
        BadScene: the scene shows another blank. BadArtwork, BadPlacing: the art cannot be laid.
    """
    check_scene(lit.view.info, design)
    if not math.isfinite(angle_deg):
        raise BadScene("The angle must be a number of degrees, for example 90.")
    return composite(lit, print_texture(design, open_art, lit.view), angle_deg)[..., ::-1]


def _jpeg(picture: NDArray[np.uint8], quality: int) -> bytes:
    """JPEG by libjpeg-turbo, four times as quick as by way of Pillow; colour is halved only below listing quality."""
    sampling = cv2.IMWRITE_JPEG_SAMPLING_FACTOR_444 if quality >= JPEG_QUALITY else cv2.IMWRITE_JPEG_SAMPLING_FACTOR_420
    options = [cv2.IMWRITE_JPEG_QUALITY, quality, cv2.IMWRITE_JPEG_SAMPLING_FACTOR, sampling]
    bgr = np.ascontiguousarray(picture[..., ::-1])  # no copy where it was turned round from B, G, R before
    _, data = cv2.imencode(".jpg", bgr, options)
    jpeg, profile = data.tobytes(), b"ICC_PROFILE\0\x01\x01" + srgb_profile()
    start = 4 + int.from_bytes(jpeg[4:6], "big")  # behind SOI and the JFIF segment: ICC.1, annex B.4
    return jpeg[:start] + b"\xff\xe2" + (len(profile) + 2).to_bytes(2, "big") + profile + jpeg[start:]


def encode(picture: NDArray[np.uint8], ending: str, quality: int = JPEG_QUALITY) -> bytes:
    """A picture as a JPEG, PNG or WebP file with the sRGB profile. Raises :class:`BadOutput`."""
    kind = PICTURE_FORMATS.get(ending.lower())
    if kind is None:
        raise BadOutput(f"'{ending}': pictures are made as .jpg, .png or .webp: choose one of these endings.")
    if kind == "JPEG":
        return _jpeg(picture, quality)
    options: dict[str, Any] = {"quality": quality, "method": 2} if kind == "WEBP" else {}
    file = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(picture)).save(file, kind, icc_profile=srgb_profile(), **options)
    return file.getvalue()
