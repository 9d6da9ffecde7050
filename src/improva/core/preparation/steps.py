"""All kinds of preparation steps, in their usual order.

Those in :data:`LAID` lay something on the picture itself; on the page it is laid on a blank instead, as pieces.
"""

from __future__ import annotations

from . import border, cut, enlarge, laid, light, scatter, seamless, shape, specks, tone
from .step import StepKind

KINDS: dict[str, StepKind] = {
    kind.id: kind
    for kind in (
        cut.KIND,
        specks.KIND,
        tone.CLEAR_WHITE,
        shape.TRIM,
        shape.CROP,
        shape.TURN,
        shape.FLIP,
        light.KIND,
        tone.TONE,
        tone.RECOLOUR,
        border.KIND,
        seamless.KIND,
        scatter.KIND,
        enlarge.KIND,
    )
}

LAID: dict[str, StepKind] = {kind.id: kind for kind in (laid.WORDS, laid.BAND, laid.FRAMES, laid.OVERLAY)}
ALL: dict[str, StepKind] = {**KINDS, **LAID}
