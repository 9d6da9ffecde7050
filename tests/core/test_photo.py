"""A photograph as a scene: perspective, camera, mask and light, compared with rendered photographs of known truth."""

from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
import pytest

from improva.app.scenes import open_scene
from improva.catalogue import template
from improva.core.colour import LINEAR_OF_BYTE, delta_e_2000, lab
from improva.core.errors import PlacementError, SceneError
from improva.core.ink import colour_reflectance, printed
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.photo import Dab, Marks, make_scene, place_of, product_mask, suggested
from improva.core.mockup.photo.camera import body_of, fit_camera
from improva.core.mockup.photo.light import DARKEST, highlights, incident_light, light_of, separate_light
from improva.core.mockup.tone import develop, tone, untoned
from improva.core.mockup.view import View, make_view
from improva.io.scene_pack import read_info, read_passes
from improva.io.scene_pack_writer import write_photo_scene
from tests.photographs import BALL, CORNERS, SIZE, ball, middle_seen, pinhole
from tests.scenery import scene

TUMBLER, TAPERED, MUG, SHIRT, PILLOW = (
    template(name) for name in ("tumbler-20oz-straight", "tumbler-20oz-tapered", "mug-11oz", "t-shirt", "pillow-square")
)


def seen_body(blank=TUMBLER, eye=(0.0, -620.0, 190.0), down=7.0, roll=1.0, focal=1500.0):  # type: ignore[no-untyped-def]
    """Six points marked exactly, and a function that projects any point of the print (turns, height)."""
    body = body_of(blank.panels[0])

    def at(turn_deg: np.ndarray | float, share: np.ndarray | float) -> np.ndarray:
        a = np.radians(np.atleast_1d(turn_deg) - 90.0)
        up = np.broadcast_to(np.atleast_1d(share), a.shape)
        r = body.foot_r + (body.top_r - body.foot_r) * up
        return pinhole(np.stack([r * np.cos(a), r * np.sin(a), up * body.height], 1), eye, down, roll, focal)

    def rim(share: float) -> list[np.ndarray]:
        """Find the ends of a rim's visible side by trying every degree, and a point near its middle."""
        slope = (body.top_r - body.foot_r) / body.height
        r, z = body.foot_r + (body.top_r - body.foot_r) * share, share * body.height
        turns = np.arange(-100, 100, 0.01)
        a = np.radians(turns - 90)
        points = np.stack([r * np.cos(a), r * np.sin(a), np.full(a.shape, z)], 1)
        normals = np.stack([np.cos(a), np.sin(a), np.full(a.shape, -slope)], 1)
        towards = turns[((np.array(eye) - points) * normals).sum(1) > 0]
        return [at(turn, share)[0] for turn in (towards[0], 3.0, towards[-1])]

    return np.array([*rim(1.0), *rim(0.0)]), at


@pytest.mark.parametrize("blank", [TUMBLER, TAPERED, MUG], ids=lambda b: b.id)
def test_a_round_print_is_located_where_a_pinhole_camera_sees_it(blank) -> None:  # type: ignore[no-untyped-def]
    points, at = seen_body(blank)
    place = place_of(blank.panels[0], Marks(tuple(map(tuple, points / SIZE))), SIZE)
    panel = blank.panels[0].level()
    round_mm = panel.trim_mm[0] + blank.panels[0].gap_mm
    for turn in (-60.0, -20.0, 0.0, 35.0, 60.0):
        for share in (0.15, 0.5, 0.85):
            x, y = at(turn, share)[0]
            uv = cv2.remap(place.uv, np.array([[x - 0.5]], np.float32), np.array([[y - 0.5]], np.float32), cv2.INTER_LINEAR)[
                0, 0
            ]
            assert uv[0] == pytest.approx(0.5 + turn / 360 * round_mm / panel.trim_mm[0], abs=0.004)
            assert uv[1] == pytest.approx(1 - share, abs=0.004)
    assert place.off < 0.001


def test_the_focal_length_follows_from_the_rims() -> None:
    points, _ = seen_body(focal=1500.0)
    camera, off = fit_camera(body_of(TUMBLER.panels[0]), points, SIZE)
    assert camera.focal == pytest.approx(1500, rel=0.03) and camera.away == pytest.approx(620, rel=0.03) and off < 0.3


@pytest.mark.parametrize("roll", [-25.0, -8.0, 15.0, 35.0])
def test_a_tilted_photograph_is_straightened(roll: float) -> None:
    points, at = seen_body(roll=roll)
    place = place_of(TUMBLER.panels[0], Marks(tuple(map(tuple, points / SIZE))), SIZE)
    x, y = at(0.0, 0.5)[0]
    assert place.off < 0.001 and np.allclose(place.uv[int(y), int(x)], 0.5, atol=0.01)


