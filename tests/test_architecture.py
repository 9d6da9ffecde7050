"""Imports run one way, and the core stays pure."""

import ast
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1] / "src" / "improva"
MAY_IMPORT = {
    "core": set(), "catalogue": {"core"}, "scenes": {"core"}, "surfaces": {"core"}, "store": {"core"},
    "work": {"core", "catalogue", "scenes", "store", "surfaces"},
}  # fmt: skip
NOT_IN_CORE = {"flask", "sqlite3", "time", "flask_openapi3", "click", "huey"}
FILES = sorted(ROOT.rglob("*.py"))


def imports(path: Path) -> set[str]:
    """Dotted names of all modules a file imports, our own made absolute."""
    package = ["improva", *path.relative_to(ROOT).parts[:-1]]
    found = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            start = package[: len(package) - node.level + 1] if node.level else []
            base = ".".join([*start, node.module] if node.module else start)
            found |= {base} if node.module else {f"{base}.{alias.name}" for alias in node.names}
    return found


@pytest.mark.parametrize("path", FILES, ids=lambda p: str(p.relative_to(ROOT)))
def test_imports_run_one_way(path: Path) -> None:
    part = path.relative_to(ROOT).parts[0]
    ours = {name.split(".")[1] for name in imports(path) if name.startswith("improva.") and name.count(".")}
    if part in MAY_IMPORT:
        assert ours - {"__version__"} <= MAY_IMPORT[part] | {part}
    if part == "core":
        assert not {name.split(".")[0] for name in imports(path)} & NOT_IN_CORE
        assert not {"today", "now", "utcnow"} & {
            n.attr for n in ast.walk(ast.parse(path.read_text())) if isinstance(n, ast.Attribute)
        }


def test_no_file_is_too_long_to_read() -> None:
    assert {p.name: n for p in FILES if (n := len(p.read_text().splitlines())) > 400} == {}
