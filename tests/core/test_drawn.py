"""Scenes drawn by formula: every blank has one, it has the form of a rendered pack, and art is in the right place."""

from dataclasses import replace
from typing import Any

import cv2
import numpy as np
import pytest

from improva.app.scenes import fingerprint, open_scene
from improva.catalogue import template, templates
from improva.core.artwork.pixels import Artwork
from improva.core.design import Design, Piece, Placement
from improva.core.errors import SceneError
from improva.core.measured_blank import Measures, measured_template
from improva.core.mockup.composite import shade_plain_parts
from improva.core.mockup.drawn import CUT_PX, cut_mask, draw, drawn_scenes
from improva.core.mockup.drawn.body import body_figures, profile
from improva.core.mockup.drawn.height_field import SEAM_MM, Field
from improva.core.mockup.drawn.inflated_shape import inflated, puckered, sag
from improva.core.mockup.drawn.outlines import arranged, bow, rounded
from improva.core.mockup.render import render_mockup
from improva.core.mockup.scene import SceneInfo
from improva.core.mockup.view import make_view
from improva.core.template import Template
from tests.conftest import art_of, quadrants
from tests.scenery import SHIPPED_SCENES, packs, scene, scenes_of

SMALL = (240, 180)


def small(info: SceneInfo) -> SceneInfo:
    return replace(info, px=SMALL)


def pictured(blank: Template, info: SceneInfo, art: Artwork, angle: float = 0.0, **placement: Any) -> np.ndarray:
    info = small(info)
    designs = [
        Design(blank, p, (Piece("art", art.facts.size, Placement(**{"fit": "stretch", **placement})),)) for p in blank.panels
    ]
    shaded = shade_plain_parts(make_view(info, draw(info), SMALL), {})
    return render_mockup(shaded, designs, lambda _: art, angle).astype(int)


@pytest.mark.parametrize("blank", list(templates().values()), ids=lambda t: t.id)
def test_every_blank_has_a_drawn_scene_that_shows_its_print(blank: Template) -> None:
    for info in drawn_scenes(blank):
        passes = draw(small(info))
        assert passes.base.shape == (180, 240, 3) and set(passes.basis) == {r.id for r in info.regions}
        assert np.isfinite(passes.base).all() and passes.base.min() >= 0
        for region in info.regions:
            assert np.isfinite(passes.basis[region.id]).all() and passes.basis[region.id].min() >= 0
            if region.panel:
                seen = ~np.isnan(passes.maps[region.id][..., 0])
                assert seen.mean() > 0.002
                inside = passes.maps[region.id][seen]
                assert inside.min() > -0.02 and inside.max() < 1.02


@pytest.mark.parametrize("blank", ["tumbler-20oz-straight", "tumbler-20oz-tapered", "travel-tumbler"])
def test_a_cup_shows_the_middle_of_its_print_in_front_and_rotates(blank: str) -> None:
    found = template(blank)
    (info,) = drawn_scenes(found)
    strips = np.zeros((200, 400, 3), np.uint8)
    for i, colour in enumerate([(220, 30, 30), (30, 160, 60), (30, 60, 200), (230, 200, 40)]):
        strips[:, i * 100 : (i + 1) * 100] = colour
    for angle, left, right in ((0, 1, 2), (90, 2, 3), (180, 3, 0), (-90, 0, 1)):
        picture = pictured(found, info, art_of(strips), angle)
        shades = [picture[95, 120 + dx] for dx in (-9, 9)]
        for shade, i in zip(shades, (left, right), strict=True):
            ink = np.array([(220, 30, 30), (30, 160, 60), (30, 60, 200), (230, 200, 40)][i])
            assert np.corrcoef(shade, ink)[0, 1] > 0.8, (angle, shade, ink)


def test_a_mugs_handle_points_the_requested_way_and_leaves_a_bare_gap() -> None:
    mug = template("mug-11oz")
    right, left, behind = drawn_scenes(mug)
    dark = art_of(np.full((300, 700, 3), (20, 24, 60), np.uint8))
    for info, side in ((right, 1), (left, -1)):
        uv = draw(small(info)).maps["wrap"][..., 0]
        seen = ~np.isnan(uv)
        centre = np.nonzero(seen.any(axis=0))[0].mean()
        handle = draw(small(info)).basis["handle"].sum(axis=2) > 0.1
        assert (np.nonzero(handle.any(axis=0))[0].mean() - centre) * side > 20
    bare = pictured(mug, behind, dark)
    row = bare[95]
    assert row[:, 0].max() > 150  # the sweep and the mug's bare parts
    printed = np.nonzero(row.sum(axis=1) < 200)[0]
    assert len(printed) > 20


