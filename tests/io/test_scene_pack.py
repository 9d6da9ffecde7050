"""Scene packs: the content of ``scene.toml``, quick passes, and the packs that ship."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from improva.catalogue import template
from improva.core.colour import delta_e_2000, lab
from improva.core.errors import SceneError
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.render import LISTING_SIZES
from improva.core.mockup.scene import SceneInfo
from improva.core.mockup.view import crop_window, make_view
from improva.io import scene_pack as pack
from improva.io.scene_pack import quick_info, read_info, read_passes
from tests.conftest import BLANK
from tests.scenery import packs, scene


@pytest.fixture(scope="module")
def info() -> SceneInfo:
    return scene("straight-tumbler-studio", template(BLANK))


def test_quick_passes_show_the_same_picture(info: SceneInfo) -> None:
    """Quick passes have half the size, for previews: the same crop, the same light."""
    small = quick_info(info)
    assert small is not None and small.px == (1350, 1012)
    art = {"wrap": np.full((64, 64, 3), (0.05, 0.2, 0.45), np.float32)}  # linear B, G, R
    whole = composite(shade_plain_parts(make_view(info, read_passes(info), (480, 360)), {}), art)
    quick = composite(shade_plain_parts(make_view(small, read_passes(small, quick=True), (480, 360)), {}), art)
    assert delta_e_2000(lab(whole), lab(quick)).mean() < 0.6


def test_a_pack_without_quick_passes_is_read_at_full_size(tmp_path: Path, info: SceneInfo) -> None:
    assert quick_info(replace(info, folder=tmp_path)) is None
    (tmp_path / "quick.exr").write_bytes(b"damaged")
    assert quick_info(replace(info, folder=tmp_path)) is None


class TestWhatAPackSays:
    """Optional keys of scene.toml are validated on reading."""

    @pytest.fixture
    def folder(self, tmp_path: Path) -> Path:
        (tmp_path / "own").mkdir()
        return tmp_path / "own"

    def read(self, folder: Path, more: str = "", regions: str = "") -> SceneInfo:
        head = (
            'id = "own"\ntitle = "Own"\nkind = "flat"\ntemplates = ["t-shirt"]\npx = [80, 60]\nviews = { front = 0 }\n' + more
        )
        cloth = '[[regions]]\nid = "cloth"\nsize_mm = [800, 600]\ncolours = { White = "#ffffff" }\n'
        front = '[[regions]]\nid = "front"\npanel = "front"\non = "cloth"\nbox_mm = [200, 100, 300, 350]\n'
        (folder / "scene.toml").write_text(f"{head}\n{regions or cloth + front}", encoding="utf-8")
        return read_info(folder)

    def test_a_print_on_cloth_and_measures_are_read(self, folder: Path) -> None:
        measure = '\n[[measures]]\ntitle = "Width"\nmm = 520\nfrom = [10, 20]\nto = [70, 20]\n'
        info = self.read(folder, f"unprinted = true\nlens = {{ focus_cm = 90, open_cm = 0.3, px_cm = 40 }}\n{measure}")
        assert info.region("front").box_mm == (200, 100, 300, 350) and not info.region("front").mapped
        assert info.region("cloth").mapped and info.unprinted and info.lens is not None and info.lens.focus_cm == 90
        assert (info.measures[0].mm, info.measures[0].start, info.measures[0].end) == (520, (10, 20), (70, 20))

    @pytest.mark.parametrize(
        ("regions", "says"),
        [
            ('[[regions]]\nid = "front"\npanel = "front"\non = "shirt"\nbox_mm = [0, 0, 1, 1]\n', "lies on 'shirt'"),
            ('[[regions]]\nid = "a"\npanel = "front"\n[[regions]]\nid = "front"\npanel = "front"\non = "a"\n', "lies on 'a'"),
            ('[[regions]]\nid = "a"\n[[regions]]\nid = "front"\npanel = "front"\non = "a"\nbox_mm = [0, 0, 1, 1]\n', "size_mm"),
            ('[[regions]]\nid = "front"\npanel = "front"\nbox_mm = [0, 1]\n', "4 numbers are wanted, not 2"),
        ],
    )
    def test_cloth_that_cannot_be_is_told(self, folder: Path, regions: str, says: str) -> None:
        with pytest.raises(SceneError, match=says):
            self.read(folder, regions=regions)

    @pytest.mark.parametrize(
        "more", ["lens = 7", "lens = { focus = 3 }", "[[measures]]\ntitle = 'W'\nmm = 3\nfrom = [1]\nto = [2, 3]\n"]
    )
    def test_other_values_of_the_wrong_kind_are_told(self, folder: Path, more: str) -> None:
        with pytest.raises(SceneError, match="wrong kind"):
            self.read(folder, more)


@pytest.mark.parametrize("name", sorted(packs()))
def test_every_shipped_pack_is_complete_small_and_shows_its_prints(name: str) -> None:
    info = packs()[name]
    sizes = [file.stat().st_size for file in info.folder.iterdir()]
    assert sum(sizes) < 6_000_000 and info.px == (2700, 2025)
    # hosts of repositories keep larger files elsewhere, and may leave a note in their place
    assert max(sizes) < 4 * 1024 * 1024
    assert pack._sizes(info.folder / "passes.exr") == {info.px}
    small = quick_info(info)
    assert small is not None
    passes = read_passes(small, quick=True)
    assert passes.cover is not None
    cover = passes.cover.astype(np.float32)
    if info.kind == "detail":
        assert (cover > 0.5).mean() > 0.6
        return  # a close-up shows a part of the product
    assert 0.03 < (cover > 0.5).mean() < 0.9
    framed = max(cover[0].max(), cover[-1].max(), cover[:, 0].max(), cover[:, -1].max()) < 0.5
    for size in LISTING_SIZES.values():  # the whole product is inside every listing size; of a person, arms may be cut off
        x, y, w, h = crop_window(small.px, size)
        inside = cover[y : y + h, x : x + w].sum() / cover.sum()
        assert inside > (0.95 if framed else 0.9)


def test_all_packs_together_stay_within_their_size_limit() -> None:
    assert sum(file.stat().st_size for info in packs().values() for file in info.folder.iterdir()) < 260_000_000
