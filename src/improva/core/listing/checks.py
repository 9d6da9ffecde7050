"""Check a listing's texts against a marketplace's limits."""

from __future__ import annotations

import re
from collections import Counter

from ..findings import Finding
from .markets import Market
from .words import FIELDS, Texts

WORD = re.compile(r"[^\W\d_]{3,}")
"""Words of at least three letters count as repeated."""


def check_texts(texts: Texts, market: Market) -> list[Finding]:
    """Return what a marketplace would refuse, and what wastes its space."""
    findings = [
        Finding("fail", f"'{{{name}}}' is no part of a text. There are: {', '.join(FIELDS)}.", "title")
        for name in texts.unknown
    ]
    findings += _length("title", texts.title, market.title_most, market.title_least)
    findings += _length("description", texts.description, market.description_most, 1)
    findings += _length("search", texts.search, market.search_most, 0)
    for word, times in Counter(word.casefold() for word in WORD.findall(texts.title)).items():
        if times > market.repeats_most:
            findings.append(
                Finding(
                    "warn",
                    f"'{word}' stands {times} times in the title: {market.repeats_most} will do.",
                    "title",
                    times,
                    market.repeats_most,
                )
            )
    findings += _tags(texts, market)
    return findings


def _length(of: str, text: str, most: int, least: int) -> list[Finding]:
    if len(text) > most:
        return [
            Finding("fail", f"{len(text)} letters, and {most} are taken: {len(text) - most} too many.", of, len(text), most)
        ]
    if len(text) < least:
        missing = f"{len(text)} letters, and {least} are needed." if text else "There is none yet."
        return [Finding("fail", missing, of, len(text), least)]
    return []


def _tags(texts: Texts, market: Market) -> list[Finding]:
    findings = [
        Finding("fail", f"'{tag}' has {len(tag)} letters, and {market.tag_most} are taken.", "tags", len(tag), market.tag_most)
        for tag in texts.tags
        if len(tag) > market.tag_most
    ]
    if texts.left_out:
        findings.append(
            Finding(
                "warn",
                f"{market.tags_most} tags are taken; left out: {', '.join(texts.left_out)}.",
                "tags",
                len(texts.tags) + len(texts.left_out),
                market.tags_most,
            )
        )
    elif len(texts.tags) < market.tags_most:
        findings.append(
            Finding(
                "warn",
                f"{len(texts.tags)} of {market.tags_most} tags are used: buyers find more with all.",
                "tags",
                len(texts.tags),
                market.tags_most,
            )
        )
    words = Counter(word.casefold() for tag in texts.tags for word in WORD.findall(tag))
    findings += [
        Finding("warn", f"'{word}' stands in {times} tags: other words reach other buyers.", "tags", times, 2)
        for word, times in words.items()
        if times > 2
    ]
    return findings
