"""The bench: one artwork on one blank, its sides, and what is decided of them."""

from __future__ import annotations

from typing import Any, Literal

from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ..core.design import Placing
from ..core.errors import BadPlacing
from ..core.fit import place as place_on
from ..core.mockup.scene import Region, SceneInfo
from ..core.pieces import carried_piece
from ..core.propose import carried, propose_alone
from ..core.sewing.following import seam_of
from ..core.sewing.seams import Follow, LaidOn
from ..core.template import Panel
from ..core.tiling import offered_counts
from ..proofing import template_report
from ..scenes import scenes_of
from ..store import Placings
from ..surfaces import SURFACES
from .artworks import art_shape
from .blank_shapes import TemplateShape
from .desk import Desk
from .pair_shapes import CountOffer, JoinShape, Pair, PanelState
from .parts import part
from .piece_shapes import PIECES, PiecesBody, carried_body
from .shapes import ChoicesBody, FollowBody, PairPath, PanelQuery, PlacingBody, ProofShape, RegionShape, SceneShape, Shape
from .work import Work

TRIED_PX = 96
"""Pieces are drawn this small before they are kept, so that none is kept that cannot be drawn."""

PAIR_AT = "/api/pairs/<int:artwork_id>/<template_id>"


class CopyBody(Shape):
    """To which blanks a panel's placing is carried."""

    template_ids: list[str] = Field(min_length=1, max_length=100)


class Copied(BaseModel):
    """Which blanks took it."""

    template_ids: list[str]


def scene_shape(info: SceneInfo) -> SceneShape:
    """A scene as it is answered."""
    regions = [RegionShape(id=r.id, title=r.title, panel=r.panel, colours=r.colours, default=r.default, surface=r.surface,
                           shows=_shows(r), place=r.place, around=r.around) for r in info.regions]  # fmt: skip
    return SceneShape(id=info.id, title=info.title, kind=info.kind, templates=list(info.templates), views=info.views,
                      turns=info.turns, px=info.px, regions=regions, mirrored=list(info.mirrored), finish=info.finish,
        measures=len(info.measures), photograph=info.photograph)  # fmt: skip


def _shows(region: Region) -> Literal["colour", "ground", "cloth"]:
    """What a part can be given."""
    if region.size_mm is None:
        return "colour"
    return "ground" if region.around else "cloth"


def proof_shape(report: dict[str, Any]) -> ProofShape:
    """The page's part of a proof's report."""
    return ProofShape(**{k: report.get(k, []) for k in ProofShape.model_fields})


def _offers(panel: Panel, report: dict[str, Any] | None, placing: Placing | None) -> list[CountOffer]:
    if report is None or placing is None or placing.fit != "repeat":
        return []
    worn = panel.field(placing.lay)
    now = placing.repeats_around or max(1, round(worn.trim_mm[0] / (report["placed_mm"][2] + placing.spacing_mm)))
    return [CountOffer(around=n, pitch_mm=pitch) for n, pitch in offered_counts(worn, placing.repeat_kind, now)]


def pair_shape(desk: Desk, work: Work, panel_id: str | None) -> Pair:
    """A pair as it is answered."""
    template, panel = work.template, work.template.panel(panel_id)
    made = desk.made.kinds(work.art.id, template.id, work.placing_key)
    proof, placing, proposal = desk.proof(work), work.placing(panel), work.proposals[panel.id]
    report = proof["panels"].get(panel.id)
    carrying, follow = work.printed, work.laying(panel)
    states = [PanelState(id=p.id, title=p.title, printed=p in carrying, follows=_followed(work, p),
                         verdict=proof["panels"].get(p.id, {}).get("verdict")) for p in template.panels]  # fmt: skip
    sisters = [t.id for t in desk.board_blanks() if t.kind == template.kind and t.id != template.id]
    return Pair(
        artwork=art_shape(work.art), template=TemplateShape(**template_report(template)),
        scenes=[scene_shape(info) for info in scenes_of(template)], panel=panel.id, panels=states,
        placing=PlacingBody.of(placing) if placing else None,
        follow=FollowBody(seam=follow.seam, way=follow.way) if isinstance(follow, Follow) else None,
        joins=_joins(work, panel),
        default_placing=PlacingBody.of(proposal.placing) if isinstance(proposal.placing, Placing) else None, proposed_because=proposal.why,
        offers=_offers(panel, report, placing), sisters=sisters,
        guide=desk.blanks.file(template.id, "guide", panel.id) is not None,
        laid_key=work.placing_key, can_undo=work.row.step > 0, can_redo=work.row.step < work.row.last_step,
        route=work.route, angle=work.row.angle, colours=work.row.colours,  # type: ignore[arg-type]
        proof=proof_shape(report) if report else None, verdict=proof["verdict"],
        palette=desk.preparing.palette(work.art), beside=[art_shape(row) for row in work.laid_on(panel).arts.values()],
        pieces=PIECES.validate_python(list(work.laid_on(panel).kept)), pictured="picture" in made, printed="print" in made,
        pressed=work.pair in desk.pressings.pressed(),
        listed=work.pair in desk.listings.listed(), priced=desk.selling.priced(*work.pair),
    )  # fmt: skip


def _followed(work: Work, panel: Panel) -> str | None:
    """Title of the panel whose design a panel shows."""
    laying = work.laying(panel)
    return work.template.panel(seam_of(work.template, laying.seam).leader).title if isinstance(laying, Follow) else None


