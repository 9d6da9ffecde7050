"""Scenes: their regions, views, places and measures, and their light."""

from __future__ import annotations

from collections.abc import Container
from dataclasses import dataclass, field
from pathlib import Path
from typing import Literal

import numpy as np

from ..colour import Floats, parse_hex
from ..errors import ImprovaError, SceneError
from ..template import Template

Close = Literal["", "print", "detail"]
"""Crop of a scene: the whole scene, the whole print large, or a detail of the print."""


@dataclass(frozen=True)
class Region:
    """A part of the picture with a variable colour: a printed panel, or an unprinted part with named colours.

    Attributes:
        panel: the panel of the blank that is printed here.
        on: the cloth region that the print lies on; it then has no light of its own.
        box_mm: where on that cloth, x, y, w, h; a panel without one has a map of its own.
        turn: degrees that this place of several is turned further than the others.
        place: the name of this place, where a scene has several.
        size_mm: real size of what u and v run over, for laying surfaces and cloth at their scale.
        surface: the surface shown where none is chosen.
        around: a background, not a part of the product.
    """

    id: str
    title: str
    panel: str | None = None
    colours: dict[str, str] = field(default_factory=dict)
    default: str | None = None
    on: str | None = None
    box_mm: tuple[float, float, float, float] | None = None
    turn: float = 0.0
    place: str | None = None
    size_mm: tuple[float, float] | None = None
    surface: str | None = None
    around: bool = False

    @property
    def mapped(self) -> bool:
        """Return whether the region has texture coordinates."""
        return self.size_mm is not None or (self.panel is not None and self.box_mm is None)

    def check(self, wanted: str | None, surfaces: Container[str]) -> None:
        """Check a colour or surface for this region. Raises :class:`SceneError`."""
        colour, _, surface = (wanted or "").rpartition(" ")
        if self.size_mm is not None and surface in surfaces:
            wanted = colour or None
        self.colour(wanted)

    def colour(self, wanted: str | None) -> str:
        """``#rrggbb`` of a named colour or of a hex code; the default for None. Raises :class:`SceneError`."""
        wanted = wanted or self.default or next(iter(self.colours), "#ffffff")
        if wanted in self.colours:
            return self.colours[wanted]
        try:
            parse_hex(wanted)
        except ImprovaError:
            names = ", ".join(self.colours) or "none"
            raise SceneError(f"{self.title} has no colour '{wanted}'. Named: {names}; or write #rrggbb.") from None
        return wanted


@dataclass(frozen=True)
class Measure:
    """A dimension of the blank: its length in mm and its ends in px of the native picture."""

    title: str
    mm: float
    start: tuple[float, float]
    end: tuple[float, float]


@dataclass(frozen=True)
class Lens:
    """A lens: focus distance, aperture, and px per cm at the focus distance."""

    focus_cm: float
    open_cm: float
    px_cm: float

    def disc_px(self, away_cm: Floats) -> Floats:
        """Return the diameter (…) of the blur of points at a distance, in px of the scene's native size: the circle of confusion, by similar triangles."""
        size = np.float32(2 * self.open_cm * self.px_cm)
        return np.asarray(size * np.abs(away_cm - np.float32(self.focus_cm)) / away_cm, np.float32)


@dataclass(frozen=True)
class SceneInfo:
    """What ``scene.toml`` says. ``views`` are angles in degrees; ``turns`` allows any angle.

    ``drawn`` is the blank of a scene that is drawn by formula and has no pack. ``mirrored`` names views that show the
    scene the other way round. ``lens`` is what blurs the ground with distance;
    ``unprinted`` says that what is not printed of the blank is seen; ``photograph`` that it was made of a photograph;
    ``lead`` that a blank is shown in it at first.
    """

    id: str
    title: str
    kind: str
    templates: tuple[str, ...]
    px: tuple[int, int]
    views: dict[str, float]
    turns: bool
    regions: tuple[Region, ...]
    exposure: float
    folder: Path
    drawn: Template | None = None
    finish: str = ""
    mirrored: tuple[str, ...] = ()
    measures: tuple[Measure, ...] = ()
    lens: Lens | None = None
    unprinted: bool = False
    photograph: bool = False
    lead: bool = False

    @property
    def close(self) -> Close:
        """Return the close-up for small pictures: a body of revolution with its print large."""
        return "print" if self.turns else ""

    @property
    def places(self) -> list[Region]:
        """The printed regions that are places of the same blank, in order; empty where there is only one."""
        return [r for r in self.regions if r.place]

    def printed(self) -> Region:
        """Return the first printed region."""
        return next(r for r in self.regions if r.panel)

    def region(self, region_id: str) -> Region:
        """Return a region by its id. Raises :class:`SceneError`."""
        for region in self.regions:
            if region.id == region_id:
                return region
        raise SceneError(f"{self.title} has no part '{region_id}'. Its parts: {', '.join(r.id for r in self.regions)}.")

    def is_mirrored(self, view: str | None) -> bool:
        """Return whether a view shows the scene with left and right exchanged."""
        return view in self.mirrored

    def angle(self, view: str | None) -> float:
        """Return the angle of a named view; of the first one for None. Raises :class:`SceneError`."""
        if view is None:
            return next(iter(self.views.values()))
        if view not in self.views:
            raise SceneError(f"{self.title} has no view '{view}'. Its views: {', '.join(self.views)}.")
        return self.views[view]


@dataclass(frozen=True)
class Passes:
    """Linear light of a scene at its native size; maps hold u, v, NaN where their region is not near.

    ``cover`` is the product's share of each pixel, ``shade`` what of the ground's light its shadow leaves, ``depth`` the
    distance in cm, (h, w) each, None where a pack lacks them.
    """

    base: Floats
    basis: dict[str, Floats]
    maps: dict[str, Floats]
    cover: Floats | None = None
    shade: Floats | None = None
    depth: Floats | None = None
