"""The mock-up's inner loop: picture = base + Σ basis · reflectance, in linear light, then tone and sRGB."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from .anisotropic import sample
from .colour_bleed import bleed_colour, interpolate_rows, widen_rows
from .maps import PrintMap
from .parallel import Cores
from .reflectance import Beneath, Reflectance, reflected
from .surface import OpenSurface, no_surfaces
from .tone import table
from .view import LARGE_PX, READY_ROWS, Strips, View

STRIP_PX = 360_000
"""Pixels per strip: a strip and its passes fit in a core's cache."""

MOST_WHOLE = 2
"""Most prints whose light is kept in full floats at listing size; more would fill memory."""


@dataclass(frozen=True)
class ShadedView:
    """A view whose unprinted parts are coloured and lit: everything that stays the same while the art changes.

    Of the view only what prints are laid in is kept.
    ``cloth`` holds what lies beneath each print on cloth.
    """

    view: View
    plain: Floats
    cloth: dict[str, Beneath]


def shade_plain_parts(
    view: View, colours: Mapping[str, str | None], open_surface: OpenSurface = no_surfaces, spent: bool = False
) -> ShadedView:
    """Give every region that is not printed its colour or surface.

    A choice is a named colour, ``#rrggbb``, the id of a surface, or for cloth a colour and a weave, ``#rrggbb heather``.
    A view that is ``spent`` is not used again, and its own memory is taken.
    Raises :class:`SceneError` for an unknown part or colour.
    """
    for name in colours:
        view.info.region(name)
    plain = view.base if spent else view.base.copy()
    cloth: dict[str, Beneath] = {}
    for region in view.info.regions:
        if region.panel is None:
            rho = reflected(view, region, colours.get(region.id), open_surface)
            _add_light(plain, view.strips(region.id), rho, view.cores)
            cloth |= {r.id: rho.beneath(view.maps[r.id]) for r in view.info.regions if r.on == region.id and r.id in view.maps}
    names = {r.on or r.id for r in view.info.regions if r.panel}
    halved = len(names) > MOST_WHOLE and view.size[0] * view.size[1] > LARGE_PX
    basis = {name: _halved(view.basis[name]) if halved else view.basis[name] for name in names}
    return ShadedView(replace(view, base=plain, basis=basis, grounds={}), plain, cloth)


def _halved(plane: Floats) -> Floats:
    """Return a plane as half floats, the type of its pass: half the memory, with relative steps of 1/2048."""
    return np.asarray(np.minimum(plane, np.finfo(np.float16).max, out=plane), np.float16)


def _add_light(plain: Floats, basis: Strips, rho: Reflectance, cores: Cores) -> None:
    """Add the light of a part to the picture."""
    cores.by_rows(len(plain), READY_ROWS, lambda rows: cv2.add(plain[rows], rho.shaded(basis(rows), rows), dst=plain[rows]))


def turned(texture: Floats, angle_deg: float) -> Floats:
    """Shift a wrap's texture (h, w, 3) sideways so that the part ``angle_deg`` to the right of the front comes to the front."""
    return np.roll(texture, -round(angle_deg / 360 * texture.shape[1]), axis=1)


def _strip(
    shaded: ShadedView, rows: slice, prints: dict[str, Floats], thrown_: dict[str, Floats], turns: dict[str, float]
) -> Floats:
    """Return the light that prints add to some rows of the picture, in memory that the next strip reuses."""
    added: Floats | None = None
    cores = shaded.view.cores
    for name, texture in prints.items():
        if name not in shaded.view.basis:  # it lies on cloth
            continue
        basis = shaded.view.basis[name][rows]
        memory = "added" if added is None else "more"
        if name in shaded.view.maps:
            seen = shaded.view.maps[name]
            assert seen.near is not None, "prints have it, grounds have not"
            shone = interpolate_rows(thrown_[name], seen.near.step, rows, memory, cores)
            _lay(shone, texture, seen, rows, turns[name])
            np.multiply(shone, basis, out=shone)  # in place: a third plane would evict both from the cache
        else:
            shone = cores.scratch(memory, basis.shape, np.float32)
            np.multiply(basis, np.array(cv2.mean(texture)[:3], np.float32), out=shone)
        added = shone if added is None else np.add(added, shone, out=added)
    if added is None:
        added = cores.scratch("added", (rows.stop - rows.start, shaded.view.size[0], 3), np.float32)
        added[:] = 0
    for name, beneath in shaded.cloth.items():
        _lay_on_cloth(added, shaded, name, prints[name], beneath, rows, turns[name])
    return added