def test_points_of_another_blank_are_noticed() -> None:
    points, _ = seen_body(MUG)
    right = place_of(MUG.panels[0], Marks(tuple(map(tuple, points / SIZE))), SIZE)
    wrong = place_of(TUMBLER.panels[0], Marks(tuple(map(tuple, points / SIZE))), SIZE)
    assert right.off < 0.001 and wrong.off > 0.012


def test_another_side_can_face_the_camera() -> None:
    points, _ = seen_body(TUMBLER)
    marks = Marks(tuple(map(tuple, points / SIZE)))
    front = place_of(TUMBLER.panels[0], marks, SIZE).uv
    right = place_of(TUMBLER.panels[0], replace(marks, facing_deg=90.0), SIZE).uv
    both = ~np.isnan(front[..., 0]) & ~np.isnan(right[..., 0]) & (front[..., 0] < 0.7)
    assert np.allclose(right[both][:, 0] - front[both][:, 0], 0.25, atol=1e-3)


def crossed(one: np.ndarray, other: np.ndarray) -> float:
    return float(one[0] * other[1] - one[1] * other[0])


def test_a_flat_print_follows_the_perspective_of_its_corners() -> None:
    place = place_of(PILLOW.panels[0], Marks(tuple(map(tuple, CORNERS))), SIZE)
    px = CORNERS * SIZE
    # where the diagonals cross is the middle, in any perspective
    a, b, c, d = px
    t = crossed(b - a, d - b) / crossed(c - a, d - b)
    x, y = a + t * (c - a)
    assert np.allclose(place.uv[int(y), int(x)], 0.5, atol=0.004)
    area = 0.5 * abs(crossed(c - a, d - b))
    assert place.share.sum() == pytest.approx(area, rel=0.002)


def test_a_sheet_of_paper_gives_the_scale() -> None:
    sheet = np.array(
        [(0.4, 0.3), (0.6, 0.3), (0.6, 0.3 + 0.2 * 4 / 3 * 279.4 / 215.9), (0.4, 0.3 + 0.2 * 4 / 3 * 279.4 / 215.9)]
    )
    marks = Marks(tuple(map(tuple, sheet)), size_mm=(215.9, 279.4), offset_mm=(10.0, 20.0))
    place = place_of(SHIRT.panels[0], marks, SIZE)
    mm_px = 215.9 / (0.2 * SIZE[0])
    on = place.share > 0.5
    ys, xs = np.flatnonzero(on.any(axis=1)), np.flatnonzero(on.any(axis=0))
    assert (xs[-1] + 1 - xs[0]) * mm_px == pytest.approx(12 * 25.4, abs=2.5)
    middle = (xs[0] + xs[-1] + 1) / 2
    assert (middle - 0.5 * SIZE[0]) * mm_px == pytest.approx(10, abs=1.5)
    assert place.measures[0].mm == pytest.approx(12 * 25.4)
    assert (ys[0] + ys[-1] + 1) / 2 > sheet[:, 1].mean() * SIZE[1]


@pytest.mark.parametrize(
    ("blank", "points", "says"),
    [
        (PILLOW, CORNERS[[0, 3, 2, 1]], "in this order"),
        (PILLOW, CORNERS[:3], "needs 4 points"),
        (PILLOW, CORNERS + 5, "far outside"),
        (TUMBLER, CORNERS, "needs 6 points"),
        (TUMBLER, np.array(suggested(TUMBLER.panels[0]))[::-1], "in this order"),
    ],
)
def test_impossible_marks_are_refused(blank, points, says: str) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(SceneError, match=says):
        place_of(blank.panels[0], Marks(tuple(map(tuple, points))), SIZE)


def test_an_invalid_colour_is_refused() -> None:
    with pytest.raises(PlacementError, match="#rrggbb"):
        Marks(tuple(map(tuple, CORNERS)), colour="white").check(PILLOW.panels[0])


@pytest.mark.parametrize("blank", [TUMBLER, TAPERED, MUG, PILLOW, SHIRT], ids=lambda b: b.id)
def test_suggested_points_are_valid(blank) -> None:  # type: ignore[no-untyped-def]
    assert place_of(blank.panels[0], Marks(suggested(blank.panels[0])), SIZE).share.any()


def test_the_mask_follows_the_edge_of_the_product() -> None:
    picture, share = ball()
    cover = product_mask(picture, BALL, middle_seen())
    apart = np.minimum(cover, share).sum() / np.maximum(cover, share).sum()
    assert apart > 0.985
    edge = (share > 0.05) & (share < 0.95)
    assert np.abs(cover - share)[edge].mean() < 0.3, "its edge is soft as the disc's is"


