"""Small files that would eat the machine: each is refused with a sentence, soon, and without memory of this process.

The files were found by attacking the application; what they once took is noted beside them.
"""

import io
import resource
import struct
import time
import zipfile
import zlib
from collections.abc import Callable, Iterator

import pikepdf
import pytest
from PIL import Image

from improva.app import foreign_files
from improva.app.foreign_files import ARTWORK, FONT, GUIDE, ORDERS, PHOTOGRAPH, PROFILE, SCENE_PACK, TEMPLATE
from improva.core.errors import ImprovaError
from improva.sandbox import Sandbox, Task

ANSWER_S, GROWTH_MB = 20.0, 60
"""Twice what an answer may take: other tests use the machine too."""


@pytest.fixture(scope="module")
def sandbox() -> Iterator[Sandbox]:
    made = Sandbox((foreign_files.__name__,), foreign_files.warm_up)
    yield made
    made.close()


def svg(inside: str, head: str = "", size: int = 8000) -> bytes:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{size}" height="{size}"><defs>{head}</defs>{inside}</svg>'
    ).encode()


def filtered(primitive: str, count: int = 1) -> bytes:
    box = '<rect width="8000" height="8000" fill="red" filter="url(#f)"/>'
    return svg(box * count, f'<filter id="f" x="0" y="0" width="1" height="1">{primitive}</filter>')


def webp_of_one_colour() -> bytes:
    """34 bytes that claim 16000 × 16000 px: 2.1 GB and over 90 s."""
    bits = (15999 | 15999 << 14).to_bytes(4, "little")
    chunk = b"\x2f" + bits + bytes.fromhex("88888808") + b"\0" * 5
    body = b"WEBPVP8L" + len(chunk).to_bytes(4, "little") + chunk
    return b"RIFF" + len(body).to_bytes(4, "little") + body


def png_of_nothing(side: int) -> bytes:
    """A few hundred kB that claim side × side px, RGBA."""
    packer, out = zlib.compressobj(9), []
    row = bytes(1 + 4 * side)
    for _ in range(side):
        out.append(packer.compress(row))
    out.append(packer.flush())

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", side, side, 8, 6, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", b"".join(out)) + chunk(b"IEND", b"")


def tiff_that_claims(width: int, height: int) -> bytes:
    """A 9 kB TIFF of one strip, packed: its one strip unpacks to the whole picture."""
    strip = zlib.compress(bytes(8_000_000))
    tags = [
        (256, 4, width), (257, 4, height), (258, 3, 8), (259, 3, 8), (262, 3, 1), (273, 4, 8), (277, 3, 1), (278, 4, height),
        (279, 4, len(strip)),
    ]  # fmt: skip
    at = 8 + len(strip)
    directory = struct.pack("<H", len(tags)) + b"".join(struct.pack("<HHII", tag, kind, 1, value) for tag, kind, value in tags)
    return b"II*\0" + struct.pack("<I", at) + strip + directory + struct.pack("<I", 0)


def pdf_of_squares(count: int) -> bytes:
    """A packed page of many large see-through squares: over 90 s."""
    file = io.BytesIO()
    with pikepdf.new() as pdf:
        page = pdf.add_blank_page(page_size=(3000, 3000))
        alpha = pikepdf.Dictionary(Type=pikepdf.Name.ExtGState, ca=0.5, BM=pikepdf.Name.Luminosity)
        page.Resources = pikepdf.Dictionary(ExtGState=pikepdf.Dictionary(a=alpha))
        page.Contents = pdf.make_stream(b"/a gs " + b"0.2 0.4 0.6 rg 0 0 3000 3000 re f\n" * count)
        pdf.save(file, compress_streams=True)
    return file.getvalue()


def zip_of(**files: bytes) -> bytes:
    file = io.BytesIO()
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(name.replace("_", "."), data)
    return file.getvalue()


