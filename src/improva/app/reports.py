"""Preflight reports as plain values: the same words on the page and on the command line."""

from __future__ import annotations

import math
from dataclasses import asdict
from typing import Any

from ..core.artwork.reading import ArtFacts
from ..core.fit import Placed
from ..core.geometry import Cone
from ..core.limits import LIMITS
from ..core.preflight import PreflightReport
from ..core.sewing.seam_file import face_data, seam_data
from ..core.template import Panel, Template


def placed_mm(placed: Placed) -> list[float]:
    """Return x, y, width and height in mm, rounded to 0.0001, without negative zeros."""
    return [round(v, 4) + 0.0 for v in placed.box]


def panel_check_report(template: Template, panel: Panel, facts: ArtFacts, report: PreflightReport) -> dict[str, Any]:
    """Return a preflight report with the keys of the command line's contract."""
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
        "placed_mm": placed_mm(report.placed),
        "effective_dpi": [round(dpi, 2) for dpi in report.placed.dpi],
        "verdict": report.verdict,
        "checks": [{**asdict(check), "why": check.why} for check in report.checks],
    }


def report_summary(reports: dict[str, Any]) -> dict[str, Any]:
    """Return what the board shows of a pair's reports: the verdict, the gravest finding and the number of findings."""
    findings = [check for report in reports["panels"].values() for check in report["checks"] if check["status"] != "pass"]
    gravest = next((check["title"] for check in findings if check["status"] == reports["verdict"]), None)
    return {"verdict": reports["verdict"], "blocker": gravest, "open": len(findings)}


def panel_report(panel: Panel) -> dict[str, Any]:
    """Return a panel and its zones with the keys of the command line's contract."""
    level = panel.level()
    return {
        "id": panel.id,
        "title": panel.title,
        "shape": panel.shape,
        "trim_mm": list(panel.trim_mm),
        "bleed_mm": panel.bleed_mm,
        "safe_mm": panel.safe_mm,
        "seam_zone_mm": panel.seam_zone_mm,
        "closes": panel.closes,
        "tab_mm": panel.tab_mm,
        "gap_mm": panel.gap_mm,
        "dpi": panel.dpi,
        "file_px": list(panel.file_px()),
        "file_mm": list(panel.file_mm),
        "worn_mm": list(level.trim_mm),
        "keep_out": [{"title": k.title, "box": list(k.box)} for k in panel.keep_out],
        "cut_line": _points(panel.line()),
        "safe_line": _points(panel.line(panel.safe_mm)) if panel.safe_mm else [],
        "starts": panel.starts,
        "cone": cone_report(panel.cone) if panel.cone else None,
    }


def _points(line: list[tuple[float, float]]) -> list[list[float]]:
    return [[round(x, 3), round(y, 3)] for x, y in line]


def cone_report(cone: Cone) -> dict[str, Any]:
    """Return a tapered wall's flat pattern and measures with the keys of the command line's contract."""
    return {
        "inner_radius_mm": cone.inner_radius_mm,
        "outer_radius_mm": cone.outer_radius_mm,
        "sweep_deg": math.degrees(cone.sweep_rad),
        "slant_mm": cone.slant_mm,
        "box_mm": list(cone.box_mm),
        "widens_down": cone.widens_down,
        "top_mm": cone.top_mm,
        "bottom_mm": cone.bottom_mm,
        "height_mm": cone.height_mm,
    }


def template_report(template: Template) -> dict[str, Any]:
    """Return a template with the keys of the command line's contract."""
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
