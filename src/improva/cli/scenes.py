"""``improva scenes``: list the scenes, or check a scene pack."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import click

from ..app.scenes import SceneLibrary
from ..catalogue import template as find_template
from ..catalogue import templates as all_templates
from ..core.mockup.scene import SceneInfo
from ..io.scene_pack import read_info, read_passes
from .group import as_json_option, main, tell


def _scene_report(info: SceneInfo) -> dict[str, Any]:
    regions = [{"id": r.id, "panel": r.panel, "colours": list(r.colours)} for r in info.regions]
    return {
        "id": info.id,
        "title": info.title,
        "template": info.templates[0],
        "templates": list(info.templates),
        "kind": info.kind,
        "views": list(info.views),
        "turns": info.turns,
        "regions": regions,
        "px": list(info.px),
    }


@main.command()
@click.option("--template", "template_id", metavar="ID", help="Only the scenes of this blank.")
@click.option("--validate", type=click.Path(path_type=Path), metavar="FOLDER", help="Check a scene pack of your own.")
@as_json_option
def scenes(template_id: str | None, validate: Path | None, as_json: bool) -> None:
    """List the available scenes, or validate a scene pack."""
    if validate is not None:
        info = read_info(validate)
        read_passes(info)
        listed = [info]
    else:
        library = SceneLibrary()
        listed = library.of(find_template(template_id)) if template_id else library.all(all_templates().values())
    tell([_scene_report(info) for info in listed], as_json, [f"{info.id:32} {info.title}" for info in listed])
