"""Benchmarks of listing pictures, previews, films, board thumbnails and scene memory."""

from __future__ import annotations

import re
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import OpenEXR
import pyvips
from numpy.typing import NDArray

from ..app.scenes import SceneLibrary
from ..catalogue import template as find_template
from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.artwork.traits import find_traits
from ..core.design import Design, Piece, Placement
from ..core.mockup.composite import composite, shade_plain_parts
from ..core.mockup.drawn import draw
from ..core.mockup.parallel import ThreadedCores
from ..core.mockup.render import JPEG_QUALITY, encode, print_textures, render_mockup
from ..core.mockup.turntable import turning
from ..core.mockup.view import make_view
from ..io.film import write_film
from ..io.scene_pack import read_passes
from ..surfaces import surface
from .timing import median, row, side_by_side, times_of

BLANK = "tumbler-20oz-straight"
PICTURE = (2700, 2025)
LOOK = (900, 900)
FILM = (1080, 1080)
THUMBNAILS = 12
MOST_MB = 1500.0


def bench_picture(design: Design, art: Artwork) -> list[dict[str, Any]]:
    """Compare a listing picture and a preview while dragging with one bare remap and encoding of the same picture."""
    cores = ThreadedCores()
    info = SceneLibrary().first(find_template(BLANK))
    passes = read_passes(info, cores=cores)
    rows = []
    for name, size, limit, quality in (("listing picture", PICTURE, 2.0, JPEG_QUALITY), ("look while dragging", LOOK, 6.0, 86)):
        shaded = shade_plain_parts(make_view(info, passes, size, cores=cores), {}, surface)
        prints = print_textures([design], lambda _: art, shaded.view)
        texture: NDArray[np.uint8] = np.ascontiguousarray((next(iter(prints.values())) * 255).astype(np.uint8))
        x, y = np.meshgrid(np.arange(size[0], dtype=np.float32), np.arange(size[1], dtype=np.float32))
        x *= texture.shape[1] / size[0]
        y *= texture.shape[0] / size[1]

        def bare(texture: NDArray[np.uint8] = texture, x: Any = x, y: Any = y, quality: int = quality) -> bytes:
            # a reversed view without a copy, so that only the encoder's time is added
            return encode(np.asarray(cv2.remap(texture, x, y, cv2.INTER_LINEAR), np.uint8)[..., ::-1], ".jpg", quality)

        def ours(shaded: Any = shaded, prints: Any = prints, quality: int = quality) -> bytes:
            return encode(composite(shaded, prints, 30.0)[..., ::-1], ".jpg", quality)

        took, floor = side_by_side(ours, bare)
        rows.append(row(f"{name} {size[0]} × {size[1]}", took, "bare remap + JPEG", floor, limit))
        if size == LOOK:
            proxy = art.proxy(PROXY_PX // 2)  # the passes that the server uses at this size

            def look(shaded: Any = shaded, proxy: Artwork = proxy, quality: int = quality) -> bytes:
                return encode(render_mockup(shaded, [design], lambda _: proxy, 30.0), ".jpg", quality)

            times = times_of(look, 40)
            worst = float(np.percentile(times, 95))
            rows.append({**row("look, art laid anew, 95th percentile", worst, "60 ms", 0.060, 1.0)})
    return rows


def bench_first_picture(design: Design, art: Artwork) -> dict[str, Any]:
    """Compare a listing picture of an unopened scene with decoding its file, a bare remap and encoding."""
    cores = ThreadedCores()
    info = SceneLibrary().first(find_template(BLANK))

    def ours() -> None:
        shaded = shade_plain_parts(
            make_view(info, read_passes(info, cores=cores), PICTURE, cores=cores), {}, surface, spent=True
        )
        encode(render_mockup(shaded, [design], lambda _: proxy, 30.0), ".jpg")

    def bare() -> None:
        with OpenEXR.File(str(info.folder / "passes.exr"), separate_channels=True):
            encode(np.asarray(cv2.remap(texture, x, y, cv2.INTER_LINEAR), np.uint8), ".jpg")

    proxy = art.proxy(PROXY_PX)
    texture = np.asarray(cv2.imdecode(np.frombuffer(plain_art(0), np.uint8), cv2.IMREAD_COLOR), np.uint8)
    x, y = np.meshgrid(*(np.linspace(0, 1499, side, dtype=np.float32) for side in PICTURE))
    took, floor = side_by_side(ours, bare, 5)
    return row(f"first listing picture of a scene {PICTURE[0]} × {PICTURE[1]}", took, "decoding + remap + JPEG", floor, 4.0)


def bench_film(design: Design, art: Artwork) -> dict[str, Any]:
    """Measure a 6 s turn at 1080 px as MP4 against a limit of 10 s."""
    cores = ThreadedCores()
    info = SceneLibrary().first(find_template(BLANK))
    shaded = shade_plain_parts(make_view(info, read_passes(info, cores=cores), FILM, cores=cores), {}, surface)
    prints = print_textures([design], lambda _: art, shaded.view)
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "turn.mp4"
        ours = median(lambda: write_film(path, turning(shaded, prints), 6.0), 1)
    return row("film of a turn, 6 s, 1080 × 1080", ours, "10 s", 10.0, 1.0)


def bench_thumbnails() -> dict[str, Any]:
    """Measure the board's pictures of a new artwork on twelve blanks, with scenes already open."""
    from ..app.services import Services

    with tempfile.TemporaryDirectory() as folder:
        services = Services.of_folder(Path(folder))
        services.store.blanks.set_board(list(services.blanks.all())[:THUMBNAILS])
        facts = Artwork.read(plain_art(0)).facts

        def fill(n: int) -> None:
            art = Artwork(plain_art(n), facts)
            added = services.store.artworks.add(f"Artwork {n}", f"{n}.png", art, find_traits(art.proxy()))
            with ThreadPoolExecutor(4) as pool:
                list(
                    pool.map(lambda t: services.previews.cell(services.pairs.load(added.id, t.id)), services.blanks.on_board())
                )

        fill(0)
        numbers = iter(range(1, 100))
        ours = float(np.median(times_of(lambda: fill(next(numbers)), 3)))
    return row(f"{THUMBNAILS} board thumbnails of a new artwork", ours, "1.5 s", 1.5, 1.0)


def bench_contour() -> dict[str, Any]:
    """Measure a pillow with a new contour, standing at an angle, at its native size."""
    cores = ThreadedCores()
    template = find_template("pillow-shaped")
    info = SceneLibrary().first(template)
    y, x = np.mgrid[:300, :300] / 150.0 - 1
    turns, numbers = np.arctan2(y, x), iter(range(3, 100))

    def ours() -> None:
        lobes = next(numbers)
        draw(info, np.hypot(x, y) < 0.75 + 0.15 * np.cos(lobes * turns), cores)

    return row("shaped pillow of a new contour, 1440 × 1080", float(np.median(times_of(ours, 5))), "1 s", 1.0, 1.0)


def plain_art(n: int) -> bytes:
    """Return a generated picture, different for each number."""
    y, x = np.mgrid[:1500, :1700].astype(np.float32)
    waves = [120 + 90 * np.sin(x / (40 + n) + k) * np.cos(y / (55 + 3 * k)) for k in range(3)]
    return bytes(pyvips.Image.new_from_array(np.stack(waves, -1).astype(np.uint8)).pngsave_buffer(compression=1))


def bench_scenes_memory() -> dict[str, Any]:
    """Measure the peak memory of a process that previews every shipped scene and makes a listing picture in each."""
    result = subprocess.run([sys.executable, "-m", __name__], capture_output=True, text=True, check=True)
    most_mb = float(result.stdout)
    return {
        "name": f"memory with all {len(SceneLibrary().packs())} scenes in use, MB",
        "seconds": most_mb,
        "floor": f"{MOST_MB:g} MB",
        "floor_seconds": MOST_MB,
        "ratio": round(most_mb / MOST_MB, 3),
        "limit": 1.0,
    }


def _use_all_scenes() -> float:
    """Return the peak resident memory in MB, by Linux's own count."""
    from ..app.render_cache import RenderCache
    from ..memory import give_back

    give_back()  # as the server and the workers do
    render_cache, art = RenderCache(), Artwork.read(plain_art(0))
    for info in SceneLibrary().packs().values():
        template = find_template(info.templates[0])
        designs = [Design(template, p, (Piece("art", art.facts.size, Placement()),)) for p in template.panels]
        for size in ((400, 400), LOOK, PICTURE):
            shaded = render_cache.shaded_view(info, size, {})
            encode(render_mockup(shaded, designs, lambda _: art, 0.0), ".jpg")
    return int(re.search(r"VmHWM:\s+(\d+) kB", Path("/proc/self/status").read_text())[1]) / 1024  # type: ignore[index]


if __name__ == "__main__":
    print(_use_all_scenes())
