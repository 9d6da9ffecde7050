"""Fit the numbers of ``core/artwork/row_model.py`` to the labelled set: ``python -m improva.bench.lettering_fit``."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from scipy.optimize import minimize

from ..core.artwork.row_model import FARTHEST, MEASURES
from ..core.colour import Floats
from .lettering import SHARES, Picture, covered, rows_of, worded, wordless

FITTED_SHARES = (0.015, *SHARES)
HARD_ROUNDS, HARD_SCORE, HARD_WEIGHT = 3, 1.0, 10.0
"""How often rows without words are weighed again, from which score they count more, and how many times."""

SMALL_PX, REDUCED_PX = 700, 600
"""Shorter side below which a picture is small, and the longest side of the small copies of large ones."""


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
    no = _examples((name, [m for _, m in rows_of(pixels)]) for name, pixels in bare)
    lines = [*worded(large, 420, seed=4, shares=FITTED_SHARES), *worded(small, 560, seed=5, shares=FITTED_SHARES)]
    yes = _examples((each.source, [m for box, m in rows_of(each.pixels) if covered([box], each.box) > 0.15]) for each in lines)
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
    print(fit())
