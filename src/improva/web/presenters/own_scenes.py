"""Response models of the seller's own scenes."""

from __future__ import annotations

from ...app.edits import edit_key
from ...app.services import Services
from ...core.errors import ImprovaError
from ...core.mockup.photo import goes_round, names_of
from ...store import OwnSceneRow
from ..schemas.own_scenes import OwnSceneStateOut


def own_scene_out(services: Services, row: OwnSceneRow) -> OwnSceneStateOut:
    """Return a photograph's response with its marks and findings."""
    photos = services.own_scenes
    template, panel, marks = photos.known(row)
    outline, lines, problem = list[tuple[float, float]](), list[str](), None
    try:
        draft = photos.draft(row)
        w, h = draft.scene_toml["px"]
        outline = [(x / w, y / h) for x, y in draft.place.outline]
        lines = draft.notes
    except ImprovaError as wrong:
        problem = str(wrong)
    return OwnSceneStateOut(
        id=row.id,
        title=row.title,
        template=template.id,
        template_title=template.title,
        panel=panel.id,
        panels={p.id: p.title for p in template.panels},
        photo_id=row.photo_id or 0,
        px=services.artworks.get(row.photo_id or 0).facts.px,
        marks=marks,
        edit_key=edit_key(photos.marked(row)),
        names=list(names_of(panel)),
        round=goes_round(panel),
        outline=outline,
        notes=lines,
        problem=problem,
        key=photos.key(row),
        pack=row.pack,
    )
