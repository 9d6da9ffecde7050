"""Fine lines are averaged where a print turns away from the camera; nothing changes elsewhere."""

from dataclasses import replace

import cv2
import numpy as np
import pytest

from improva.core.mockup.anisotropic import find_grazing, sample
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.view import make_view
from tests.scenery import PX, on_cloth

W, H = 640, 40  # a texel a pixel in the wall's middle


def wall(columns: int = 400, rows: int = 40) -> np.ndarray:
    """The UV map of half a cylinder seen from the side, (rows, columns, 2): u by the arc sine."""
    across = np.linspace(-1, 1, columns, dtype=np.float32)
    u = np.arcsin(across * 0.9999) / np.pi + 0.5
    v = (np.arange(rows, dtype=np.float32) + 0.5) / rows
    return np.stack(np.broadcast_arrays(u[None], v[:, None]), -1).astype(np.float32)


def lines(every: int) -> np.ndarray:
    texture = np.zeros((H, W, 3), np.float32)
    texture[:, ::every] = 1
    return texture


def seen(texture: np.ndarray, uv: np.ndarray, filtered: bool = True) -> np.ndarray:
    grazing = find_grazing(uv, (W, H)) if filtered else ()
    strips = [slice(0, 17), slice(17, uv.shape[0])]
    return np.concatenate([sample(texture, uv[..., 0], uv[..., 1], grazing, strip) for strip in strips])


def test_fine_lines_keep_their_share_of_ink_to_the_edge() -> None:
    uv = wall()
    # towards the edge a pixel sees many lines: what is right is their share of the ink over its own footprint
    shown, chance = seen(lines(6), uv)[..., 0], seen(lines(6), uv, filtered=False)[..., 0]
    edge = slice(370, 396)
    du = np.gradient(uv[..., 0], axis=1)
    fine = cv2.blur(lines(6)[0, :, 0][None], (1, 1))[0]
    truth = np.array(
        [
            [
                fine[max(0, int((u - d / 2) * W)) : int((u + d / 2) * W) + 1].mean()
                for u, d in zip(uv[0, edge, 0], du[0, edge], strict=True)
            ]
        ]
    )
    assert np.abs(shown[:, edge] - truth).mean() < 0.5 * np.abs(chance[:, edge] - truth).mean()
    assert shown[:, edge].mean() == pytest.approx(1 / 6, abs=0.04)


def test_a_plain_print_and_the_middle_of_any_print_do_not_change() -> None:
    uv = wall()
    flat = np.full((H, W, 3), 0.37, np.float32)
    assert np.allclose(seen(flat, uv), 0.37, atol=1e-6)
    art = cv2.GaussianBlur(np.random.default_rng(3).random((H, W, 3), np.float32), (0, 0), 2)
    middle = slice(120, 280)
    assert np.array_equal(seen(art, uv)[:, middle], seen(art, uv, filtered=False)[:, middle])


def test_nothing_is_averaged_across_a_seam_or_a_fold() -> None:
    uv = wall()
    uv[:, 200:, 0] = (uv[:, 200:, 0] + 0.5) % 1  # another part of the print stands beside the first
    uv[10:20] = np.nan
    for each in find_grazing(uv, (W, H)):
        at = np.isin(each.columns, (199, 200))
        assert not at.any() and not np.isin(each.rows, range(10, 20)).any()
        assert np.isfinite(each.du).all() and np.isfinite(each.dv).all() and (np.diff(each.rows) >= 0).all()


@pytest.mark.parametrize("texels", [40, 333, 639])
def test_a_rotated_body_shows_its_texture_shifted_across_the_seam(texels: int) -> None:
    """Rotated by whole texels, the samples equal those of the shifted texture, except at its ends, which now join."""
    uv, art = wall(), np.random.default_rng(5).random((H, W, 3), np.float32)
    grazing, rows, ends = find_grazing(uv, (W, H)), slice(5, 31), slice(4, -4)
    turned = sample(art, uv[..., 0], uv[..., 1], grazing, rows, texels / W)
    rolled = sample(np.roll(art, -texels, axis=1), uv[..., 0], uv[..., 1], grazing, rows)
    assert np.abs(turned - rolled)[:, ends].max() < 0.01


def test_a_rotated_body_has_no_line_at_the_end_of_its_texture() -> None:
    uv = wall()
    smooth = np.cos(np.arange(W, dtype=np.float32) / W * 2 * np.pi)[None, :, None].repeat(H, 0).repeat(3, 2)
    for turn in np.linspace(0.4, 0.6, 11):
        row = sample(smooth, uv[..., 0], uv[..., 1], (), slice(0, H), float(turn))[0, :, 0]
        assert np.abs(row - np.cos(2 * np.pi * (uv[0, :, 0] + turn - 0.5 / W))).max() < 0.02


def test_a_print_rotates_with_its_cloth() -> None:
    info, passes = on_cloth()
    shaded = shade_plain_parts(make_view(replace(info, turns=True), passes, PX), {})
    ink = np.ones((16, 16, 4), np.float32)
    ink[:, 8:, :3] = 0.05
    (left, right), (back_left, back_right) = (
        composite(shaded, {"chest": ink, "corner": np.zeros_like(ink)}, angle)[36, [39, 57], 1].astype(int)
        for angle in (0, 180)
    )
    assert left == back_right > back_left + 50 and right == back_left
