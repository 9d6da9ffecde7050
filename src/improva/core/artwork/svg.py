"""Checks on SVG before it is drawn: well formed, and nothing fetched from anywhere."""

from __future__ import annotations

import re
from dataclasses import dataclass
from xml.etree.ElementTree import ParseError

import pyvips
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from ..errors import BadArtwork

_URL = re.compile(r"url\(\s*['\"]?\s*([^'\")\s]+)", re.IGNORECASE)
_IMPORT = re.compile(r"@import\s+(?:url\(\s*)?['\"]?\s*([^'\")\s;]+)", re.IGNORECASE)

SVG_DPI = 96.0
"""CSS reference pixel, 1/96 in: W3C CSS Values and Units Level 3, 6.2."""

LIBVIPS_SVG_DPI = 72.0
"""The density at which libvips leaves an SVG's own pixels unscaled."""


def draw_svg(data: bytes, scale: float = 1.0) -> pyvips.Image:
    """An inspected SVG drawn at ``scale`` times its own CSS pixels: sRGB with alpha."""
    return pyvips.Image.svgload_buffer(data, dpi=SVG_DPI, scale=scale * LIBVIPS_SVG_DPI / SVG_DPI)


@dataclass(frozen=True)
class SvgFacts:
    """What an SVG document says of itself: whether pictures of pixels are set into it."""

    embeds_raster: bool


def _own(reference: str) -> bool:
    return reference.startswith(("#", "data:")) or not reference.strip()


def inspect_svg(data: bytes) -> SvgFacts:
    """Check an SVG document.

    References to anything outside the document (files, addresses, style sheets) are refused, never read:
    a print that lacks a part of its picture would be worse than none.

    Raises:
        BadArtwork: it is not well-formed SVG, or it points outside itself.
    """
    try:
        root = fromstring(data, forbid_dtd=False, forbid_entities=True, forbid_external=True)
    except DefusedXmlException as entity:
        raise BadArtwork("This SVG defines entities, which are not read: save it again as plain SVG.") from entity
    except (ParseError, ValueError, LookupError) as broken:
        raise BadArtwork(f"This SVG is not well formed ({broken}): export it again.") from broken
    if root.tag.rpartition("}")[2] != "svg":
        raise BadArtwork("This file is XML but not an SVG picture: export it again as SVG.")
    if b"<?xml-stylesheet" in data:
        raise BadArtwork("This SVG needs a style sheet of its own file: save it with its styles inside.")
    raster = False
    for node in root.iter():
        name = str(node.tag).rpartition("}")[2]
        found = [v for k, v in node.attrib.items() if k.rpartition("}")[2] in ("href", "src")] if name != "a" else []
        styles = [*node.attrib.values(), node.text or ""] if name == "style" else list(node.attrib.values())
        for text in styles:
            found += _URL.findall(text) + _IMPORT.findall(text)
        for reference in found:
            if not _own(reference):
                shown = reference if len(reference) <= 60 else reference[:57] + "…"
                raise BadArtwork(f"This SVG points to another file ({shown}): embed it in the drawing and save again.")
        raster = raster or name == "image"
    return SvgFacts(embeds_raster=raster)
