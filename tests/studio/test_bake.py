"""What the studio makes of path traces, and what its scene files contain; no scene is traced here."""

import math
from pathlib import Path

import numpy as np
import pytest

from improva.catalogue import template
from improva.io.scene_pack import read_info, read_passes
from improva.io.scene_pack_writer import write_scene_toml
from improva.surfaces import SURFACES
from studio import bake, bodies, joining, packing, seen
from studio.bordering import evened
from studio.scenes import SCENES
from studio.stage import Stage


def test_a_crop_encloses_the_visible_product_with_a_margin() -> None:
    mask = np.zeros((300, 400), bool)
    mask[100:150, 200:260] = True
    x, y, w, h = bake.window_of(mask, 0.05)
    assert (x, y, w, h) == (180, 80, 100, 90)
    assert bake.window_of(np.zeros((30, 40), bool)) == (0, 0, 40, 30)
    mask[:, :5] = True
    assert bake.window_of(mask, 0.05)[0] == 0  # not past the frame


def test_a_crop_is_blended_into_its_frame() -> None:
    low, high = np.zeros((50, 100, 3), np.float32), np.ones((60, 80, 3), np.float32)
    out = joining.laid(low, high, (40, 20, 80, 60), (200, 100), 0.05)
    assert np.allclose(out[50, 80], 1) and np.allclose(out[5, 5], 0)
    edge = out[50, 38:56, 0]
    assert (np.diff(edge) >= -1e-6).all() and 0 < edge[4] < 1
    whole = joining.laid(low, np.ones((100, 200, 3), np.float32), (0, 0, 200, 100), (200, 100), 0.05)
    assert np.allclose(whole, 1)  # at the frame's own edge nothing is melted


def test_uv_is_extended_outward_by_the_given_width_only() -> None:
    uv = np.full((21, 21, 2), np.nan, np.float32)
    uv[10, 10] = (0.3, 0.7)
    spread = joining.dilate(uv, 3)
    assert np.allclose(spread[10, 13], (0.3, 0.7)) and np.isnan(spread[10, 14]).all()


def test_sewn_panels_are_not_extended_over_each_other() -> None:
    left, right = (np.full((10, 20, 2), np.nan, np.float32) for _ in range(2))
    left[:, :9], right[:, 11:] = 0.2, 0.8
    apart = joining.kept_apart({"l": left, "r": right}, {"l": joining.dilate(left, 5), "r": joining.dilate(right, 5)})
    both = np.stack([~np.isnan(uv[..., 0]) for uv in apart.values()])
    assert (both.sum(axis=0) <= 1).all() and both[0, :, :9].all() and both[1, :, 11:].all()


def test_light_on_the_background_ends_exactly_at_the_silhouette() -> None:
    """Even light behind an opaque square, traced at half the size, is even up to the square's edge."""
    cover = np.zeros((80, 120), np.float32)
    cover[20:60, 40:80] = 1
    cover[19, 40:80] = 0.5
    half = 0.8 * (1 - cover.reshape(40, 2, 60, 2).mean(axis=(1, 3)))[..., None].repeat(3, 2)
    out = joining.parted(half.astype(np.float32), cover, 0.6)
    assert np.allclose(out[..., 0], 0.8 * (1 - cover), atol=0.02)


def test_light_on_the_background_is_clean_along_the_silhouette() -> None:
    """Light that a coarse trace smears across the edge of a disc is replaced by light from farther inside; the cover decides."""
    y, x = np.mgrid[:200, :200]
    out = np.hypot(x - 99.3, y - 101.7) - 60
    cover = np.clip(0.5 - out, 0, 1).astype(np.float32)
    true = np.repeat((1.4 * (1 - cover) + 0.02 * cover)[..., None], 3, -1)
    smeared = true + np.random.default_rng(3).normal(0, 0.2, true.shape) * (np.abs(out + 1) < 2.5)[..., None]
    assert np.abs(joining.edged(true.astype(np.float32), cover) - true).max() < 0.01
    assert np.abs(joining.edged(smeared.astype(np.float32), cover) - true).max() < 0.01 < np.abs(smeared - true).max()


