"""Crops of a scene: the whole of it, a large print, or a detail."""

import numpy as np
import pytest

from improva.app.scenes import open_scene
from improva.core.mockup.view import close_window, crop_window
from tests.scenery import packs

SIZES = [(2000, 2000), (2700, 2025), (3000, 2000)]


@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("name", ["straight-tumbler-studio", "t-shirt-front"])
def test_each_closer_crop_shows_less_and_the_detail_is_inside_the_print(name: str, size: tuple[int, int]) -> None:
    info, passes = open_scene(packs()[name], (900, 675))
    whole, large, detail = crop_window(info.px, size), close_window(info, passes, size), close_window(info, passes, size, True)
    assert whole[2] >= large[2] > detail[2]
    for x, y, w, h in (whole, large, detail):
        assert x >= 0 and x + w <= info.px[0] and y >= 0 and y + h <= info.px[1]
        assert w / h == pytest.approx(size[0] / size[1], rel=0.01)
    assert detail[2] >= 0.39 * whole[2], "no nearer than the scene's own pixels bear"
    ys, xs = np.nonzero(~np.isnan(next(iter(passes.maps.values()))[..., 0]))
    assert xs.min() < detail[0] + detail[2] / 2 < xs.max() and ys.min() < detail[1] + detail[3] / 2 < ys.max()
