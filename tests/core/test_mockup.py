"""The shipped tumbler scene, and what can be placed into it."""

import shutil
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import OpenEXR
import pytest
from PIL import Image

from improva.catalogue import template
from improva.core.colour import delta_e_2000, lab
from improva.core.design import Design
from improva.core.errors import OutputError, SceneError
from improva.core.ink import BLACKEST, colour_reflectance, printed
from improva.core.mockup.composite import composite, composite_light, shade_plain_parts, turned
from improva.core.mockup.maps import on_one_panel
from improva.core.mockup.render import LISTING_SIZES, encode, print_textures, render_mockup
from improva.core.mockup.scene import Passes, Region, SceneInfo
from improva.core.mockup.tone import develop, table, tone
from improva.core.mockup.view import View, crop_window, make_view
from improva.core.output.profile import srgb_profile
from improva.io.scene_pack import read_info, read_passes
from tests.conftest import BLANK, art_of, closed_wave, quadrants
from tests.scenery import PX, grid, on_cloth, plane, scene, scene_info, standing

SIZE = (540, 405)


@pytest.fixture(scope="module")
def info() -> SceneInfo:
    return scene("straight-tumbler-studio", template(BLANK))


@pytest.fixture(scope="module")
def view(info: SceneInfo) -> View:
    return make_view(info, read_passes(info), SIZE)


def flat_print(colour: tuple[int, int, int]) -> np.ndarray:
    return printed(np.full((64, 64, 3), colour, np.uint8), np.array([0.8, 0.8, 0.8], np.float32))[..., ::-1].copy()


def test_the_pack_is_small_and_of_native_size(info: SceneInfo) -> None:
    assert info.px == (2700, 2025) and set(info.views) == {"front", "right", "back", "left"}
    assert (info.folder / "passes.exr").stat().st_size < 6_000_000
    assert info.region("lid").colours and info.printed().panel == "wrap"


@pytest.mark.parametrize("size", LISTING_SIZES.values())
def test_every_listing_size_shows_the_whole_product(info: SceneInfo, size: tuple[int, int]) -> None:
    passes = read_passes(info)
    x, y, w, h = crop_window(info.px, size)
    assert w / h == pytest.approx(size[0] / size[1], rel=2e-3)
    for basis, least in ((passes.basis["wrap"], 0.45), (passes.basis["lid"], 0.2), (passes.basis["straw"], 0.2)):
        ys, xs = np.nonzero(basis.max(axis=2) > least)
        assert x < xs.min() and xs.max() < x + w and y < ys.min() and ys.max() < y + h


