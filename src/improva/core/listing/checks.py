"""Check a listing's texts against a marketplace's limits."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from typing import Literal

from .markets import Market
from .words import FIELDS, Texts

WORD = re.compile(r"[^\W\d_]{3,}")
"""Words that count as repeated: of three letters and more."""


@dataclass(frozen=True)
class TextFinding:
    """A finding on a listing's texts: ``of`` names the part, ``measured`` and ``limit`` are what was counted."""

    of: str
    status: Literal["warn", "fail"]
    message: str
    measured: float | None = None
    limit: float | None = None


def check_texts(texts: Texts, market: Market) -> list[TextFinding]:
    """Return what a marketplace would refuse, and what wastes its space."""
    found = [
        TextFinding("title", "fail", f"'{{{name}}}' is no part of a text. There are: {', '.join(FIELDS)}.")
        for name in texts.unknown
    ]
    found += _length("title", texts.title, market.title_most, market.title_least)
    found += _length("description", texts.description, market.description_most, 1)
    found += _length("search", texts.search, market.search_most, 0)
    for word, times in Counter(word.casefold() for word in WORD.findall(texts.title)).items():
        if times > market.repeats_most:
            found.append(
                TextFinding(
                    "title",
                    "warn",
                    f"'{word}' stands {times} times in the title: {market.repeats_most} will do.",
                    times,
                    market.repeats_most,
                )
            )
    found += _tags(texts, market)
    return found


def _length(of: str, text: str, most: int, least: int) -> list[TextFinding]:
    if len(text) > most:
        return [
            TextFinding(of, "fail", f"{len(text)} letters, and {most} are taken: {len(text) - most} too many.", len(text), most)
        ]
    if len(text) < least:
        missing = f"{len(text)} letters, and {least} are needed." if text else "There is none yet."
        return [TextFinding(of, "fail", missing, len(text), least)]
    return []


def _tags(texts: Texts, market: Market) -> list[TextFinding]:
    found = [
        TextFinding(
            "tags", "fail", f"'{tag}' has {len(tag)} letters, and {market.tag_most} are taken.", len(tag), market.tag_most
        )
        for tag in texts.tags
        if len(tag) > market.tag_most
    ]
    if texts.left_out:
        found.append(
            TextFinding(
                "tags",
                "warn",
                f"{market.tags_most} tags are taken; left out: {', '.join(texts.left_out)}.",
                len(texts.tags) + len(texts.left_out),
                market.tags_most,
            )
        )
    elif len(texts.tags) < market.tags_most:
        found.append(
            TextFinding(
                "tags",
                "warn",
                f"{len(texts.tags)} of {market.tags_most} tags are used: buyers find more with all.",
                len(texts.tags),
                market.tags_most,
            )
        )
    words = Counter(word.casefold() for tag in texts.tags for word in WORD.findall(tag))
    found += [
        TextFinding("tags", "warn", f"'{word}' stands in {times} tags: other words reach other buyers.", times, 2)
        for word, times in words.items()
        if times > 2
    ]
    return found
