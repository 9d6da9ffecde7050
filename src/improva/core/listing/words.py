"""A listing's texts, assembled from the blank's, the design's and the template's parts."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..template import Template
from ..units import inches

FIELD = re.compile(r"\{(\w+)\}")
"""A placeholder in a text, such as ``{design}``."""

FIELDS = {
    "design": "the design's name",
    "line": "the design's own line",
    "blank": "what it is printed on",
    "size": "the print's size, in and cm",
    "sizes": "the sizes it is sold in",
    "material": "what it is made of",
    "finish": "its finishes",
    "unprinted": "what stays unprinted",
}
"""The placeholders that a text can use, and the meaning of each."""


@dataclass(frozen=True)
class BlankWords:
    """Texts of a blank, for every design on it. They can name :data:`FIELDS`."""

    title: str = "{design} {blank}"
    text: str = ""
    tags: tuple[str, ...] = ()
    search: str = "{line} {blank}"


@dataclass(frozen=True)
class ArtWords:
    """Texts of a design: a name for buyers, a line, tags."""

    name: str = ""
    line: str = ""
    tags: tuple[str, ...] = ()


@dataclass(frozen=True)
class Texts:
    """A listing's texts.

    Attributes:
        left_out: tags for which there was no room.
        unknown: fields that are named in a text and are none.
    """

    title: str
    description: str
    tags: tuple[str, ...]
    search: str
    left_out: tuple[str, ...] = ()
    unknown: tuple[str, ...] = ()


def attributes(template: Template) -> dict[str, str]:
    """Return the known attributes of a template's blank, by field."""
    panel = template.panels[0]
    w, h = panel.level().trim_mm
    size = f"{inches(w):.3g} × {inches(h):.3g} in ({w / 10:.3g} × {h / 10:.3g} cm)"
    values = {
        "blank": template.title,
        "size": size,
        "sizes": ", ".join(template.sizes),
        "material": template.substrate,
        "finish": ", ".join(template.finishes),
        "unprinted": template.unprinted,
    }
    return {name: value for name, value in values.items() if value}


def _filled(text: str, parts: dict[str, str]) -> str:
    """Return a text with its fields filled, without double spaces around empty ones.

    A value begins with a capital at the start of a sentence. A blank's name that follows a word without a comma is part of
    its phrase and begins small: "Garden mug, 11 oz".
    """

    def value(found: re.Match[str]) -> str:
        name = found[1]
        said = parts.get(name, "" if name in FIELDS else found[0])
        before = FIELD.sub("x", text[: found.start()]).rstrip(" \t")
        if not before or before[-1] in ".!?\n":
            return said[:1].upper() + said[1:]
        if name == "blank" and before[-1].isalnum() and said[1:2].islower():
            return said[:1].lower() + said[1:]
        return said

    return re.sub(r"[ \t]{2,}", " ", FIELD.sub(value, text)).strip(" ,")


def unique_tags(*groups: Iterable[str]) -> list[str]:
    """Return the tags in order, each once regardless of case, with spaces normalised."""
    seen: dict[str, str] = {}
    for tag in (" ".join(each.split()) for group in groups for each in group):
        if tag:
            seen.setdefault(tag.casefold(), tag)
    return list(seen.values())


def assemble_texts(template: Template, art_title: str, of_art: ArtWords, of_blank: BlankWords, tags_most: int) -> Texts:
    """Assemble a listing's texts. The design's own tags come first; tags beyond the limit are left out."""
    known = attributes(template)
    parts = {**known, "design": of_art.name or art_title, "line": of_art.line}
    lines = [
        f"{label}: {known[name]}."
        for name, label in (
            ("size", "Printed area"),
            ("sizes", "Sizes"),
            ("material", "Made of"),
            ("finish", "Finish"),
            ("unprinted", "Not printed"),
        )
        if name in known
    ]
    own = "" if "{line}" in of_blank.text else of_art.line
    body = [own, _filled(of_blank.text, parts), "\n".join(lines)]
    tags = unique_tags(of_art.tags, of_blank.tags)
    texts = (of_blank.title, of_blank.text, of_blank.search)
    unknown = dict.fromkeys(name for text in texts for name in FIELD.findall(text) if name not in FIELDS)
    return Texts(
        title=_filled(of_blank.title, parts),
        description="\n\n".join(part for part in body if part),
        tags=tuple(tags[:tags_most]),
        search=_filled(of_blank.search, parts),
        left_out=tuple(tags[tags_most:]),
        unknown=tuple(unknown),
    )


def alt_text(design: str, template: Template, scene: str, view: str, colours: Sequence[str], most: int) -> str:
    """Return a picture's alternative text, shortened at a word to the market's limit."""
    text = f"{design} on {template.title}: {scene}, {view.replace('-', ' ')}" + (
        f", in {', '.join(colours)}" if colours else ""
    )
    if len(text) <= most:
        return text
    return text[: most - 1].rsplit(" ", 1)[0].rstrip(",: ") + "…"
