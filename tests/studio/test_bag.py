"""The tote's shape: sewn as its template says, cloth as long as the panels are cut, nothing through the floor."""

import numpy as np
import pytest

pytest.importorskip("mitsuba")

from studio import bag


def places(sheet: str) -> tuple[np.ndarray, np.ndarray]:
    """Return points in cm, and their positions on the panel in mm."""
    at, uv = bag.sheets()[sheet]
    return at, uv * bag.BLANK.panel(sheet.split("@", maxsplit=1)[0]).trim_mm


def point(sheet: str, x: float, y: float) -> tuple[np.ndarray, float]:
    """Return the point nearest to a position on the panel, in cm, and its distance from that position, in mm."""
    at, mm = places(sheet)
    away = np.hypot(mm[..., 0] - x, mm[..., 1] - y)
    where = np.unravel_index(away.argmin(), away.shape)
    return at[where], float(away.min())


@pytest.mark.parametrize("seam", [s for s in bag.BLANK.seams if not s.id.startswith("bottom")], ids=lambda s: str(s.id))
def test_sides_and_gussets_meet_where_the_template_sews_them(seam) -> None:  # type: ignore[no-untyped-def]
    left = "left" in seam.id  # as the strip runs: it begins at the bag's left
    for share in (0.02, 0.3, 0.6, 0.97):
        found = []
        for end in (seam.first, seam.second):
            x, y = np.asarray(end.start) + share * (np.asarray(end.end) - np.asarray(end.start))
            sheet = f"gusset@{'left' if left else 'right'}" if end.panel == "gusset" else end.panel
            at, away = point(sheet, x, y)
            assert away < 2
            found.append(at)
        assert np.linalg.norm(found[0] - found[1]) < 0.25


@pytest.mark.parametrize("sheet", ["front", "back", "gusset@left", "gusset@right"])
def test_a_print_is_neither_stretched_nor_squeezed(sheet: str) -> None:
    at, mm = (plane[: -round(2.8 / bag.H * bag.ROWS)] for plane in places(sheet))  # the foot's corners are tucked in
    for axis in (0, 1):
        cloth = np.linalg.norm(np.diff(at, axis=axis), axis=2).sum(axis=axis)
        panel = np.linalg.norm(np.diff(mm, axis=axis), axis=2).sum(axis=axis) / 10
        assert np.abs(cloth / panel - 1).max() < 0.09


def test_the_bag_stands_on_the_floor() -> None:
    low = [at[..., 2].min() for at, _ in bag.sheets().values()]
    assert min(low) > -0.01 and max(low) < 0.1


def test_normals_point_to_the_viewer_if_rows_run_down() -> None:
    x, z = np.meshgrid(np.arange(5.0), -np.arange(4.0))
    normal = bag.normals(np.stack([x, 0 * x, z], -1))
    assert (normal[..., 1] < 0).all() and np.allclose(normal[..., [0, 2]], 0)
