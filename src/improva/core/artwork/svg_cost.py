"""Refuse SVG that would take far more memory or time to draw than a design needs."""

from __future__ import annotations

import re
from collections.abc import Iterator
from xml.etree.ElementTree import Element

from ..errors import ArtworkError

MOST_LAYERS = 5
"""Most groups inside each other that need a picture of their own: each takes the memory of the whole print."""

MOST_FILTERED, MOST_PRIMITIVES = 12, 8
"""Most elements with a filter, and most steps of one filter. Each step computes the whole print anew."""

CHEAP_PRIMITIVES = {
    "feBlend",
    "feColorMatrix",
    "feComponentTransfer",
    "feComposite",
    "feDropShadow",
    "feFlood",
    "feGaussianBlur",
    "feMerge",
    "feOffset",
}
"""Filter steps whose time does not depend on their parameters: shadows, glows and changes of colour (W3C Filter Effects 1)."""

_PARTS = {"feFuncR", "feFuncG", "feFuncB", "feFuncA", "feMergeNode"}
_RULE = re.compile(r"([^{}]+)\{([^{}]*)\}")
_NAME = re.compile(r"[.#]?[\w-]+")
_LAYER = re.compile(
    r"(?:^|[;\s])(?:(?:mask|filter|mix-blend-mode|isolation)\s*:\s*(?!none|normal|auto)\S|opacity\s*:\s*(?:0?\.\d|0|\d?\d%))"
)
_FILTER = re.compile(r"(?:^|[;\s])filter\s*:\s*(?!none)\S")


class _Style:
    """Which elements have properties that match a pattern: by attribute, by style, or by a rule of a style sheet."""

    def __init__(self, root: Element, pattern: re.Pattern[str]) -> None:
        self._pattern = pattern
        sheets = " ".join(node.text or "" for node in root.iter() if _local(node) == "style")
        rules = [names for names, body in _RULE.findall(sheets) if pattern.search(body)]
        self._named = {name for rule in rules for name in _NAME.findall(rule)}

    def applies_to(self, node: Element) -> bool:
        names = {_local(node), f"#{node.get('id', '')}", *(f".{name}" for name in node.get("class", "").split())}
        if names & self._named:
            return True
        written = ";".join(f"{key}:{value}" for key, value in node.attrib.items() if "}" not in key and key != "style")
        return bool(self._pattern.search(f"{written};{node.get('style', '')}"))


def _local(node: Element) -> str:
    return str(node.tag).rpartition("}")[2]


def _with_depth(root: Element, layers: _Style) -> Iterator[tuple[Element, int]]:
    """Yield every element with the number of layers that it lies in. Without recursion: hostile files nest deeply."""
    open_nodes = [(root, 0)]
    while open_nodes:
        node, depth = open_nodes.pop()
        depth += layers.applies_to(node)
        yield node, depth
        open_nodes += [(child, depth) for child in node]


def check_cost(root: Element) -> None:
    """Check that a drawing can be drawn with ordinary means.

    Raises:
        ArtworkError: it nests too many see-through groups, or its filters take too long.
    """
    for node in root.iter():
        name = _local(node)
        if name.startswith("fe") and name not in CHEAP_PRIMITIVES | _PARTS:
            raise ArtworkError(
                f"This SVG uses the filter {name}, which is not drawn: turn that effect into pixels, and save again."
            )
        if name == "filter" and len(node) > MOST_PRIMITIVES:
            raise ArtworkError(f"This SVG has a filter of {len(node)} steps ({MOST_PRIMITIVES} at most): simplify it.")
    filtered = _Style(root, _FILTER)
    count = sum(filtered.applies_to(node) for node in root.iter() if _local(node) != "filter")
    if count > MOST_FILTERED:
        raise ArtworkError(f"This SVG has {count} filtered parts ({MOST_FILTERED} at most): turn the effects into pixels.")
    if max(depth for _, depth in _with_depth(root, _Style(root, _LAYER))) > MOST_LAYERS:
        raise ArtworkError(
            f"This SVG nests more than {MOST_LAYERS} see-through groups: flatten its transparency, and save again."
        )
