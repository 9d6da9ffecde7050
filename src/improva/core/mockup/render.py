"""Render a mock-up from designs and a scene, and encode it."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from typing import Any

import cv2
import numpy as np
import pyvips
from numpy.typing import NDArray
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from ..artwork.pixels import as_array
from ..colour import Floats
from ..design import Design
from ..errors import OutputError, SceneError
from ..ink import colour_reflectance, printed
from ..output.profile import srgb_profile
from ..output.xmp import jpeg_segment
from ..render import Opener, on_blank, render_level
from ..template import Template
from .composite import ShadedView, composite
from .scene import SceneInfo
from .view import View

Designs = Sequence[Design]
"""Designs by panel, all of the same blank; at least one."""

PICTURE_FORMATS = {".jpg": "JPEG", ".jpeg": "JPEG", ".png": "PNG", ".webp": "WEBP"}
JPEG_QUALITY = 92
UNDERBASE: Floats = np.full(3, 0.86, np.float32)
"""Linear reflectance of the white under ink on cloth. From memory."""
LISTING_SIZES = {"square": (2000, 2000), "landscape": (2700, 2025), "wide": (3000, 2000)}
"""Listing sizes: square, 4:3 and 3:2. Common practice, no published source."""


MOST_TEXELS = 24_000_000
"""Most pixels of a texture: 290 MB of floats. Only a close view of a folded blanket would use more."""


def check_scene(info: SceneInfo, template: Template) -> None:
    """Check that a scene shows the blank. Raises :class:`SceneError` if it shows another."""
    if template.id not in info.templates:
        shown = ", ".join(info.templates)
        raise SceneError(f"The scene '{info.title}' shows {shown}, not {template.title}: choose one of its own.")


def print_textures(designs: Designs, open_art: Opener, view: View) -> dict[str, Floats]:
    """Return a blank's designs as reflectance for each printed region of a view, linear, B, G, R.

    (h, w, 3) each; of a print that lies on cloth (h, w, 4), ink premultiplied with its cover. A panel without a design
    is bare. Places that show the same panel share one texture.
    """
    by_panel = {design.panel.id: design for design in designs}
    blank = colour_reflectance(designs[0].template.blank_colour)[::-1]
    prints: dict[str, Floats] = {}
    textures: dict[tuple[str, bool], Floats] = {}
    for region in view.info.regions:
        if region.panel is None:
            continue
        key = (region.panel, region.on is not None)
        design = by_panel.get(region.panel)
        if key not in textures:
            if design is not None and design.carries and region.id in view.maps:
                size = _texture_px(view, region.panel)
                textures[key] = (
                    _ink(design, open_art, size, region.box_mm is not None)
                    if region.on
                    else _covered(design, open_art, size, blank)
                )
            else:
                bare = np.zeros(4) if region.on else blank
                textures[key] = np.ascontiguousarray(np.broadcast_to(bare, (16, 16, len(bare))).astype(np.float32))
        prints[region.id] = textures[key]
    return prints


def _texture_px(view: View, panel: str) -> tuple[int, int]:
    """Return the texture size that is large enough wherever a panel is seen."""
    sizes = [view.maps[r.id].texture_px for r in view.info.regions if r.panel == panel and r.id in view.maps]
    w, h = max(w for w, _ in sizes), max(h for _, h in sizes)
    share = min(1.0, math.sqrt(MOST_TEXELS / (w * h)))
    return round(w * share), round(h * share)


def _trim(image: pyvips.Image, design: Design) -> NDArray[np.uint8]:
    art = as_array(image)
    level = design.panel.level()
    bleed = tuple(round(level.bleed_mm / mm * px) for mm, px in zip(level.file_mm, art.shape[1::-1], strict=True))
    return art[bleed[1] : art.shape[0] - bleed[1], bleed[0] : art.shape[1] - bleed[0]]


def _covered(design: Design, open_art: Opener, size: tuple[int, int], blank: Floats) -> Floats:
    """Return the reflectance of a dyed panel: white art shows the blank."""
    trim = _trim(on_blank(render_level(design, open_art, size)), design)
    return printed(np.asarray(cv2.cvtColor(trim, cv2.COLOR_RGB2BGR), np.uint8), blank)


def _ink(design: Design, open_art: Opener, size: tuple[int, int], ends: bool) -> Floats:
    """Return a print that covers cloth, with its own white base under any colour: (h, w, 4), premultiplied.

    ``ends`` says that the cloth goes on beyond the print.
    """
    trim = _trim(render_level(design, open_art, size), design)
    colour = printed(np.asarray(cv2.cvtColor(trim[..., :3], cv2.COLOR_RGB2BGR), np.uint8), UNDERBASE)
    cover = trim[..., 3:].astype(np.float32) / 255 if trim.shape[2] == 4 else np.ones((*trim.shape[:2], 1), np.float32)
    ink = np.concatenate([colour * cover, cover], axis=2)
    if ends:
        ink[0], ink[-1], ink[:, 0], ink[:, -1] = 0, 0, 0, 0
    return np.ascontiguousarray(ink)


def render_mockup(shaded: ShadedView, designs: Designs, open_art: Opener, angle_deg: float) -> NDArray[np.uint8]:
    """Render a blank's designs in a scene: (h, w, 3) sRGB in R, G, B order.

    Raises:
        SceneError: the scene shows another blank. ArtworkError, PlacementError: the art cannot be laid.
    """
    check_scene(shaded.view.info, designs[0].template)
    if not math.isfinite(angle_deg):
        raise SceneError("The angle must be a number of degrees, for example 90.")
    return composite(shaded, print_textures(designs, open_art, shaded.view), angle_deg)[..., ::-1]


def _jpeg(picture: NDArray[np.uint8], quality: int, xmp: bytes | None) -> bytes:
    """Encode as JPEG by libjpeg-turbo, four times as fast as Pillow; chroma is subsampled only below listing quality."""
    sampling = cv2.IMWRITE_JPEG_SAMPLING_FACTOR_444 if quality >= JPEG_QUALITY else cv2.IMWRITE_JPEG_SAMPLING_FACTOR_420
    options = [cv2.IMWRITE_JPEG_QUALITY, quality, cv2.IMWRITE_JPEG_SAMPLING_FACTOR, sampling]
    bgr = np.ascontiguousarray(picture[..., ::-1])  # no copy if it is a reversed view of B, G, R
    _, data = cv2.imencode(".jpg", bgr, options)
    jpeg, profile = data.tobytes(), b"ICC_PROFILE\0\x01\x01" + srgb_profile()
    start = 4 + int.from_bytes(jpeg[4:6], "big")  # behind SOI and the JFIF segment: ICC.1, annex B.4
    segment = jpeg_segment(xmp) if xmp else b""
    return jpeg[:start] + segment + b"\xff\xe2" + (len(profile) + 2).to_bytes(2, "big") + profile + jpeg[start:]


def encode(picture: NDArray[np.uint8], ending: str, quality: int = JPEG_QUALITY, xmp: bytes | None = None) -> bytes:
    """Encode a picture as JPEG, PNG or WebP with the sRGB profile and an optional XMP packet.

    Raises :class:`OutputError` for another ending, and for a transparent picture (h, w, 4) as JPEG.
    """
    kind = PICTURE_FORMATS.get(ending.lower())
    if kind is None:
        raise OutputError(f"'{ending}': pictures are made as .jpg, .png or .webp: choose one of these endings.")
    if kind == "JPEG":
        if picture.shape[2] == 4:
            raise OutputError("A JPEG cannot be transparent: choose PNG or WebP.")
        return _jpeg(picture, quality, xmp)
    options: dict[str, Any] = {"quality": quality, "method": 2} if kind == "WEBP" else {}
    if xmp and kind == "WEBP":
        options["xmp"] = xmp
    elif xmp:
        options["pnginfo"] = PngInfo()
        options["pnginfo"].add_itxt("XML:com.adobe.xmp", xmp.decode())  # the keyword that ISO 16684-3 gives
    file = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(picture)).save(file, kind, icc_profile=srgb_profile(), **options)
    return file.getvalue()
