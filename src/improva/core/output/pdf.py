"""A print file as PDF: one page of true size, the picture not encoded twice."""

from __future__ import annotations

import struct
from collections.abc import Iterator
from pathlib import Path

import pikepdf
import pyvips

from ..template import Panel
from ..units import points
from .profile import srgb_profile


def _chunks(png: bytes) -> Iterator[tuple[bytes, bytes]]:
    at = 8
    while at < len(png):
        length, kind = struct.unpack(">I4s", png[at : at + 8])
        yield kind, png[at + 8 : at + 8 + length]
        at += 12 + length


def write_pdf(image: pyvips.Image, panel: Panel, path: Path) -> None:
    """Write an opaque sRGB image as a PDF page of the panel's file size.

    PNG's compressed rows are laid into the page as they are: PDF's Flate filter knows the same predictors
    (ISO 32000-1, 7.4.4.4). The media and bleed boxes are the file, the trim box the trim (14.11.2).
    """
    png = image.pngsave_buffer(compression=6, interlace=False, keep="none")
    rows = b"".join(body for kind, body in _chunks(png) if kind == b"IDAT")
    w, h = (points(mm) for mm in panel.file_mm)
    bleed = points(panel.bleed_mm)
    with pikepdf.new() as pdf:
        profile = pikepdf.Stream(pdf, srgb_profile(), N=3, Alternate=pikepdf.Name.DeviceRGB)
        picture = pikepdf.Stream(pdf, rows)
        picture.stream_dict = pikepdf.Dictionary(
            Type=pikepdf.Name.XObject, Subtype=pikepdf.Name.Image, Width=image.width, Height=image.height,
            BitsPerComponent=8, ColorSpace=pikepdf.Array([pikepdf.Name.ICCBased, pdf.make_indirect(profile)]),
            Filter=pikepdf.Name.FlateDecode,
            DecodeParms=pikepdf.Dictionary(Predictor=15, Colors=3, BitsPerComponent=8, Columns=image.width),
        )  # fmt: skip
        page = pdf.add_blank_page(page_size=(w, h))
        page.Resources = pikepdf.Dictionary(XObject=pikepdf.Dictionary(Print=pdf.make_indirect(picture)))
        page.Contents = pdf.make_stream(f"q {w:.6f} 0 0 {h:.6f} 0 0 cm /Print Do Q".encode())
        page.BleedBox = [0, 0, w, h]
        page.TrimBox = [bleed, bleed, w - bleed, h - bleed]
        pdf.save(path)
