"""Art on a tapered wall: bent so that level lines are level on the cup, or laid flat; and its print file."""

from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image
from shapely import Point, Polygon

from improva.catalogue import template
from improva.core.artwork.pixels import Artwork, as_array
from improva.core.design import Design, Piece, Placement
from improva.core.fit import place
from improva.core.output import PrintSettings
from improva.core.preflight import run_preflight
from improva.core.render import render, render_level
from improva.io.print_file import write_print_file
from tests.conftest import art_of, quadrants

TAPER = template("tumbler-20oz-tapered")
PANEL = TAPER.panel()
_cone = PANEL.cone
assert _cone is not None
CONE = _cone
SIZE = (736, round(736 * PANEL.file_mm[1] / PANEL.file_mm[0]))
MM = PANEL.file_mm[0] / SIZE[0]


def design(art: Artwork, **placement: Any) -> Design:
    return Design(TAPER, PANEL, (Piece("art", art.facts.size, Placement(**placement)),))


def bands() -> Artwork:
    """Ten level bands, alternately dark and light, the first one dark, in the proportions of the level rectangle."""
    h = 400
    rows = (np.arange(h) * 10 // h) % 2
    w = round(h * CONE.round_mm / CONE.slant_mm)
    return art_of(np.repeat(np.repeat((rows * 200 + 30).astype(np.uint8)[:, None, None], w, 1), 3, 2))


def test_level_lines_are_level_on_the_cup() -> None:
    art = bands()
    flat = as_array(render(design(art, fit="stretch"), lambda _: art, SIZE))
    for v in (0.05, 0.15, 0.45, 0.85, 0.95):
        x = np.linspace(0.03, 0.97, 40) * CONE.round_mm
        fx, fy = CONE.to_flat(x, np.full(40, v * CONE.slant_mm))
        seen = flat[(fy / MM).astype(int), (fx / MM).astype(int)]
        assert (seen[:, 3] == 255).all()
        dark = int(v * 10) % 2 == 0
        assert (seen[:, 0] < 60).all() if dark else (seen[:, 0] > 200).all()


def test_laid_flat_a_level_line_stays_straight_on_the_paper() -> None:
    art = art_of(np.repeat(np.repeat(np.array([20, 240], np.uint8)[:, None, None], 200, 0).repeat(600, 1), 3, 2))
    flat = as_array(render(design(art, fit="stretch", lay="flat"), lambda _: art, SIZE))
    inside = flat[..., 3] == 255
    upper, lower = flat[: SIZE[1] // 2 - 2], flat[SIZE[1] // 2 + 2 :]
    assert (upper[inside[: SIZE[1] // 2 - 2]][:, 0] < 40).all() and (lower[inside[SIZE[1] // 2 + 2 :]][:, 0] > 220).all()


@pytest.mark.parametrize("lay", ["bent", "flat"])
def test_only_the_ring_is_printed(lay: str) -> None:
    art = art_of(quadrants(900, 700))
    alpha = as_array(render(design(art, lay=lay), lambda _: art, SIZE))[..., 3]
    ring = Polygon(CONE.outline())
    rng = np.random.default_rng(0)
    for x, y in rng.uniform((0, 0), PANEL.trim_mm, (400, 2)):
        distance = ring.exterior.distance(Point(x, y))
        if distance > 0.8:
            assert alpha[int(y / MM), int(x / MM)] == (255 if ring.contains(Point(x, y)) else 0)


def test_bending_and_unbending_give_the_art_back() -> None:
    """The view of the wall of a bent design is the art itself; that of a flat design is the template, resampled along the
    rings.
    """
    x, y = np.meshgrid(np.linspace(0, 1, 900), np.linspace(0, 1, 600))
    art = art_of(np.stack([255 * x, 255 * y, 120 + 60 * np.sin(9 * x)], -1).astype(np.uint8))
    level = (700, round(700 * CONE.slant_mm / CONE.round_mm))
    bent = as_array(render_level(design(art, fit="stretch"), lambda _: art, level)).astype(int)
    assert np.abs(bent[20:-20, 20:-20, 0] - 255 * np.linspace(0, 1, 700)[None, 20:-20]).max() <= 3
    flat = as_array(render_level(design(art, fit="stretch", lay="flat"), lambda _: art, level)).astype(int)
    u, v = 0.3, 0.7
    fx, fy = CONE.to_flat(u * CONE.round_mm, v * CONE.slant_mm)
    found = flat[int(v * level[1]), int(u * level[0])]
    assert found[0] == pytest.approx(255 * fx / PANEL.trim_mm[0], abs=4) and found[1] == pytest.approx(
        255 * fy / PANEL.trim_mm[1], abs=4
    )


def test_dpi_counts_along_the_longer_edge() -> None:
    w = 2910
    art = art_of(np.zeros((round(w * CONE.slant_mm / CONE.round_mm), w, 3), np.uint8))
    placed = place(PANEL, art.facts.size, Placement("stretch"))
    assert placed.box[2:] == pytest.approx((CONE.round_mm, CONE.slant_mm))
    assert placed.dpi[0] == pytest.approx(w / (CONE.round_mm / 25.4))  # 9.7 in: 300 dpi


def test_the_print_file_has_its_true_size_and_a_cut_line_on_request(tmp_path: Path) -> None:
    art = art_of(np.full((500, 800, 3), 200, np.uint8))
    for name, line in (("plain.png", False), ("lined.png", True)):
        size = write_print_file(design(art), lambda _: art, tmp_path / name, PrintSettings(150, cut_line=line))
        assert size == PANEL.file_px(150)
    plain, lined = (np.asarray(Image.open(tmp_path / n).convert("RGBA")).astype(int) for n in ("plain.png", "lined.png"))
    plain, lined = (p[..., :3] * p[..., 3:] // 255 for p in (plain, lined))  # what is hidden does not count
    drawn = np.abs(plain - lined).max(axis=2) > 60
    px_mm = 150 / 25.4
    ring = Polygon(CONE.outline()).exterior
    ys, xs = np.nonzero(drawn)
    far = [ring.distance(Point(x / px_mm, y / px_mm)) for x, y in zip(xs[::37], ys[::37], strict=True)]
    assert len(far) > 50 and max(far) < 0.4
    assert len(xs) > 0.8 * ring.length * px_mm


def test_bleed_grows_the_ring_on_every_side() -> None:
    from dataclasses import replace

    wide = replace(PANEL, bleed_mm=4.0)
    art = art_of(np.full((500, 800, 3), 90, np.uint8))
    grown = Design(TAPER, wide, (Piece("art", art.facts.size, Placement()),))
    alpha = as_array(render(grown, lambda _: art, (740, round(740 * wide.file_mm[1] / wide.file_mm[0]))))[..., 3]
    px = 740 / wide.file_mm[0]
    for outside, expected in ((3.4, 255), (5.2, 0)):
        for u in (0.1, 0.5, 0.9):
            x, y = CONE.to_flat(u * CONE.round_mm, -outside)
            assert alpha[max(0, int((y + 4) * px)), int((x + 4) * px)] == expected or (y + 4) * px < 0


def test_a_seam_is_checked_on_the_cup_and_not_on_the_paper() -> None:
    """A picture that closes on the level rectangle closes on the cup: its ends match along the whole slanted seam."""
    turn = 2 * np.pi * np.arange(900) / 900
    wave = (128 + 90 * np.sin(turn))[None, :, None].repeat(600, 0).repeat(3, 2).astype(np.uint8)
    checks = {c.id: c for c in run_preflight(TAPER, PANEL, art_of(wave), Placement("stretch")).checks}
    assert checks["seam-match"].status == "pass"
    flat = {c.id: c for c in run_preflight(TAPER, PANEL, art_of(wave), Placement("stretch", lay="flat")).checks}
    assert flat["seam-match"].measured > checks["seam-match"].measured  # type: ignore[operator]
