"""Sewn blanks: seams, how well the design continues across them, and calibrations from samples."""

from __future__ import annotations

from datetime import date
from typing import Any

import numpy as np

from ...core.errors import TemplateError
from ...core.sewing.linked_panels import seam_of
from ...core.sewing.sample import known_points, measure_shift
from ...core.sewing.seams import LaidOn
from ..context import load_pair, services
from ..presenters.sewing import sewing_out
from ..routing import Routes
from ..schemas.common import PAIR_AT, PairPath
from ..schemas.sewing import CalibrationIn, SamplePointsIn, SampleShiftOut, SewingStateOut, SewnByIn

api = Routes("sewing", PAIR_AT)


def _answer(path: PairPath) -> dict[str, Any]:
    return sewing_out(services, load_pair(path)).model_dump()


@api.get("/sewing", responses={200: SewingStateOut})
def get_sewing(path: PairPath) -> dict[str, Any]:
    """Return how the panels meet along their seams."""
    return _answer(path)


@api.post("/calibrations", responses={200: SewingStateOut})
def add_calibration(path: PairPath, body: CalibrationIn) -> dict[str, Any]:
    """Store how far a sewn sample was off: later designs on this blank are corrected by it.

    Raises :class:`TemplateError` for a panel that follows no other.
    """
    template = services.blanks.get(path.template_id)
    if not isinstance(seam_of(template, body.seam), LaidOn):
        raise TemplateError("Only what lies on another panel is calibrated: of a sewn edge, the cut decides.")
    moved = round(body.right_mm, 3), round(body.down_mm, 3)
    services.store.calibrations.add(
        template.id, body.provider.strip(), body.seam, moved, body.sample.strip(), date.today().isoformat()
    )
    return _answer(path)


@api.post("/sample-shift", responses={200: SampleShiftOut})
def measure_sample(path: PairPath, body: SamplePointsIn) -> dict[str, Any]:
    """Measure a seam's shift on a photograph of a sample, without storing it."""
    template = services.blanks.get(path.template_id)
    follower = template.panel(seam_of(template, body.seam).follower)
    px = np.array(body.px, float)
    right, down = measure_shift(
        known_points(follower), np.array(body.known) * px, np.array(body.on) * px, np.array(body.off) * px
    )
    return SampleShiftOut(right_mm=round(right, 2), down_mm=round(down, 2)).model_dump()


@api.delete("/calibrations", responses={200: SewingStateOut})
def remove_newest_calibration(path: PairPath) -> dict[str, Any]:
    """Remove the newest calibration of the current sewing provider."""
    provider = services.store.calibrations.provider(path.template_id)
    newest = next((row for row in services.store.calibrations.all(path.template_id) if row.provider == provider), None)
    if newest is not None:
        services.store.calibrations.take_back(newest.id)
    return _answer(path)


@api.put("/sewing-provider", responses={200: SewingStateOut})
def set_sewing_provider(path: PairPath, body: SewnByIn) -> dict[str, Any]:
    """Set the provider who sews this blank."""
    services.store.calibrations.sewn_by(services.blanks.get(path.template_id).id, body.provider.strip())
    return _answer(path)
