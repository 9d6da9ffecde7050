"""An artwork's pixels: decoded, upright, and converted to 8-bit sRGB by Little CMS."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import pyvips
from numpy.typing import NDArray

from ..colour import parse_hex
from ..errors import ArtworkError
from .reading import MAX_SIDE_PX, ArtFacts, read_facts
from .svg import draw_svg

TRANSPARENT = [0, 0, 0, 0]
PROXY_PX = 2048
"""Longest side of a proxy, in px: twice the size for checks, and enough for previews while dragging."""


@dataclass(frozen=True)
class Artwork:
    """An artwork file in memory: its bytes and its facts.

    A *proxy* carries reduced pixels in place of its bytes; its facts are still the original's, so that
    everything measured is true and only looking at it is quick.
    """

    data: bytes
    facts: ArtFacts
    decoded: pyvips.Image | None = None

    @classmethod
    def read(cls, data: bytes) -> Artwork:
        """Read the facts of an artwork. Raises :class:`ArtworkError`."""
        return cls(data, read_facts(data))

    @property
    def is_proxy(self) -> bool:
        """Return whether this is a reduced copy."""
        return self.decoded is not None

    def image(self, least_px: tuple[float, float] = (1, 1), streamed: bool = False) -> pyvips.Image:
        """Return the pixels as 8-bit sRGB with three bands, or four with straight alpha.

        Args:
            least_px: vector art is drawn at least this large; pixels are what they are.
            streamed: read once from top to bottom, which saves memory but forbids turning.

        Raises:
            ArtworkError: the pixels cannot be decoded.
        """
        if self.decoded is not None:
            return self.decoded
        try:
            if self.facts.vector:
                wanted = max(least_px[0] / self.facts.px[0], least_px[1] / self.facts.px[1], 1e-3)
                limit = MAX_SIDE_PX / max(self.facts.px)
                return draw_svg(self.data, min(wanted, limit))
            access = "sequential" if streamed and not self.facts.stored_turned else "random"
            fail_on = "error" if self.facts.format == "tiff" else "truncated"  # a short TIFF strip is no truncation to libvips
            image = pyvips.Image.new_from_buffer(self.data, "", access=access, fail_on=fail_on)
            return srgb(image.autorot())
        except pyvips.Error as broken:
            raise unreadable(broken) from broken

    def reduced(self, longest_px: int) -> pyvips.Image:
        """Return the whole picture in memory, at most ``longest_px`` on its longer side.

        Decodes every pixel, so a damaged file is found here. Raises :class:`ArtworkError`.
        """
        scale = longest_px / max(self.facts.px)
        image = self.image((self.facts.px[0] * scale, self.facts.px[1] * scale), streamed=True)
        factor = min(1.0, longest_px / max(image.width, image.height))
        try:
            return resized(image, factor, factor).copy_memory()
        except pyvips.Error as broken:
            raise unreadable(broken) from broken

    def proxy(self, longest_px: int = PROXY_PX) -> Artwork:
        """Return a reduced copy of this artwork for previews. Raises :class:`ArtworkError`."""
        return Artwork(b"", self.facts, self.reduced(longest_px))


def packed_proxy(proxy: Artwork) -> bytes:
    """Return a proxy's pixels as PNG, with little compression because it is read often."""
    return bytes(proxy.image().pngsave_buffer(compression=1, filter="up", keep="none"))


def unpacked_proxy(data: bytes, facts: ArtFacts) -> Artwork:
    """Return the proxy that :func:`packed_proxy` wrote. Raises :class:`ArtworkError` where the file is damaged."""
    try:
        image = pyvips.Image.pngload_buffer(data, fail_on="truncated")
        if max(image.width, image.height) > PROXY_PX or image.bands not in (3, 4) or image.format != "uchar":
            raise ArtworkError("This is not a proxy.")
        return Artwork(b"", facts, image.copy_memory())
    except pyvips.Error as broken:
        raise unreadable(broken) from broken


