"""Whether a panel that follows another runs on over the seam it follows."""

from __future__ import annotations

import numpy as np

from ..sewing.edges import pairs
from ..sewing.following import Corrections, Led, seam_of
from ..sewing.mismatch import POINTS, off_along
from ..sewing.seams import Follow, LaidOn
from ..template import Panel, Template
from .verdict import Verdict


def check_runs_on(template: Template, panel: Panel, follow: Follow, ways: tuple[Led | None, Led | None], corrections: Corrections
                  ) -> Verdict:  # fmt: skip
    """How far the design is off along the followed seam, in mm, at worst, and where; against the sewing tolerance.

    ``ways`` are who leads the seam's leader and its follower.
    """
    seam = seam_of(template, follow.seam)
    limit = template.limit("sewing_mm")
    off = off_along(seam, template, ways, corrections)
    if off is None:  # what it follows stands elsewhere, and the pair is refused before it comes here
        return Verdict("runs-on", seam.title, "pass", None, limit, "mm", "Both sides have their own design.")
    worst = float(off.max())
    if worst <= limit:
        runs = f"The design runs on over it within {max(worst, 0.1):.1f} mm."
        told = "It shows just what lies beneath it." if isinstance(seam, LaidOn) else runs
        return Verdict("runs-on", seam.title, "pass", round(worst, 2), limit, "mm", told)
    _, edge = pairs(seam, template.panel(seam.leader), panel, POINTS)
    beyond = edge[off > limit]
    (x0, y0), (x1, y1) = beyond.min(axis=0), beyond.max(axis=0)
    share = 100 * float(np.mean(off > limit))
    return Verdict("runs-on", seam.title, "warn", round(worst, 2), limit, "mm",
                   f"Along {share:.0f} % of it the design cannot run on: both edges are curved, and it is off by up to "
                   f"{worst:.0f} mm. Calm art hides it; or let this side stand alone.",
                   where=((float(x0), float(y0), float(x1 - x0), float(y1 - y0)),))  # fmt: skip
