"""Read and write templates as TOML, with every value checked."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Mapping
from typing import Any, Literal

from shapely import Polygon

from .colour import parse_hex
from .errors import ImprovaError, TemplateError
from .geometry import Cone, cone_from_measures
from .limits import checked_limits
from .sewing.seam_file import face_data, parse_faces, parse_seams, seam_data
from .template import Box, KeepOut, Panel, Template
from .units import MM_PER_IN, inches, mm_from_in

PANEL_ID = re.compile(r"[a-z0-9][a-z0-9_-]{0,39}")
MOST_PANELS, MOST_POINTS = 40, 4000
SHAPES = ("rectangle", "cone", "outline", "cutout")
LEAST_SIDE_MM, MOST_SIDE_MM = 1.0, 10_000.0
MOST_TEXT = 200


def _length(value: Any, unit: str) -> float:
    if unit not in ("in", "mm"):
        raise TemplateError(f'The unit \'{unit}\' is not known: write "in" or "mm".')
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise TemplateError(f"'{value}' is not a length: write a number.")
    return mm_from_in(value) if unit == "in" else float(value)


def _text(data: Mapping[str, Any], key: str, default: str | None = None) -> str:
    value = str(data[key] if default is None else data.get(key, default)).strip()
    if len(value) > MOST_TEXT:
        raise TemplateError(f"'{key}' is over {MOST_TEXT} letters long: make it shorter.")
    return value


def _box(values: Any, unit: str) -> Box:
    x, y, w, h = (_length(v, unit) for v in values)
    return x, y, w, h


def _trim(data: Mapping[str, Any], unit: str, dpi: float) -> tuple[tuple[float, float], Cone | None]:
    """Return the trim size from inches, millimetres or pixels, or from the measures of a tapered cup."""
    if "cone" in data:
        measures = {name: _length(data["cone"][name], unit) for name in ("top", "bottom", "height")}
        cone = cone_from_measures(measures["top"], measures["bottom"], measures["height"], _length(data.get("gap", 0), unit))
        if cone is None:
            return (measures["top"] - _length(data.get("gap", 0), unit), measures["height"]), None
        return cone.box_mm, cone
    if "trim_px" in data:
        w, h = (float(v) / dpi * MM_PER_IN for v in data["trim_px"])
        return (w, h), None
    w, h = (_length(v, unit) for v in data["trim"])
    return (w, h), None


def parse_panel(data: Mapping[str, Any]) -> Panel:
    """Parse a panel's table of a template file. Raises :class:`TemplateError` with what is wrong."""
    unit = data.get("unit", "mm")
    try:
        dpi = float(data.get("dpi", 300))
        if not 10 <= dpi <= 2400:
            raise TemplateError(f"Panel '{data['id']}' asks for {dpi:g} dpi: 10 to 2400 can be made.")
        trim, cone = _trim(data, unit, dpi)
        shape = "cone" if cone else str(data.get("shape", "rectangle" if "outline" not in data else "outline"))
        panel = Panel(
            id=_text(data, "id"),
            title=_text(data, "title", str(data["id"])),
            trim_mm=trim,
            bleed_mm=_length(data.get("bleed", 0), unit),
            safe_mm=_length(data.get("safe", 0), unit),
            allowance_mm=_length(data.get("allowance", 0), unit),
            closes=bool(data.get("closes", False)),
            seam_zone_mm=_length(data.get("seam_zone", 0), unit),
            dpi=dpi,
            shape="rectangle" if shape == "cone" and not cone else shape,
            tab_mm=_length(data.get("tab", 0), unit),
            gap_mm=_length(data.get("gap", 0), unit),
            keep_out=tuple(KeepOut(_text(k, "title"), _box(k["box"], unit)) for k in data.get("keep_out", [])),
            outline_mm=tuple((_length(x, unit), _length(y, unit)) for x, y in data.get("outline", [])),
            cone=cone,
            starts="empty" if data.get("starts") == "empty" else "art",
        )
    except KeyError as missing:
        raise TemplateError(f"A panel lacks {missing}: add it to the template.") from missing
    except (TypeError, ValueError, AttributeError) as wrong:
        raise TemplateError(f"A panel's figures cannot be read ({wrong}): trim is [width, height].") from wrong
    _check(panel)
    return panel


