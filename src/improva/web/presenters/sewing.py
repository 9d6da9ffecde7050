"""Response model of a pair's seams."""

from __future__ import annotations

from ...app.pair import Pair
from ...app.services import Services
from ...app.sewing import SewnPair
from ...core.sewing.assembly import laid_flat
from ...core.sewing.edges import pairs
from ...core.sewing.motion import Motion, Points
from ...core.sewing.sample import known_points
from ...core.sewing.seams import LaidOn, Seam
from ...store.models.placement import content_model
from ..schemas.sewing import CalibrationOut, FaceStateOut, SeamStateOut, SewingStateOut, SewnPanelOut

Matrix = tuple[float, float, float, float, float, float]


def sewing_out(services: Services, pair: Pair) -> SewingStateOut:
    """Return the seams and faces of a pair."""
    template, stored, sewn = pair.template, services.store.calibrations, SewnPair(services, pair)
    return SewingStateOut(
        faces=[
            FaceStateOut(
                title=face.title,
                panels=[_panel(sewn, p, motion) for p, motion in laid_flat(template, face, pair.corrections).items()],
            )
            for face in template.faces
        ],
        seams=[_seam(sewn, seam) for seam in template.seams],
        tolerance_mm=template.limit("sewing_mm"),
        provider=stored.provider(template.id),
        corrections=dict(pair.corrections),
        calibrations=[
            CalibrationOut(**{k: getattr(row, k) for k in CalibrationOut.model_fields}) for row in stored.all(template.id)
        ],
    )


def _seam(sewn: SewnPair, seam: Seam) -> SeamStateOut:
    template = sewn.pair.template
    follower = template.panel(seam.follower)
    on, off = pairs(seam, template.panel(seam.leader), follower)
    match = sewn.match(seam)
    return SeamStateOut(
        id=seam.id,
        title=seam.title,
        leader=seam.leader,
        follower=seam.follower,
        lies_on=isinstance(seam, LaidOn),
        on=_rounded(on),
        off=_rounded(off),
        known=list(known_points(follower)) if isinstance(seam, LaidOn) else [],
        way=sewn.pair.way(seam),
        off_mm=None if match.off_mm is None else round(match.off_mm, 2),
        delta_e=None if match.delta_e is None else round(match.delta_e, 1),
        runs_on=None if match.off_mm is None else match.off_mm <= template.limit("sewing_mm"),
    )


def _panel(sewn: SewnPair, panel_id: str, motion: Motion) -> SewnPanelOut:
    link = sewn.link(panel_id)
    content = content_model(sewn.pair.content(sewn.pair.template.panel(panel_id)))
    design = _matrix(link.motion if link else Motion())
    return SewnPanelOut(panel=panel_id, matrix=_matrix(motion), content=content, design=design)


def _rounded(points: Points) -> list[tuple[float, float]]:
    return [(round(float(x), 2), round(float(y), 2)) for x, y in points]


def _matrix(motion: Motion) -> Matrix:
    (a, c), (b, d) = motion.matrix.round(9).tolist()
    return a, b, c, d, *(round(v, 4) for v in motion.shift_mm)