def _lay(colour: Floats, texture: Floats, seen: PrintMap, rows: slice, turn: float) -> None:
    """Write the texture's colour to the rows' pixels that see the print itself."""
    if (part := seen.window(rows)) is None:
        return
    inside, window = part
    rho = sample(texture, seen.u, seen.v, seen.grazing, inside, turn)
    cv2.copyTo(rho, (~seen.far[inside]).view(np.uint8), colour[window])


def _lay_on_cloth(
    added: Floats, shaded: ShadedView, name: str, texture: Floats, beneath: Beneath, rows: slice, turn: float
) -> None:
    """Light the ink of a print on cloth in place of the cloth it covers; ``texture`` is (h, w, 4), premultiplied."""
    seen = shaded.view.maps[name]
    if (part := seen.window(rows)) is None:
        return
    inside, window = part
    ink = sample(texture, seen.u, seen.v, seen.grazing, inside, turn)
    ink[seen.far[inside]] = 0
    under = beneath.reflectance
    colour = ink[..., :3] if beneath.relief is None else ink[..., :3] * beneath.relief[inside]
    more = colour - ink[..., 3:] * (under if under.ndim == 1 else under[inside])
    cloth = shaded.view.info.region(name).on
    assert cloth is not None
    added[window] += shaded.view.basis[cloth][rows][window] * more


def _each_strip(
    shaded: ShadedView, prints: dict[str, Floats], angle_deg: float, keep: Callable[[slice, Floats], object]
) -> None:
    """Compute the picture in parallel strips, and pass each one's rows and light to ``keep``."""
    info = shaded.view.info
    turns = {name: (angle_deg + info.region(name).turn) / 360 % 1 if info.turns else 0.0 for name in prints}
    nears = {name: seen.near for name, seen in shaded.view.maps.items() if name in shaded.view.basis and seen.near is not None}
    (w, h), cores = shaded.view.size, shaded.view.cores
    thrown_ = {name: widen_rows(bleed_colour(prints[name], near, turns[name], cores), near, w) for name, near in nears.items()}
    cores.by_rows(h, STRIP_PX // w, lambda rows: keep(rows, _strip(shaded, rows, prints, thrown_, turns)))


def composite(shaded: ShadedView, prints: dict[str, Floats], angle_deg: float = 0.0) -> NDArray[np.uint8]:
    """Lay prints into a lit view.

    Args:
        lit: the view with its plain parts coloured.
        prints: reflectance a printed region, (h, w, 3) float32 linear in B, G, R; on cloth (h, w, 4), premultiplied.
        angle_deg: rotation of a body of revolution; positive angles bring its right side to the front.

    Returns:
        (h, w, 3) uint8 sRGB in B, G, R order. Pixels that do not see a print but its bounced light take
        the colour of its parts near by, and farther off its mean.
    """
    w, h = shaded.view.size
    out = np.empty((h, w, 3), np.uint8)

    def keep(rows: slice, added: Floats) -> None:
        codes = shaded.view.cores.scratch("codes", added.shape, np.uint16)
        cv2.add(shaded.plain[rows], added, dst=codes, dtype=cv2.CV_16U)  # rounds, and clips light above the table's range
        cv2.LUT(codes, table(), dst=out[rows])

    _each_strip(shaded, prints, angle_deg, keep)
    return out


def composite_light(shaded: ShadedView, prints: dict[str, Floats], angle_deg: float = 0.0) -> Floats:
    """Return the picture before its tone curve: (h, w, 3) exposed linear light in codes of the tone table, B, G, R."""
    out = np.empty_like(shaded.plain)
    _each_strip(shaded, prints, angle_deg, lambda rows, added: np.add(shaded.plain[rows], added, out=out[rows]))
    return out
