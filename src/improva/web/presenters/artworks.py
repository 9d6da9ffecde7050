"""Response models of artworks."""

from __future__ import annotations

from ...store import ArtRow
from ..schemas.common import ArtworkOut


def artwork_out(row: ArtRow) -> ArtworkOut:
    """Return an artwork's response."""
    f = row.facts
    return ArtworkOut(
        id=row.id,
        title=row.title,
        file_name=row.file_name,
        sha256=row.sha256,
        px=f.px,
        tagged_dpi=f.tagged_dpi,
        mode=f.mode,
        has_alpha=f.has_alpha,
        vector=f.vector,
        notes=list(f.notes),
        enlarged=f.enlarged,
        steps=len(row.preparation.active),
        noted=bool(row.origin.source),
    )