def test_a_large_photograph_is_masked_as_exactly_as_a_small_one() -> None:
    """The mask is made on a small copy; its area in the large photograph still matches the ball's to a hundredth."""
    photo, share = ball()
    size = (3 * SIZE[0], 3 * SIZE[1])
    large, truth = cv2.resize(photo, size, interpolation=cv2.INTER_CUBIC), cv2.resize(share, size)
    seen = cv2.resize(middle_seen().astype(np.uint8), size, interpolation=cv2.INTER_NEAREST) > 0
    cover = product_mask(np.asarray(large, np.uint8), BALL, seen)
    assert np.minimum(cover, truth).sum() / np.maximum(cover, truth).sum() > 0.98
    assert cover[seen].min() > 0.99 and cover[:30].max() < 0.01, "what is marked stays, the border of the picture is left out"


def test_brush_strokes_add_to_the_mask_and_remove_from_it() -> None:
    picture, _ = ball()
    at_px = (150, 300)
    at = (at_px[0] / SIZE[0], at_px[1] / SIZE[1])
    kept = product_mask(picture, replace(BALL, product=(Dab(at, 0.02, True),)), middle_seen())
    left = product_mask(picture, replace(BALL, product=(Dab((0.5, 0.68), 0.05, False),)), middle_seen())
    assert kept[at_px[1], at_px[0]] > 0.9 and left[int(0.68 * SIZE[1]), 400] < 0.1 and left[300, 400] > 0.95


def test_objects_in_front_of_the_print_stay_uncovered() -> None:
    picture, _ = ball()
    cv2.line(picture, (400, 60), (430, 560), (40, 90, 160), 16, cv2.LINE_AA)
    dabs = tuple(Dab(((400 + 30 * t) / SIZE[0], (60 + 500 * t) / SIZE[1]), 0.012, True) for t in np.linspace(0.25, 0.75, 14))
    cover = product_mask(picture, replace(BALL, front=dabs), middle_seen())
    assert cover[300, 414] < 0.15 and cover[300, 360] > 0.9 and cover[300, 470] > 0.9


def test_a_box_around_the_whole_picture_is_refused() -> None:
    picture, _ = ball()
    with pytest.raises(SceneError, match="nothing outside"):
        product_mask(picture, replace(BALL, box=(0.0, 0.0, 1.0, 1.0)), np.ones((SIZE[1], SIZE[0]), bool))


def test_the_tone_curve_is_inverted_exactly() -> None:
    codes = np.arange(256, dtype=np.uint8).reshape(1, -1, 1).repeat(3, axis=2)
    assert np.array_equal(develop(light_of(codes), 1.0), codes)
    light = np.linspace(0, 1.6, 200, dtype=np.float32)
    assert np.allclose(untoned(tone(light)), light, atol=2e-3)


def test_printing_the_blanks_own_colour_reproduces_the_photograph() -> None:
    picture, share = ball()
    for colour in ("#eeeeee", "#c04030"):
        light = light_of(picture)
        base, basis = separate_light(light, share, np.ones(3, np.float32), colour, False)
        again = base + basis * np.maximum(colour_reflectance(colour), DARKEST)
        assert np.array_equal(develop(again, 1.0), picture) and base.min() >= 0 and basis.min() >= 0


def test_highlights_of_a_coloured_blank_are_recognised_by_colour() -> None:
    """Light made by the dichromatic model (Shafer 1985): shading times colour, plus uncoloured highlights."""
    y, x = np.mgrid[0:120, 0:160] / 120
    shade = (0.4 + 0.4 * x).astype(np.float32)
    shine = (0.5 * np.exp(-(((x - 0.6) / 0.1) ** 2) - ((y - 0.5) / 0.3) ** 2)).astype(np.float32)
    rho, fell = colour_reflectance("#c06050"), np.array([1.0, 0.9, 0.8], np.float32)
    light = (shade[..., None] * rho + shine[..., None]) * fell
    found = highlights(light.astype(np.float32), np.ones_like(shade), fell, "#c06050", False)
    assert np.abs(found - shine).max() < 0.01
    assert not highlights(light.astype(np.float32), np.ones_like(shade), fell, "#c06050", True).any(), "cloth has none"


def test_highlights_of_a_white_blank_are_recognised_by_contrast() -> None:
    x = np.linspace(0, 1, 300, dtype=np.float32)[None].repeat(200, axis=0)
    shade = 0.5 + 0.2 * x
    shine = np.where(np.abs(x - 0.4) < 0.03, 0.3, 0).astype(np.float32)
    light = ((shade * 0.86 + shine)[..., None] * np.ones(3)).astype(np.float32)
    found = highlights(light, np.ones_like(x), np.ones(3, np.float32), "#eeeeee", False)
    assert found[100, 120] == pytest.approx(0.3, abs=0.08) and found[:, :90].max() < 0.02 and found[:, 160:].max() < 0.02