def _check(panel: Panel) -> None:
    w, h = panel.trim_mm
    if not PANEL_ID.fullmatch(panel.id):
        raise TemplateError(f"'{panel.id}' is no id for a panel: use small letters, digits and hyphens.")
    if panel.shape not in SHAPES:
        raise TemplateError(f"Panel '{panel.id}' has the shape '{panel.shape}': choose one of {', '.join(SHAPES)}.")
    if not LEAST_SIDE_MM <= min(w, h) <= max(w, h) <= MOST_SIDE_MM:
        raise TemplateError(f"Panel '{panel.id}' is {inches(w):g} × {inches(h):g} in: 1 mm to 10 m a side can be printed.")
    least = min(panel.bleed_mm, panel.safe_mm, panel.allowance_mm, panel.seam_zone_mm, panel.tab_mm, panel.gap_mm)
    if not (least >= 0 and max(panel.bleed_mm, panel.tab_mm, panel.gap_mm) <= MOST_SIDE_MM):
        raise TemplateError(f"Panel '{panel.id}' has a zone below 0 or beyond all bounds: give its width in {'mm'}.")
    if 2 * (panel.safe_mm + panel.allowance_mm) >= min(panel.level().trim_mm):
        raise TemplateError(f"Panel '{panel.id}' has no room inside its safe line: make safe and bleed smaller.")
    if 2 * panel.seam_zone_mm >= panel.level().trim_mm[0]:
        raise TemplateError(f"Panel '{panel.id}' is all seam: make the seam zone smaller.")
    if panel.cone is not None and not panel.cone.holds_bleed(panel.bleed_mm):
        raise TemplateError(f"Panel '{panel.id}' tapers so much that its bleed would run into itself: make the bleed smaller.")
    if (panel.shape == "outline") != bool(panel.outline_mm):
        raise TemplateError(f"Panel '{panel.id}': an outline and the shape \"outline\" belong together.")
    if panel.outline_mm:
        inside = all(-1e-6 <= x <= w + 1e-6 and -1e-6 <= y <= h + 1e-6 for x, y in panel.outline_mm)
        if not inside or not 3 <= len(panel.outline_mm) <= MOST_POINTS or not Polygon(panel.outline_mm).is_valid:
            raise TemplateError(
                f"Panel '{panel.id}' has an outline that crosses itself or its trim: give its corners in order."
            )


BODIES = ("turned", "cloth", "cushion", "paper", "shirt", "hoodie", "panels")
TOPS = ("lid", "cap", "open")
MOST_BESIDE_MM = 500.0


def _looks(data: Mapping[str, Any]) -> dict[str, Any]:
    """Parse how a blank is drawn. Raises :class:`TemplateError`."""
    for name, allowed in (("body", BODIES), ("top", TOPS)):
        if name in data and data[name] not in allowed:
            raise TemplateError(f"looks: {name} is '{data[name]}': choose one of {', '.join(allowed)}.")
    for name in ("above", "below"):
        if name in data and not 0 <= _length(data[name], "mm") <= MOST_BESIDE_MM:
            raise TemplateError(f"looks: {name} must lie between 0 and {MOST_BESIDE_MM:g} mm.")
    flags = {name: bool(data[name]) for name in ("handle", "hung") if name in data}
    return {**{name: data[name] for name in ("body", "top", "above", "below") if name in data}, **flags}


def _sizes(data: Mapping[str, Any]) -> dict[str, float]:
    """Parse the finished sizes. Raises :class:`TemplateError`."""
    sizes = {str(name): float(value) for name, value in data.items()}
    if not all(0.01 <= value <= 1 for value in sizes.values()):
        raise TemplateError("sizes: each is how large the print comes out against the largest, between 0.01 and 1.")
    return sizes


def _grading(value: Any) -> Literal["scaled", "cut"]:
    if value not in ("scaled", "cut"):
        raise TemplateError(
            f'grading: \'{value}\' is not known: write "scaled", or "cut" where smaller sizes are cut from one file.'
        )
    return value  # type: ignore[no-any-return]


