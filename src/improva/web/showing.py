"""Showing a pair: which pictures and films are made, kept looks, and what is to be said about them."""

from __future__ import annotations

from typing import Any

from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ..core.errors import BadScene
from ..core.mockup.scene import Region, SceneInfo
from ..scenes import scenes_of
from ..store import LookRow
from ..surfaces import SURFACES
from ..work.jobs import Jobs
from .bench import PAIR_AT
from .desk import Desk
from .parts import part
from .picturing import findings_of
from .print_shapes import JobShape
from .printing import job_shape
from .problems import NotHere
from .shapes import PairPath
from .shots import shot_of, shots_of
from .show_shapes import FilmBody, LookBody, LookList, LookShape, ShotBody, Showing, ShowState, SurfaceShape
from .show_shapes import Finding as FindingShape
from .work import Work


class LookPath(BaseModel):
    """Which look."""

    name: str = Field(min_length=1, max_length=60)


def showing_of(work: Work) -> Showing:
    """What is chosen of a pair's pictures: at first the first view; scenes and colours that are no longer there are left out."""
    if not work.row.showing:
        first = scenes_of(work.template)[0]
        return Showing(shots=[ShotBody(scene_id=first.id, view=next(iter(first.views)))])
    showing = Showing.model_validate(work.row.showing)
    regions = [region for info in scenes_of(work.template) for region in info.regions]
    variants = {part: [c for c in colours if _has(regions, part, c)] for part, colours in showing.variants.items()}
    shots = [shot for shot in showing.shots if _known(work, shot, showing)]
    return showing.model_copy(update={"shots": shots, "variants": variants})


def _has(regions: list[Region], part: str, colour: str) -> bool:
    """Whether every scene that has a part can show it in a colour: packs come and go."""
    try:
        for region in regions:
            if region.id == part:
                region.check(colour, SURFACES)
    except BadScene:
        return False
    return True


def _known(work: Work, shot: ShotBody, showing: Showing) -> bool:
    try:
        shot_of(work, shot, showing)
    except BadScene:
        return False
    return True


def state_of(work: Work) -> ShowState:
    """How a pair is shown."""
    showing = showing_of(work)
    surfaces = [SurfaceShape(id=s.id, title=s.title, use=s.use) for s in SURFACES.values()]
    shots = shots_of(work, showing)
    found = [FindingShape(status=f.status, message=f.message) for f in findings_of(work, shots)]
    return ShowState(showing=showing, surfaces=surfaces, findings=found, pictures=len(shots) * len(showing.sizes))