def test_the_direction_of_light_follows_from_the_highlight() -> None:
    light = np.full((60, 80, 3), 0.1, np.float32)
    light[20:40, 30:50] = (0.5, 0.45, 0.4)
    fell = incident_light(
        light, np.ones((60, 80), np.float32), Marks(tuple(map(tuple, CORNERS)), plain=(0.5, 0.5), colour="#bcbcbc")
    )
    assert np.allclose(fell * LINEAR_OF_BYTE[0xBC], (0.5, 0.45, 0.4), atol=1e-4)


def lit_print(view: View, art: np.ndarray | None) -> np.ndarray:
    """A picture with art on every print, or with none: (h, w, 3) B, G, R."""
    shaded = shade_plain_parts(view, {})
    ink = np.zeros((16, 16, 4), np.float32) if art is None else np.dstack([art, np.ones(art.shape[:2], np.float32)])
    for edge in (np.s_[0], np.s_[-1], np.s_[:, 0], np.s_[:, -1]):
        ink[edge] = 0
    return composite(shaded, {r.id: ink for r in view.info.regions if r.panel})


def test_a_design_on_a_photograph_matches_a_photograph_of_the_printed_product(tmp_path) -> None:  # type: ignore[no-untyped-def]
    """The photograph is the plain shirt of a path-traced scene; the truth is that scene with the design on it."""
    info, passes = open_scene(scene("t-shirt-front", SHIRT), SIZE)
    true = make_view(info, passes, SIZE)
    photo = lit_print(true, None)
    seen = true.maps["front"]
    rows, columns = seen.rows, seen.columns
    corners = [(columns.start, rows.start), (columns.stop, rows.start), (columns.stop, rows.stop), (columns.start, rows.stop)]
    marks = Marks(tuple((x / SIZE[0], y / SIZE[1]) for x, y in corners), box=(0.02, 0.02, 0.98, 0.98))
    made = make_scene(np.ascontiguousarray(photo[..., ::-1]), SHIRT, SHIRT.panels[0], marks, "own-shirt", "My shirt")
    assert made.notes == []
    write_photo_scene(made, tmp_path)
    own = read_info(tmp_path)
    view = make_view(own, read_passes(own), SIZE)
    assert own.photograph and [r.on for r in own.regions] == ["product", None]
    assert np.abs(lit_print(view, None).astype(int) - photo).mean() < 0.5
    y, x = np.mgrid[0:700, 0:600]
    fields = np.dstack([40 + 180 * (x // 120 % 2), 60 + 150 * (y // 140 % 2), 30 + x // 4]).astype(np.uint8)
    art = printed(fields, np.full(3, 0.86, np.float32))
    apart = delta_e_2000(lab(lit_print(view, art)), lab(lit_print(true, art)))
    assert apart[rows, columns].mean() < 2.5 and np.delete(apart, np.s_[columns], axis=1).mean() < 0.6


def test_flaws_of_a_photograph_are_reported() -> None:
    picture, _ = ball()
    marks = Marks(((0.4, 0.38), (0.6, 0.38), (0.6, 0.62), (0.4, 0.62)), box=(0.2, 0.1, 0.8, 0.9), colour="#202020")
    made = make_scene(picture, PILLOW, PILLOW.panels[0], marks, "own-ball", "Ball")
    assert any("dark" in sentence for sentence in made.notes)
    burnt = np.where(picture > 200, 255, picture).astype(np.uint8)
    made = make_scene(burnt, PILLOW, PILLOW.panels[0], replace(marks, colour="#eeeeee"), "own-ball", "Ball")
    assert any("burnt out" in sentence for sentence in made.notes)


def test_a_mask_without_the_print_is_refused() -> None:
    picture, _ = ball()
    everything = tuple(Dab((x, y), 0.1, False) for x in np.linspace(0.2, 0.8, 9) for y in np.linspace(0.1, 0.9, 9))
    keep = Dab((0.25, 0.5), 0.02, True)
    marks = Marks(((0.4, 0.38), (0.6, 0.38), (0.6, 0.62), (0.4, 0.62)), box=(0.1, 0.0, 0.9, 1.0), product=(*everything, keep))
    with pytest.raises(SceneError, match="mask leaves the whole print out"):
        make_scene(picture, PILLOW, PILLOW.panels[0], marks, "own-ball", "Ball")