def test_light_on_thin_parts_is_even_along_them() -> None:
    """A pole 9 px wide has no pixel far from its edge: its light is smoothed along it, without light of the background."""
    x = np.arange(120)[None].repeat(300, 0)
    cover = ((x >= 60) & (x < 69)).astype(np.float32)
    patchy = 0.05 + 0.04 * np.sin(np.arange(300) / 4)[:, None]
    light = np.repeat(np.where(cover > 0, patchy, 1.0).astype(np.float32)[..., None], 3, -1)
    out = joining.edged(light, cover)
    assert np.ptp(out[60:240, 64, 0]) < 0.3 * np.ptp(light[60:240, 64, 0])
    assert out[60:240, 60:69].max() < 0.1 and np.allclose(out[:, :50], 1, atol=1e-3)


def test_soft_light_is_denoised_and_the_product_is_not_changed() -> None:
    rng = np.random.default_rng(3)
    basis = np.full((72, 96, 3), 0.02, np.float32) + rng.normal(0, 0.01, (72, 96, 3)).astype(np.float32)
    product = np.zeros((72, 96), bool)
    product[30:40, 40:50] = True
    out = joining.calmed(basis, product)
    assert np.array_equal(out[32:38, 42:48], basis[32:38, 42:48]) and out[:20].std() < 0.5 * basis[:20].std()


def test_the_usual_reflectance_of_a_region() -> None:
    assert np.allclose(bake.usual({"id": "wrap", "panel": "wrap"}), bake.PRINT)
    oak = bake.usual({"id": "table", "surface": "oak", "colours": {"Grey": "#808080"}})
    assert oak[0] > oak[1] > oak[2] > 0.05  # warm wood, in R, G, B
    assert np.allclose(bake.usual({"id": "lid", "default": "Ink", "colours": {"Snow": "#ffffff", "Ink": "#000000"}}), 0)


def test_a_point_is_projected_as_a_pinhole_does(tmp_path: Path) -> None:
    stage = Stage((400, 300), {}, tmp_path)
    stage.camera((0, -100, 0), (0, 0, 0), 40.0, (0, 0, 0))
    assert stage.project((0, 0, 0)) == [200, 150]
    # similar triangles: half the width at 100 cm is 100 · tan 20°
    right, up = stage.project((100 * math.tan(math.radians(20)), 0, 0)), stage.project((0, 0, 10))
    assert right == pytest.approx([400, 150], abs=0.1) and up[0] == 200 and up[1] < 150


@pytest.mark.parametrize("name", SCENES)
def test_every_scene_has_all_that_a_pack_needs(name: str, tmp_path: Path) -> None:
    scene = SCENES[name]
    folder = tmp_path / name
    folder.mkdir()
    told = packing._told(
        scene, (2700, 2025), {"samples": 1, "seconds_of_bake": 1}, {"focus_cm": 1, "open_cm": 1, "px_cm": 1}, []
    )
    write_scene_toml(folder, told)
    info = read_info(folder)  # checks kinds, views, colours, and what lies on what
    assert info.id == name and info.title and info.finish
    for blank in map(template, info.templates):
        panels = {panel.id for panel in blank.panels}
        assert {r.panel for r in info.regions if r.panel} <= panels
    assert all(r.surface is None or r.surface in SURFACES for r in info.regions)
    assert set(info.mirrored) <= set(info.views)


def test_every_blank_of_the_catalogue_has_a_scene() -> None:
    from improva.catalogue import templates

    shown = {blank for scene in SCENES.values() for blank in scene.pack["templates"]}
    # one is cut from its art, one is paper
    assert set(templates()) - shown == {"pillow-shaped", "transfer-15in"}


@pytest.mark.parametrize(
    ("cup", "blank"),
    [
        (bodies.STRAIGHT_20, "tumbler-20oz-straight"),
        (bodies.TAPERED_20, "tumbler-20oz-tapered"),
        (bodies.TAPERED_30, "tumbler-30oz-tapered"),
        (bodies.TRAVEL, "travel-tumbler"),
    ],
)
def test_cups_are_as_large_as_their_templates(cup: bodies.Cup, blank: str) -> None:
    panel = template(blank).panel()
    if panel.cone is None:
        assert 20 * math.pi * cup.top_r == pytest.approx(panel.trim_mm[0], rel=1e-3)
        assert 10 * cup.wrap == pytest.approx(panel.trim_mm[1], rel=1e-3)
    else:
        slant = 10 * math.hypot(cup.wrap, cup.top_r - cup.foot_r)
        assert slant == pytest.approx(panel.level().trim_mm[1], rel=1e-3)


