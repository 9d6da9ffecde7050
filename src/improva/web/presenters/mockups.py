"""Response model of a pair's mock-ups."""

from __future__ import annotations

from dataclasses import asdict

from ...app.edits import edit_key
from ...app.mockup_settings import settings_of_pair
from ...app.mockups import findings_of
from ...app.pair import Pair
from ...app.shots import shots_of
from ...surfaces import SURFACES
from ..schemas.common import FindingOut
from ..schemas.mockups import MockupStateOut, SurfaceOut


def mockups_out(pair: Pair) -> MockupStateOut:
    """Return the mock-up settings, surfaces and findings of a pair."""
    mockup_settings = settings_of_pair(pair)
    surfaces = [SurfaceOut(id=s.id, title=s.title, use=s.use) for s in SURFACES.values()]
    shots = shots_of(pair, mockup_settings)
    findings = [FindingOut(**asdict(finding)) for finding in findings_of(pair, shots)]
    return MockupStateOut(
        mockup_settings=mockup_settings,
        edit_key=edit_key(mockup_settings.model_dump()),
        surfaces=surfaces,
        findings=findings,
        pictures=len(shots) * len(mockup_settings.sizes),
    )