def parse_template(data: Mapping[str, Any], own: bool = False) -> Template:
    """Parse the contents of a template's TOML file.

    Raises:
        TemplateError: a key is missing, a figure is impossible, or the route is not known.
    """
    try:
        panels = tuple(parse_panel(panel) for panel in data["panels"])
        route = data.get("route", "press")
        if route not in ("press", "upload"):
            raise TemplateError(f'The route \'{route}\' is not known: write "press" or "upload".')
        if not 1 <= len(panels) <= MOST_PANELS or len({p.id for p in panels}) < len(panels):
            raise TemplateError("A template needs at least one panel, and each panel an id of its own.")
        fit = str(data.get("default_fit", "cover"))
        if fit not in ("cover", "contain", "actual", "stretch", "repeat"):
            raise TemplateError(f'The fit \'{fit}\' is not known: write for example "cover" or "contain".')
        colour = str(data.get("blank_colour", Template.blank_colour))
        parse_hex(colour)
        named = {name: data[name] for name in ("least_dpi", "good_dpi") if name in data}
        return Template(
            id=_text(data, "id"),
            title=_text(data, "title"),
            kind=_text(data, "kind"),
            route=route,
            default_fit=fit,
            panels=panels,
            blank_colour=colour,
            half_transparent="warn" if data.get("half_transparent") == "warn" else "fine",
            substrate=_text(data, "substrate", ""),
            finishes=tuple(str(f) for f in data.get("finishes", [])),
            unprinted=_text(data, "unprinted", ""),
            sizes=_sizes(data.get("sizes", {})),
            grading=_grading(data.get("grading", "scaled")),
            limits=checked_limits({**named, **data.get("limits", {})}),
            looks=_looks(data.get("looks", {})),
            provenance={str(k): str(v) for k, v in data.get("provenance", {}).items()},
            own=own,
            seams=parse_seams(data.get("seams", []), panels),
            faces=parse_faces(data.get("faces", []), panels, bool(data.get("seams"))),
        )
    except KeyError as missing:
        raise TemplateError(f"The template lacks {missing}: add it.") from missing
    except TemplateError:
        raise
    except (ImprovaError, TypeError, ValueError, AttributeError) as wrong:
        raise TemplateError(f"The template cannot be read: {wrong}") from wrong


def _value(v: Any) -> str:
    if isinstance(v, Mapping):
        return "{ " + ", ".join(f"{json.dumps(k)} = {_value(x)}" for k, x in v.items()) + " }"
    if isinstance(v, list | tuple):
        return "[" + ", ".join(_value(x) for x in v) + "]"
    if isinstance(v, float):
        return f"{v:.6f}".rstrip("0").rstrip(".") if v % 1 else f"{v:.0f}"
    return json.dumps(v, ensure_ascii=False)


def _panel_data(panel: Panel) -> dict[str, Any]:
    size: dict[str, Any] = {"trim": list(panel.trim_mm)}
    if panel.cone:
        size = {"cone": {"top": panel.cone.top_mm, "bottom": panel.cone.bottom_mm, "height": panel.cone.height_mm}}
    data = {
        "id": panel.id,
        "title": panel.title,
        "unit": "mm",
        **size,
        "bleed": panel.bleed_mm,
        "safe": panel.safe_mm,
        "allowance": panel.allowance_mm,
        "closes": panel.closes,
        "seam_zone": panel.seam_zone_mm,
        "tab": panel.tab_mm,
        "gap": panel.gap_mm,
        "dpi": panel.dpi,
        "starts": panel.starts,
    }
    if panel.shape in ("outline", "cutout"):
        data["shape"] = panel.shape
    if panel.outline_mm:
        data["outline"] = [list(point) for point in panel.outline_mm]
    if panel.keep_out:
        data["keep_out"] = [{"title": k.title, "box": list(k.box)} for k in panel.keep_out]
    return data


def write_toml(template: Template) -> str:
    """Return a template as the TOML that :func:`parse_template` reads, lengths in mm."""
    head: dict[str, Any] = {
        "id": template.id,
        "title": template.title,
        "kind": template.kind,
        "route": template.route,
        "default_fit": template.default_fit,
        "blank_colour": template.blank_colour,
        "half_transparent": template.half_transparent,
        "substrate": template.substrate,
        "finishes": template.finishes,
        "unprinted": template.unprinted,
        "grading": template.grading,
    }
    lines = [f"{k} = {_value(v)}" for k, v in head.items()]
    for panel in template.panels:
        lines += ["", "[[panels]]", *(f"{k} = {_value(v)}" for k, v in _panel_data(panel).items())]
    for seam in template.seams:
        lines += ["", "[[seams]]", *(f"{k} = {_value(v)}" for k, v in seam_data(seam).items())]
    for face in template.faces:
        lines += ["", "[[faces]]", *(f"{k} = {_value(v)}" for k, v in face_data(face).items())]
    for name in ("sizes", "limits", "looks", "provenance"):
        if table := getattr(template, name):
            lines += ["", f"[{name}]", *(f"{json.dumps(k)} = {_value(v)}" for k, v in table.items())]
    return "\n".join(lines) + "\n"