def blueprint(desk: Desk, jobs: Jobs) -> APIBlueprint:
    """The addresses of showing and of looks."""
    api = part(desk, "showing", "showing")

    def load(path: PairPath) -> Work:
        return desk.work(path.artwork_id, path.template_id)

    def start(work: Work, kind: str, more: dict[str, Any], title: str) -> dict[str, Any]:
        told = {"artwork_id": work.art.id, "template_id": work.template.id, "of": work.placing_key,
                "colours": work.row.colours, "showing": showing_of(work).model_dump(), **more}  # fmt: skip
        return job_shape(desk, jobs.start(kind, told, title, work.art.id, work.template.id)).model_dump()

    @api.get(f"{PAIR_AT}/showing", responses={200: ShowState})
    def showing(path: PairPath) -> dict[str, Any]:
        """What is chosen of a pair's pictures, and what is to be said about it."""
        return state_of(load(path)).model_dump()

    @api.put(f"{PAIR_AT}/showing", responses={200: ShowState})
    def decide(path: PairPath, body: Showing) -> dict[str, Any]:
        """Decide which pictures are made."""
        work = load(path)
        shots_of(work, body)  # refused before it is kept, if it cannot be
        for artwork_id in {art for places in body.places.values() for art in places.values()}:
            desk.art(artwork_id)
        desk.pairs.set_showing(path.artwork_id, path.template_id, body.model_dump())
        return state_of(load(path)).model_dump()

    @api.post(f"{PAIR_AT}/picture-job", responses={200: JobShape})
    def pictures(path: PairPath) -> dict[str, Any]:
        """Make all pictures that are chosen, as a job."""
        work = load(path)
        if not showing_of(work).shots:
            raise BadScene("No scene is chosen: tick one first.")
        return start(work, "pictures", {}, f"Pictures of {work.art.title} on {work.template.title}")

    @api.post(f"{PAIR_AT}/film-job", responses={200: JobShape})
    def film(path: PairPath, body: FilmBody) -> dict[str, Any]:
        """Film a turn, as a job."""
        work = load(path)
        shot_of(work, ShotBody(scene_id=body.scene_id, angle=0), showing_of(work))  # what does not turn is refused here
        return start(work, "film", {"film": body.model_dump()}, f"Film of {work.art.title} on {work.template.title}")

    @api.get("/api/looks", responses={200: LookList})
    def looks() -> dict[str, Any]:
        """All looks."""
        return _all_looks().model_dump()

    def _all_looks() -> LookList:
        return LookList(looks=[LookShape(name=row.name, showing=Showing.model_validate(row.showing), colours=row.colours)
                               for row in desk.saved_looks.all()])  # fmt: skip

    @api.put("/api/looks/<name>", responses={200: LookList})
    def keep_look(path: LookPath, body: LookBody) -> dict[str, Any]:
        """Keep choices under a name."""
        desk.saved_looks.keep(LookRow(path.name, body.showing.model_dump(), body.colours))
        return _all_looks().model_dump()

    @api.delete("/api/looks/<name>", responses={200: LookList})
    def forget_look(path: LookPath) -> dict[str, Any]:
        """Take a look away."""
        desk.saved_looks.forget(path.name)
        return _all_looks().model_dump()

    @api.post(f"{PAIR_AT}/looks/<name>", responses={200: ShowState})
    def use_look(path: UsePath) -> dict[str, Any]:
        """Use a look on a pair; of its scenes those that show this blank, or else its own scenes of the same kind."""
        row = next((row for row in desk.saved_looks.all() if row.name == path.name), None)
        if row is None:
            raise NotHere("There is no look of that name any more.")
        work = load(path)
        wanted = Showing.model_validate(row.showing)
        desk.pairs.set_showing(work.art.id, work.template.id, fitted(work, wanted).model_dump())
        colours = {**work.row.colours, **row.colours}
        desk.pairs.set_choices(work.art.id, work.template.id, work.row.route, work.row.angle, colours)
        return state_of(load(path)).model_dump()

    return api


class UsePath(PairPath, LookPath):
    """Which look on which pair."""


def fitted(work: Work, wanted: Showing) -> Showing:
    """A look made with one blank, for another: its scenes where they show it, else scenes of the same kind and view."""
    own = {info.id: info for info in scenes_of(work.template)}
    shots: list[ShotBody] = []
    for shot in wanted.shots:
        info = own.get(shot.scene_id) or _likest(list(own.values()), shot)
        if info is None:
            continue
        view = shot.view if shot.view in info.views else None
        angle = shot.angle if info.turns else None
        colours = {name: c for name, c in shot.colours.items() if any(r.id == name for r in info.regions)}
        shots.append(ShotBody(scene_id=info.id, view=view if angle is None else None, angle=angle, colours=colours,
                              measured=shot.measured and bool(info.measures), close=shot.close))  # fmt: skip
    unique = {shot.model_dump_json(): shot for shot in shots}
    return wanted.model_copy(update={"shots": list(unique.values())})


def _likest(scenes: list[SceneInfo], shot: ShotBody) -> SceneInfo | None:
    """A scene of the kind that a shot's was, which its id's ending tells; else the first."""
    ending = shot.scene_id.rpartition("-")[2]
    return next((s for s in scenes if s.id.endswith(ending)), scenes[0] if scenes else None)
