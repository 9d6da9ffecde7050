"""Measure the search for lettering on a labelled set, and fit its numbers to it.

``python -m improva.bench.lettering`` measures; with ``--fit`` it fits the numbers of ``core/artwork/row_model.py``.

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

import cv2
import numpy as np
import pyvips
from PIL import Image, ImageDraw, ImageFont
from scipy.optimize import minimize

from ..core.artwork.pixels import PROXY_PX
from ..core.artwork.row_model import FARTHEST, MEASURES, THRESHOLD, score
from ..core.artwork.text_rows import candidates
from ..core.colour import Floats, lab

FOLDERS = (Path("/usr/share/backgrounds"), Path("/usr/share/wallpapers"))
PACKAGES = ("skimage/data", "sklearn/datasets/images")
WITH_WORDS = (
    "astronaut", "chessboard", "clock", "coins", "logo", "motorcycle", "multipage", "page", "text", "tiny", "disp", "phantom",
    "horse", "aneurysms", "preview", "screenshot", "MATE-Stripes", "Green", "windows", "plasma", "Konqui", "lxqt-", "EveningGlow",
    "symbolic", "Radioactive", "firstgen", "2004default", "focal", "rhythm", "grub", "Transparent", "Flow.png", "Gulp", "Silk", "Spring", "Waves.png",
)  # fmt: skip
"""Parts of the names of pictures that hold words or signs, that are no pictures, or that are mostly clear."""

LINES = (
    "Signal box", "LAST TRAIN UP", "Morning at the tarn", "Halfway hut", "two more miles", "The long way home", "RIDGE 1904",
    "Kettle on", "gather round", "Nothing but rain",
)  # fmt: skip
SHARES = (0.025, 0.04, 0.06, 0.09)
"""Letter sizes, as shares of the picture's shorter side."""

FITTED_SHARES = (0.015, *SHARES)
HARD_ROUNDS, HARD_SCORE, HARD_WEIGHT = 3, 1.0, 10.0
"""How often rows without words are weighed again, from which score they count more, and how many times."""

LOW_PX = 14
"""Height of a line, in px of the examined picture, below which it is counted apart."""

SMALL_PX, REDUCED_PX = 700, 600
"""Shorter side below which a picture is small, and the longest side of the small copies of large ones."""

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
        return covered([box for box, m in _rows(self.pixels) if score(m) > THRESHOLD], self.box) >= FOUND_SHARE


def _read(path: Path) -> Picture:
    image = pyvips.Image.thumbnail(str(path), PROXY_PX, height=PROXY_PX, size="down").colourspace("srgb")
    if image.hasalpha():
        image = image.flatten(background=255)
    return np.ascontiguousarray(image.numpy()[..., :3])


def _files() -> list[Path]:
    """Return one file for each picture: the largest of its sizes."""
    roots = [*FOLDERS, *(Path(base) / package for base in sys.path for package in PACKAGES)]
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


def _rows(pixels: Picture) -> list[tuple[tuple[int, int, int, int], Floats]]:
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
    alarms = sum(any(score(m) > THRESHOLD for _, m in _rows(pixels)) for pixels in pictures.values())
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


def _cropped(pictures: dict[str, Picture], each: int, random: np.random.Generator) -> Iterator[tuple[str, Picture]]:
    """Return the pictures, and some parts of each at another size."""
    for name, pixels in pictures.items():
        yield name, pixels
        h, w = pixels.shape[:2]
        for _ in range(each if min(h, w) >= 500 else 0):
            share, zoom = random.uniform(0.4, 0.8), random.uniform(0.6, 1.3)
            high, wide = int(h * share), int(w * share)
            y, x = int(random.integers(0, h - high)), int(random.integers(0, w - wide))
            how = cv2.INTER_AREA if zoom < 1 else cv2.INTER_CUBIC
            yield name, np.asarray(cv2.resize(pixels[y : y + high, x : x + wide], None, fx=zoom, fy=zoom, interpolation=how))


@dataclass(frozen=True)
class _Examples:
    """Measures of rows (n, measures), the picture each comes from (n,), and the sources of the pictures."""

    rows: Floats
    picture: np.ndarray[Any, np.dtype[np.int64]]
    source: list[str]

    def best(self, scores: Floats) -> Floats:
        """Return each picture's highest score; -99 where it has no rows."""
        return np.array([scores[self.picture == i].max(initial=-99) for i in range(len(self.source))])


def _examples(found: Iterator[tuple[str, list[Floats]]]) -> _Examples:
    sources, rows, picture = [], [], []
    for i, (source, measures) in enumerate(found):
        sources.append(source)
        rows += measures
        picture += [i] * len(measures)
    return _Examples(np.array(rows), np.array(picture, np.int64), sources)


