"""Panels in a rendered scene: a following panel shows what the uncut design would show there."""

import numpy as np
import pytest
from skimage.metrics import structural_similarity

from improva.app.scenes import open_scene
from improva.catalogue import template
from improva.core.colour import delta_e_2000, lab
from improva.core.design import Design, LinkedPanel, Piece, Placement
from improva.core.ink import printed
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.render import UNDERBASE, print_textures
from improva.core.mockup.view import make_view
from improva.core.sewing.edges import motion_of
from improva.core.sewing.seams import LaidOn
from improva.core.template import Panel
from improva.surfaces import surface
from tests.conftest import art_of, quadrants
from tests.scenery import scene

HOODIE = template("hoodie-all-over")
FRONT, POCKET = HOODIE.panel("front"), HOODIE.panel("pocket")
(SEAM,) = (seam for seam in HOODIE.seams if seam.id == "pocket")
BENT = "hoodie-all-over-front"
SIZE = (800, 600)


def field(x: np.ndarray, y: np.ndarray) -> np.ndarray:
    """The uncut design: smooth colours of known equations over the front's trim in mm, (…, 3) R, G, B."""
    waves = np.stack([np.sin(x / 17 + y / 41), np.cos(y / 13), np.sin((x - y) / 23)], -1)
    return (128 + 80 * waves).round().astype(np.uint8)


def plane(panel: Panel, box: tuple[float, float, float, float], px: tuple[int, int], offset=(0.0, 0.0)) -> np.ndarray:  # type: ignore[no-untyped-def]
    x, y, w, h = box
    xs, ys = x + (np.arange(px[0]) + 0.5) * w / px[0], y + (np.arange(px[1]) + 0.5) * h / px[1]
    return field(*np.meshgrid(xs + offset[0], ys + offset[1]))


@pytest.fixture(scope="module")
def seen():  # type: ignore[no-untyped-def]
    info = scene(BENT, HOODIE)
    return shade_plain_parts(make_view(*open_scene(info, SIZE), SIZE), {}, surface)


def picture(shaded, nudge=(0.0, 0.0)) -> np.ndarray:  # type: ignore[no-untyped-def]
    """The mock-up of the product, with the pocket following the front; with an offset, of a sample sewn that far from its
    place.
    """
    art = art_of(plane(FRONT, FRONT.file_box, (2496, 2896)))
    front = Design(HOODIE, FRONT, (Piece("art", art.facts.size, Placement("stretch")),))
    pocket = Design(HOODIE, POCKET, (), linked=LinkedPanel(front, motion_of(SEAM, FRONT, POCKET).moved(*nudge)))
    return composite(shaded, print_textures([front, pocket], lambda _: art, shaded.view), 0.0)[..., ::-1]


def direct(shaded) -> np.ndarray:  # type: ignore[no-untyped-def]
    """The equations evaluated directly in the scene's textures, without panels, fitting or following."""
    info, prints = shaded.view.info, dict[str, np.ndarray]()
    blank = print_textures([Design(HOODIE, FRONT, ())], lambda _: art_of(quadrants(8, 8)), shaded.view)  # bare panels
    for region in info.regions:
        if region.panel is None:
            continue
        prints[region.id] = blank[region.id]
        if region.panel in ("front", "pocket"):
            assert isinstance(SEAM, LaidOn)
            panel, offset = HOODIE.panel(region.panel), SEAM.offset_mm if region.panel == "pocket" else (0.0, 0.0)
            px = tuple(2 * side for side in shaded.view.maps[region.id].texture_px)
            colours = plane(panel, (0, 0, *panel.trim_mm), px, offset)
            ink = printed(np.ascontiguousarray(colours[..., ::-1]), UNDERBASE)
            prints[region.id] = np.concatenate([ink, np.ones_like(ink[..., :1])], axis=2)
    return composite(shaded, prints, 0.0)[..., ::-1]


def test_a_following_pocket_in_a_scene_shows_the_uncut_design(seen) -> None:  # type: ignore[no-untyped-def]
    # CIEDE2000 (Sharma, Wu, Dalal 2005); SSIM (Wang et al. 2004) by scikit-image
    ours, uncut = picture(seen), direct(seen)
    away = delta_e_2000(lab(np.ascontiguousarray(ours)), lab(np.ascontiguousarray(uncut)))
    assert away.mean() < 0.3
    assert structural_similarity(ours, uncut, channel_axis=2) > 0.995


def test_a_misplaced_pocket_changes_only_the_pocket(seen) -> None:  # type: ignore[no-untyped-def]
    ours, off = picture(seen), picture(seen, nudge=(6.0, 0.0))
    changed = np.abs(ours.astype(int) - off).max(axis=2) > 6
    (region,) = (r for r in seen.view.info.regions if r.panel == "pocket")
    there = np.zeros(changed.shape, bool)
    of_pocket = seen.view.maps[region.id]
    there[of_pocket.rows, of_pocket.columns] = ~of_pocket.far
    assert (changed & there).sum() > 0.5 * there.sum() and (changed & ~there).sum() < 0.05 * changed.sum()
