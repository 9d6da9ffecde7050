"""How each kind of foreign file is read: tasks that run in a child process with limits (:mod:`improva.sandbox`).

A reply holds plain values and pixels; from these the functions at the end of this file make objects again.
"""

from __future__ import annotations

import tomllib
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

import pyvips

from ..core.artwork.pixels import PROXY_PX, Artwork, as_array, plain
from ..core.artwork.reading import facts_from_dict
from ..core.artwork.traits import Traits, find_traits, traits_from_dict
from ..core.errors import FontError, ListingError, OutputError, SceneError, TemplateError
from ..core.guide import Traced, laid_over, read_guide, trace
from ..core.orders import Order, OrderProblem, read_orders
from ..core.output.profile import open_profile, soft_proof
from ..core.render.font_sample import font_sample
from ..core.template_file import parse_template, write_toml
from ..core.words.font import open_font
from ..sandbox import MB, Limits, Reader, Reply, Task

SMALL = Limits(cpu_s=8, output_mb=100)
"""Limits of everything but pictures."""

TOML_BYTES = 400_000
"""Largest template file: the largest that ships has 9 000 bytes."""

UNPACKED_MB_S = 40
"""Megabytes of a backup that are unpacked and hashed in a second, at least. Measured: 300 on two cores."""

GUIDE_PX = 1800
"""Longest side of a guide's picture on the page."""

PHOTO_PX = 1600
"""Longest side of a photograph that is kept with a record."""


@dataclass(frozen=True)
class ReadArtwork:
    """An artwork file as read: its bytes with their facts, a proxy, and its traits."""

    art: Artwork
    proxy: Artwork
    traits: Traits


def _pixels(image: pyvips.Image) -> tuple[list[int], bytes]:
    array = as_array(image)
    return list(array.shape), array.tobytes()


def _image_of(shape: Sequence[int], pixels: bytes) -> pyvips.Image:
    height, width, bands = shape
    return pyvips.Image.new_from_memory(pixels, width, height, bands, "uchar").copy(interpretation="srgb")


def _artwork(data: bytes) -> Reply:
    art = Artwork.read(data)
    proxy = art.proxy()
    shape, pixels = _pixels(proxy.image())
    return Reply({"facts": art.facts.as_dict(), "traits": find_traits(proxy).as_dict(), "shape": shape}, [pixels])


def _proxy(data: bytes, facts: dict[str, Any]) -> Reply:
    shape, pixels = _pixels(Artwork(data, facts_from_dict(facts)).reduced(PROXY_PX))
    return Reply({"shape": shape}, [pixels])


def _photograph(data: bytes) -> Reply:
    picture = Artwork.read(data).reduced(PHOTO_PX)
    flat = picture.flatten(background=[255, 255, 255]) if picture.hasalpha() else picture
    return Reply(blobs=[bytes(flat.jpegsave_buffer(Q=88, keep="none"))])


def _guide(data: bytes) -> Reply:
    guide = read_guide(data)
    picture = bytes(laid_over(guide, GUIDE_PX).pngsave_buffer(compression=3, keep="none"))
    return Reply({"px": guide.px, "claimed_mm": guide.claimed_mm, **asdict(trace(guide))}, [picture])


def _font(data: bytes) -> Reply:
    font = open_font(data)
    font_sample(font, "Sample")
    return Reply({"name": font.name[:80]})


def _profile(data: bytes) -> Reply:
    open_profile(data)
    with suppress(OutputError):  # a profile that shows nothing on screen can still be for print
        soft_proof(plain("#808080", (8, 8)), data, "relative")
    return Reply()


def _template(data: bytes) -> Reply:
    if len(data) > TOML_BYTES:
        raise TemplateError("This file is far larger than any template: choose the .toml file that was exported.")
    try:
        table = tomllib.loads(data.decode("utf-8"))
    except (UnicodeDecodeError, tomllib.TOMLDecodeError) as broken:
        raise TemplateError(f"This is not a template file: {broken}.") from broken
    wanted = str(table.get("id", ""))
    template = parse_template({**table, "id": "imported"}, own=True)
    return Reply({"id": wanted, "toml": write_toml(template)})


def _orders(data: bytes, fields: list[str]) -> Reply:
    rows, problems = read_orders(data, fields)
    return Reply({"rows": [[line, asdict(order)] for line, order in rows], "problems": [asdict(each) for each in problems]})


def _scene_pack(data: bytes, folder: str) -> Reply:
    # Imported here, because OpenEXR starts threads when it is loaded, and these do not survive the fork of a child process.
    from ..io.scene_pack_zip import unzip_pack

    return Reply({"id": unzip_pack(data, Path(folder)).id})


