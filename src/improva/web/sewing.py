"""How a pair's panels meet: where seams run, how well the design runs on, and what samples have shown."""

from __future__ import annotations

from datetime import date
from typing import Any

import numpy as np
from flask_openapi3 import APIBlueprint

from ..core.colour import Floats, lab
from ..core.errors import BadTemplate
from ..core.sewing.assembled import laid_flat
from ..core.sewing.edges import pairs
from ..core.sewing.following import Led, seam_of
from ..core.sewing.mismatch import apart_along, off_along
from ..core.sewing.motion import Motion, Points
from ..core.sewing.sample import known_points, shown_by
from ..core.sewing.seams import Follow, LaidOn, Seam
from ..core.template import Panel
from ..store.database import key_of
from .bench import PAIR_AT
from .desk import Desk
from .parts import part
from .sewing_shapes import (
    CalibrationBody,
    CalibrationShape,
    FaceState,
    SampleBody,
    SampleShown,
    SeamState,
    SewerBody,
    SewingState,
    SewnPanel,
)
from .shapes import PairPath, WayName, laying_json
from .work import Work

Matrix = tuple[float, float, float, float, float, float]


class _Sewing:
    """One pair's seams, its panels looked at once each."""

    def __init__(self, desk: Desk, work: Work) -> None:
        self.desk, self.work, self.template = desk, work, work.template
        self.labs: dict[str, Floats | None] = {}

    def led(self, panel_id: str) -> Led | None:
        return self.work.who_leads(panel_id, self.work.placings)

    def lab(self, panel_id: str) -> Floats | None:
        """A panel's reduced file as it is seen; None of an empty one."""
        if panel_id not in self.labs:
            panel = self.template.panel(panel_id)
            laying = self.work.laying(panel) if panel in self.work.printed else None
            self.labs[panel_id] = None if laying is None else lab(self.desk.seen(self.work, panel, laying))
        return self.labs[panel_id]

    def seam(self, seam: Seam) -> SeamState:
        template, corrections = self.template, self.work.corrections
        leader, follower = template.panel(seam.leader), template.panel(seam.follower)
        on, off = pairs(seam, leader, follower)
        ways = self.led(seam.leader), self.led(seam.follower)
        away = off_along(seam, template, ways, corrections)
        key = key_of("apart", seam.id, self.work.panel_key(leader), self.work.panel_key(follower), corrections.get(seam.id))
        apart = self.desk.found.get(key, lambda: self.apart(seam))
        worst = None if away is None else float(away.max())
        return SeamState(
            id=seam.id, title=seam.title, leader=seam.leader, follower=seam.follower, lies_on=isinstance(seam, LaidOn),
            on=_plain(on), off=_plain(off), known=list(known_points(follower)) if isinstance(seam, LaidOn) else [], way=self.way(seam, follower), off_mm=None if worst is None else round(worst, 2),
            delta_e=None if apart is None else round(apart, 1),
            runs_on=None if worst is None else worst <= template.limit("sewing_mm"),
        )  # fmt: skip

    def apart(self, seam: Seam) -> float | None:
        """How far colours are apart on both sides of a seam, ΔE2000; None where a side is empty."""
        one, other = self.lab(seam.leader), self.lab(seam.follower)
        if one is None or other is None:
            return None
        return float(np.median(apart_along(seam, self.template, self.work.corrections, (one, other))))

    def way(self, seam: Seam, follower: Panel) -> WayName:
        laying = self.work.laying(follower)
        return laying.way if isinstance(laying, Follow) and laying.seam == seam.id else "alone"

    def panel(self, panel_id: str, motion: Motion) -> SewnPanel:
        led = self.led(panel_id)
        laying = laying_json(self.work.laying(self.template.panel(panel_id)))
        return SewnPanel(panel=panel_id, matrix=_matrix(motion), laying=laying, design=_matrix(led.motion if led else Motion()))

    def state(self) -> SewingState:
        template, kept = self.template, self.desk.calibrations
        faces = [
            FaceState(
                title=face.title, panels=[self.panel(p, m) for p, m in laid_flat(template, face, self.work.corrections).items()]
            )
            for face in template.faces
        ]
        return SewingState(
            faces=faces, seams=[self.seam(seam) for seam in template.seams], tolerance_mm=template.limit("sewing_mm"),
            provider=kept.provider(template.id), corrections=dict(self.work.corrections),
            calibrations=[CalibrationShape(**{k: getattr(row, k) for k in CalibrationShape.model_fields})
                          for row in kept.all(template.id)],
        )  # fmt: skip


def _plain(points: Points) -> list[tuple[float, float]]:
    return [(round(float(x), 2), round(float(y), 2)) for x, y in points]


def _matrix(motion: Motion) -> Matrix:
    (a, c), (b, d) = motion.matrix.round(9).tolist()
    return a, b, c, d, *(round(v, 4) for v in motion.shift_mm)


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses of a pair's seams."""
    api = part(desk, "sewing", "sewing", PAIR_AT)

    def answer(path: PairPath) -> dict[str, Any]:
        return _Sewing(desk, desk.work(path.artwork_id, path.template_id)).state().model_dump()

    @api.get("/sewing", responses={200: SewingState})
    def sewing(path: PairPath) -> dict[str, Any]:
        """How the panels meet."""
        return answer(path)

    @api.post("/calibrations", responses={200: SewingState})
    def calibrate(path: PairPath, body: CalibrationBody) -> dict[str, Any]:
        """Keep what a sample has shown: every design on this blank is made to it from now on."""
        template = desk.template(path.template_id)
        if not isinstance(seam_of(template, body.seam), LaidOn):
            raise BadTemplate("Only what lies on another panel is calibrated: of a sewn edge, the cut decides.")
        moved = round(body.right_mm, 3), round(body.down_mm, 3)
        desk.calibrations.add(
            template.id, body.provider.strip(), body.seam, moved, body.sample.strip(), date.today().isoformat()
        )
        return answer(path)

    @api.post("/sample", responses={200: SampleShown})
    def sample(path: PairPath, body: SampleBody) -> dict[str, Any]:
        """What a photograph of a sample shows; nothing is kept."""
        template = desk.template(path.template_id)
        follower = template.panel(seam_of(template, body.seam).follower)
        px = np.array(body.px, float)
        right, down = shown_by(
            known_points(follower), np.array(body.known) * px, np.array(body.on) * px, np.array(body.off) * px
        )
        return SampleShown(right_mm=round(right, 2), down_mm=round(down, 2)).model_dump()

    @api.delete("/calibrations", responses={200: SewingState})
    def take_back(path: PairPath) -> dict[str, Any]:
        """Forget the newest calibration of who sews this blank now."""
        provider = desk.calibrations.provider(path.template_id)
        newest = next((row for row in desk.calibrations.all(path.template_id) if row.provider == provider), None)
        if newest is not None:
            desk.calibrations.take_back(newest.id)
        return answer(path)

    @api.put("/sewer", responses={200: SewingState})
    def sewer(path: PairPath, body: SewerBody) -> dict[str, Any]:
        """Say who sews this blank."""
        desk.calibrations.sewn_by(desk.template(path.template_id).id, body.provider.strip())
        return answer(path)

    return api
