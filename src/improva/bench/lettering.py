"""Measure the search for lettering on a labelled set; :mod:`.lettering_fit` fits its numbers to it.

*No words*: photographs that ship in scikit-image and scikit-learn, and pictures of Debian's packages of backgrounds, as far as
they are installed. *Words*: short lines set in the fonts that ship and in installed ones, at four sizes, over these pictures, in a
colour whose contrast with nine tenths of what lies under it is at least 3 : 1 (WCAG 2.2, 1.4.3, for large text).
"""

from __future__ import annotations

import sys
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import pyvips
from PIL import Image, ImageDraw, ImageFont

from ..core.artwork.pixels import PROXY_PX
from ..core.artwork.row_model import THRESHOLD, score
from ..core.artwork.text_rows import candidates
from ..core.colour import Floats, lab

FOLDERS = ("backgrounds", "wallpapers", "*/wallpapers")
"""Folders of pictures below ``/usr/share``, as patterns."""
PACKAGES = ("skimage/data", "sklearn/datasets/images")
WITH_WORDS = (
    "astronaut", "chessboard", "clock", "coins", "logo", "motorcycle", "multipage", "page", "text", "tiny", "disp", "phantom",
    "horse", "aneurysms", "preview", "screenshot", "-Stripes", "Green", "this-is-not", "plasma", "Flying", "origami-green", "EveningGlow",
    "symbolic", "Radioactive", "firstgen", "2004default", "focal", "rhythm", "grub", "Transparent", "Flow.png", "Gulp", "Silk", "Spring", "Waves.png",
)  # fmt: skip
"""Parts of the names of pictures that hold words or signs, that are no pictures, or that are mostly clear."""

LINES = (
    "Signal box", "LAST TRAIN UP", "Morning at the tarn", "Halfway hut", "two more miles", "The long way home", "RIDGE 1904",
    "Kettle on", "gather round", "Nothing but rain",
)  # fmt: skip
SHARES = (0.025, 0.04, 0.06, 0.09)
"""Letter sizes, as shares of the picture's shorter side."""

LOW_PX = 14
"""Height of a line, in px of the examined picture, below which it is counted apart."""

LEAST_CONTRAST = 3.0
FOUND_SHARE = 0.3
"""A line counts as found where rows cover this share of its width: some words of it are enough for a warning."""

Picture = np.ndarray[Any, np.dtype[np.uint8]]


@dataclass(frozen=True)
class Worded:
    """A picture with a line of words in a box: left, top, right and bottom in px."""

    source: str
    pixels: Picture
    box: tuple[int, int, int, int]

    @property
    def height_px(self) -> int:
        """Return the height of the line, with what rises above and hangs below its letters."""
        return self.box[3] - self.box[1]

    @property
    def found(self) -> bool:
        """Return whether enough of the line is found to be lettering."""
        return covered([box for box, m in rows_of(self.pixels) if score(m) > THRESHOLD], self.box) >= FOUND_SHARE


def _read(path: Path) -> Picture:
    image = pyvips.Image.thumbnail(str(path), PROXY_PX, height=PROXY_PX, size="down").colourspace("srgb")
    if image.hasalpha():
        image = image.flatten(background=255)
    return np.ascontiguousarray(image.numpy()[..., :3])


def _files() -> list[Path]:
    """Return one file for each picture: the largest of its sizes."""
    shared = [folder for pattern in FOLDERS for folder in sorted(Path("/usr/share").glob(pattern))]
    roots = [*shared, *(Path(base) / package for base in sys.path for package in PACKAGES)]
    best: dict[str, Path] = {}
    for path in (p for root in roots if root.is_dir() for p in sorted(root.rglob("*"))):
        if path.suffix not in (".jpg", ".png", ".webp") or any(part in str(path) for part in WITH_WORDS):
            continue
        name = str(path).split("/contents/", maxsplit=1)[0] if "/contents/" in str(path) else str(path)
        if path.stat().st_size > 20_000 and (name not in best or path.stat().st_size > best[name].stat().st_size):
            best[name] = path
    return [path for path in best.values() if "_dark" not in str(path) and "dark/" not in str(path)]


def wordless(least_px: int = 0) -> dict[str, Picture]:
    """Return pictures without words, by name; nothing where no package with pictures is installed."""
    pictures = {}
    for path in _files():
        try:
            pixels = _read(path)
        except pyvips.Error:
            continue
        if min(pixels.shape[:2]) >= max(least_px, 200):
            pictures["/".join(path.parts[-4:])] = pixels
    return pictures


def _luminance(colours: Floats) -> Floats:
    """Return the relative luminance (WCAG 2.2) of sRGB colours (n, 3)."""
    part = colours / 255
    linear = np.where(part <= 0.04045, part / 12.92, ((part + 0.055) / 1.055) ** 2.4)
    return np.asarray(linear @ np.array([0.2126, 0.7152, 0.0722]), np.float32)