def _joins(work: Work, panel: Panel) -> list[JoinShape]:
    """The seams past which a panel may follow another."""
    laying, found = work.laying(panel), []
    for seam in work.template.seams:
        if seam.follower == panel.id and seam.leader != panel.id:
            way = laying.way if isinstance(laying, Follow) and laying.seam == seam.id else "alone"
            leader = work.template.panel(seam.leader).title
            found.append(
                JoinShape(
                    seam=seam.id,
                    title=seam.title,
                    leader=leader,
                    lies_on=isinstance(seam, LaidOn),
                    ways=list(seam.ways),
                    way=way,
                )
            )
    return found


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses under /api/pairs."""
    api = part(desk, "bench", "bench", PAIR_AT)

    def load(path: PairPath) -> Work:
        return desk.work(path.artwork_id, path.template_id)

    def answer(path: PairPath, query: PanelQuery) -> dict[str, Any]:
        return pair_shape(desk, load(path), query.panel).model_dump()

    def decide(path: PairPath, decided: Placings) -> None:
        desk.pairs.place(path.artwork_id, path.template_id, decided)

    @api.get("", responses={200: Pair})
    def pair(path: PairPath, query: PanelQuery) -> dict[str, Any]:
        """A pair with its proof."""
        return answer(path, query)

    @api.put("/placing", responses={200: Pair})
    def place(path: PairPath, query: PanelQuery, body: PlacingBody) -> dict[str, Any]:
        """Decide a panel's placing. It becomes the next step of the pair's history."""
        work, placing = load(path), body.to_core()
        panel = work.template.panel(query.panel)
        place_on(panel, work.art.facts.size, placing)  # refused before it is kept, if it cannot be
        if placing != work.placing(panel):
            decide(path, {panel.id: placing})
        return answer(path, query)

    @api.put("/follow", responses={200: Pair})
    def follow(path: PairPath, query: PanelQuery, body: FollowBody) -> dict[str, Any]:
        """Let a panel show what lies past a seam, or stand alone again. It becomes the next step of the pair's history."""
        work = load(path)
        panel, laying = work.template.panel(query.panel), body.to_core()
        if body.way == "alone":
            assert work.art.traits is not None, "artworks come with their traits from the desk"
            decide(path, {panel.id: propose_alone(work.template, panel, work.art.facts, work.art.traits).placing})
        else:
            work.design(panel, laying)  # refused before it is kept, if it cannot be
            decide(path, {panel.id: laying})
        return answer(path, query)

    @api.put("/pieces", responses={200: Pair})
    def lay(path: PairPath, query: PanelQuery, body: PiecesBody) -> dict[str, Any]:
        """Decide what is laid with the artwork on a panel. It becomes the next step of the pair's history."""
        work, kept = load(path), body.model_dump()["pieces"]
        panel = work.template.panel(query.panel)
        placing = work.placing(panel)
        held = work.holding(panel, desk.lay(kept))  # refused before it is kept, if it cannot be
        if placing is None:
            raise BadPlacing("This side is empty: lay the artwork on it first.")
        desk.flat(held, panel, placing, TRIED_PX)
        desk.pairs.place(path.artwork_id, path.template_id, {}, {panel.id: kept})
        return answer(path, query)

    @api.delete("/placing", responses={200: Pair})
    def clear(path: PairPath, query: PanelQuery) -> dict[str, Any]:
        """Leave a panel empty."""
        panel = load(path).template.panel(query.panel)
        decide(path, {panel.id: None})
        return answer(path, query)

    @api.post("/undo", responses={200: Pair})
    def undo(path: PairPath, query: PanelQuery) -> dict[str, Any]:
        """Go one step back in the pair's history."""
        desk.pairs.move(load(path).art.id, path.template_id, -1)
        return answer(path, query)

    @api.post("/redo", responses={200: Pair})
    def redo(path: PairPath, query: PanelQuery) -> dict[str, Any]:
        """Go one step forward in the pair's history."""
        desk.pairs.move(load(path).art.id, path.template_id, 1)
        return answer(path, query)

    @api.post("/copy", responses={200: Copied})
    def copy(path: PairPath, query: PanelQuery, body: CopyBody) -> dict[str, Any]:
        """Carry a panel's placing to other blanks, to the panel of the same name or else their first."""
        work = load(path)
        panel = work.template.panel(query.panel)
        placing, laid, took = work.placing(panel), work.laid_on(panel), []
        if placing is None:
            raise BadPlacing("This panel is empty, so there is nothing to carry: lay the artwork on it first.")
        for template_id in dict.fromkeys(body.template_ids):
            template = desk.template(template_id)
            target = next((p for p in template.panels if p.id == panel.id), template.panels[0])
            moved = carried(placing, panel, target)
            place_on(target, work.art.facts.size, moved)
            pieces = zip(PIECES.validate_python(list(laid.kept)), laid.extras, strict=True)
            kept = [carried_body(piece, carried_piece(extra, panel, target)) for piece, extra in pieces]
            desk.pairs.place(work.art.id, template_id, {target.id: moved}, {target.id: kept} if kept else None)
            took.append(template_id)
        return Copied(template_ids=took).model_dump()

    @api.put("/choices", responses={200: Pair})
    def choose(path: PairPath, query: PanelQuery, body: ChoicesBody) -> dict[str, Any]:
        """Keep the route and how the mock-up stands."""
        work = load(path)
        known = {region.id: region for info in scenes_of(work.template) for region in info.regions}
        for name, colour in body.colours.items():
            if name in known:
                known[name].check(colour, SURFACES)
            else:
                scenes_of(work.template)[0].region(name)
        desk.pairs.set_choices(work.art.id, work.template.id, body.route, body.angle, body.colours)
        return answer(path, query)

    return api
