"""Light and places from captured probes."""

from pathlib import Path

import numpy as np
import pytest

from studio import light
from studio.stage import Stage
from studio.tracing import render

NAMES = sorted(path.stem for path in light.FOLDER.glob("*.exr"))


def even(value: float = 0.2, h: int = 64, w: int = 128) -> light.Image:
    return np.full((h, w, 3), value, np.float32)


def test_values_that_are_not_finite_are_replaced_by_what_is_around_them() -> None:
    broken = even()
    broken[10, 20] = (np.inf, 0.2, np.nan)
    found = light.cleaned(broken)
    np.testing.assert_allclose(found.light, even())
    assert found.sun is None


def test_a_sun_that_was_clipped_to_one_colour_is_taken_out_and_its_place_kept() -> None:
    clipped = even()
    clipped[30:32, 100:102] = (0.1, 0.1, 9000)
    found = light.cleaned(clipped)
    np.testing.assert_allclose(found.light, even())
    assert found.sun == (101 / 128, 31 / 64)


@pytest.mark.parametrize("name", NAMES)
def test_every_probe_that_ships_is_clean_and_named_among_the_assets(name: str) -> None:
    found = light.probe(name).light
    assert np.isfinite(found).all() and (found >= 0).all()
    assert f"probes/{name}.exr" in Path(light.FOLDER.parent / "ASSETS.md").read_text(encoding="utf-8")


def test_what_is_out_of_focus_keeps_its_light() -> None:
    bright = even(0.1)
    bright[32, 64] = 50.0
    soft = light.softened(bright, 512, 6.0)
    assert soft.mean() == pytest.approx(bright.mean(), rel=0.03)
    assert soft.max() < 20 and (soft > 0.2).sum() / 3 > 50  # a disc
    assert soft[:, :8].mean() == pytest.approx(0.1, rel=1e-3)  # both ends of the panorama meet


@pytest.mark.parametrize(("at", "turn"), [((0.5, 0.5), 0.0), ((0.5, 0.5), 25.0), ((0.6, 0.4), -20.0)])
def test_a_point_of_a_probe_is_seen_where_its_direction_says(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, at: tuple[float, float], turn: float
) -> None:
    shown = even(0.01)
    shown[round(at[1] * 64) - 1 : round(at[1] * 64) + 1, round(at[0] * 128) - 1 : round(at[0] * 128) + 1] = 5
    monkeypatch.setattr(light, "probe", lambda _: light.Probe(shown, at))
    monkeypatch.setattr(light, "WIDTH", 512)
    stage = Stage((120, 80), {}, tmp_path)
    stage.camera((0, 0, 0), (0, 1, 0), 100, (0, 1, 0), 0.0001)
    light.place(stage, "any", turn, disc_deg=1.0)
    picture = render(stage.parts, 16)[..., 0]
    y, x = np.argwhere(picture > picture.max() / 2).mean(axis=0) + 0.5
    expected = stage.project(light.towards(at, turn))
    assert (x, y) == pytest.approx(expected, abs=1.5)
