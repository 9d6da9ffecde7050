"""Draw docs/architecture.svg from the imports that the code really has; with ``--check``, fail if the drawing is stale."""

from __future__ import annotations

import ast
import sys
from collections import Counter
from pathlib import Path

DOCS = Path(__file__).parent
ROOT = DOCS.parent / "src" / "improva"
ROWS = (
    ("bench", "cli", "web"),
    ("demo", "jobs", "simulators"),
    ("app",),
    ("store", "sandbox"),
    ("io", "catalogue", "scenes", "surfaces", "fonts"),
    ("core",),
)
SAYS = {
    "cli": "commands",
    "web": "API and page",
    "jobs": "long work",
    "bench": "benchmarks",
    "demo": "demo range",
    "app": "use cases",
    "sandbox": "foreign files",
    "simulators": "stand-ins",
    "store": "SQLite and blobs",
    "io": "file formats",
    "catalogue": "templates",
    "scenes": "scene packs",
    "surfaces": "backgrounds",
    "fonts": "fonts",
    "core": "pure computation",
}
WIDTH, ROW, BOX = 920, 92, (132, 46)
INK, SOFT, PAPER = "#2b2722", "#8d8577", "#faf7f0"


def import_counts() -> Counter[tuple[str, str]]:
    """How often each package imports from each other one."""
    packages, found = {name for row in ROWS for name in row}, Counter[tuple[str, str]]()
    for path in ROOT.rglob("*.py"):
        parts = path.relative_to(ROOT).parts
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if not isinstance(node, ast.ImportFrom) or not node.level:
                continue
            target = [*parts[:-1]][: len(parts) - node.level] + (node.module.split(".") if node.module else [])
            for name in [target[0]] if target else [alias.name for alias in node.names]:
                if parts[0] in packages and name in packages and name != parts[0]:
                    found[parts[0], name] += 1
    return found


def draw(counts: Counter[tuple[str, str]]) -> str:
    """The packages in rows, each import a line that is wider where it is frequent, as SVG. Widths are steps of
    factor two, so that the picture does not change with every import."""
    at = {}
    for y, row in enumerate(ROWS):
        for x, name in enumerate(row):
            at[name] = (WIDTH * (x + 1) / (len(row) + 1), 40 + y * ROW)
    lines = [
        f'<path d="M{at[a][0]:.0f} {at[a][1] + 20:.0f}L{at[b][0]:.0f} {at[b][1] - 26:.0f}" stroke="{SOFT}" '
        f'stroke-opacity="0.55" stroke-width="{0.8 * count.bit_length():.1f}"><title>{a} imports {b}</title></path>'
        for (a, b), count in sorted(counts.items())
    ]
    w, h = BOX
    boxes = [
        f'<g transform="translate({x:.0f} {y:.0f})"><rect x="{-w / 2}" y="{-h / 2}" width="{w}" height="{h}" rx="3" '
        f'fill="{PAPER}" stroke="{INK}"/><text y="-3" font-weight="bold">{name}</text>'
        f'<text y="14" font-size="11" fill="{SOFT}">{SAYS[name]}</text></g>'
        for name, (x, y) in at.items()
    ]
    height = 40 + ROW * (len(ROWS) - 1) + 40
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {height}" font-family="sans-serif" font-size="14" '
        f'text-anchor="middle" fill="{INK}"><rect width="{WIDTH}" height="{height}" fill="#f1ece1"/>\n'
        + "\n".join([*lines, *boxes])
        + "\n</svg>\n"
    )


if __name__ == "__main__":
    picture, drawn = DOCS / "architecture.svg", draw(import_counts())
    if sys.argv[1:] != ["--check"]:
        picture.write_text(drawn, encoding="utf-8")
    elif picture.read_text(encoding="utf-8") != drawn:
        sys.exit("docs/architecture.svg is stale: run python docs/draw_imports.py")
