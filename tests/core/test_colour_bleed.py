"""Light that a print reflects onto its surroundings: coloured by the nearby print, soft, without lines of the print."""

from dataclasses import replace

import numpy as np
import pytest

from improva.core.mockup.colour_bleed import bleed_colour
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.scene import Passes
from improva.core.mockup.view import make_view
from tests.scenery import PRINT, PX, SQUARE, grid, scene_info, standing


def test_reflected_light_has_the_colour_of_the_nearby_print() -> None:
    """A print that is red on the left and blue on the right tints the background beside each half in its colour, and less
    with distance.
    """
    rows, columns = slice(20, 40), slice(40, 60)
    uv = np.full((60, 100, 2), np.nan, np.float32)
    uv[rows, columns] = np.stack(np.meshgrid((np.arange(20) + 0.5) / 20, (np.arange(20) + 0.5) / 20), -1)
    basis = np.full((60, 100, 3), 0.4, np.float32)
    info = scene_info(PRINT)
    info = replace(info, px=(100, 60))
    shaded = shade_plain_parts(make_view(info, Passes(np.zeros_like(basis), {"wrap": basis}, {"wrap": uv}), (100, 60)), {})
    art = np.zeros((80, 80, 3), np.float32)
    art[:, :40, 2], art[:, 40:, 0] = 0.8, 0.8  # B, G, R
    picture = composite(shaded, {"wrap": art})[..., ::-1].astype(int)
    left, right, far = picture[30, 36], picture[30, 63], picture[30, 0]
    assert left[0] > right[0] + 40 and right[2] > left[2] + 40 and left[1] == right[1] == 0
    assert abs(far[0] - far[2]) < 0.6 * abs(left[0] - left[2])
    plain = composite(shaded, {"wrap": np.full((80, 80, 3), 0.5, np.float32)})
    assert np.ptp(plain.reshape(-1, 3), axis=0).max() <= 1, "a print of one colour throws that colour everywhere"


@pytest.mark.parametrize("size", [PX, (PX[0] // 2, PX[1] // 2)])
def test_reflected_light_past_the_silhouette_is_soft(size: tuple[int, int]) -> None:
    """A pack's map continues past the product: stripes must not appear on the background, nor disappear at the product's edge."""
    info, passes = standing()
    rows, columns = SQUARE
    passes.maps["wrap"] = grid(slice(rows.start - 6, rows.stop + 6), columns)
    passes.basis["wrap"][rows.stop :, columns] = 0.25
    shaded = shade_plain_parts(make_view(replace(info, px=PX), passes, size), {"table": "#000000"})
    stripes = np.where(np.arange(96) // 8 % 2, 0.9, 0.1).astype(np.float32)[None, :, None].repeat(64, 0).repeat(3, 2)
    picture, times = composite(shaded, {"wrap": stripes})[..., 1].astype(int), PX[0] // size[0]
    printed, outside = (picture[row // times, 32 // times : 64 // times] for row in (rows.stop - 1, rows.stop + 3))
    assert np.ptp(printed) > 100 and np.ptp(outside) < 40


class TestNear:
    """The colours near each point of a picture, on a coarse grid."""

    def near(self, rows: slice, columns: slice, mirrored: bool = False):  # type: ignore[no-untyped-def]
        uv = np.full((300, 400, 2), np.nan, np.float32)
        h, w = rows.stop - rows.start, columns.stop - columns.start
        uv[rows, columns] = np.stack(np.meshgrid((np.arange(w) + 0.5) / w, (np.arange(h) + 0.5) / h), -1)
        info = replace(scene_info(PRINT), px=(400, 300))
        light = np.zeros((300, 400, 3), np.float32)
        view = make_view(info, Passes(light, {"wrap": light}, {"wrap": uv}), (400, 300), mirrored=mirrored)
        found = view.maps["wrap"].near
        assert found is not None
        return found

    def test_beside_a_print_lies_its_edge(self) -> None:
        near = self.near(slice(100, 200), slice(150, 250))
        row, left, right = 150 // near.step, 100 // near.step, 300 // near.step
        assert near.u[row, left] < 0.1 and near.u[row, right] > 0.9
        assert near.v[0, 200 // near.step] < 0.1 and near.share[row, 200 // near.step] == 1
        assert near.share[row, left] > near.share[row, 5] > 0

    def test_the_other_way_round_it_is_the_other_edge(self) -> None:
        plain, other = (self.near(slice(100, 200), slice(20, 120), mirrored) for mirrored in (False, True))
        assert np.allclose(other.u, 1 - plain.u[:, ::-1]) and np.allclose(other.share, plain.share[:, ::-1])

    def test_a_print_thinner_than_the_grid_is_taken_whole(self) -> None:
        near = self.near(slice(101, 103), slice(100, 103))
        assert np.isfinite(near.u).all() and 0 < near.u.mean() < 1 and near.share.max() == 1

    def test_light_of_one_colour_is_of_that_colour(self) -> None:
        near = self.near(slice(100, 200), slice(150, 250))
        colour = np.array([0.1, 0.4, 0.7], np.float32)
        assert np.allclose(bleed_colour(np.broadcast_to(colour, (50, 60, 3)).copy(), near), colour, atol=1e-5)