def test_new_art_changes_the_print_and_tints_only_lit_surroundings(view: View) -> None:
    shaded = shade_plain_parts(view, {})
    red, blue = (composite(shaded, {"wrap": flat_print(c)})[..., ::-1].astype(int) for c in ((200, 20, 20), (20, 20, 200)))
    h, w = red.shape[:2]
    assert red[h // 2, w // 2, 0] > red[h // 2, w // 2, 2] + 60 and blue[h // 2, w // 2, 2] > blue[h // 2, w // 2, 0] + 60
    assert np.abs(red[:20] - blue[:20]).max() <= 2
    strip = slice(int(w * 0.60), int(w * 0.64))
    bounced = (red[int(h * 0.93), strip] - blue[int(h * 0.93), strip]).mean(axis=0)
    assert bounced[0] >= 0 >= bounced[2]


def test_changing_the_lid_changes_the_lid_only(view: View) -> None:
    art = {"wrap": flat_print((120, 120, 120))}
    white, dark = (composite(shade_plain_parts(view, {"lid": c}), art).astype(int) for c in ("Snow", "Ink"))
    changed = np.abs(white - dark).max(axis=2) > 12
    ys, xs = np.nonzero(changed)
    h, w = changed.shape
    assert ys.min() / h > 0.17 and ys.max() / h < 0.27 and xs.min() / w > 0.39 and xs.max() / w < 0.61


def test_white_art_shows_the_blank_and_black_is_never_quite_black() -> None:
    blank = colour_reflectance("#c8d0c0")
    art = np.zeros((2, 2, 3), np.uint8)
    art[0] = 255
    rho = printed(art, blank)
    assert rho[0, 0] == pytest.approx(blank, rel=1e-5)
    assert rho[1, 1] == pytest.approx(blank * BLACKEST, rel=1e-4) and rho[1, 1].min() > 0


def test_no_dark_or_jagged_rim_at_the_silhouette(view: View) -> None:
    """White art: along a row, light falls off smoothly to the edge; no pixel is darker than both of its sides."""
    picture = composite(shade_plain_parts(view, {}), {"wrap": flat_print((255, 255, 255))})
    grey = picture.mean(axis=2)
    seen = view.maps["wrap"]
    for y in range(seen.rows.start + 40, SIZE[1] // 2, 5):  # before the smooth wall; the table has a grain of its own
        for edge, outward in ((seen.columns.start, -1), (seen.columns.stop - 1, 1)):
            outside, inside = grey[y, edge + 6 * outward], grey[y, edge - 6 * outward]
            rim = grey[y, edge - 4 : edge + 5]
            assert rim.min() > min(outside, inside) - 4


def test_rotation_brings_the_right_side_to_the_front() -> None:
    texture = np.zeros((4, 360, 3), np.float32)
    texture[:, 270] = 1  # a quarter turn to the right of the front, which is the middle
    assert turned(texture, 90)[0, 180, 0] == 1
    assert turned(texture, -270)[0, 180, 0] == 1
    assert np.array_equal(turned(texture, 360), texture)


def test_the_views_show_the_four_sides(view: View, design_of: Callable[..., Design]) -> None:
    sides = np.zeros((H4 := 400, 800, 3), np.uint8)
    colours = {"back": (200, 30, 30), "left": (30, 170, 60), "front": (30, 60, 200), "right": (220, 190, 30)}
    for i, name in enumerate(("back", "left", "front", "right")):
        sides[:, max(0, i * 200 - 100) : i * 200 + 100] = colours[name]
    sides[:, 700:] = colours["back"]
    art = art_of(sides)
    shaded = shade_plain_parts(view, {})
    for name, angle in view.info.views.items():
        picture = render_mockup(shaded, [design_of(art, fit="stretch")], lambda _: art, angle).astype(int)
        middle = picture[H4 // 2, SIZE[0] // 2 - 4 : SIZE[0] // 2 + 4].mean(axis=0)
        nearest = min(
            colours,
            key=lambda c: delta_e_2000(lab(np.array([[middle]], np.uint8)), lab(np.array([[colours[c]]], np.uint8)))[0, 0],
        )
        assert nearest == name


def test_text_reads_left_to_right(view: View, design_of: Callable[..., Design]) -> None:
    art = art_of(quadrants())  # red before green
    picture = render_mockup(shade_plain_parts(view, {}), [design_of(art)], lambda _: art, 0).astype(int)
    y, x = int(SIZE[1] * 0.4), SIZE[0] // 2
    assert picture[y, x - 20, 0] > picture[y, x - 20, 1] and picture[y, x + 20, 1] > picture[y, x + 20, 0]


def test_the_lookup_table_matches_the_tone_curve() -> None:
    light = np.linspace(0, 3.9, 5000)
    codes = (light / 4 * 65535).round().astype(int)
    assert np.abs(table()[0, codes].astype(int) - develop(light, 1.0)).max() <= 1
    assert tone(np.array([0.5])) == pytest.approx(0.5) and tone(np.array([50.0])) == pytest.approx(1)
    assert (np.diff(tone(np.linspace(0, 4, 1000))) >= 0).all()


def test_pictures_are_encoded_with_the_profile() -> None:
    import io

    for ending, kind in ((".jpg", "JPEG"), (".png", "PNG"), (".webp", "WEBP")):
        with Image.open(io.BytesIO(encode(quadrants(), ending))) as picture:
            assert (picture.format, picture.size) == (kind, (465, 410)) and picture.info["icc_profile"]
    with pytest.raises(OutputError, match="endings"):
        encode(quadrants(), ".bmp")


def test_a_scene_of_another_blank_is_refused(view: View, design_of: Callable[..., Design]) -> None:
    design = design_of(art_of(quadrants()))
    other = replace(design, template=replace(design.template, id="mug", title="Mug"))
    with pytest.raises(SceneError, match="not Mug"):
        render_mockup(shade_plain_parts(view, {}), [other], lambda _: pytest.fail("must not be opened"), 0)


@pytest.mark.parametrize(("part", "colour"), [("handle", "Snow"), ("lid", "Mauve"), ("lid", "#12")])
def test_unknown_parts_and_colours_are_reported(view: View, part: str, colour: str) -> None:
    with pytest.raises(SceneError, match="has no"):
        shade_plain_parts(view, {part: colour})


@pytest.mark.parametrize("size", [(4, 4), (40_000, 40_000)])
def test_impossible_sizes_are_reported(info: SceneInfo, size: tuple[int, int]) -> None:
    with pytest.raises(SceneError, match="cannot be made"):
        make_view(info, read_passes(info), size)


def test_the_texture_resolution_matches_the_picture(view: View, design_of: Callable[..., Design]) -> None:
    art = art_of(quadrants())
    prints = print_textures([design_of(art)], lambda _: art, view)
    w, h = view.maps["wrap"].texture_px
    assert prints["wrap"].shape == (h, w, 3)
    # The cup's picture is d px wide and shows its near half; facing the camera, a pixel sees 1 / (π d) of the wrap.
    d = view.maps["wrap"].columns.stop - view.maps["wrap"].columns.start
    assert w == pytest.approx(np.pi * d, rel=0.2)


class TestValidation:
    """A pack of the seller's own is checked on loading."""

    @pytest.fixture
    def pack(self, tmp_path: Path, info: SceneInfo) -> Path:
        folder = tmp_path / "own"
        folder.mkdir()
        text = (info.folder / "scene.toml").read_text().replace("[2700, 2025]", "[8, 6]")
        (folder / "scene.toml").write_text(text)
        self.write(folder)
        return folder

    @staticmethod
    def write(folder: Path, shape: tuple[int, int] = (6, 8), without: str = "", value: float = 0.5) -> None:
        names = [f"{part}.{c}" for part in ("base", "wrap", "lid", "straw", "table", "wall") for c in "RGB"]
        names += ["wrap.u", "wrap.v", "table.u", "table.v"]
        channels = {n: np.full(shape, value, np.float32) for n in names if n != without}
        OpenEXR.File({"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}, channels).write(
            str(folder / "passes.exr")
        )

    def test_a_sound_pack_is_read(self, pack: Path) -> None:
        passes = read_passes(read_info(pack))
        assert passes.base.shape == (6, 8, 3) and passes.maps["wrap"].shape == (6, 8, 2)

    @pytest.mark.parametrize(
        ("old", "new", "says"),
        [
            ('kind = "studio"', 'kind = "cellar"', "cellar"),
            ("[8, 6]", '"wide"', "wrong kind"),
            ('id = "straight-tumbler-studio"', "", "lacks 'id'"),
            ('panel = "wrap"', "", "nothing could be printed"),
            ("exposure = 1.05", "exposure = -1", "exposure"),
            ("#1d1f23", "ink", "no colour"),
            ("turns = true", "turns = ", "not valid TOML"),
        ],
    )
    def test_what_is_wrong_with_scene_toml_is_told(self, pack: Path, old: str, new: str, says: str) -> None:
        path = pack / "scene.toml"
        text = path.read_text()
        assert old in text
        path.write_text(text.replace(old, new))
        with pytest.raises(SceneError, match=says):
            read_info(pack)

    @pytest.mark.parametrize(
        ("options", "says"),
        [
            ({"without": "lid.G"}, r"lacks the channel lid\.G"),
            ({"shape": (5, 8)}, "is not 8 × 6"),
            ({"value": -1.0}, "nowhere"),
            ({"value": float("nan")}, "nowhere"),
        ],
    )
    def test_what_is_wrong_with_the_passes_is_told(self, pack: Path, options: dict[str, Any], says: str) -> None:
        self.write(pack, **options)
        with pytest.raises(SceneError, match=says):
            read_passes(read_info(pack))

    def test_damage_and_absence_are_told(self, pack: Path, tmp_path: Path) -> None:
        (pack / "passes.exr").write_bytes(b"not an EXR")
        with pytest.raises(SceneError, match="damaged"):
            read_passes(read_info(pack))
        shutil.rmtree(pack)
        with pytest.raises(SceneError, match=r"no readable scene\.toml"):
            read_info(pack)


def test_rotating_the_cup_equals_shifting_the_art(view: View, design_of: Callable[..., Design]) -> None:
    """A quarter turn shows the same as the front view of art shifted by a quarter of its width."""
    art = closed_wave(1200, 1058)
    rolled = np.roll(art, -300, axis=1)
    shaded = shade_plain_parts(view, {})
    turned_cup, rolled_art = (
        render_mockup(shaded, [design_of(a := art_of(pixels))], lambda _, a=a: a, angle)  # type: ignore[misc]
        for pixels, angle in ((art, 90.0), (rolled, 0.0))
    )
    error = delta_e_2000(lab(turned_cup), lab(rolled_art))
    assert np.percentile(error, 99) < 1.5 and error.mean() < 0.1


def test_strips_and_threads_do_not_change_the_picture(view: View, monkeypatch: pytest.MonkeyPatch) -> None:
    import improva.core.mockup.composite as module

    shaded = shade_plain_parts(view, {"lid": "Pine"})
    texture = {"wrap": printed(np.ascontiguousarray(closed_wave()[..., ::-1]), np.array([0.8, 0.8, 0.8], np.float32))}
    whole = composite(shaded, texture, 12.0)
    for pixels in (1, 5_000, 10**9):
        monkeypatch.setattr(module, "STRIP_PX", pixels)
        assert np.array_equal(composite(shaded, texture, 12.0), whole)


def test_the_listing_jpeg_is_read_by_others_with_its_profile() -> None:
    import io

    import pyvips

    data = encode(quadrants(), ".jpg")
    read = pyvips.Image.new_from_buffer(data, "", fail_on="warning")
    assert (read.width, read.height, read.bands) == (465, 410, 3) and read.get_typeof("icc-profile-data")
    with Image.open(io.BytesIO(data)) as picture:
        # ITU-T T.871: the JFIF segment stays first
        assert data[6:10] == b"JFIF" and picture.info["icc_profile"] == srgb_profile()
        assert np.abs(np.asarray(picture).astype(int) - quadrants()).mean() < 2


class TestOnCloth:
    """Prints on cloth: ink replaces the cloth that it covers; the cloth shows elsewhere."""

    INK = np.zeros((8, 8, 4), np.float32)
    INK[..., :3], INK[..., 3] = (0.1, 0.2, 0.6), 1.0

    def light(self, colour: str, prints: dict[str, np.ndarray]) -> np.ndarray:
        shaded = shade_plain_parts(make_view(*on_cloth(), PX), {"cloth": colour})
        return composite_light(shaded, prints) / (0.5 * 65535 / 4)

    def test_ink_hides_the_cloth_and_the_rest_shows_it(self) -> None:
        for colour, cloth in (("White", 1.0), ("Black", 0.0)):
            found = self.light(colour, {"chest": self.INK, "corner": self.INK})
            assert np.allclose(found[36, 48], (0.1, 0.2, 0.6), atol=1e-3)  # in the middle of its box
            assert np.allclose(found[36, 26], cloth, atol=1e-3) and np.allclose(found[60, 48], cloth, atol=1e-3)
            assert np.allclose(found[6, 6], (0.1, 0.2, 0.6), atol=1e-3)  # a panel with a map of its own

    def test_the_box_is_where_the_pack_says(self) -> None:
        found = self.light("White", {"chest": self.INK, "corner": self.INK * 0})
        inked = np.abs(found[..., 2] - 0.6) < 0.05
        ys, xs = np.nonzero(inked)
        assert (xs.min(), xs.max(), ys.min(), ys.max()) == (30, 65, 18, 53)  # 300 mm and 180 mm in, 360 mm a side

    def test_half_an_ink_shows_half_the_cloth(self) -> None:
        found = self.light("White", {"chest": self.INK * 0.5, "corner": self.INK * 0})
        assert np.allclose(found[36, 48], np.array((0.05, 0.1, 0.3)) + 0.5, atol=1e-3)


def test_each_copy_in_a_scene_has_its_own_rotation(design_of: Callable[..., Design]) -> None:
    left, right = (Region(f"wrap-{i}", "Print", "wrap", turn=turn, place=str(i)) for i, turn in enumerate((0.0, 180.0)))
    info = scene_info(left, right, turns=True)
    maps = {"wrap-0": grid(slice(0, 72), slice(0, 40)), "wrap-1": grid(slice(0, 72), slice(56, 96))}
    basis = {"wrap-0": plane(0.5, slice(0, 72), slice(0, 40)), "wrap-1": plane(0.5, slice(0, 72), slice(56, 96))}
    shaded = shade_plain_parts(make_view(info, Passes(plane(0.0), basis, maps), PX), {})
    pixels = np.zeros((400, 800, 3), np.uint8)
    pixels[:, 300:500, 0] = 255  # red at the front, blue at the back
    pixels[:, :100, 2] = pixels[:, 700:, 2] = 255
    art = art_of(pixels)
    picture = render_mockup(shaded, [design_of(art, fit="stretch")], lambda _: art, 0).astype(int)
    assert picture[36, 20, 0] > picture[36, 20, 2] + 60 and picture[36, 76, 2] > picture[36, 76, 0] + 60
    assert info.places == [left, right]


def test_a_mirrored_view_mirrors_the_scene_and_not_the_text(design_of: Callable[..., Design]) -> None:
    info, passes = standing(shadow=0.9)
    art = art_of(quadrants())
    plain, flipped = (
        render_mockup(
            shade_plain_parts(make_view(info, passes, PX, mirrored=m), {"table": "White"}), [design_of(art)], lambda _: art, 0
        )
        for m in (False, True)
    )
    inside = (slice(20, 52), slice(32, 64))
    assert np.abs(plain[inside].astype(int) - flipped[inside].astype(int)).mean() < 3  # the print is not turned round
    assert np.array_equal(plain[:, :28], flipped[:, ::-1][:, :28])  # the scene is
    assert plain[36, 75].mean() < plain[36, 20].mean() - 40 and flipped[36, 20].mean() < flipped[36, 75].mean() - 40


def test_scaled_places_on_a_cloth_lie_on_one_of_its_panels() -> None:
    """Two panels lie far apart on the cloth: no place between them is made up where they meet in the picture."""
    uv = np.empty((8, 8, 2), np.float32)
    uv[:, :3], uv[:, 3:] = 0.1, 0.9
    mean = np.asarray(cv2.resize(uv, (4, 4), interpolation=cv2.INTER_AREA), np.float32)
    assert ((mean > 0.2) & (mean < 0.8)).any()
    one = on_one_panel(mean, uv)
    assert set(np.unique(np.round(one, 3))) <= {np.float32(0.1), np.float32(0.9)}
