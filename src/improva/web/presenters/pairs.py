"""Response models of pairs and their scenes."""

from __future__ import annotations

from typing import Any, Literal

from ...app.pair import Pair
from ...app.reports import template_report
from ...app.services import Services
from ...core.design import Placement
from ...core.mockup.scene import Region, SceneInfo
from ...core.proposal import contain_scale
from ...core.sewing.linked_panels import seam_of
from ...core.sewing.seams import Follow, LaidOn
from ...core.template import Panel
from ...core.tiling import offered_counts
from ...store.models.pieces import PIECES
from ...store.models.placement import FollowModel, PlacementModel
from ..schemas.blanks import TemplateOut
from ..schemas.common import PanelReportOut, RegionOut, SceneOut
from ..schemas.pairs import CountOfferOut, PairOut, PanelStateOut, SeamLinkOut
from .artworks import artwork_out


def scene_out(info: SceneInfo) -> SceneOut:
    """Return a scene's response."""
    regions = [
        RegionOut(
            id=r.id,
            title=r.title,
            panel=r.panel,
            colours=r.colours,
            default=r.default,
            surface=r.surface,
            shows=_shows(r),
            place=r.place,
            around=r.around,
        )
        for r in info.regions
    ]
    return SceneOut(
        id=info.id,
        title=info.title,
        kind=info.kind,
        templates=list(info.templates),
        views=info.views,
        turns=info.turns,
        px=info.px,
        regions=regions,
        mirrored=list(info.mirrored),
        finish=info.finish,
        measures=len(info.measures),
        photograph=info.photograph,
    )


def _shows(region: Region) -> Literal["colour", "ground", "cloth"]:
    """Return what a region can be given: colours, surfaces or weaves."""
    if region.size_mm is None:
        return "colour"
    return "ground" if region.around else "cloth"


def panel_report_out(report: dict[str, Any]) -> PanelReportOut:
    """Return a preflight report's response."""
    return PanelReportOut(**{k: report.get(k, []) for k in PanelReportOut.model_fields})


def _offers(panel: Panel, report: dict[str, Any] | None, placement: Placement | None) -> list[CountOfferOut]:
    if report is None or placement is None or placement.fit != "repeat":
        return []
    level = panel.field(placement.lay)
    now = placement.repeats_around or max(1, round(level.trim_mm[0] / (report["placed_mm"][2] + placement.spacing_mm)))
    return [CountOfferOut(around=n, pitch_mm=pitch) for n, pitch in offered_counts(level, placement.repeat_kind, now)]


def pair_out(services: Services, pair: Pair, panel_id: str | None) -> PairOut:
    """Return a pair's response."""
    template, panel = pair.template, pair.template.panel(panel_id)
    kinds = services.store.made_files.kinds(pair.art.id, template.id, pair.placement_key)
    reports, placement, proposal = services.preflight.report(pair), pair.placement(panel), pair.proposals[panel.id]
    report = reports["panels"].get(panel.id)
    carrying, follow = pair.printed, pair.content(panel)
    states = [
        PanelStateOut(
            id=p.id,
            title=p.title,
            printed=p in carrying,
            follows=_followed(pair, p),
            verdict=reports["panels"].get(p.id, {}).get("verdict"),
        )
        for p in template.panels
    ]
    other_blanks = [t.id for t in services.blanks.on_board() if t.kind == template.kind and t.id != template.id]
    return PairOut(
        contain_scale=contain_scale(panel, pair.art.traits.kind if pair.art.traits else "picture"),
        artwork=artwork_out(pair.art),
        template=TemplateOut(**template_report(template)),
        scenes=[scene_out(info) for info in pair.scenes],
        panel=panel.id,
        panels=states,
        placement=PlacementModel.of(placement) if placement else None,
        follow=FollowModel(seam=follow.seam, way=follow.way) if isinstance(follow, Follow) else None,
        joins=_joins(pair, panel),
        suggested_placement=PlacementModel.of(proposal.placement) if isinstance(proposal.placement, Placement) else None,
        suggestion_reason=proposal.why,
        offers=_offers(panel, report, placement),
        other_blanks=other_blanks,
        guide=services.store.blanks.file(template.id, "guide", panel.id) is not None,
        content_key=pair.placement_key,
        edit_key=pair.edit_key,
        can_undo=pair.row.step > 0,
        can_redo=pair.row.step < pair.row.last_step,
        route=pair.route,  # type: ignore[arg-type]
        angle=pair.row.angle,
        colours=pair.row.colours,
        report=panel_report_out(report) if report else None,
        verdict=reports["verdict"],
        palette=services.artworks.preparations.palette(pair.art),
        other_artworks=[artwork_out(row) for row in pair.pieces_on(panel).arts.values()],
        pieces=PIECES.validate_python(list(pair.pieces_on(panel).stored)),
        pictured="picture" in kinds,
        printed="print" in kinds,
        pressed=pair.ids in services.store.pressings.pressed(),
        listed=pair.ids in services.store.listings.listed(),
        priced=services.store.selling.priced(*pair.ids),
    )


def _followed(pair: Pair, panel: Panel) -> str | None:
    """Return the title of the panel whose design a panel continues."""
    content = pair.content(panel)
    return pair.template.panel(seam_of(pair.template, content.seam).leader).title if isinstance(content, Follow) else None


def _joins(pair: Pair, panel: Panel) -> list[SeamLinkOut]:
    """Return the seams past which a panel can follow another one."""
    joins = []
    for seam in pair.template.seams:
        if seam.follower == panel.id and seam.leader != panel.id:
            leader = pair.template.panel(seam.leader).title
            joins.append(
                SeamLinkOut(
                    seam=seam.id,
                    title=seam.title,
                    leader=leader,
                    lies_on=isinstance(seam, LaidOn),
                    ways=list(seam.ways),
                    way=pair.way(seam),
                )
            )
    return joins
