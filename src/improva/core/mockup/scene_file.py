"""Read and check the entries of a ``scene.toml``."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ..errors import SceneError
from .scene import Lens, Measure, Region, SceneInfo

KINDS = ("studio", "lifestyle", "flat", "size", "detail")


MAX_SIDE_PX = 8192


def _numbers(value: Any, count: int) -> tuple[float, ...] | None:
    if value is None:
        return None
    numbers = tuple(float(v) for v in value)
    if len(numbers) != count:
        raise ValueError(f"{count} numbers are wanted, not {len(numbers)}")
    return numbers


def _region(data: dict[str, Any]) -> Region:
    return Region(
        str(data["id"]),
        str(data.get("title", data["id"])),
        data.get("panel"),
        dict(data.get("colours", {})),
        data.get("default"),
        data.get("on"),
        _numbers(data.get("box_mm"), 4),  # type: ignore[arg-type]
        float(data.get("turn", 0)),
        data.get("place"),
        _numbers(data.get("size_mm"), 2),  # type: ignore[arg-type]
        data.get("surface"),
        bool(data.get("around", False)),
    )


def parse_scene(data: dict[str, Any], folder: Path) -> SceneInfo:
    """Parse the entries of a ``scene.toml``. Raises KeyError, TypeError and ValueError for missing or wrong entries."""
    w, h = (int(v) for v in data["px"])
    measures = tuple(
        Measure(str(m["title"]), float(m["mm"]), _numbers(m["from"], 2), _numbers(m["to"], 2))  # type: ignore[arg-type]
        for m in data.get("measures", [])
    )
    return SceneInfo(
        id=str(data["id"]),
        title=str(data["title"]),
        kind=str(data["kind"]),
        templates=tuple(data["templates"]),
        px=(w, h),
        views={str(k): float(v) for k, v in data["views"].items()},
        turns=bool(data.get("turns", False)),
        regions=tuple(_region(r) for r in data["regions"]),
        exposure=float(data.get("exposure", 1.0)),
        folder=folder,
        finish=str(data.get("finish", "")),
        mirrored=tuple(data.get("mirrored", ())),
        measures=measures,
        lens=Lens(**data["lens"]) if "lens" in data else None,
        unprinted=bool(data.get("unprinted", False)),
        photograph=bool(data.get("photograph", False)),
        lead=bool(data.get("lead", False)),
    )


def _check(info: SceneInfo) -> None:
    where = f"{info.folder.name}/scene.toml"
    if info.kind not in KINDS:
        raise SceneError(f"{where}: the kind '{info.kind}' is not one of {', '.join(KINDS)}.")
    if not any(r.panel for r in info.regions):
        raise SceneError(f"{where}: no region has a panel, so nothing could be printed.")
    if not info.views:
        raise SceneError(f"{where}: at least one view is needed.")
    if not 1 <= min(info.px) <= max(info.px) <= MAX_SIDE_PX:
        raise SceneError(f"{where}: px must lie between 1 and {MAX_SIDE_PX} a side.")
    if not 0.01 <= info.exposure <= 100:
        raise SceneError(f"{where}: an exposure of {info.exposure:g} is out of reach.")
    by_id = {r.id: r for r in info.regions}
    for region in info.regions:
        if region.on is not None:
            cloth = by_id.get(region.on)
            if cloth is None or cloth.panel or region.panel is None or (region.box_mm and cloth.size_mm is None):
                raise SceneError(
                    f"{where}: {region.id} lies on '{region.on}', which must be a plain region, with size_mm where "
                    "the print has box_mm; and it needs a panel."
                )
        for colour in region.colours.values():
            region.colour(colour)
        if region.default is not None:
            region.colour(region.default)
