"""Checks of seams: mismatches are judged by their visible colour difference; content within the sewing tolerance is found."""

import numpy as np
import pytest
from PIL import Image, ImageDraw

from improva.catalogue import template
from improva.core.design import Placement
from improva.core.preflight import run_preflight
from improva.core.preflight.sewn_seams import check_runs_on
from improva.core.sewing.linked_panels import first_leader
from improva.core.sewing.mismatch import POINTS, offset_along
from improva.core.sewing.seams import Follow
from tests.conftest import art_of

HOODIE = template("hoodie-all-over")
FRONT, SLEEVE = HOODIE.panel("front"), HOODIE.panel("sleeve-left")
ARM, POCKET = Follow("armhole-left-front", "flow"), Follow("pocket", "flow")


def run_checks(follow: Follow, panel: str, apart: np.ndarray):  # type: ignore[no-untyped-def]
    ways = None, first_leader(HOODIE, HOODIE.panel(panel), {panel: follow}, {})
    return {c.id: c for c in check_runs_on(HOODIE, HOODIE.panel(panel), follow, ways, {}, apart)}


def beyond() -> np.ndarray:
    (seam,) = (s for s in HOODIE.seams if s.id == ARM.seam)
    off = offset_along(seam, HOODIE, (None, first_leader(HOODIE, SLEEVE, {"sleeve-left": ARM}, {})), {})
    assert off is not None
    return off > HOODIE.limit("sewing_mm")


def test_a_mismatch_is_a_finding_where_its_colours_differ() -> None:
    broken = beyond()
    assert 0.2 < broken.mean() < 0.95  # two curves touch somewhere and part elsewhere
    checks = run_checks(ARM, "sleeve-left", np.where(broken, 30, 1).astype(np.float32))
    assert checks["runs-on"].status == checks["seam-colours"].status == "warn"
    assert checks["seam-colours"].measured == 30 and checks["seam-colours"].limit == HOODIE.limit("break_delta_e")
    assert checks["runs-on"].where == checks["seam-colours"].where != ()


def test_a_mismatch_in_plain_art_is_mentioned_and_passes() -> None:
    checks = run_checks(ARM, "sleeve-left", np.where(beyond(), 2, 30).astype(np.float32))  # a strong step only where it runs on
    assert checks["runs-on"].status == checks["seam-colours"].status == "pass"
    assert checks["seam-colours"].measured == 2 and "does not show" in checks["runs-on"].message


def test_edges_in_the_art_itself_are_not_a_mismatch() -> None:
    checks = run_checks(POCKET, "pocket", np.full(POINTS, 40, np.float32))
    assert checks["runs-on"].status == checks["seam-colours"].status == "pass" and checks["runs-on"].measured == 0


def spot(x: float, y: float, size: float = 12) -> np.ndarray:
    """A dark disc around a point of the front's trim in mm, on white: the whole print file at 1 px per mm."""
    picture = Image.new("RGB", (624, 724), "white")
    x, y = x + 12, y + 12
    ImageDraw.Draw(picture).ellipse((x - size / 2, y - size / 2, x + size / 2, y + size / 2), fill=(20, 30, 80))
    ImageDraw.Draw(picture).ellipse((290, 290, 330, 330), fill=(120, 30, 40))  # what else is on the print
    return np.asarray(picture)


@pytest.mark.parametrize(
    ("x", "y", "status"),
    [
        (260, 437, "warn"),  # the upper edge of the pocket lies at 440, from 200 to 400
        (260, 428, "pass"),  # 12 wide, so its edge is 6 mm from the seam, and sewing may be 5 mm off
        (300, 560, "pass"),  # in the middle beneath the pocket
        (594, 500, "warn"),  # at the side seam
    ],
)
def test_important_content_stays_away_from_seams(x: float, y: float, status: str) -> None:
    assert HOODIE.limit("sewing_mm") == 5
    checks = {c.id: c for c in run_preflight(HOODIE, FRONT, art_of(spot(x, y)), Placement("stretch")).checks}
    found = checks["near-seam"]
    assert found.status == status, found.message
    if status == "warn":
        assert (
            found.measured is not None
            and found.measured > 5
            and any(left <= x <= left + w and top <= y <= top + h for left, top, w, h in found.where)
        )


def test_a_blank_without_seams_has_no_seam_checks(tumbler) -> None:  # type: ignore[no-untyped-def]
    checks = run_preflight(tumbler, tumbler.panel(), art_of(spot(300, 300)), Placement("cover")).checks
    assert all(c.id != "near-seam" for c in checks)
