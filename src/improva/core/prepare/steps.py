"""Every kind of step, in the order in which they are usually taken."""

from __future__ import annotations

from . import border, cut, enlarge, scatter, seamless, shape, specks, tone
from .step import StepKind

KINDS: dict[str, StepKind] = {
    kind.id: kind
    for kind in (
        cut.KIND, specks.KIND, tone.CLEAR_WHITE, shape.TRIM, shape.CROP, shape.TURN, shape.FLIP, tone.TONE, tone.RECOLOUR,
        border.KIND, seamless.KIND, scatter.KIND, enlarge.KIND,
    )
}  # fmt: skip
