"""UV maps of a scene: stored in steps, read back smooth."""

import numpy as np

from improva.core.mockup.quantised_uv import FINEST, quantise, smooth_quantised


def slanting(h: int = 120, w: int = 400) -> np.ndarray:
    """The UV map of a close view of cloth, where several pixels share a step: (h, w, 2)."""
    y, x = np.mgrid[:h, :w].astype(np.float32)
    u, v = 0.5 + ((x - 200) * 0.7 + y * 0.05) / FINEST, 0.525 + ((y - 60) * 0.9 + (x - 200) * 0.02) / FINEST
    return np.stack([u, v], -1).astype(np.float32)


def read(uv: np.ndarray) -> np.ndarray:
    out = quantise(uv, FINEST)
    smooth_quantised(out, FINEST)
    return out


def test_a_slightly_slanted_edge_is_not_notched() -> None:
    """Return the row at which the map crosses an edge, per column. It jumps in the stored map, and is continuous after
    reading.
    """
    whole = slanting()
    edge = np.float32(0.525 + 0.2 / FINEST)

    def rows(v: np.ndarray) -> np.ndarray:  # between pixels, as bilinear sampling has it
        below = (v < edge).sum(axis=0)
        low, high = (np.take_along_axis(v, at[None], 0)[0] for at in (below - 1, below))
        return below - 1 + (edge - low) / (high - low)

    true, packed, seen = (rows(uv[..., 1])[20:-20] for uv in (whole, quantise(whole, FINEST), read(whole)))
    assert np.abs(packed - true).max() > 0.4, "the steps are seen"
    assert np.abs(seen - true).max() < 0.15


def test_seams_stay_and_pixels_beyond_stay_empty() -> None:
    uv = slanting()
    uv[:, 200:] += 0.25
    uv[:30] = np.nan
    found = read(uv)
    assert np.isnan(found[:30]).all() and np.isfinite(found[30:]).all()
    assert np.nanmax(np.abs(found - uv)) <= 1.01 / FINEST, "half a step of packing, half of reading"


def test_smooth_maps_do_not_change() -> None:
    uv = slanting()
    found = uv.copy()
    smooth_quantised(found, FINEST)
    assert np.abs(found - uv)[8:-8, 8:-8].max() < 1e-6


def test_an_empty_map_stays_empty() -> None:
    uv = np.full((20, 30, 2), np.nan, np.float32)
    smooth_quantised(uv, FINEST)
    assert np.isnan(uv).all()