def test_a_tapered_cup_is_wider_at_its_wider_end() -> None:
    blank = template("tumbler-30oz-tapered")
    (info,) = drawn_scenes(blank)
    seen = ~np.isnan(draw(small(info)).maps["wrap"][..., 0])
    rows = np.nonzero(seen.any(axis=1))[0]
    top, foot = seen[rows[6]].sum(), seen[rows[-6]].sum()
    assert top / foot == pytest.approx(11.4 / 8.8, rel=0.12)


def test_art_is_upright_on_flat_products() -> None:
    art = art_of(quadrants(600, 600))
    for blank in ("blanket-upright", "garden-flag", "pillow-square", "transfer-15in", "t-shirt"):
        found = template(blank)
        info = drawn_scenes(found)[0]
        uv = draw(small(info)).maps[info.regions[0].id]
        ys, xs = np.nonzero(~np.isnan(uv[..., 0]))
        cy, cx = (ys.min() + ys.max()) // 2, (xs.min() + xs.max()) // 2
        dy, dx = (ys.max() - ys.min()) // 4, (xs.max() - xs.min()) // 4
        picture = pictured(found, info, art)
        red, green, blue = picture[cy - dy, cx - dx], picture[cy - dy, cx + dx], picture[cy + dy, cx - dx]
        assert red.argmax() == 0 and green.argmax() == 1 and blue.argmax() == 2, blank


def test_the_back_of_a_shirt_has_its_own_scene() -> None:
    shirt = template("t-shirt")
    front, back = drawn_scenes(shirt)
    assert [r.panel for r in front.regions] == ["front"] and [r.panel for r in back.regions] == ["back"]
    art = art_of(quadrants(600, 600))
    designs = [
        Design(shirt, shirt.panel("front"), (Piece("art", art.facts.size, Placement("contain")),)),
        Design(shirt, shirt.panel("back"), ()),
    ]
    shaded = shade_plain_parts(make_view(small(back), draw(small(back)), SMALL), {})
    picture = render_mockup(shaded, designs, lambda _: pytest.fail("an empty side needs no artwork"), 0).astype(int)
    assert (picture.max(axis=2) - picture.min(axis=2)).max() < 40  # nothing but cloth and table


def test_a_custom_blank_is_drawn_from_its_measurements() -> None:
    own = measured_template("own-flask", Measures("Flask", "round", top_mm=300, bottom_mm=220, height_mm=160))
    body = body_figures(own)
    assert (body.rim_r, body.foot_r, body.height) == pytest.approx((300 / 6.28319, 220 / 6.28319, 160), rel=1e-4)
    bands = profile(body)
    assert [b.stuff for b in bands].count("print") == 1
    assert all(b.r[0] >= 0 and b.r[1] >= 0 for b in bands)
    (info,) = scenes_of(own)
    assert pictured(own, info, art_of(quadrants())).shape == (180, 240, 3)
    assert scene(info.id, own).id == info.id
    with pytest.raises(SceneError):
        scene("moon", own)


def test_the_fingerprint_changes_with_the_figures() -> None:
    one = drawn_scenes(template("mug-11oz"))[0]
    other = replace(one, drawn=template("mug-15oz"))
    assert fingerprint(one) == fingerprint(drawn_scenes(template("mug-11oz"))[0]) != fingerprint(other)


def test_small_pictures_are_drawn_at_reduced_size() -> None:
    info = drawn_scenes(template("pen-wrap"))[0]
    quick, passes = open_scene(info, (300, 300))
    assert quick.px == (720, 540) and passes.base.shape == (540, 720, 3)


