"""The facts of an artwork file, read without decoding its pixels."""

from __future__ import annotations

import io
import warnings
from dataclasses import asdict, dataclass
from typing import Any, Literal

import pyvips
from PIL import Image, ImageCms

from ..design import ArtSize
from ..errors import ArtworkError, ImprovaError
from ..units import MM_PER_IN
from .svg import SVG_DPI, draw_svg, inspect_svg

MAX_PIXELS = 600_000_000
"""Most pixels of an artwork: a 53 × 63 in blanket at 300 dpi has 300 million; twice that is allowed."""

MAX_SIDE_PX = 32_000
UNTAGGED_DPI = 300.0

Format = Literal["png", "jpeg", "tiff", "webp", "gif", "svg"]
Image.MAX_IMAGE_PIXELS = None  # our own limit is checked on the header, before anything is decoded

_MAGIC: tuple[tuple[Format, tuple[bytes, ...]], ...] = (
    ("png", (b"\x89PNG\r\n\x1a\n",)),
    ("jpeg", (b"\xff\xd8\xff",)),
    ("gif", (b"GIF87a", b"GIF89a")),
    ("tiff", (b"II*\0", b"MM\0*", b"II+\0", b"MM\0+")),
)


@dataclass(frozen=True)
class ArtFacts:
    """The facts of an artwork file.

    Attributes:
        px: width and height upright, that is after the orientation tag is honoured.
        tagged_dpi: the density written into the file, or None. It says nothing of sharpness.
        mode: colour mode as sellers call it, with the bit depth.
        stored_turned: the file's rows do not run as the picture stands; its orientation tag says how.
        enlarged: how many times each original pixel was stretched in length, where it was prepared so.
        notes: what was done or left out on reading, one sentence each.
    """

    format: Format
    px: tuple[int, int]
    tagged_dpi: tuple[float, float] | None
    mode: str
    has_alpha: bool
    bits: int
    profile: str | None
    vector: bool = False
    embeds_raster: bool = False
    converted_from: str | None = None
    stored_turned: bool = False
    enlarged: float = 1.0
    notes: tuple[str, ...] = ()

    @property
    def true_px(self) -> tuple[float, float]:
        """Return the pixels that carry detail: those before any enlargement."""
        return self.px[0] / self.enlarged, self.px[1] / self.enlarged

    @property
    def size(self) -> ArtSize:
        """Pixels that count and claimed print size, for fitting."""
        dpi = self.tagged_dpi or (UNTAGGED_DPI, UNTAGGED_DPI)
        return ArtSize(self.true_px, (self.px[0] / dpi[0] * MM_PER_IN, self.px[1] / dpi[1] * MM_PER_IN))

    def as_dict(self) -> dict[str, Any]:
        """Return plain values, as stored and sent."""
        return asdict(self)


def facts_from_dict(data: dict[str, Any]) -> ArtFacts:
    """Reverse :meth:`ArtFacts.as_dict`, after a trip through JSON."""
    dpi = data["tagged_dpi"]
    return ArtFacts(
        **{**data, "px": tuple(data["px"]), "tagged_dpi": tuple(dpi) if dpi else None, "notes": tuple(data["notes"])}
    )


def sniff(head: bytes) -> Format:
    """Return the format of a file by its first bytes, not by its name. Raises :class:`ArtworkError`."""
    if not head:
        raise ArtworkError("The file is empty: choose the picture again, or export it anew.")
    for name, marks in _MAGIC:
        if head.startswith(marks):
            return name
    if head[:4] == b"RIFF" and head[8:12] == b"WEBP":
        return "webp"
    start = head.lstrip(b"\xef\xbb\xbf \t\r\n")
    if start.startswith(b"<") and b"<svg" in start[:4096]:
        return "svg"
    raise ArtworkError("This is not a picture Improva reads, whatever its name says: use PNG, JPEG, TIFF, WebP, GIF or SVG.")


def _tagged(picture: Image.Image) -> tuple[float, float] | None:
    dpi = picture.info.get("dpi")
    if not dpi or picture.info.get("jfif_unit") == 0:
        return None
    x, y = float(dpi[0]), float(dpi[1])
    return (round(x, 2), round(y, 2)) if 1 < x < 100_000 and 1 < y < 100_000 else None


_MODES = {
    "1": ("Bitmap", 1),
    "L": ("Grey", 8),
    "LA": ("Grey", 8),
    "I;16": ("Grey", 16),
    "I;16B": ("Grey", 16),
    "I": ("Grey", 32),
    "F": ("Grey, floating point", 32),
    "P": ("Palette", 8),
    "PA": ("Palette", 8),
    "RGB": ("RGB", 8),
    "RGBA": ("RGB", 8),
    "RGBX": ("RGB", 8),
    "CMYK": ("CMYK", 8),
    "YCbCr": ("RGB", 8),
    "LAB": ("Lab", 8),
}


def _check_size(w: int, h: int) -> None:
    if w < 1 or h < 1:
        raise ArtworkError("The picture is 0 pixels wide or high: export it again.")
    if w * h > MAX_PIXELS or max(w, h) > MAX_SIDE_PX:
        raise ArtworkError(
            f"The picture says it is {w} × {h} px, more than Improva opens "
            f"({MAX_SIDE_PX} px a side, {MAX_PIXELS // 1_000_000} megapixels): export it smaller."
        )


