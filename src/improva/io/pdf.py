"""Write PDF files sequentially: pages of true size whose pictures are never held whole in memory."""

from __future__ import annotations

import struct
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import BinaryIO

import pyvips

from ..core.output.profile import srgb_profile
from ..core.template import Box
from ..core.units import points

PNG_COMPRESSION = 6


@dataclass(frozen=True)
class PlacedPicture:
    """A picture on a page: an opaque 8-bit RGB image, and its box in mm from the page's top left corner."""

    image: pyvips.Image
    box: Box


@dataclass(frozen=True)
class Page:
    """A page in mm: its size, its pictures, what is drawn over them, and its trim and bleed boxes (the whole page by default).

    ``marks`` is PDF content in points from the bottom left corner; text uses the font ``/F1``, Helvetica.
    """

    size_mm: tuple[float, float]
    pictures: tuple[PlacedPicture, ...] = ()
    marks: str = ""
    trim: Box | None = None
    bleed: Box | None = None


def _rows(png: Path) -> Iterator[bytes]:
    """Yield the compressed rows of a PNG file in chunks."""
    with png.open("rb") as file:
        file.seek(8)
        while head := file.read(8):
            length, kind = struct.unpack(">I4s", head)
            body = file.read(length)
            file.seek(4, 1)
            if kind == b"IDAT":
                yield body


class _Writer:
    """Writes PDF objects in order and records their offsets (ISO 32000-1, 7.5)."""

    def __init__(self, out: BinaryIO) -> None:
        self._out = out
        self._starts: list[int] = [0]
        out.write(b"%PDF-1.7\n%\xe2\xe3\xcf\xd3\n")

    def reserve(self) -> int:
        """Reserve an object number."""
        self._starts.append(0)
        return len(self._starts) - 1

    def add(self, body: str, stream: Iterable[bytes] | None = None, number: int | None = None) -> int:
        """Write an object; for a stream, ``body`` is the inside of its dictionary."""
        number = self.reserve() if number is None else number
        self._starts[number] = self._out.tell()
        if stream is None:
            self._out.write(f"{number} 0 obj\n{body}\nendobj\n".encode("latin-1"))
            return number
        length = self.reserve()
        self._out.write(f"{number} 0 obj\n<<{body} /Length {length} 0 R>>\nstream\n".encode("latin-1"))
        size = 0
        for part in stream:
            self._out.write(part)
            size += len(part)
        self._out.write(b"\nendstream\nendobj\n")
        self.add(str(size), number=length)
        return number

    def close(self, root: int) -> None:
        """Write the cross-reference table and the trailer."""
        table = self._out.tell()
        rows = "".join(f"{start:010d} 00000 n \n" for start in self._starts[1:])
        self._out.write(f"xref\n0 {len(self._starts)}\n0000000000 65535 f \n{rows}".encode("latin-1"))
        self._out.write(
            f"trailer\n<</Size {len(self._starts)} /Root {root} 0 R>>\nstartxref\n{table}\n%%EOF\n".encode("latin-1")
        )


def _box(box: Box, height_mm: float) -> str:
    """Convert a box from the page's top left corner to PDF coordinates: from the bottom left, in points."""
    x, y, w, h = box
    return " ".join(f"{points(v):.5f}" for v in (x, height_mm - y - h, x + w, height_mm - y))


def _picture(writer: _Writer, image: pyvips.Image, profile: int, pdf_path: Path) -> int:
    """Write a picture as an object.

    PNG's compressed rows are laid into the file as they are: PDF's Flate filter knows the same predictors (7.4.4.4).
    """
    png = pdf_path.with_name(pdf_path.name + ".rows.png")
    try:
        image.pngsave(str(png), compression=PNG_COMPRESSION, interlace=False, keep="none", bitdepth=8)
        return writer.add(
            f"/Type /XObject /Subtype /Image /Width {image.width} /Height {image.height} /BitsPerComponent 8 "
            f"/ColorSpace [/ICCBased {profile} 0 R] /Filter /FlateDecode "
            f"/DecodeParms <</Predictor 15 /Colors 3 /BitsPerComponent 8 /Columns {image.width}>>",
            _rows(png),
        )
    finally:
        png.unlink(missing_ok=True)


def write_pages(pages: Iterable[Page], path: Path, profile: bytes | None = None) -> None:
    """Write pages as a PDF. Page boxes: ISO 32000-1, 14.11.2; the media box is the page.

    Args:
        pages: may be a generator; each page is written before the next is requested.
        profile: the pictures' RGB profile; sRGB by default.
    """
    with path.open("wb") as out:
        writer = _Writer(out)
        icc = writer.add("/N 3 /Alternate /DeviceRGB", [profile or srgb_profile()])
        font = writer.add("<</Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding>>")
        tree = writer.reserve()
        numbers = []
        drawn: dict[int, tuple[pyvips.Image, int]] = {}  # a picture laid several times is written once
        for page in pages:
            height = page.size_mm[1]
            for each in page.pictures:
                if id(each.image) not in drawn:
                    drawn[id(each.image)] = (each.image, _picture(writer, each.image, icc, path))
            names = {f"P{i}": drawn[id(each.image)][1] for i, each in enumerate(page.pictures)}
            drawing = ""
            for name, each in zip(names, page.pictures, strict=True):
                x, y, w, h = each.box
                drawing += (
                    f"q {points(w):.5f} 0 0 {points(h):.5f} {points(x):.5f} {points(height - y - h):.5f} cm /{name} Do Q\n"
                )
            content = writer.add("", [(drawing + page.marks).encode("cp1252", "replace")])
            whole = (0.0, 0.0, *page.size_mm)
            resources = " ".join(f"/{name} {number} 0 R" for name, number in names.items())
            numbers.append(
                writer.add(
                    f"<</Type /Page /Parent {tree} 0 R /MediaBox [{_box(whole, height)}] "
                    f"/BleedBox [{_box(page.bleed or whole, height)}] /TrimBox [{_box(page.trim or whole, height)}] "
                    f"/Resources <</XObject <<{resources}>> /Font <</F1 {font} 0 R>>>> /Contents {content} 0 R>>"
                )
            )
        kids = " ".join(f"{n} 0 R" for n in numbers)
        writer.add(f"<</Type /Pages /Count {len(numbers)} /Kids [{kids}]>>", number=tree)
        writer.close(writer.add(f"<</Type /Catalog /Pages {tree} 0 R>>"))
