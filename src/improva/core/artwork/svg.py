"""Check an SVG before drawing: it is well formed and loads nothing external."""

from __future__ import annotations

import re
from dataclasses import dataclass
from xml.etree.ElementTree import ParseError, register_namespace, tostring

import pyvips
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from ..errors import ArtworkError
from .svg_cost import check_cost

_URL = re.compile(r"url\(\s*['\"]?\s*([^'\")\s]+)", re.IGNORECASE)
_IMPORT = re.compile(r"@import\s+(?:url\(\s*)?['\"]?\s*([^'\")\s;]+)", re.IGNORECASE)

register_namespace("", "http://www.w3.org/2000/svg")
register_namespace("xlink", "http://www.w3.org/1999/xlink")

SVG_DPI = 96.0
"""CSS reference pixel, 1/96 in: W3C CSS Values and Units Level 3, 6.2."""

LIBVIPS_SVG_DPI = 72.0
"""Density at which libvips does not scale an SVG's own pixels."""


def draw_svg(data: bytes, scale: float = 1.0) -> pyvips.Image:
    """Draw an inspected SVG at ``scale`` times its own CSS pixels: sRGB with alpha.

    Drawings come out at whole pixels; this one is stretched by less than one to fill them, for a last row that is only
    partly covered would gape when the drawing is repeated.
    """
    drawn = pyvips.Image.svgload_buffer(data, dpi=SVG_DPI, scale=scale * LIBVIPS_SVG_DPI / SVG_DPI)
    filling = _filling(data, drawn.width, drawn.height)
    return pyvips.Image.svgload_buffer(filling) if filling else drawn


def _filling(data: bytes, w: int, h: int) -> bytes | None:
    """Return the drawing with its view box stretched to whole pixels; None for a missing or partial view box."""
    root = fromstring(data)
    view_box = root.get("viewBox", "")
    if not view_box and all(re.fullmatch(r"[\d.]+(px)?", root.get(side, "")) for side in ("width", "height")):
        view_box = f"0 0 {root.get('width', '').removesuffix('px')} {root.get('height', '').removesuffix('px')}"
    try:
        view = [float(v) for v in re.split(r"[\s,]+", view_box.strip())]
        if len(view) != 4 or not abs(view[2] / view[3] / (w / h) - 1) < 2 / min(w, h):
            return None
    except (ValueError, ZeroDivisionError):
        return None
    root.attrib |= {"viewBox": view_box, "width": str(w), "height": str(h), "preserveAspectRatio": "none"}
    return bytes(tostring(root))


@dataclass(frozen=True)
class SvgFacts:
    """The facts of an SVG document: whether it contains bitmaps."""

    embeds_raster: bool


def _own(reference: str) -> bool:
    return reference.startswith(("#", "data:")) or not reference.strip()


def inspect_svg(data: bytes) -> SvgFacts:
    """Check an SVG document.

    References to anything outside the document (files, addresses, style sheets) are refused, never read:
    a print that lacks a part of its picture would be worse than none.

    Raises:
        ArtworkError: it is not well-formed SVG, it points outside itself, or it takes too much to draw.
    """
    try:
        root = fromstring(data, forbid_dtd=False, forbid_entities=True, forbid_external=True)
    except DefusedXmlException as entity:
        raise ArtworkError("This SVG defines entities, which are not read: save it again as plain SVG.") from entity
    except (ParseError, ValueError, LookupError) as broken:
        raise ArtworkError(f"This SVG is not well formed ({broken}): export it again.") from broken
    if root.tag.rpartition("}")[2] != "svg":
        raise ArtworkError("This file is XML but not an SVG picture: export it again as SVG.")
    if b"<?xml-stylesheet" in data:
        raise ArtworkError("This SVG needs a style sheet of its own file: save it with its styles inside.")
    raster = False
    for node in root.iter():
        name = str(node.tag).rpartition("}")[2]
        links = [v for k, v in node.attrib.items() if k.rpartition("}")[2] in ("href", "src")] if name != "a" else []
        styles = [*node.attrib.values(), node.text or ""] if name == "style" else list(node.attrib.values())
        for text in styles:
            links += _URL.findall(text) + _IMPORT.findall(text)
        for reference in links:
            if not _own(reference):
                shown = reference if len(reference) <= 60 else reference[:57] + "…"
                raise ArtworkError(f"This SVG points to another file ({shown}): embed it in the drawing and save again.")
        raster = raster or name == "image"
    check_cost(root)
    return SvgFacts(embeds_raster=raster)
