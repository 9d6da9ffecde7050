"""What a panel shows of another panel's design: lines of known equations continue across the seam in the exported files."""

from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
import pytest
from PIL import Image

from improva.catalogue import template
from improva.core.design import Design, LinkedPanel, Piece, Placement
from improva.core.fit import place
from improva.core.output.settings import PrintSettings
from improva.core.pieces import Band, Lettering
from improva.core.render import render
from improva.core.sewing.edges import motion_of
from improva.core.sewing.motion import Motion
from improva.fonts import font_bytes
from improva.io.print_file import write_print_file
from tests.conftest import art_of, quadrants

HOODIE = template("hoodie-all-over")
FRONT, POCKET = HOODIE.panel("front"), HOODIE.panel("pocket")


def pixels(image) -> np.ndarray:  # type: ignore[no-untyped-def]
    return image.numpy()[..., :3].astype(np.float32)


def covering(art, panel=FRONT, **placement):  # type: ignore[no-untyped-def]
    return Design(HOODIE, panel, (Piece("art", art.facts.size, Placement(**{"fit": "cover", **placement})),))


def follower(leader: Design, motion: Motion, panel=POCKET) -> Design:  # type: ignore[no-untyped-def]
    return Design(HOODIE, panel, (), linked=LinkedPanel(leader, motion))


LINES = [(0.31, 0.55), (-0.55, 1.05), (0.04, 0.80), (1.7, -0.05)]  # v = slope u + rise, in shares of the picture


def lined(w: int = 1248, h: int = 1448) -> np.ndarray:
    """Dark lines 5 px wide, smooth to a fraction of a pixel."""
    u, v = (np.arange(w) + 0.5)[None] / w, (np.arange(h) + 0.5)[:, None] / h
    away = [np.abs(v - slope * u - rise) * h / np.hypot(1, slope * h / w) for slope, rise in LINES]
    grey = np.clip(np.min(away, axis=0) - 2, 0, 1) * 255
    return np.repeat(grey.round().astype(np.uint8)[..., None], 3, axis=2)


def offsets(image: np.ndarray, line_px) -> list[float]:  # type: ignore[no-untyped-def]
    """Return the distance in px between a line and the dark stroke drawn on it, at points where no other line is near."""
    dark = (255 - image.mean(axis=2)).astype(np.float32)
    h, w = dark.shape
    (x0, y0), (dx, dy) = line_px
    found = []
    across = np.arange(-16, 16.01, 0.25)
    for t in np.linspace(-4000, 4000, 801):
        x, y = x0 + t * dx, y0 + t * dy
        if not (25 < x < w - 25 and 25 < y < h - 25):
            continue
        xs, ys = (x - across * dy).astype(np.float32), (y + across * dx).astype(np.float32)
        strip = cv2.remap(dark, xs[None], ys[None], cv2.INTER_LINEAR)[0]
        if strip[:6].max() > 12 or strip[-6:].max() > 12 or strip.max() < 150:
            continue
        found.append((float((strip * across).sum() / strip.sum()), float(strip.sum())))
    usual = np.median([ink for _, ink in found]) if found else 0
    return [away for away, ink in found if abs(ink - usual) < 0.05 * usual]  # where two meet there is more ink


def on_file(panel, size, points_mm) -> np.ndarray:  # type: ignore[no-untyped-def]
    """Convert points of a panel in mm to pixel coordinates of its file."""
    x, y, w, h = panel.file_box
    return (np.asarray(points_mm) - (x, y)) * (size[0] / w, size[1] / h) - 0.5


@pytest.mark.parametrize("nudge", [(0.0, 0.0), (1.37, -2.21)])
def test_lines_of_known_equations_continue_across_the_pockets_edge(tmp_path: Path, nudge: tuple[float, float]) -> None:
    art = art_of(lined())
    front = covering(art, shift_mm=(7.3, -4.1), scale=1.08)
    (seam,) = (s for s in HOODIE.seams if s.id == "pocket")
    motion = motion_of(seam, FRONT, POCKET).moved(*nudge)
    read = {}
    for design in (front, follower(front, motion)):
        path = tmp_path / f"{design.panel.id}.png"
        write_print_file(design, lambda _: art, path, PrintSettings(dpi=design.panel.dpi, mirror=False))
        read[design.panel.id] = np.asarray(Image.open(path).convert("RGB")).astype(np.float32)

    placed = place(FRONT, art.facts.size, front.pieces[0].placement)
    checked = 0
    for slope, rise in LINES:
        on_front = np.array([placed.from_art(u, slope * u + rise) for u in (0.2, 0.8)])
        for panel, points in ((FRONT, on_front), (POCKET, motion.back()(on_front))):
            image = read[panel.id]
            a, b = on_file(panel, image.shape[1::-1], points)
            away = offsets(image, (a, (b - a) / np.hypot(*(b - a))))
            if panel is POCKET and len(away) > 40:
                checked += 1
            assert not away or np.abs(away).max() <= 0.5, (slope, panel.id, np.abs(away).max())
    assert checked >= 2  # lines that do cross the pocket


