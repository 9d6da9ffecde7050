"""A proof as plain values: the same words on the page and in the shell."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from .core.artwork.reading import ArtFacts
from .core.fit import Placed
from .core.preflight import Proof
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
        "checks": [asdict(check) for check in proof.checks],
    }


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
        "panels": [
            {
                "id": p.id, "title": p.title, "shape": p.shape, "trim_mm": list(p.trim_mm), "bleed_mm": p.bleed_mm,
                "safe_mm": p.safe_mm, "seam_zone_mm": p.seam_zone_mm, "closes": p.closes, "dpi": p.dpi,
                "file_px": list(p.file_px()), "file_mm": list(p.file_mm),
            }
            for p in template.panels
        ],
        "provenance": dict(template.provenance),
    }  # fmt: skip