def test_the_shape_of_a_cut_out_is_its_contour_plus_a_border() -> None:
    """A disc of known radius gives the disc grown by the border, to within a pixel of the mask."""
    pillow = template("pillow-shaped")
    yy, xx = np.mgrid[:400, :400]
    rgba = np.zeros((400, 400, 4), np.uint8)
    rgba[(xx - 200) ** 2 + (yy - 200) ** 2 <= 120**2] = (180, 60, 40, 255)
    art = art_of(rgba)
    design = Design(pillow, pillow.panel(), (Piece("art", art.facts.size, Placement("contain")),))
    mask = cut_mask(design, lambda _: art)
    radius = (0.3 + pillow.panel().safe_mm / 400) * CUT_PX
    assert mask.sum() == pytest.approx(np.pi * radius**2, rel=0.02)
    info = next(i for i in drawn_scenes(pillow) if i.kind == "flat")
    whole, cut = draw(small(info)), draw(small(info), mask)
    seen = [(~np.isnan(p.maps["shape"][..., 0])).mean() for p in (whole, cut)]
    assert seen[1] == pytest.approx(seen[0] * np.pi * radius**2 / CUT_PX**2, rel=0.12)  # carried past the edge by a few pixels
    empty = Design(pillow, pillow.panel(), ())
    assert cut_mask(empty, lambda _: art).all()


def disc(radius: float, size: int = 150, at: tuple[float, float] = (0.0, 0.0)) -> np.ndarray:
    y, x = np.mgrid[:size, :size] - (size - 1) / 2
    return np.asarray(np.hypot(x - at[0], y - at[1]) <= radius)


def test_a_membrane_sags_as_the_equation_says() -> None:
    """On a disc ∇²u = -1 has the closed form u = (R² - r²) / 4."""
    mask = disc(60)
    y, x = np.mgrid[:150, :150] - 74.5
    true = np.where(mask, (60.25**2 - x**2 - y**2) / 4, 0)
    assert np.abs(sag(mask) - true).max() < 0.03 * true.max()
    assert sag(np.zeros((9, 9), bool)).max() == 0


def test_a_stuffed_shape_is_highest_where_it_is_widest() -> None:
    two = disc(40, at=(-30, 0)) | disc(22, at=(34, 0))
    height, inside = inflated(two, 1.0)
    assert (height[~two] == 0).all() and height[74, 44] > 1.3 * height[74, 108] > 5
    assert inside.max() == pytest.approx(40, abs=1.5)
    narrow = puckered(two, inside, 1.0)
    assert np.abs(narrow[inside > 30]).max() < 0.2 < np.abs(narrow[(inside > 2) & (inside < 8)]).max()


def standing() -> tuple[SceneInfo, Template]:
    pillow = template("pillow-shaped")
    return next(i for i in drawn_scenes(pillow) if i.id.endswith("-standing")), pillow


def test_a_standing_pillow_shows_its_front_its_edge_and_its_shadow() -> None:
    info, _ = standing()
    passes = draw(replace(info, px=(480, 360)), disc(100, 300))
    near = ~np.isnan(passes.maps["shape"][..., 0])
    assert passes.cover is not None and passes.shade is not None
    on = passes.cover > 0.5
    rows, columns = np.flatnonzero(on.any(axis=1)), np.flatnonzero(on.any(axis=0))
    high, wide = rows[-1] - rows[0], columns[-1] - columns[0]
    assert 0.75 < wide / high < 1.0, "a disc turned away is narrower than high"
    assert 240 < rows[-1] < 350, "it stands on the ground"
    back = on & (passes.basis["shape"].max(axis=-1) < 0.02)
    assert 0 < back.sum() < 0.05 * on.sum(), "a sliver of the unprinted back is seen past the seam"
    assert passes.base[back].min() > 0.05, "and it has the blank's own light"
    assert passes.shade[rows[-1] - 2 :, columns[0] : columns[-1]].min() < 0.7 and passes.shade[:60].min() > 0.97
    uv = passes.maps["shape"][near & on]
    assert 0.15 < uv[:, 0].min() < 0.3 and 0.7 < uv[:, 0].max() < 0.86  # the disc spans a sixth to five sixths of its panel
    assert np.allclose(passes.basis["table"].max(axis=-1)[on & (passes.cover > 0.99)], 0)