@pytest.mark.parametrize(("mug", "blank"), [(bodies.MUG_11, "mug-11oz"), (bodies.MUG_15, "mug-15oz")])
def test_mugs_are_as_large_as_their_templates_and_bare_at_the_handle(mug: bodies.Mug, blank: str) -> None:
    panel = template(blank).panel()
    assert (10 * mug.wrap_w, 10 * mug.wrap_h, 10 * mug.gap) == pytest.approx((*panel.trim_mm, panel.gap_mm), rel=1e-6)
    assert mug.gap_deg == pytest.approx(360 * panel.gap_mm / (panel.trim_mm[0] + panel.gap_mm))
    line, half = bodies.mug_handle(mug)
    ends = np.hypot(line[[0, -1], 0], line[[0, -1], 1])
    assert (ends < mug.r).all() and line[:, 0].max() > mug.r + 2  # rooted in the wall, with room for fingers
    assert line[:, 2].min() - half.max() > 0 and line[:, 2].max() + half.max() < mug.height


def test_a_pack_that_is_too_large_is_stored_with_less_precision(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    rng = np.random.default_rng(0)
    noise = rng.uniform(0.2, 0.8, (400, 500, 3)).astype(np.float32)
    flat = np.ones((400, 500), np.float32)
    made = bake.Bake({"base": noise}, {}, flat, flat, flat * 100, 1.0, {"focus_cm": 1, "open_cm": 1, "px_cm": 1})
    sizes = []
    for most in (10**9, 1):
        monkeypatch.setattr(packing, "MOST_BYTES", most)
        packing.write_pack(tmp_path / str(most), SCENES["pen-three"], made, samples=1)
        sizes.append((tmp_path / str(most) / "passes.exr").stat().st_size)
    assert sizes[1] < 0.9 * sizes[0]


def test_maps_are_written_anew_and_light_stays(tmp_path: Path) -> None:
    scene, size = SCENES["tapered-20-studio"], (96, 72)
    rng = np.random.default_rng(1)
    names = ["base", *(region["id"] for region in scene.regions)]
    light = {name: rng.uniform(0.2, 0.8, (72, 96, 3)).astype(np.float32) for name in names}
    flat, wrong = np.ones((72, 96), np.float32), np.full((72, 96, 2), np.nan, np.float32)
    wrong[30:40, 40:50] = 0.5
    lens, measures = seen.lens_and_measures(bake.staged(scene, size, {}, tmp_path), scene)
    folder = tmp_path / "pack"
    made = bake.Bake(light, dict.fromkeys(("wrap", "table"), wrong), flat, flat, flat * 100, 1.0, lens, measures)
    packing.write_pack(folder, scene, made, samples=1)
    before = read_passes(read_info(folder))
    packing.remap(folder, scene)
    after = read_passes(read_info(folder))
    wanted = bake.maps_of(scene, seen.look(scene, size), size)
    for name in ("wrap", "table"):
        shown = (wanted[name] >= 0).all(axis=2)  # what lies left of or above a map is stored as not seen
        assert shown.any() and after.maps[name][shown] == pytest.approx(wanted[name][shown], abs=1e-3)
    for plane, old in ((after.base, before.base), (after.basis["wrap"], before.basis["wrap"])):
        assert np.abs(np.asarray(plane, np.float32) - np.asarray(old, np.float32)).max() < 0.1


def test_a_white_print_on_white_paint_has_no_visible_border_and_steel_stays() -> None:
    """Light of a cup: print between rows 30 and 70, with too dark and too bright border pixels; paint below, steel above."""
    rng = np.random.default_rng(3)
    share = np.zeros((100, 60, 1), np.float32)
    share[30:70] = 1
    share[70] = 0.4
    steel = np.zeros_like(share)
    steel[:30] = 1
    light = np.linspace(0.3, 0.5, 60, dtype=np.float32)[None, :, None] * np.ones((100, 60, 3), np.float32)
    print_, base = light * share, light * 0.8 * (1 - share) * (1 - steel) + light * 0.3 * steel
    noise = rng.uniform(0.8, 1.2, (3, 60, 1)).astype(np.float32)
    rough, rough_base = print_.copy(), base.copy()
    rough[69:72] *= noise
    rough_base[69:72] *= noise
    own, rest = evened(rough, {"base": rough_base}, {"base": np.ones(3, np.float32)}, np.ones((100, 60), np.float32))
    white, ideal = own * 0.8 + rest["base"], print_ * 0.8 + base
    assert np.abs(white / ideal - 1)[67:74, 5:-5].max() < 0.02 < np.abs(rough * 0.8 + rough_base - ideal)[69:72].max()
    assert np.array_equal(own[:60], rough[:60]) and np.array_equal(rest["base"][:60], rough_base[:60]), "steel is seen as such"


def test_a_border_at_a_curved_foot_has_no_bright_line_and_keeps_its_step() -> None:
    """Paint that curves away below the print, a fifth darker there; the border's pixels are brighter than either side."""
    share = np.zeros((60, 80, 1), np.float32)
    share[:30] = 1
    level = np.where(np.arange(60) < 30, 0.6, 0.47).astype(np.float32)[:, None, None] * np.ones((60, 80, 3), np.float32)
    print_, base = level * share, 0.8 * level * (1 - share)
    rough, rough_base = print_.copy(), base.copy()
    for row in (29, 30):
        rough[row, ::7] *= 1.3
        rough_base[row, ::7] *= 1.7
    own, rest = evened(rough, {"base": rough_base}, {"base": np.ones(3, np.float32)}, np.ones((60, 80), np.float32))
    white = (own * 0.8 + rest["base"])[..., 1]
    assert white[20:40, 5:-5].max() <= 0.48 * 1.001 < (rough * 0.8 + rough_base)[20:40, 5:-5, 1].max()
    assert white[28, 40] > 1.2 * white[31, 40], "the step is seen"


def test_leaked_background_light_is_distinguished_from_reflected_light() -> None:
    """On the product, left of column 200: a band along the whole edge, which is light from a wall, and a short spot, which
    is not.
    """
    cover = np.zeros((400, 300), np.float32)
    cover[:, :200] = 1
    light = np.where(cover[..., None] > 0, 0.0, 0.6).astype(np.float32).repeat(3, 2)
    light[:, 180:200] = 0.03
    clean = light.copy()
    light[150:190, 184:200] = 0.09
    found = joining.edged(light, cover)
    assert np.abs(found - joining.edged(clean, cover)).max() < 0.004 < np.abs(light - clean).max()
    assert found[50:350, 195].min() > 0.025 and found[50:350, 210].min() > 0.55


def test_rows_of_spots_along_a_slanted_silhouette_are_reported_too() -> None:
    """Light extended beneath the silhouette comes from just inside it, and not from the last pixel of a spot."""
    y, x = np.mgrid[:300, :420].astype(np.float32)
    inside = y - 100 - 0.05 * x
    cover = np.clip(inside + 0.5, 0, 1)
    light = (0.6 * (1 - cover) + np.where(inside < 18, 0.045, 0.0) * cover)[..., None].repeat(3, 2).astype(np.float32)
    spots = 0.05 * np.maximum(np.sin(2 * np.pi * x / 30), 0) * ((inside > 0) & (inside < 14))
    found = joining.edged(light + spots[..., None], cover)
    assert np.abs(found - joining.edged(light, cover))[:, 60:360].max() < 0.008


def test_uv_of_the_background_continues_past_its_edge() -> None:
    """A slanted plane, cut off at a level edge and at a hole: past both, UV continues linearly."""
    y, x = np.mgrid[:60, :80].astype(np.float32)
    whole = np.stack([0.1 + 0.004 * x + 0.001 * y, 0.2 + 0.008 * y], -1)
    cut = whole.copy()
    cut[:25] = np.nan
    cut[40:46, 30:38] = np.nan
    found = joining.continued(cut, 10)
    assert np.isnan(found[:14]).all(), "no farther than asked for"
    assert np.allclose(found[16:], whole[16:], atol=1e-5)
