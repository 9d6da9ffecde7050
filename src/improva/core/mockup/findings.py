"""Findings on a set of mock-ups: colours that are not sold, and sides that no picture shows."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..findings import Finding
from ..template import Template
from .scene import SceneInfo

MANY_COLOURS = 8
"""Number of colours in one listing that buyers look through. Common practice, no published source: six to eight."""


def picture_findings(
    template: Template, scenes: Sequence[SceneInfo], colours: Sequence[Mapping[str, str]], printed: set[str]
) -> list[Finding]:
    """Return the findings on a set of pictures of one blank.

    Args:
        template: the blank that is sold.
        scenes: the scene of each picture.
        colours: the colours chosen in each picture, by region.
        printed: panels that carry something.
    """
    findings = []
    for scene in scenes:
        if template.id not in scene.templates:
            findings.append(
                Finding("fail", f"{scene.title} shows another blank than {template.title}: take a scene of its own.")
            )
    own = {
        (scene.region(name).title, colour)
        for scene, chosen in zip(scenes, colours, strict=True)
        for name, colour in chosen.items()
        if _is_sold_part(scene, name) and not _offered(scene, name, colour)
    }
    for title, colour in sorted(own):
        findings.append(
            Finding("warn", f"{title} in {colour} is not among the blank's named colours: show it only if it is sold.")
        )
    shown = {
        tuple(sorted((n, c) for n, c in chosen.items() if _is_sold_part(scene, n)))
        for scene, chosen in zip(scenes, colours, strict=True)
    }
    if len(shown) > MANY_COLOURS:
        findings.append(
            Finding("warn", f"{len(shown)} colours in one listing are more than buyers look through: {MANY_COLOURS} do.")
        )
    if scenes and template.unprinted and not any(_shows_unprinted(s, printed) for s in scenes):
        findings.append(Finding("warn", f"No picture shows what is not printed ({template.unprinted}): add one that does."))
    return list(dict.fromkeys(findings))


def _is_sold_part(scene: SceneInfo, name: str) -> bool:
    """Return whether a region is a part of the product, not of its surroundings."""
    return any(r.id == name and not r.around and r.panel is None for r in scene.regions)


def _offered(scene: SceneInfo, name: str, colour: str) -> bool:
    region = scene.region(name)
    plain = colour.rpartition(" ")[0] or colour
    return plain in region.colours or colour in region.colours or plain.lower() in {c.lower() for c in region.colours.values()}


def _shows_unprinted(scene: SceneInfo, printed: set[str]) -> bool:
    return scene.unprinted or any(r.panel and r.panel not in printed for r in scene.regions)