def test_moved_by_whole_pixels_the_pocket_is_the_front_to_the_last_bit() -> None:
    step = 25.4 / 150  # at exactly 150 dpi
    whole = replace(FRONT, trim_mm=(600 * step, 700 * step), bleed_mm=10 * step)
    part = replace(POCKET, trim_mm=(200 * step, 150 * step), bleed_mm=10 * step)
    rng = np.random.default_rng(3)
    art = art_of(cv2.resize(rng.integers(0, 255, (90, 80, 3), np.uint8), (640, 720), interpolation=cv2.INTER_CUBIC))
    front = Design(HOODIE, whole, (Piece("art", art.facts.size, Placement("cover", rotate_deg=0)),))
    image = pixels(render(front, lambda _: art, whole.file_px()))
    pocket = Design(HOODIE, part, (), linked=LinkedPanel(front, Motion(shift_mm=(130 * step, 440 * step))))
    seen = pixels(render(pocket, lambda _: art, part.file_px()))
    assert seen.shape[:2] == (170, 220)
    assert np.abs(seen - image[440 : 440 + 170, 130 : 130 + 220]).max() <= 1


@pytest.mark.parametrize(
    "motion", [Motion(90, (400, 100)), Motion(-33.5, (150, 260)), Motion(0, (420, 300), True), Motion(141, (330, 420), True)]
)
def test_a_rotated_or_mirrored_panel_shows_the_art_at_its_place(motion: Motion) -> None:
    """Each point of the following panel has the colour of the first panel's rendering at the point that the motion maps it to."""
    soft = cv2.GaussianBlur(quadrants(500, 580), (0, 0), 9)
    art = art_of(soft)
    leader = covering(art)
    size = (936, 1086)
    front = pixels(render(leader, lambda _: art, size))
    led_size = (364, 224)
    seen = pixels(render(follower(leader, motion), lambda _: art, led_size))
    x, y, w, h = POCKET.file_box
    gx, gy = np.meshgrid(np.arange(20, 344, 9) + 0.5, np.arange(20, 204, 9) + 0.5)
    points = motion(np.stack([gx / led_size[0] * w + x, gy / led_size[1] * h + y], -1).reshape(-1, 2))
    at = on_file(FRONT, size, points).astype(np.float32)
    inside = ((at > 2) & (at < np.array(size) - 3)).all(axis=1)
    assert inside.sum() > 300
    want = cv2.remap(front.astype(np.float32), at[inside, 0][None], at[inside, 1][None], cv2.INTER_LINEAR)[0]
    got = seen[(gy - 0.5).astype(int).ravel(), (gx - 0.5).astype(int).ravel()][inside]
    assert np.abs(want - got).mean() < 1.2 and np.abs(want - got).max() < 12


def test_a_repeat_and_its_pieces_continue_too() -> None:
    art = art_of(quadrants(120, 120))
    front = covering(art, fit="repeat", scale=1.3, rotate_deg=20)
    words = Lettering("RIDGE", font="f", size_mm=60, shift_mm=(0.0, 190.0))
    front = replace(front, extras=(words, Band(width_mm=24, sides="all")), fonts={"f": font_bytes("sans-bold")})
    size = FRONT.file_px()
    image = pixels(render(front, lambda _: art, size))
    seen = pixels(render(follower(front, Motion(shift_mm=(130, 440))), lambda _: art, POCKET.file_px()))
    corner = on_file(FRONT, size, [(130 - 12, 440 - 12)])[0] + 0.5
    h, w = seen.shape[:2]
    xs, ys = np.meshgrid(np.arange(w) + corner[0], np.arange(h) + corner[1])
    want = cv2.remap(image.astype(np.float32), xs.astype(np.float32), ys.astype(np.float32), cv2.INTER_LINEAR)
    soft = [cv2.GaussianBlur(v.astype(np.float32), (0, 0), 2)[6:-6, 6:-6] for v in (want, seen)]
    assert np.abs(soft[0] - soft[1]).mean() < 1.5  # no edge is off by more than part of a pixel
    assert (np.abs(soft[0] - soft[1]) > 40).mean() < 1e-4


def test_panels_that_follow_an_empty_panel_are_empty() -> None:
    image = render(follower(Design(HOODIE, FRONT, ()), Motion(10, (5, 5))), lambda _: None, (60, 40))  # type: ignore[arg-type, return-value]
    assert image.numpy()[..., 3].max() == 0
