"""The layers of docs/architecture.md, checked on every import: web, cli and jobs → app → store, io, core; no circles; a pure
core."""

import ast
import builtins
import importlib.util
import os
import re
from pathlib import Path

import pytest

from improva import stages

REPOSITORY = Path(__file__).parents[1]
ROOT = REPOSITORY / "src" / "improva"
DATA = {"catalogue", "scenes", "surfaces", "fonts"}
MAY_IMPORT = {
    "core": set(),
    "io": {"core"},
    "catalogue": {"core"},
    "scenes": set(),
    "surfaces": {"core"},
    "fonts": {"core"},
    "sandbox": {"core"},
    "store": {"core", "io"},
    "app": {"core", "io", "sandbox", "store", *DATA},
    "jobs": {"app", "core", "io", "store", *DATA},
    "web": {"app", "jobs", "core", "io", "sandbox", "store", "simulators", *DATA},
    "simulators": {"core", "io"},
    "cli": {"app", "jobs", "core", "io", "sandbox", "store", *DATA},
    "demo": {"app", "core", "io", "store", *DATA},
}
"""What each package may import, beside itself and the modules at the top (stages, memory). ``bench`` measures all of them."""

EXCEPTIONS = {("cli/serve.py", "web"), ("cli/bench.py", "bench"), ("web/server.py", "demo")}
"""Commands that start another part, and the server that lays out the demo."""

NOT_IN = {
    "core": {"flask", "sqlite3", "time", "click", "huey", "tempfile", "shutil", "os", "threading", "pydantic"},
    "store": {"flask", "click", "huey"},
    "app": {"flask", "click", "huey", "werkzeug"},
    "jobs": {"flask", "flask_openapi3", "werkzeug"},
    "cli": {"flask", "flask_openapi3", "werkzeug"},
}
ALLOWED_IN = {"core/mockup/parallel.py": {"os", "threading"}}
"""The core's inner loops share one pool of threads, as OpenCV's do: ADR 28."""

FILES = sorted(ROOT.rglob("*.py"))
OPENING = {"open", "read_text", "read_bytes", "write_text", "write_bytes", "mkdir", "unlink", "rename", "replace_file"}


def module_of(path: Path) -> str:
    """The dotted name of a file."""
    parts = list(path.relative_to(ROOT.parent if path.is_relative_to(ROOT) else REPOSITORY).with_suffix("").parts)
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


def imports(path: Path, only_top: bool = False) -> set[str]:
    """Return the absolute dotted names of all modules that a file imports; ``only_top`` leaves out imports inside functions."""
    tree = ast.parse(path.read_text())
    package = module_of(path).split(".")
    if path.name != "__init__.py":
        package = package[:-1]
    found = set()
    for node in tree.body if only_top else ast.walk(tree):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            start = package[: len(package) - node.level + 1] if node.level else []
            base = ".".join([*start, node.module] if node.module else start)
            found |= {base, *(f"{base}.{alias.name}" for alias in node.names)}
    return found


@pytest.mark.parametrize("path", FILES, ids=lambda p: str(p.relative_to(ROOT)))
def test_imports_go_one_way(path: Path) -> None:
    name, package = path.relative_to(ROOT).as_posix(), path.relative_to(ROOT).parts[0]
    known = {p.name for p in ROOT.iterdir() if p.is_dir()}
    ours = {part for found in imports(path) if found.startswith("improva.") and (part := found.split(".")[1]) in known}
    if package in MAY_IMPORT:
        assert {each for each in ours if (name, each) not in EXCEPTIONS} <= MAY_IMPORT[package] | {package}
    others = {found.split(".")[0] for found in imports(path)}
    assert not others & (NOT_IN.get(package, set()) - ALLOWED_IN.get(name, set()))


@pytest.mark.parametrize("path", [p for p in FILES if "core" in p.parts], ids=lambda p: str(p.relative_to(ROOT)))
def test_the_core_opens_no_file_and_has_no_clock(path: Path) -> None:
    called = [node.func for node in ast.walk(ast.parse(path.read_text())) if isinstance(node, ast.Call)]
    names = {f.id for f in called if isinstance(f, ast.Name)} & set(dir(builtins))
    methods = {f.attr for f in called if isinstance(f, ast.Attribute)}
    assert "open" not in names
    assert not methods & (OPENING - {"open"}) and not methods & {"today", "now", "utcnow"}


def modules(*roots: Path) -> dict[str, set[str]]:
    """Map every module below some folders to the modules that it imports at load time."""
    files = {module_of(path): path for root in roots for path in root.rglob("*.py")}
    return {name: {found for found in imports(path, only_top=True) if found in files} - {name} for name, path in files.items()}


def circles(graph: dict[str, set[str]]) -> list[list[str]]:
    """Return the groups of modules that import each other in a circle (Tarjan 1972: strongly connected components)."""
    index: dict[str, int] = {}
    low: dict[str, int] = {}
    stack: list[str] = []
    found: list[list[str]] = []

    def visit(name: str) -> None:
        index[name] = low[name] = len(index)
        stack.append(name)
        for other in graph[name]:
            if other not in index:
                visit(other)
                low[name] = min(low[name], low[other])
            elif other in stack:
                low[name] = min(low[name], index[other])
        if low[name] == index[name]:
            group = stack[stack.index(name) :]
            del stack[stack.index(name) :]
            if len(group) > 1:
                found.append(sorted(group))

    for name in graph:
        if name not in index:
            visit(name)
    return found


def test_circles_are_found() -> None:
    assert circles({"a": {"b"}, "b": {"c"}, "c": {"b"}, "d": {"a"}}) == [["b", "c"]]


@pytest.mark.parametrize("root", [ROOT, REPOSITORY / "studio"], ids=["improva", "studio"])
def test_no_modules_import_each_other_in_a_circle(root: Path) -> None:
    graph = modules(root)
    for name in graph:  # a package imports its modules to re-export them: a module that imports from it is no circle of ours
        graph[name] = {other for other in graph[name] if not name.startswith(f"{other}.")}
    assert circles(graph) == []


def test_no_file_is_too_long_to_read() -> None:
    assert {p.name: n for p in FILES if (n := len(p.read_text().splitlines())) > 400} == {}


def test_every_core_file_belongs_to_a_stage_or_is_listed_as_not_stored() -> None:
    sources = {path for patterns in (*stages.SOURCES.values(), stages.NOT_STORED) for path in stages.files_of(patterns)}
    assert {path for path in FILES if path.is_relative_to(ROOT / "core")} <= sources


def page_modules() -> dict[str, set[str]]:
    """Map every module of the page to those that it imports. Imports of types count too: a reader follows them as well."""
    root = REPOSITORY / "frontend" / "src"
    files = {path.relative_to(root).with_suffix("").as_posix(): path for path in root.rglob("*.ts*")}
    graph: dict[str, set[str]] = {}
    for name, path in files.items():
        found = re.findall(r'from "(\.[^"]+)"', path.read_text())
        targets = {os.path.normpath(f"{name}/../{target}") for target in found}
        graph[name] = targets & files.keys()
    return graph


def test_no_modules_of_the_page_import_each_other_in_a_circle() -> None:
    assert circles(page_modules()) == []


def test_the_architecture_drawing_matches_the_imports() -> None:
    spec = importlib.util.spec_from_file_location("draw_imports", REPOSITORY / "docs" / "draw_imports.py")
    assert spec is not None and spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    drawn = module.draw(module.import_counts())
    assert (REPOSITORY / "docs" / "architecture.svg").read_text() == drawn, "run python docs/draw_imports.py"