def _backup(data: bytes, path: str, folder: str) -> Reply:
    from ..store.restore import read_backup  # here, because no uploaded file needs it

    return Reply({"files": read_backup(Path(path), Path(folder))})


ARTWORK = Task(_artwork, "This picture is damaged, or not what it says it is: export it again.")
PROXY = Task(_proxy, ARTWORK.broken)
PHOTOGRAPH = Task(_photograph, ARTWORK.broken)
GUIDE = Task(_guide, "This guide is damaged, or not what it says it is: download it again.", limits=SMALL)
FONT = Task(_font, "This font is damaged: choose another file of it.", FontError, SMALL)
PROFILE = Task(_profile, "This colour profile is damaged: get it again from where it came.", limits=SMALL)
TEMPLATE = Task(_template, "This is not a template file: choose the .toml file that was exported.", TemplateError, SMALL)
ORDERS = Task(_orders, "This table cannot be read: save it as CSV, with commas and UTF-8.", ListingError, SMALL)
SCENE_PACK = Task(
    _scene_pack, "This scene pack is damaged: get it again from where it came.", SceneError, Limits(output_mb=400)
)


def warm_up() -> None:
    """Load what reading a picture needs, in a new process."""
    _artwork(bytes(plain("#808080", (64, 64)).jpegsave_buffer(profile="srgb")))


def read_artwork(reader: Reader, data: bytes) -> ReadArtwork:
    """Read an artwork file.

    Raises:
        ArtworkError: it is no picture that can be read.
        LimitError: it takes too much to open.
    """
    reply = reader.read(ARTWORK, data)
    facts = facts_from_dict(reply.values["facts"])
    proxy = Artwork(b"", facts, _image_of(reply.values["shape"], reply.blobs[0]))
    return ReadArtwork(Artwork(data, facts), proxy, traits_from_dict(reply.values["traits"]))


def read_proxy(reader: Reader, art: Artwork) -> Artwork:
    """Return the proxy of a stored artwork. Raises :class:`ArtworkError` and :class:`LimitError`."""
    reply = reader.read(PROXY, art.data, art.facts.as_dict())
    return Artwork(b"", art.facts, _image_of(reply.values["shape"], reply.blobs[0]))


def read_photograph(reader: Reader, data: bytes) -> bytes:
    """Return a photograph as it is kept with a record: upright, reduced, as JPEG.

    Raises :class:`ArtworkError` and :class:`LimitError`.
    """
    return reader.read(PHOTOGRAPH, data).blobs[0]


@dataclass(frozen=True)
class ReadGuide:
    """A guide as read: its pixels, its own size if it states one, its zones, and its picture for the page as PNG."""

    px: tuple[int, int]
    claimed_mm: tuple[float, float] | None
    zones: Traced
    picture: bytes


def read_guide_file(reader: Reader, data: bytes) -> ReadGuide:
    """Read a provider's guide. Raises :class:`ArtworkError` and :class:`LimitError`."""
    reply = reader.read(GUIDE, data)
    found = reply.values
    zones = Traced(tuple(found["trim"]) if found["trim"] else None, found["rectangular"])
    claimed = tuple(found["claimed_mm"]) if found["claimed_mm"] else None
    return ReadGuide(tuple(found["px"]), claimed, zones, reply.blobs[0])


def restore_backup(reader: Reader, path: Path, folder: Path) -> int:
    """Restore a backup to a new or empty folder, and return the number of files; see :func:`.restore.read_backup`.

    Raises:
        ImprovaError: the file is no backup or damaged, or the folder is not empty; then nothing is written.
        LimitError: it takes too much to read.
    """
    size = path.stat().st_size // MB if path.is_file() else 0
    limits = Limits(cpu_s=20 + size // UNPACKED_MB_S, wall_s=600 + size, output_mb=1000 + 50 * size)
    task = Task(_backup, f"'{path.name}' cannot be read as a backup: copy it again.", OutputError, limits)
    return int(reader.read(task, b"", str(path), str(folder)).values["files"])


def read_orders_table(reader: Reader, data: bytes, fields: list[str]) -> tuple[list[tuple[int, Order]], list[OrderProblem]]:
    """Read a table of orders; see :func:`read_orders`. Raises :class:`ListingError` and :class:`LimitError`."""
    found = reader.read(ORDERS, data, fields).values
    return [(line, Order(**order)) for line, order in found["rows"]], [OrderProblem(**each) for each in found["problems"]]
