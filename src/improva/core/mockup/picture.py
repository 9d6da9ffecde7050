"""A mock-up from start to end: the art as a texture, the scene, the file."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from ..artwork.pixels import as_array
from ..colour import Floats
from ..design import Design
from ..errors import BadOutput, BadScene
from ..ink import colour_reflectance, printed
from ..output.profile import srgb_profile
from ..render import Opener, on_blank, render_worn
from ..template import Template
from .composite import Lit, composite
from .pack import SceneInfo
from .view import View

Designs = Sequence[Design]
"""One design a panel of the same blank; at least one."""

PICTURE_FORMATS = {".jpg": "JPEG", ".jpeg": "JPEG", ".png": "PNG", ".webp": "WEBP"}
JPEG_QUALITY = 92
LISTING_SIZES = {"square": (2000, 2000), "landscape": (2700, 2025), "wide": (3000, 2000)}
"""Common practice, no published source: square, 4:3 and 3:2 listing pictures."""


def check_scene(info: SceneInfo, template: Template) -> None:
    """A picture must show the blank that is sold. Raises :class:`BadScene` if it shows another."""
    if template.id not in info.templates:
        shown = ", ".join(info.templates)
        raise BadScene(f"The scene '{info.title}' shows {shown}, not {template.title}: choose one of its own.")


def print_texture(designs: Designs, open_art: Opener, view: View) -> dict[str, Floats]:
    """The designs of a blank's panels as reflectance for each printed region of a view: (h, w, 3) linear, B, G, R.

    A panel without a design is bare.
    """
    by_panel = {design.panel.id: design for design in designs}
    blank = colour_reflectance(designs[0].template.blank_colour)[::-1]
    prints: dict[str, Floats] = {}
    for region in view.info.regions:
        design = by_panel.get(region.panel or "")
        if design is not None and design.pieces and region.id in view.maps:
            art = as_array(on_blank(render_worn(design, open_art, view.maps[region.id].texture_px)))
            worn = design.panel.worn()
            bleed = tuple(round(worn.bleed_mm / mm * px) for mm, px in zip(worn.file_mm, art.shape[1::-1], strict=True))
            trim = art[bleed[1] : art.shape[0] - bleed[1], bleed[0] : art.shape[1] - bleed[0]]
            prints[region.id] = printed(np.asarray(cv2.cvtColor(trim, cv2.COLOR_RGB2BGR), np.uint8), blank)
        elif region.panel:
            prints[region.id] = np.ascontiguousarray(np.broadcast_to(blank, (16, 16, 3)).astype(np.float32))
    return prints


def mock_up(lit: Lit, designs: Designs, open_art: Opener, angle_deg: float) -> NDArray[np.uint8]:
    """The picture of a blank's designs in a scene, (h, w, 3) sRGB in R, G, B order.

    Raises:
        BadScene: the scene shows another blank. BadArtwork, BadPlacing: the art cannot be laid.
    """
    check_scene(lit.view.info, designs[0].template)
    if not math.isfinite(angle_deg):
        raise BadScene("The angle must be a number of degrees, for example 90.")
    return composite(lit, print_texture(designs, open_art, lit.view), angle_deg)[..., ::-1]


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
