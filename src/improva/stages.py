"""Versions of the stages that make stored results, so that no result outlives the code that made it.

The key of every cached or stored result hashes the versions of the stages behind it (:func:`versions`). ``stages.json`` holds
each stage's version and a fingerprint of its code; a test fails when the code has changed and the record has not. Then run

    python -m improva.stages raise           # every changed stage gets a new version: old results are computed again
    python -m improva.stages same STAGE...   # the change of these stages cannot change a result
"""

from __future__ import annotations

import ast
import hashlib
import json
import sys
from functools import cache
from pathlib import Path

ROOT = Path(__file__).parent
RECORD = ROOT / "stages.json"

SOURCES: dict[str, tuple[str, ...]] = {
    "artwork": ("core/artwork/*.py", "core/colour.py", "core/units.py", "core/origin.py"),
    "preparation": ("core/preparation/*.py",),
    "render": (
        "core/design.py", "core/fit.py", "core/tiling.py", "core/ink.py", "core/template.py", "core/geometry/*.py",
        "core/pieces/*.py", "core/words/*.py", "core/sewing/*.py", "core/render/*.py", "fonts/*.*tf",
    ),
    "checks": ("core/preflight/*.py", "core/limits.py", "core/guide.py", "core/output/profile.py", "app/reports.py"),
    "mockups": ("core/mockup/**/*.py", "io/film.py", "io/contact_sheet.py", "surfaces/*.jpg", "surfaces/__init__.py"),
    "packs": ("io/scene_pack.py", "io/scene_pack_writer.py", "io/scene_pack_zip.py"),
    "print_files": (
        "core/output/*.py", "io/print_file.py", "io/pdf.py", "io/jpeg.py", "io/sheet_file.py", "io/gang_sheet_file.py",
        "io/print_sets.py", "io/ticket.py",
    ),
    "listings": ("core/listing/*.py", "core/csv_cells.py", "core/orders/*.py", "io/listing_*.py"),
}  # fmt: skip
"""The files of each stage, as patterns below the package."""

NOT_STORED = (
    "core/__init__.py", "core/cached_property.py", "core/errors.py", "core/findings.py", "core/progress.py", "core/proposal.py", "core/measured_blank.py", "core/template_file.py",
    "core/plan/*.py", "core/press/*.py", "core/pricing/*.py", "core/providers/*.py",
)  # fmt: skip
"""Files of the core whose results are computed at each request, or which are themselves part of the key."""


@cache
def _record() -> dict[str, dict[str, str | int]]:
    return dict(json.loads(RECORD.read_text(encoding="utf-8")))


def versions(*stages: str) -> list[str]:
    """Return names and versions of stages, as a part of the keys of their results."""
    return [f"{stage} {_record()[stage]['version']}" for stage in stages]


def files_of(patterns: tuple[str, ...]) -> list[Path]:
    """Return the files that patterns name, in a stable order."""
    return sorted({path for pattern in patterns for path in ROOT.glob(pattern)})


def fingerprint(stage: str) -> str:
    """Return a hash of a stage's code without comments, docstrings and layout, and of its other files."""
    digest = hashlib.sha256()
    for path in files_of(SOURCES[stage]):
        digest.update(path.relative_to(ROOT).as_posix().encode())
        digest.update(bare_code(path.read_text(encoding="utf-8")).encode() if path.suffix == ".py" else path.read_bytes())
    return digest.hexdigest()[:16]


def bare_code(source: str) -> str:
    """Return Python source as its syntax tree, which has no comments and no layout, without docstrings.

    Empty lists are left out: versions of Python differ in which of them a tree has.
    """

    def plain(node: object) -> object:
        if isinstance(node, ast.AST):
            parts = {name: plain(value) for name, value in ast.iter_fields(node) if name not in ("ctx", "kind")}
            return [type(node).__name__, {name: part for name, part in parts.items() if part != []}]
        if isinstance(node, list):
            return [plain(each) for each in node if not _is_docstring(each)]
        return repr(node)

    return json.dumps(plain(ast.parse(source)))


def _is_docstring(node: object) -> bool:
    return isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str)


def changed() -> list[str]:
    """Return the stages whose code differs from the record."""
    return [stage for stage in SOURCES if _record().get(stage, {}).get("fingerprint") != fingerprint(stage)]


def record(same: list[str]) -> None:
    """Record the code of every changed stage: under a new version, except for those in ``same``."""
    stages: dict[str, dict[str, str | int]] = {}
    for stage in SOURCES:
        known, now = _record().get(stage, {"version": 0, "fingerprint": ""}), fingerprint(stage)
        step = int(known["fingerprint"] != now and stage not in same)
        stages[stage] = {"version": int(known["version"]) + step, "fingerprint": now}
    RECORD.write_text(json.dumps(stages, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    if sys.argv[1:2] not in (["raise"], ["same"]):
        raise SystemExit(__doc__)
    if unknown := set(sys.argv[2:]) - SOURCES.keys():
        raise SystemExit(f"There is no stage {', '.join(sorted(unknown))}. Stages: {', '.join(SOURCES)}.")
    print(f"changed: {', '.join(changed()) or 'nothing'}")
    record(sys.argv[2:])
