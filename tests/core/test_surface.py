"""Surfaces laid at their real size: the texel of each pixel, and fine patterns that become their mean."""

from dataclasses import replace

import cv2
import numpy as np
import pytest

from improva.core.errors import SceneError
from improva.core.ink import colour_reflectance
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.maps import PrintMap
from improva.core.mockup.scene import Passes, Region
from improva.core.mockup.surface import Surface, seen_surface
from improva.core.mockup.tone import CODES, RANGE
from improva.core.mockup.view import make_view
from improva.surfaces import SURFACES, surface
from tests.scenery import PX, grid, on_cloth, plane, scene_info, standing


def stripes(wide_px: int = 16, size: int = 64) -> np.ndarray:
    on = (np.arange(size) // wide_px) % 2 == 0
    return np.repeat(np.where(on, 0.8, 0.2).astype(np.float32)[None, :, None], size, 0).repeat(3, 2)


def level_map(w: int, h: int) -> PrintMap:
    u, v = np.meshgrid((np.arange(w) + 0.5) / w, (np.arange(h) + 0.5) / h)
    return PrintMap(slice(0, h), slice(0, w), u.astype(np.float32), v.astype(np.float32), np.zeros((h, w), bool), (16, 16))


def test_a_surface_is_laid_at_its_real_size() -> None:
    """64 texels over 64 mm at one pixel per mm: stripes of 16 mm are 16 px wide, and repeat."""
    seen = seen_surface(Surface.of("Stripes", stripes(), (64.0, 64.0)), (192.0, 64.0), level_map(192, 64), None)
    x = np.arange(192) % 32
    assert np.allclose(seen[32, (x > 2) & (x < 14), 0], 0.8, atol=0.02)
    assert np.allclose(seen[32, (x > 18) & (x < 30), 0], 0.2, atol=0.02)


def test_detail_too_fine_to_see_becomes_its_mean() -> None:
    """A thousand stripes across the picture: no moiré is left, and the mean is kept."""
    seen = seen_surface(Surface.of("Stripes", stripes(2), (4.0, 4.0)), (2000.0, 2000.0), level_map(100, 100), None)
    assert seen.std() < 0.01 and seen.mean() == pytest.approx(0.5, abs=0.01)


@pytest.mark.parametrize("halved", [0, 1, 2])
def test_a_pixel_uses_the_matching_half_sizes_across_every_edge(halved: int) -> None:
    """A level sampled at 1, 2 or 4 texels per pixel, over three repeats, compared with OpenCV's sampling with wrapped edges."""
    rng = np.random.default_rng(halved)
    found = Surface.of("Grain", rng.random((48, 80, 3)).astype(np.float32), (80.0, 48.0))
    own = found.pixels
    for _ in range(halved):
        own = np.asarray(cv2.resize(own, (own.shape[1] // 2, own.shape[0] // 2), interpolation=cv2.INTER_AREA), np.float32)
    w, h = 240 >> halved, 144 >> halved
    places = level_map(w, h)
    shift = np.float32(0.3 / w)
    seen = seen_surface(found, (240.0, 144.0), replace(places, u=places.u + shift), None)
    x, y = (at.astype(np.float32) for at in np.meshgrid((np.arange(w) + 0.3) % own.shape[1], np.arange(h) % own.shape[0]))
    expected = cv2.remap(own, x, y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_WRAP) * found.unit
    # the last row and column know no next pixel: their step is told by what is about them
    assert np.abs(seen - expected)[:-4, :-4].max() < 0.02


def test_the_lens_blurs_a_surface_too() -> None:
    sharp = seen_surface(Surface.of("Stripes", stripes(), (64.0, 64.0)), (192.0, 64.0), level_map(192, 64), None)
    blurred = seen_surface(
        Surface.of("Stripes", stripes(), (64.0, 64.0)), (192.0, 64.0), level_map(192, 64), np.full((64, 192), 60, np.float32)
    )
    assert blurred.std() < 0.4 * sharp.std() and blurred.mean() == pytest.approx(sharp.mean(), abs=0.02)


def test_a_background_shows_the_chosen_surface() -> None:
    info, passes = standing()
    view = make_view(info, passes, PX)
    found = {"stripes": Surface.of("Stripes", stripes(), (64.0, 64.0))}
    code = np.float32(0.5 * CODES / RANGE)
    plain = shade_plain_parts(view, {"table": "White"}, found.get).plain
    assert np.allclose(plain[2, 2] / code, 1.0, rtol=1e-3)
    own = shade_plain_parts(view, {"table": "#336699"}, found.get).plain
    assert np.allclose(own[2, 2] / code, colour_reflectance("#336699")[::-1], rtol=1e-3)
    laid = shade_plain_parts(view, {}, found.get).plain  # its own surface, where nothing is chosen
    assert laid[:15, :, 0].std() > 0.05 * code and np.allclose(laid[30, 40], 0)  # the product hides it


def test_a_weave_shades_a_colour_and_keeps_its_mean() -> None:
    info, passes = on_cloth()
    view = make_view(info, passes, PX)
    weave = Surface.of("Weave", stripes(), (64.0, 64.0), tints=True)
    shaded = shade_plain_parts(view, {"cloth": "#808080 weave"}, {"weave": weave}.get)
    grey = colour_reflectance("#808080")[0]
    assert shaded.plain[..., 0].mean() / (0.5 * CODES / RANGE) == pytest.approx(grey, rel=0.03) and shaded.plain.std() > 0
    under = shaded.cloth["chest"]
    assert under.reflectance.ndim == 3 and under.reflectance.mean() == pytest.approx(grey, rel=0.05)
    assert under.relief is None  # ink hides a dye


def test_threads_show_in_ink_that_lies_on_them() -> None:
    info, passes = on_cloth()
    knit = replace(Surface.of("Knit", stripes(), (64.0, 64.0), tints=True), relief=0.5)
    shaded = shade_plain_parts(make_view(info, passes, PX), {"cloth": "#808080 knit"}, {"knit": knit}.get)
    under = shaded.cloth["chest"]
    assert under.relief is not None and under.relief.mean() == pytest.approx(1, abs=0.05)
    shading = under.reflectance[..., 1] / colour_reflectance("#808080")[1]
    assert under.relief[..., 0] == pytest.approx(1 + 0.5 * (shading - 1), abs=1e-3)


def test_a_colour_leaves_a_cloth_its_own_weave() -> None:
    info, passes = on_cloth()
    own = replace(info.region("cloth"), surface="weave")
    info = replace(info, regions=tuple(own if region.id == "cloth" else region for region in info.regions))
    found = {"weave": Surface.of("Weave", stripes(), (64.0, 64.0), tints=True)}
    for wanted in (None, "#808080"):
        shaded = shade_plain_parts(make_view(info, passes, PX), {"cloth": wanted}, found.get)
        grey = colour_reflectance(own.colour(wanted))[0]
        assert shaded.plain.std() > 0.01 and shaded.cloth["chest"].reflectance.mean() == pytest.approx(grey, rel=0.05)


def test_impossible_choices_for_a_part_are_reported() -> None:
    info, _ = standing()
    info.region("table").check("oak", SURFACES)
    info.region("table").check(None, SURFACES)
    for wrong in ("Mauve", "velvet", "#12"):
        with pytest.raises(SceneError, match="has no colour"):
            info.region("table").check(wrong, SURFACES)


@pytest.mark.parametrize("name", SURFACES)
def test_surfaces_that_ship_repeat_without_a_seam(name: str) -> None:
    """Neighbouring texels differ across the seam as they do elsewhere."""
    found = surface(name)
    assert found is not None and found.title == SURFACES[name].title and found.tints == (SURFACES[name].use == "cloth")
    r = found.pixels * found.unit
    assert r.min() >= 0 and r.max() < (4 if found.tints else 1) and r.std() > 0  # nothing is clipped
    for axis in (0, 1):
        inner = np.abs(np.diff(r, axis=axis)).mean(axis=(1 - axis, 2))
        seam = np.abs(np.take(r, 0, axis) - np.take(r, -1, axis)).mean()
        assert seam < np.percentile(inner, 99.5) * 1.6 + 0.01
    assert surface("velvet") is None


def test_two_panels_that_share_a_pixel_do_not_darken_it_twice() -> None:
    cloth = Region("cloth", "Cloth", None, {"White": "#ffffff"}, "White", size_mm=(960.0, 720.0))
    left, right = (Region(name, name, name, on="cloth") for name in ("left", "right"))
    maps = {
        "cloth": grid(slice(0, PX[1]), slice(0, PX[0])),
        "left": grid(slice(0, PX[1]), slice(0, 33)),
        "right": grid(slice(0, PX[1]), slice(33, PX[0])),
    }
    info, passes = scene_info(left, right, cloth), Passes(plane(0.0), {"cloth": plane(0.5)}, maps)
    shaded = shade_plain_parts(make_view(info, passes, (PX[0] // 2, PX[1] // 2)), {})
    ink = np.concatenate([np.full((16, 16, 3), 0.3, np.float32), np.ones((16, 16, 1), np.float32)], axis=2)
    picture = composite(shaded, {"left": ink, "right": ink}, 0).astype(int)
    assert picture.min() >= picture.max() - 1  # column 16 is half the one's and half the other's
