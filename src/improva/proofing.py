"""A proof as plain values: the same words on the page and in the shell."""

from __future__ import annotations

import math
from dataclasses import asdict
from typing import Any

from .core.artwork.reading import ArtFacts
from .core.fit import Placed
from .core.geometry import Cone
from .core.limits import LIMITS
from .core.preflight import Proof
from .core.sewing.seam_file import face_data, seam_data
from .core.template import Panel, Template


def placed_mm(placed: Placed) -> list[float]:
    """x, y, width, height in mm, rounded to a ten-thousandth; never minus nought."""
    return [round(v, 4) + 0.0 for v in placed.box]


def proof_report(template: Template, panel: Panel, facts: ArtFacts, proof: Proof) -> dict[str, Any]:
    """The proof in the keys of the command line's contract."""
    return {
        "template": template.id,
        "panel": panel.id,
        "art": {
            "px": list(facts.px),
            "tagged_dpi": list(facts.tagged_dpi) if facts.tagged_dpi else None,
            "mode": facts.mode,
            "has_alpha": facts.has_alpha,
            "notes": list(facts.notes),
        },
        "placed_mm": placed_mm(proof.placed),
        "effective_dpi": [round(dpi, 2) for dpi in proof.placed.dpi],
        "verdict": proof.verdict,
        "checks": [{**asdict(check), "why": check.why} for check in proof.checks],
    }


def proof_summary(proof: dict[str, Any]) -> dict[str, Any]:
    """What the board shows of a pair's proofs: the verdict, the gravest finding in a few words, and how many there are."""
    found = [check for report in proof["panels"].values() for check in report["checks"] if check["status"] != "pass"]
    gravest = next((check["title"] for check in found if check["status"] == proof["verdict"]), None)
    return {"verdict": proof["verdict"], "blocker": gravest, "open": len(found)}


def panel_report(panel: Panel) -> dict[str, Any]:
    """A panel in the keys of the command line's contract, with its zones."""
    worn = panel.worn()
    return {
        "id": panel.id, "title": panel.title, "shape": panel.shape, "trim_mm": list(panel.trim_mm), "bleed_mm": panel.bleed_mm,
        "safe_mm": panel.safe_mm, "seam_zone_mm": panel.seam_zone_mm, "closes": panel.closes, "tab_mm": panel.tab_mm,
        "gap_mm": panel.gap_mm, "dpi": panel.dpi, "file_px": list(panel.file_px()), "file_mm": list(panel.file_mm),
        "worn_mm": list(worn.trim_mm), "keep_out": [{"title": k.title, "box": list(k.box)} for k in panel.keep_out],
        "cut_line": _points(panel.line()), "safe_line": _points(panel.line(panel.safe_mm)) if panel.safe_mm else [],
        "starts": panel.starts,
        "cone": cone_report(panel.cone) if panel.cone else None,
    }  # fmt: skip


def _points(line: list[tuple[float, float]]) -> list[list[float]]:
    return [[round(x, 3), round(y, 3)] for x, y in line]


def cone_report(cone: Cone) -> dict[str, Any]:
    """A tapered wall's development in the keys of the command line's contract, with its measures."""
    return {
        "inner_radius_mm": cone.inner_radius_mm, "outer_radius_mm": cone.outer_radius_mm,
        "sweep_deg": math.degrees(cone.sweep_rad), "slant_mm": cone.slant_mm, "box_mm": list(cone.box_mm),
        "widens_down": cone.widens_down, "top_mm": cone.top_mm, "bottom_mm": cone.bottom_mm, "height_mm": cone.height_mm,
    }  # fmt: skip


def template_report(template: Template) -> dict[str, Any]:
    """A template in the keys of the command line's contract."""
    return {
        "id": template.id,
        "title": template.title,
        "kind": template.kind,
        "route": template.route,
        "default_fit": template.default_fit,
        "least_dpi": template.least_dpi,
        "good_dpi": template.good_dpi,
        "blank_colour": template.blank_colour,
        "substrate": template.substrate,
        "finishes": list(template.finishes),
        "unprinted": template.unprinted,
        "sizes": dict(template.sizes),
        "grading": template.grading,
        "half_transparent": template.half_transparent,
        "own": template.own,
        "limits": {name: template.limit(name) for name in LIMITS},
        "looks": dict(template.looks),
        "panels": [panel_report(p) for p in template.panels],
        "seams": [seam_data(seam) for seam in template.seams],
        "faces": [face_data(face) for face in template.faces],
        "provenance": dict(template.provenance),
    }