def _check_extent(picture: Image.Image, length: int) -> None:
    """Check a TIFF's strips or tiles against the file's length: libtiff only warns about truncated files."""
    tags = getattr(picture, "tag_v2", {})
    for offsets, counts in ((273, 279), (324, 325)):
        ends = [a + b for a, b in zip(tags.get(offsets, ()), tags.get(counts, ()), strict=False)]
        if ends and max(ends) > length:
            raise ArtworkError("The picture is cut short: export or copy it again.")


def _raster_facts(data: bytes, kind: Format) -> ArtFacts:
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            picture = Image.open(io.BytesIO(data), formats=[kind.upper()])
            w, h = picture.size
            _check_size(w, h)
            frames = getattr(picture, "n_frames", 1)
        _check_extent(picture, len(data))
        header = pyvips.Image.new_from_buffer(data, "", access="sequential")
    except ImprovaError:
        raise
    except Exception as broken:  # Pillow raises errors of many kinds at headers that it did not expect
        if kind == "tiff" and (facts := _float_facts(data)):
            return facts
        raise ArtworkError(f"This {kind.upper()} file is broken and cannot be opened: export it again.") from broken
    orientation = header.get("orientation") if header.get_typeof("orientation") else 1
    turned = orientation in (5, 6, 7, 8)
    name, bits = _MODES.get(picture.mode, (picture.mode, 8))
    if header.format in ("ushort", "short"):
        bits = 16
    icc = picture.info.get("icc_profile")
    notes = []
    if frames > 1:
        notes.append(f"It holds {frames} pictures; the first one is used.")
    stored_turned = orientation in range(2, 9)
    if stored_turned:
        notes.append("It was turned upright by its orientation tag.")
    if bits > 8:
        notes.append(f"It has {bits} bits a channel; prints are made with 8.")
    profile = _profile_name(icc) if icc else None
    if icc and profile is None:
        notes.append("Its colour profile is damaged and was left out.")
    dpi = _tagged(picture)
    return ArtFacts(
        format=kind,
        px=(h, w) if turned else (w, h),
        tagged_dpi=(dpi[1], dpi[0]) if dpi and turned else dpi,
        mode=f"{name}, {bits} bit",
        has_alpha=bool("A" in picture.getbands() or "transparency" in picture.info or header.hasalpha()),
        bits=bits,
        profile=profile,
        converted_from=_converted(name, profile),
        stored_turned=stored_turned,
        notes=tuple(notes),
    )


def _float_facts(data: bytes) -> ArtFacts | None:
    """Return the facts of a TIFF in floating point, which Pillow does not open; None for any other.

    Its values are linear light, 1 for white: scRGB, IEC 61966-2-2, as libvips reads it.
    """
    try:
        header = pyvips.Image.new_from_buffer(data, "", access="sequential")
    except pyvips.Error:
        return None
    if header.format != "float" or header.bands not in (3, 4):
        return None
    _check_size(header.width, header.height)
    dpi = (round(header.xres * MM_PER_IN, 2), round(header.yres * MM_PER_IN, 2))
    return ArtFacts(
        format="tiff",
        px=(header.width, header.height),
        tagged_dpi=dpi if min(dpi) > MM_PER_IN else None,  # libvips says 1 px per mm where there is no tag
        mode="RGB, floating point, 32 bit",
        has_alpha=header.bands == 4,
        bits=32,
        profile=None,
        converted_from="linear light",
        notes=("It has 32 bits a channel; prints are made with 8.",),
    )


def _profile_name(icc: bytes) -> str | None:
    try:
        return ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(icc))).strip() or "unnamed"
    except (ImageCms.PyCMSError, OSError, ValueError):  # ValueError: a name that is not text
        return None


def _converted(mode: str, profile: str | None) -> str | None:
    if mode in ("CMYK", "Lab"):
        return f"{mode} ({profile})" if profile else mode
    return profile if profile and "srgb" not in profile.lower() and mode != "Grey" else None


def read_facts(data: bytes) -> ArtFacts:
    """Read the facts of an artwork from its bytes, without decoding pixels.

    Raises:
        ArtworkError: not a format that is read, broken, too large, or an SVG that points outside itself.
    """
    kind = sniff(data[:5000])
    if kind != "svg":
        return _raster_facts(data, kind)
    svg = inspect_svg(data)
    try:
        drawn = draw_svg(data)
    except pyvips.Error as broken:
        raise ArtworkError("This SVG has no size that can be drawn: give it a width, a height or a viewBox.") from broken
    _check_size(drawn.width, drawn.height)
    notes = ("It contains a picture made of pixels, whose sharpness cannot be measured.",) if svg.embeds_raster else ()
    return ArtFacts(
        "svg",
        (drawn.width, drawn.height),
        (SVG_DPI, SVG_DPI),
        "RGB, 8 bit",
        True,
        8,
        None,
        vector=True,
        embeds_raster=svg.embeds_raster,
        notes=notes,
    )
