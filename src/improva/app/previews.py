"""Previews: quick pictures from proxies, of stored or edited content."""

from __future__ import annotations

from contextlib import suppress

import pyvips

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.design import PanelContent, Placement
from ..core.errors import OutputError
from ..core.mockup.composite import ShadedView
from ..core.mockup.drawn import cut_mask
from ..core.mockup.render import encode, render_mockup
from ..core.mockup.scene import Close, SceneInfo
from ..core.render import on_blank, render, render_level
from ..core.template import Panel
from ..io.atomic import atomic_write
from ..stages import versions
from ..store import Placements, Store
from ..store.database import key_of
from .artworks import ArtworkLibrary
from .blanks import BlankShelf
from .pair import Pair, plain
from .render_cache import Colours, Contour, RenderCache
from .scenes import SceneLibrary

CELL_PX = (400, 400)
PREVIEW_QUALITY = 86


class Previews:
    """The previews of one data folder's pairs."""

    def __init__(
        self, store: Store, blanks: BlankShelf, artworks: ArtworkLibrary, scenes: SceneLibrary, render_cache: RenderCache
    ) -> None:
        self._store, self._blanks, self._artworks, self._scenes = store, blanks, artworks, scenes
        self._render_cache = render_cache

    def contour(self, pair: Pair, placements: Placements, art: Artwork) -> Contour | None:
        """Return the cut contour of a blank that is cut to its artwork's shape, for a drawn scene; None for other blanks."""
        panel = pair.template.panels[0]
        if panel.shape != "cutout":
            return None
        content = {**pair.placements, **placements}[panel.id]
        key = key_of(pair.subject, plain({panel.id: content}), pair.pieces_on(panel).key)
        return Contour(key, lambda: cut_mask(pair.design(panel, content), pair.opener(art, self._artworks.proxy)))

    def quick_contour(self, pair: Pair, placements: Placements) -> Contour | None:
        """Return the cut contour from the small proxy."""
        return self.contour(pair, placements, self._artworks.small_proxy(pair.art))

    def quick_art(self, pair: Pair, placements: Placements, shaded: ShadedView) -> Artwork:
        """Return a proxy of the artwork that is large enough for a preview."""
        own = (content for content in placements.values() if isinstance(content, Placement) and content.fit != "repeat")
        largest = max((content.scale for content in own), default=1.0)
        longest = max(px for seen in shaded.view.maps.values() for px in seen.texture_px) * max(1.0, largest)
        return self._artworks.proxy(pair.art) if longest > PROXY_PX // 2 else self._artworks.small_proxy(pair.art)

    def mockup(
        self,
        pair: Pair,
        placements: Placements,
        info: SceneInfo,
        angle: float,
        colours: Colours,
        size: tuple[int, int],
        close: Close = "",
        mirrored: bool = False,
    ) -> bytes:
        """Return a quick mock-up as JPEG, with the edited contents of ``held`` in place of stored ones.

        Raises:
            SceneError: the scene lacks a colour, or its pack is damaged.
            PlacementError: a content is not possible.
        """
        shaded = self._render_cache.shaded_view(info, size, colours, close, mirrored, self.quick_contour(pair, placements))
        art = self.quick_art(pair, placements, shaded)
        picture = render_mockup(shaded, pair.designs(placements), pair.opener(art, self._artworks.proxy), angle)
        return encode(picture, ".jpg", quality=PREVIEW_QUALITY)

    def cell_key(self, pair: Pair) -> str:
        """Return a hash of all that the board's picture of a pair depends on."""
        scene_key = self._blanks.shelved(pair.template.id).scene_key
        stages = versions("mockups", "packs")
        return key_of("cell", stages, CELL_PX, pair.subject, scene_key, pair.placement_key, pair.row.angle, pair.row.colours)

    def stored_cell(self, pair: Pair) -> bytes | None:
        """Return the board's small picture of a pair as JPEG, or None where it is not made yet."""
        path = self._store.database.made_path(self.cell_key(pair), ".jpg")
        return path.read_bytes() if path.exists() else None

    def cell(self, pair: Pair) -> bytes:
        """Return the board's small picture of a pair as JPEG, made once and stored."""
        if (stored := self.stored_cell(pair)) is not None:
            return stored
        path = self._store.database.made_path(self.cell_key(pair), ".jpg")
        info = self._scenes.first(pair.template)
        picture = self.mockup(pair, pair.placements, info, pair.row.angle, pair.row.colours, CELL_PX, close=info.close)
        with suppress(OutputError):  # a full disk leaves the board its pictures
            atomic_write(path, picture)
        return picture

    def flat(self, pair: Pair, panel: Panel, content: PanelContent | None, width: int) -> pyvips.Image:
        """Return the print file reduced to a width in px: bent, repeated and cut as the final file."""
        w, h = panel.file_mm
        size = (width, max(1, round(width * h / w)))
        open_art = pair.opener(self._artworks.proxy(pair.art), self._artworks.proxy)
        return render(pair.design(panel, content), open_art, size)

    def seam_picture(self, pair: Pair, panel: Panel, content: PanelContent, side_mm: float, px_per_mm: float) -> pyvips.Image:
        """Return both ends of a wrap as they meet at the seam: the right end on the left, on the blank's colour."""
        level = panel.level()
        size = (max(2, round(level.file_mm[0] * px_per_mm)), max(2, round(level.file_mm[1] * px_per_mm)))
        open_art = pair.opener(self._artworks.open(pair.art), self._artworks.open)
        printed = render_level(pair.design(panel, content), open_art, size)
        image = on_blank(printed, pair.template.blank_colour).copy_memory()
        bleed = round(level.bleed_mm * px_per_mm)
        side = min(round(side_mm * px_per_mm), (image.width - 2 * bleed) // 2)
        height = image.height - 2 * bleed
        right = image.crop(image.width - bleed - side, bleed, side, height)
        return right.join(image.crop(bleed, bleed, side, height), "horizontal")