def test_ray_hits_on_a_pillow_agree_with_small_steps_along_the_ray() -> None:
    y, x = np.mgrid[:300, :300] / 150.0 - 1
    cut = np.hypot(x, y) < 0.75 + 0.15 * np.cos(5 * np.arctan2(y, x))
    height, _ = inflated(cut, 1.5)
    field = Field(height, cut, 1.5)
    start = np.array([900.0, 250.0, 2000.0], np.float32)  # mm
    u, v = np.meshgrid(np.linspace(-260, 260, 200, dtype=np.float32), np.linspace(-260, 260, 200, dtype=np.float32))
    rays = np.stack([u, v, np.zeros_like(u)], -1) - start
    hits = field.hit(start, rays, float(height.max()) + SEAM_MM)
    most, z = float(height.max()) + SEAM_MM, rays[..., 2]
    t, found = field.march(field.way(start, rays), (most - start[2]) / z, (-most - start[2]) / z, 400)
    both = found & (hits.cover == 1)
    assert both.sum() > 0.95 * max(found.sum(), (hits.cover > 0.5).sum()) > 5000
    apart = np.linalg.norm(hits.places - (start + t[..., None] * rays), axis=-1)[both]
    assert np.median(apart) < 0.02 and np.percentile(apart, 99.5) < 0.5  # mm, of 2000


def test_any_contour_can_stand() -> None:
    info, _ = standing()
    star = np.zeros((300, 300), np.uint8)
    a = np.linspace(-np.pi / 2, 1.5 * np.pi, 11)[:-1]
    r = np.where(np.arange(10) % 2 == 0, 140, 55)
    cv2.fillPoly(star, [np.stack([150 + r * np.cos(a), 150 + r * np.sin(a)], 1).astype(np.int32)], 1)
    ring = disc(130, 300) & ~disc(60, 300)
    apart = disc(40, 300, (-90, -60)) | disc(50, 300, (70, 40))
    for cut in (star.astype(bool), ring, apart, None):
        passes = draw(replace(info, px=(240, 180)), cut)
        light = [passes.base, *passes.basis.values()]
        assert all(np.isfinite(plane).all() and plane.min() > -0.02 for plane in light)
        assert passes.cover is not None and 0.02 < (passes.cover > 0.5).mean() < 0.7
    hole = draw(replace(info, px=(480, 360)), ring)
    assert hole.cover is not None
    rows, columns = np.nonzero(hole.cover > 0.5)
    assert hole.cover[(rows.min() + rows.max()) // 2, (columns.min() + columns.max()) // 2] < 0.1, (
        "the ground is seen through it"
    )


def test_panels_as_cut_never_overlap() -> None:
    placed = arranged(template("hoodie-all-over").panels)
    boxes = [(x, y, x + p.trim_mm[0], y + p.trim_mm[1]) for p, x, y in placed]
    for i, a in enumerate(boxes):
        for b in boxes[i + 1 :]:
            assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1]


def test_curves_pass_through_their_points() -> None:
    curve = bow((0, 0), (10, 5), (20, 0))
    assert curve[0] == (0, 0) and curve[-1] == (20, 0) and min(np.hypot(x - 10, y - 5) for x, y in curve) < 1e-9
    box = rounded((0, 0, 40, 20), 5)
    assert box.min(axis=0) == pytest.approx((0, 0)) and box.max(axis=0) == pytest.approx((40, 20))


def test_a_blanks_first_scene_is_the_leading_one(monkeypatch: pytest.MonkeyPatch) -> None:
    mug = template("mug-11oz")
    ids = [info.id for info in scenes_of(mug)]
    assert ids[0] == "mug-11oz-studio" and "mug-11oz-both" in ids[1:]
    lead, other = packs()["mug-11oz-studio"], packs()["mug-11oz-above"]
    photo = replace(other, id="mine", photograph=True, kind="studio")
    found = {info.id: info for info in (photo, replace(other, kind="studio"), lead)}
    monkeypatch.setattr(SHIPPED_SCENES, "packs", lambda: found)
    assert [info.id for info in scenes_of(mug)] == ["mug-11oz-studio", "mug-11oz-above", "mine"]
    monkeypatch.setattr(SHIPPED_SCENES, "packs", lambda: {"mine": photo})
    assert [info.drawn is not None for info in scenes_of(mug)] == [True, True, True, False], "a photograph replaces no scene"


@pytest.mark.parametrize("blank", list(templates().values()), ids=lambda t: t.id)
def test_every_side_of_a_blank_is_visible_in_some_scene(blank: Template) -> None:
    found = scenes_of(blank)
    assert {p.id for p in blank.panels} <= {region.panel for info in found for region in info.regions}
    assert len({info.id for info in found}) == len(found)