def gif_of_many_pictures() -> bytes:
    file = io.BytesIO()
    pictures = [Image.new("P", (2000, 2000), n % 256) for n in range(60)]
    pictures[0].save(file, "GIF", save_all=True, append_images=pictures[1:])
    return file.getvalue()


BOMBS: dict[str, tuple[Task, Callable[[], bytes]]] = {
    "a WebP of 34 bytes": (ARTWORK, webp_of_one_colour),
    "250 nested groups": (ARTWORK, lambda: svg('<g opacity="0.9">' * 250 + '<rect width="9" height="9"/>' + "</g>" * 250)),
    "nested groups by a style sheet": (
        ARTWORK,
        lambda: svg('<g class="a">' * 250 + '<rect width="9" height="9"/>' + "</g>" * 250, "<style>.a{opacity:.9}</style>"),
    ),
    "deep XML": (ARTWORK, lambda: svg("<g>" * 200_000 + "</g>" * 200_000)),
    "feMorphology": (ARTWORK, lambda: filtered('<feMorphology operator="dilate" radius="500"/>')),
    "feTurbulence": (ARTWORK, lambda: filtered('<feTurbulence baseFrequency="0.01" numOctaves="99"/>')),
    "60 blurs": (ARTWORK, lambda: filtered('<feGaussianBlur stdDeviation="400"/>', 60)),
    "a filter of 60 blurs": (ARTWORK, lambda: filtered('<feGaussianBlur stdDeviation="400"/>' * 60)),
    "a TIFF of 9 kB": (ARTWORK, lambda: tiff_that_claims(31000, 19000)),
    "an SVG as a guide": (GUIDE, lambda: filtered('<feMorphology radius="500"/>')),
    "a PNG as a guide": (GUIDE, lambda: png_of_nothing(11000)),
    "a PDF as a guide": (GUIDE, lambda: pdf_of_squares(40_000)),
    "a photograph of a sample": (PHOTOGRAPH, webp_of_one_colour),
    "deep TOML": (TEMPLATE, lambda: b"a = " + b"[" * 100_000 + b"]" * 100_000),
    "large TOML": (TEMPLATE, lambda: b"a.b = 1\n" * 2_000_000),
    "a number of many digits": (TEMPLATE, lambda: b'id = "a"\nkind = 1' + b"0" * 9000),
    "a ZIP with large TOML": (SCENE_PACK, lambda: zip_of(scene_toml=b"a = 1\n" * 20_000_000, passes_exr=b"x")),
    "a ZIP with large passes": (SCENE_PACK, lambda: zip_of(scene_toml=b"a = 1", passes_exr=bytes(300_000_000))),
    "a profile of words": (PROFILE, lambda: b"\0\0\1\0lcms" + b"mntrRGB XYZ " * 100_000),
    "a font of nothing": (FONT, lambda: b"\0\1\0\0" + b"\xff" * 1_000_000),
    "a table of marks": (ORDERS, lambda: b'"' * 4_000_000),
}


@pytest.mark.parametrize("name", BOMBS)
def test_a_small_file_does_not_eat_the_machine(sandbox: Sandbox, name: str, tmp_path_factory: pytest.TempPathFactory) -> None:
    task, make = BOMBS[name]
    data = make()
    arguments = {SCENE_PACK: (str(tmp_path_factory.mktemp("pack")),), ORDERS: (["name"],)}.get(task, ())
    before, started = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss, time.monotonic()
    with pytest.raises(ImprovaError) as refused:
        sandbox.read(task, data, *arguments)
    assert time.monotonic() - started < ANSWER_S
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < GROWTH_MB * 1024
    assert str(refused.value).endswith(".") and "Traceback" not in str(refused.value)


def test_a_film_of_a_gif_is_read_as_its_first_picture(sandbox: Sandbox) -> None:
    assert foreign_files.read_artwork(sandbox, gif_of_many_pictures()).art.facts.px == (2000, 2000)
