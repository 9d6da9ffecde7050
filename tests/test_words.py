"""The screens, the messages and the docs use the words of docs/glossary.md."""

from __future__ import annotations

import ast
import re
from pathlib import Path

ROOT = Path(__file__).parents[1]
GLOSSARY = ROOT / "docs" / "glossary.md"
SHOWN = [
    *(p for p in (ROOT / "frontend" / "src").rglob("*.ts*") if "generated" not in p.name and ".test." not in p.name),
    *(p for p in (ROOT / "src" / "improva").rglob("*.py") if "migrations" not in p.parts),
    *(p for p in (ROOT / "docs").glob("*.md") if p != GLOSSARY),
    ROOT / "README.md",
]
PHRASES = (
    "laid with it", "as it will be read", "near by", "beyond it", "colours apart", "set in by", "never under", "take that back",
    "put away", "take off the board", "pick none", "picture all", "carry to other", "back to the proposal", "ground beneath it",
    "bare blank", "as it came", "as the file claims", "what is left", "left for you", "letters there", "hand it in", "reckon",
    "note it", "show station", "the prove station",
)  # fmt: skip
"""Phrases that were retired, in small letters."""


def messages(source: str) -> str:
    """Return the strings of a Python module except docstrings, in lower case."""
    tree = ast.parse(source)
    docs = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    return "\n".join(
        node.value
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docs
    ).lower()


def labels(source: str) -> str:
    """Return the strings and the JSX text of a module of the page, in lower case."""
    strings = re.findall(r'"((?:[^"\\\n]|\\.)*)"|`([^`]*)`|\'((?:[^\'\\\n]|\\.)*)\'|>([^<>{}]+)<', source)
    return "\n".join("".join(groups) for groups in strings).lower()


def test_no_retired_phrase_is_shown() -> None:
    found = {}
    for path in SHOWN:
        text = path.read_text(encoding="utf-8")
        read = messages(text) if path.suffix == ".py" else labels(text) if path.suffix in (".ts", ".tsx") else text.lower()
        if hits := [phrase for phrase in PHRASES if re.search(rf"\b{phrase}\b", read)]:
            found[path.relative_to(ROOT).as_posix()] = hits
    assert found == {}


def test_stations_and_verdicts_match_the_glossary() -> None:
    route = (ROOT / "frontend/src/bench/Route.tsx").read_text()
    assert re.findall(r'name: "([\w-]+)"', route) == ["Artwork", "Fit", "Check", "Mock-ups", "Print", "Press", "Sell"]
    words = re.search(r"WORDS: Record<Status, string> = \{(.*)\}", (ROOT / "frontend/src/ui/parts.tsx").read_text())
    assert words is not None and re.findall(r'"(\w+)"', words[1]) == ["Ready", "Review", "Fix"]
    glossary = GLOSSARY.read_text()
    assert "Artwork, Fit, Check, Mock-ups, Print, Press, Sell" in glossary and "| Ready, Review, Fix |" in glossary