def _terms(rows: Floats, mean: Floats, deviation: Floats) -> Floats:
    z = np.clip((rows - mean) / deviation, -FARTHEST, FARTHEST)
    return np.hstack([z, z * z, np.ones((len(z), 1))])


def _trained(no: tuple[Floats, Floats], yes: tuple[Floats, Floats], ridge: float = 0.1) -> Floats:
    """Return the weights of a logistic regression with a ridge penalty. Each side has its terms and how much they count."""
    terms, weights = np.vstack([no[0], yes[0]]), np.concatenate([no[1], yes[1]])
    sign = np.r_[-np.ones(len(no[0])), np.ones(len(yes[0]))]

    def loss(at: Floats) -> tuple[float, Floats]:
        margin = sign * (terms @ at)
        pull = weights * sign / (1 + np.exp(np.clip(margin, -50, 50)))
        penalty = np.r_[at[:-1], 0]
        return float(
            (weights * np.logaddexp(0, -margin)).sum() + ridge * (penalty @ penalty) / 2
        ), ridge * penalty - pull @ terms

    return np.asarray(minimize(loss, np.zeros(terms.shape[1]), jac=True, method="L-BFGS-B", options={"maxiter": 800}).x)


def _reduced(pictures: dict[str, Picture]) -> dict[str, Picture]:
    """Return small copies of the large pictures, and the small pictures themselves."""
    small = dict(pictures)
    for name, pixels in pictures.items():
        if min(pixels.shape[:2]) >= SMALL_PX:
            factor = REDUCED_PX / max(pixels.shape[:2])
            smaller = cv2.resize(pixels, None, fx=factor, fy=factor, interpolation=cv2.INTER_AREA)
            small[name] = np.asarray(smaller, np.uint8)
    return small


def labelled() -> tuple[_Examples, _Examples]:
    """Return the rows of pictures without words, and those of lines of words, large and small."""
    pictures = wordless()
    large = {name: pixels for name, pixels in pictures.items() if min(pixels.shape[:2]) >= SMALL_PX}
    small = _reduced(pictures)
    bare = [*_cropped(pictures, 2, np.random.default_rng(0)), *((name, small[name]) for name in large)]
    no = _examples((name, [m for _, m in _rows(pixels)]) for name, pixels in bare)
    lines = [*worded(large, 420, seed=4, shares=FITTED_SHARES), *worded(small, 560, seed=5, shares=FITTED_SHARES)]
    yes = _examples((each.source, [m for box, m in _rows(each.pixels) if covered([box], each.box) > 0.15]) for each in lines)
    return no, yes


def _sharpened(no: tuple[Floats, Floats], yes: tuple[Floats, Floats]) -> Floats:
    """Return the weights after some rounds, in each of which rows without words that look like words count more."""
    at = _trained(no, yes)
    for _ in range(HARD_ROUNDS):
        at = _trained((no[0], no[1] * np.where(no[0] @ at > HARD_SCORE, HARD_WEIGHT, 1)), yes)
    return at


def fit() -> str:
    """Fit the numbers to the labelled set; return them as a table, with false alarms and misses in two-fold cross-validation."""
    no, yes = labelled()
    both = np.vstack([no.rows, yes.rows])
    mean, deviation = both.mean(axis=0), both.std(axis=0)
    terms = [_terms(each.rows, mean, deviation) for each in (no, yes)]
    weights = [1 / np.sqrt(np.bincount(each.picture)[each.picture]) for each in (no, yes)]
    names = sorted(set(no.source))
    half = [np.array([names.index(each.source[i]) % 2 for i in each.picture]) for each in (no, yes)]
    held = [np.zeros(len(each.rows), np.float32) for each in (no, yes)]
    for fold in (0, 1):
        use = [h != fold for h in half]
        seen = [(t[u], w[u]) for t, w, u in zip(terms, weights, use, strict=True)]
        at = _sharpened(seen[0], seen[1])
        for scores, t, u in zip(held, terms, use, strict=True):
            scores[~u] = t[~u] @ at
    alarms, found = no.best(held[0]), yes.best(held[1])
    at = _sharpened((terms[0], weights[0]), (terms[1], weights[1]))
    size = len(MEASURES)
    table = [
        f'    "{name}": ({mean[i]:.4f}, {deviation[i]:.4f}, {at[i]:.4f}, {at[size + i]:.4f}),'
        for i, name in enumerate(MEASURES)
    ]
    held_out = [
        f"held out, threshold {limit}: false alarms {100 * (alarms > limit).mean():.1f} %, misses {100 * (found <= limit).mean():.1f} %"
        for limit in (2, 3, 4, 5, 6)
    ]
    return "\n".join([*table, f"CONSTANT = {at[-1]:.4f}", *held_out])


if __name__ == "__main__":
    print(fit() if "--fit" in sys.argv else measure())
