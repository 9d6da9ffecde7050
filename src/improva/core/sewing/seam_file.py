"""Read and write the seams of a template's TOML, checked against its panels."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ..errors import TemplateError
from ..template import Panel
from .edges import length_mismatch, outside
from .seams import WAYS, Edge, Face, LaidOn, Seam, Sewn, Way

AGREE_MM = 2.0
"""Tolerance between the length difference of two edges and their stated ease, in mm."""

MOST_SEAMS = 120
MOST_EASE_MM = 500.0
MOST_OVER = 0.5
"""Largest share by which an attached panel may extend past the edge of its base."""


def _number(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not abs(value) <= 10_000:
        raise TemplateError(f"'{value}' is not a length in a seam: write millimetres.")
    return float(value)


def _point(values: Any) -> tuple[float, float]:
    x, y = (_number(v) for v in values)
    return x, y


def _edge(data: Mapping[str, Any]) -> Edge:
    through = _point(data["through"]) if "through" in data else None
    return Edge(str(data["panel"]), _point(data["start"]), _point(data["end"]), through)


def _edge_data(edge: Edge) -> dict[str, Any]:
    found: dict[str, Any] = {"panel": edge.panel, "start": list(edge.start), "end": list(edge.end)}
    return found if edge.through is None else {**found, "through": list(edge.through)}


def _ways(data: Mapping[str, Any], usual: tuple[Way, ...]) -> tuple[Way, ...]:
    ways = tuple(data.get("ways", usual))
    if not ways or any(way not in WAYS for way in ways) or len(set(ways)) < len(ways):
        raise TemplateError(f"A seam's ways are some of {', '.join(WAYS)}, the usual one first.")
    return ways


def _lying(leader: Panel, follower: Panel) -> tuple[float, float]:
    """Return the default position of a panel on another one: tops of the safe areas level, centres on one line."""
    return (leader.trim_mm[0] - follower.trim_mm[0]) / 2, leader.safe_mm - follower.safe_mm


def _seam(data: Mapping[str, Any], panels: Mapping[str, Panel]) -> Seam:
    named = str(data["id"]), str(data.get("title", data["id"]))
    if "on" in data:
        on, panel = str(data["on"]), str(data["panel"])
        known = on in panels and panel in panels  # otherwise the check of the seam reports it
        offset = _point(data["offset"]) if "offset" in data or not known else _lying(panels[on], panels[panel])
        return LaidOn(*named, on, panel, offset, _ways(data, LaidOn.ways))
    ease = _number(data.get("ease", 0))
    if abs(ease) > MOST_EASE_MM:
        raise TemplateError(f"A seam eases in {ease:g} mm: {MOST_EASE_MM:g} mm can be worked in at most.")
    return Sewn(*named, _edge(data["first"]), _edge(data["second"]), ease, _ways(data, Sewn.ways))


def _check(seam: Seam, panels: Mapping[str, Panel]) -> None:
    for panel_id in (seam.leader, seam.follower):
        if panel_id not in panels:
            raise TemplateError(f"The seam '{seam.id}' joins '{panel_id}', which is no panel: {', '.join(panels)}.")
        if panels[panel_id].cone is not None or panels[panel_id].shape == "cutout":
            raise TemplateError(f"The seam '{seam.id}' joins '{panel_id}', which is no flat panel with a fixed outline.")
    leader, follower = panels[seam.leader], panels[seam.follower]
    if isinstance(seam, LaidOn):
        if leader is follower:
            raise TemplateError(f"The seam '{seam.id}' lays '{leader.id}' on itself.")
        if outside(seam, leader, follower) > MOST_OVER:
            raise TemplateError(f"By its offset '{follower.id}' lies mostly beside '{leader.id}': measure from trim to trim.")
        return
    more = length_mismatch(seam, leader, follower)
    if abs(more) > AGREE_MM:
        raise TemplateError(
            f"The edges of the seam '{seam.id}' differ by {more + seam.ease_mm:+.1f} mm, and its ease is {seam.ease_mm:g} mm: "
            "correct the points, or state the ease."
        )


def parse_seams(tables: Sequence[Mapping[str, Any]], panels: tuple[Panel, ...]) -> tuple[Seam, ...]:
    """Return the seams of a template, each checked against its panels.

    Raises:
        TemplateError: a panel, point or way that is not known, or edges whose lengths do not agree within their ease.
    """
    by_id = {panel.id: panel for panel in panels}
    try:
        seams = tuple(_seam(table, by_id) for table in tables)
    except KeyError as missing:
        raise TemplateError(f"A seam lacks {missing}: add it.") from missing
    except (TypeError, ValueError, AttributeError) as wrong:
        raise TemplateError(f"A seam cannot be read ({wrong}): its points are [x, y] in mm.") from wrong
    if len(seams) > MOST_SEAMS or len({seam.id for seam in seams}) < len(seams):
        raise TemplateError("Each seam needs an id of its own.")
    for seam in seams:
        _check(seam, by_id)
    return seams


def parse_faces(tables: Sequence[Mapping[str, Any]], panels: tuple[Panel, ...], sewn: bool) -> tuple[Face, ...]:
    """Return the faces of a template; one face around the first panel where the template names none.

    Raises:
        TemplateError: a panel that is not known, or a face without the panel it is laid round.
    """
    known = tuple(panel.id for panel in panels)
    if not tables:
        return (Face("Sewn", known[0], known),) if sewn else ()
    try:
        faces = tuple(Face(str(t["title"]), str(t["around"]), tuple(str(p) for p in t["panels"])) for t in tables)
    except (KeyError, TypeError) as wrong:
        raise TemplateError("A face needs a title, the panel it is laid around, and its panels.") from wrong
    for face in faces:
        if face.around not in face.panels or len(set(face.panels)) < len(face.panels) or not set(face.panels) <= set(known):
            raise TemplateError(f"The face '{face.title}' lists panels that are not known, or not the one it is laid around.")
    return faces


def face_data(face: Face) -> dict[str, Any]:
    """Return a face as plain values, in the form that :func:`parse_faces` reads."""
    return {"title": face.title, "around": face.around, "panels": list(face.panels)}


def seam_data(seam: Seam) -> dict[str, Any]:
    """Return a seam as plain values, in the form that :func:`parse_seams` reads."""
    named: dict[str, Any] = {"id": seam.id, "title": seam.title}
    if isinstance(seam, LaidOn):
        return {**named, "on": seam.leader, "panel": seam.follower, "offset": list(seam.offset_mm), "ways": list(seam.ways)}
    edges = {"first": _edge_data(seam.first), "second": _edge_data(seam.second)}
    return {**named, **edges, "ease": seam.ease_mm, "ways": list(seam.ways)}
