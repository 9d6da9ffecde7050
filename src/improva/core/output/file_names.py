"""File names that say what a file is."""

from __future__ import annotations

import re
import unicodedata

from ..template import Panel, Template
from ..units import inches


def slug(text: str) -> str:
    """Convert a title to part of a file name: lower-case letters, digits and hyphens, never empty, without a path."""
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return re.sub(r"[^a-z0-9]+", "-", plain.lower()).strip("-")[:60] or "artwork"


def size_name(size_mm: tuple[float, float]) -> str:
    """Return a size for file names, for example ``9.3x8.2in``."""
    return "x".join(f"{inches(side):.4g}" for side in size_mm) + "in"


def print_name(
    art_title: str,
    template: Template,
    panel: Panel,
    dpi: float,
    mirrored: bool,
    ending: str,
    size_mm: tuple[float, float] | None = None,
    *more: str,
) -> str:
    """Return a name such as ``summit-line_tumbler-20oz-straight_9.3x8.2in_300dpi_mirrored.png``.

    ``size_mm`` is the file's own size where paper lies around the print; ``more`` stands at the end, as ``letter``.
    """
    which = [panel.id] if len(template.panels) > 1 else []
    parts = [
        slug(art_title),
        template.id,
        *which,
        size_name(size_mm or panel.file_mm),
        f"{dpi:g}dpi",
        *(["mirrored"] if mirrored else []),
        *more,
    ]
    return "_".join(parts) + f".{ending}"


def set_name(art_title: str, template: Template, dpi: float, mirrored: bool, ending: str) -> str:
    """Return a name for all sides of a blank in one file, such as ``summit-line_hoodie_all-sides_300dpi.zip``."""
    parts = [slug(art_title), template.id, "all-sides", f"{dpi:g}dpi", *(["mirrored"] if mirrored else [])]
    return "_".join(parts) + f".{ending}"


def picture_name(art_title: str, scene_id: str, view: str, size: tuple[int, int], ending: str) -> str:
    """Return a name such as ``summit-line_straight-tumbler-studio_front_2000x2000.jpg``."""
    return f"{slug(art_title)}_{scene_id}_{slug(view)}_{size[0]}x{size[1]}.{ending}"


def film_name(art_title: str, scene_id: str, seconds: float, size: tuple[int, int], ending: str) -> str:
    """Return a name such as ``summit-line_straight-tumbler-studio_turning_6s_1080x1080.mp4``."""
    return f"{slug(art_title)}_{scene_id}_turning_{seconds:g}s_{size[0]}x{size[1]}.{ending}"


def sheet_name(art_title: str, template_id: str) -> str:
    """Return a name such as ``summit-line_mug-11oz_contact-sheet.jpg``."""
    return f"{slug(art_title)}_{template_id}_contact-sheet.jpg"


def pack_name(art_title: str, template_id: str, market: str) -> str:
    """Return a name such as ``summit-line_mug-11oz_valley-stalls.zip``."""
    return f"{slug(art_title)}_{template_id}_{market}.zip"


def list_name(art_title: str, template_id: str) -> str:
    """Return a name such as ``summit-line_mug-11oz_pictures.json``."""
    return f"{slug(art_title)}_{template_id}_pictures.json"
