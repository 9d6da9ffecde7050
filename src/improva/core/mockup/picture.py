"""A mock-up from start to end: the art as a texture, the scene, the file."""

from __future__ import annotations

import io

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
            prints[region.id] = np.ascontiguousarray(printed(trim, blank)[..., ::-1])
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
    return composite(lit, print_texture(design, open_art, lit.view), angle_deg)[..., ::-1]


def encode(picture: NDArray[np.uint8], ending: str, quality: int = JPEG_QUALITY) -> bytes:
    """A picture as a JPEG, PNG or WebP file with the sRGB profile. Raises :class:`BadOutput`."""
    kind = PICTURE_FORMATS.get(ending.lower())
    if kind is None:
        raise BadOutput(f"'{ending}': pictures are made as .jpg, .png or .webp: choose one of these endings.")
    options = {"JPEG": {"quality": quality, "subsampling": 0}, "WEBP": {"quality": quality, "method": 2}, "PNG": {}}
    file = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(picture)).save(file, kind, icc_profile=srgb_profile(), **options[kind])
    return file.getvalue()