def _readable(under: Picture, random: np.random.Generator) -> tuple[int, int, int] | None:
    below = _luminance(under.reshape(-1, 3)[:: max(1, under.size // 900)].astype(np.float32))
    for colour in (tuple(int(v) for v in random.integers(0, 256, 3)), (25, 22, 30), (250, 248, 240)):
        own = _luminance(np.array([colour], np.float32))[0]
        contrast = (np.maximum(below, own) + 0.05) / (np.minimum(below, own) + 0.05)
        if np.percentile(contrast, 10) >= LEAST_CONTRAST:
            return colour[0], colour[1], colour[2]
    return None


def with_words(pixels: Picture, font: str, share: float, line: str, random: np.random.Generator) -> tuple[Picture, Any] | None:
    """Return a picture with a line of words at a random place where it can be read, and its box; None if there is none."""
    h, w = pixels.shape[:2]
    size = max(8, int(share * min(h, w)))
    while True:
        face = ImageFont.truetype(font, size)
        x0, y0, x1, y1 = (int(v) for v in ImageDraw.Draw(Image.new("L", (8, 8))).textbbox((0, 0), line, font=face))
        if x1 - x0 <= 0.9 * w:
            break
        size = int(0.85 * size)
    for _ in range(60):
        x, y = int(random.integers(0, max(1, w - x1 + x0))), int(random.integers(0, max(1, h - y1 + y0)))
        box = (x, y, x + x1 - x0, y + y1 - y0)
        colour = _readable(pixels[box[1] : box[3], box[0] : box[2]], random)
        if colour is not None:
            image = Image.fromarray(pixels.copy())
            ImageDraw.Draw(image).text((x - x0, y - y0), line, font=face, fill=colour)
            return np.asarray(image), box
    return None


def fonts() -> list[str]:
    """Return the font files that ship, and installed ones of two common families."""
    own = sorted(Path(__file__).parents[1].joinpath("fonts").glob("*.*tf"))
    installed = [p for name in ("liberation*", "dejavu") for p in Path("/usr/share/fonts/truetype").glob(f"{name}/*.ttf")]
    return [str(path) for path in (*own, *sorted(installed))]


def worded(pictures: dict[str, Picture], count: int, seed: int, shares: tuple[float, ...] = SHARES) -> Iterator[Worded]:
    """Return pictures with a line of words, in each font and size in turn."""
    random, names, faces = np.random.default_rng(seed), sorted(pictures), fonts()
    made = tried = 0
    while made < count and tried < 20 * count:
        name = names[int(random.integers(len(names)))]
        share = shares[tried // len(faces) % len(shares)]
        line = LINES[int(random.integers(len(LINES)))]
        laid = with_words(pictures[name], faces[tried % len(faces)], share, line, random)
        tried += 1
        if laid is not None:
            made += 1
            yield Worded(name, *laid)


def rows_of(pixels: Picture) -> list[tuple[tuple[int, int, int, int], Floats]]:
    """Return the box, x, y, width and height, and the measures of each row of parts in a picture."""
    _, rows = candidates(np.ascontiguousarray(lab(np.ascontiguousarray(pixels))[..., 0]))
    return [(parts.extent, measures) for parts, measures in rows]


def covered(boxes: list[tuple[int, int, int, int]], box: tuple[int, int, int, int]) -> float:
    """Return the share of a line's width that boxes of rows (x, y, w, h) cover."""
    x0, y0, x1, y1 = box
    cover = np.zeros(max(1, x1 - x0), bool)
    for x, y, w, h in boxes:
        if min(y + h, y1) - max(y, y0) > 0.4 * max(1, min(h, y1 - y0)):
            cover[max(0, x - x0) : max(0, x + w - x0)] = True
    return float(cover.mean())


def measure(count: int = 200, least_px: int = 0) -> dict[str, float]:
    """Return the shares of false alarms and of misses, and how many pictures of each kind were looked at.

    Lines lower than :data:`LOW_PX` are counted apart: over a busy picture many of them cannot be told from its grain.
    """
    pictures = wordless(least_px)
    alarms = sum(any(score(m) > THRESHOLD for _, m in rows_of(pixels)) for pixels in pictures.values())
    lines = list(worded(pictures, count, seed=11)) if pictures else []
    low = [line for line in lines if line.height_px < LOW_PX]
    missed = [line for line in lines if not line.found]
    return {
        "pictures": len(pictures),
        "false alarms": alarms / max(1, len(pictures)),
        "lines": len(lines) - len(low),
        "misses": sum(line.height_px >= LOW_PX for line in missed) / max(1, len(lines) - len(low)),
        "low lines": len(low),
        "misses of low lines": sum(line.height_px < LOW_PX for line in missed) / max(1, len(low)),
    }