def unreadable(broken: pyvips.Error) -> ArtworkError:
    """Return the error for pixels that do not decode."""
    why = str(broken.detail).strip().splitlines()
    return ArtworkError(f"The picture is damaged or cut short ({why[-1] if why else 'no pixels'}): export or copy it again.")


def srgb(image: pyvips.Image) -> pyvips.Image:
    """Convert any image to 8-bit sRGB with 3 or 4 bands, with its embedded profile.

    CMYK without a profile is taken through the general press profile that libvips carries.
    """
    has_profile = image.get_typeof("icc-profile-data") != 0
    if image.interpretation == "cmyk" or (has_profile and image.interpretation in ("srgb", "rgb", "rgb16", "lab")):
        fallback = "cmyk" if image.interpretation == "cmyk" else "srgb"
        try:
            image = image.icc_transform(
                "srgb", input_profile=fallback, embedded=True, intent="relative", black_point_compensation=True, depth=8
            )
        except pyvips.Error:
            image = image.icc_transform("srgb", input_profile=fallback, intent="relative", depth=8)
    image = image.colourspace("srgb")
    if image.format != "uchar":
        image = image.cast("uchar")
    return image.extract_band(0, n=4) if image.bands > 4 else image


def resized(image: pyvips.Image, across: float, down: float, quick: bool = False) -> pyvips.Image:
    """Resample, with alpha premultiplied so that hidden colour does not bleed in: by Lanczos 3 down, bicubic up.

    Pixels' centres keep their place: libvips's own resize moves what it enlarges by half a pixel of the result.

    Args:
        image: 8-bit, with or without alpha.
        across: factor of the width.
        down: factor of the height.
        quick: premultiply in 8 bits, which is four times as fast. Laid on any ground, the result differs by about a level of 255; the
            colours of nearly transparent pixels by themselves differ more, so this is not for print files.
    """
    if math.isclose(across, 1.0) and math.isclose(down, 1.0):
        return image
    size = [max(1, round(image.width * across)), max(1, round(image.height * down))]
    alpha = image.hasalpha()
    work = image.premultiply() if alpha else image
    if alpha and quick:
        work = as_bytes(work)
    if min(across, down) < 1:
        work = work.resize(min(1.0, across), vscale=min(1.0, down), kernel="lanczos3")
    if max(across, down) > 1:
        w, h = (
            max(1.0, s / px) if f > 1 else 1.0 for s, px, f in zip(size, (work.width, work.height), (across, down), strict=True)
        )
        work = work.affine(
            [w, 0, 0, h],
            interpolate=pyvips.Interpolate.new("bicubic"),
            odx=(w - 1) / 2,
            ody=(h - 1) / 2,
            oarea=[0, 0, *size],
            extend="copy",
        )
    return as_bytes(work.unpremultiply() if alpha else work)


def with_alpha(image: pyvips.Image) -> pyvips.Image:
    """Return the image with an alpha band."""
    return image if image.hasalpha() else image.addalpha()


def plain(colour: str, size_px: tuple[int, int]) -> pyvips.Image:
    """Return an opaque image of one colour."""
    return pyvips.Image.black(*size_px).new_from_image(list(parse_hex(colour))).copy(interpretation="srgb")


def nothing(size_px: tuple[int, int]) -> pyvips.Image:
    """Return a fully transparent image."""
    return pyvips.Image.black(*size_px, bands=4).copy(interpretation="srgb")


def as_bytes(image: pyvips.Image) -> pyvips.Image:
    """Round values to 8 bits; a cast alone would truncate them."""
    return image if image.format == "uchar" else image.rint().cast("uchar")


def as_array(image: pyvips.Image) -> NDArray[np.uint8]:
    """Evaluate an image: (h, w, bands) uint8. Raises :class:`ArtworkError` where pixels do not decode."""
    try:
        return np.asarray(image.numpy(), dtype=np.uint8).reshape(image.height, image.width, image.bands)
    except pyvips.Error as broken:
        raise unreadable(broken) from broken
