"""An ink drawing with washes: the ibex above the summit tunnel. It is scanned on its paper by the demo's set-up."""

from __future__ import annotations

import math
import random
from collections.abc import Sequence

INK, OCHRE, SLATE, ROSE = "#2b2622", "#b98a55", "#7f93a8", "#d79a86"
Point = tuple[float, float]

BACK = [(352, 330), (392, 352), (440, 398), (500, 436), (600, 452), (700, 446), (790, 458), (838, 492), (852, 560), (836, 640)]
BELLY = [(742, 690), (690, 668), (600, 664), (530, 676), (484, 668)]
CHEST = [(304, 452), (340, 470), (374, 500), (398, 560), (428, 628), (446, 664)]
FACE = [(352, 330), (318, 346), (276, 388), (250, 412), (252, 432), (278, 446), (304, 452)]
HIND = [(836, 640), (842, 700), (826, 760), (832, 840), (812, 872), (776, 872), (786, 834), (782, 764), (768, 716), (742, 690)]
FORE = [(484, 668), (494, 740), (488, 830), (492, 862), (462, 872), (448, 862), (458, 826), (452, 744), (446, 664)]
FAR_HIND = [(742, 690), (722, 748), (730, 820), (722, 866), (694, 868), (702, 822), (690, 756), (700, 690)]
FAR_FORE = [(530, 676), (548, 742), (536, 806), (560, 850), (534, 862), (514, 812), (520, 748), (508, 680)]
HORN = [(362, 328), (366, 262), (392, 190), (446, 130), (520, 104), (594, 120), (640, 176), (648, 226)]
HORN_IN = [(398, 350), (404, 278), (430, 216), (476, 172), (530, 152), (582, 164), (616, 196), (648, 226)]
BEARD = [(288, 448), (294, 500), (306, 532), (318, 494), (322, 462)]
ROCK = [
    (150, 1010),
    (230, 940),
    (330, 892),
    (440, 872),
    (560, 866),
    (700, 872),
    (812, 874),
    (900, 912),
    (980, 980),
    (1060, 1030),
]


def _catmull_rom(p: float, q: float, r: float, s: float, t: float) -> float:
    """A coordinate between ``q`` and ``r``."""
    return 0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t * t + (3 * q - p - 3 * r + s) * t**3)


def smooth(points: Sequence[Point], steps: int = 14) -> list[Point]:
    """A Catmull-Rom curve through points."""
    ends = [points[0], *points, points[-1]]
    out = []
    for a, b, c, d in zip(ends, ends[1:], ends[2:], ends[3:], strict=False):
        for i in range(steps):
            t = i / steps
            out.append((_catmull_rom(a[0], b[0], c[0], d[0], t), _catmull_rom(a[1], b[1], c[1], d[1], t)))
    return [*out, points[-1]]


def path(points: Sequence[Point], closed: bool = True) -> str:
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points) + ("z" if closed else "")


def stroke(rng: random.Random, points: Sequence[Point], width: float = 6.5) -> str:
    """A pen's line: it swells and thins, wanders a little, and tapers at its ends."""
    line = smooth(points)
    phase, left, right = rng.uniform(0, 6), [], []
    for i, (x, y) in enumerate(line):
        (x0, y0), (x1, y1) = line[max(0, i - 1)], line[min(len(line) - 1, i + 1)]
        long = math.hypot(x1 - x0, y1 - y0) or 1
        nx, ny = -(y1 - y0) / long, (x1 - x0) / long
        end = min(1.0, 0.25 + min(i, len(line) - 1 - i) / 7)
        half = width / 2 * end * (1 + 0.35 * math.sin(i / 5 + phase) + rng.uniform(-0.12, 0.12))
        wander = 0.9 * math.sin(i / 9 + 2 * phase)
        left.append((x + nx * (half + wander), y + ny * (half + wander)))
        right.append((x - nx * (half - wander), y - ny * (half - wander)))
    return f'<path d="{path([*left, *right[::-1]])}" fill="{INK}"/>'


def wash(rng: random.Random, outline: Sequence[Point], colour: str, opacity: float, loose: float = 5) -> str:
    """A wash that keeps to its outline only nearly, with the darker rim that drying leaves."""
    edge = [(x + rng.uniform(-loose, loose), y + rng.uniform(-loose, loose)) for x, y in smooth([*outline, outline[0]], 5)]
    d = path(smooth(edge, 4))
    return (
        f'<path d="{d}" fill="{colour}" opacity="{opacity}"/>'
        f'<path d="{d}" fill="none" stroke="{colour}" stroke-width="5" opacity="{opacity * 0.55:.3f}"/>'
    )


def hatching(rng: random.Random, start: Point, end: Point, count: int, lean: Point, length: float) -> str:
    lines = []
    for i in range(count):
        t = i / max(1, count - 1)
        x, y = (a + (b - a) * t + rng.uniform(-4, 4) for a, b in zip(start, end, strict=True))
        n = length * rng.uniform(0.6, 1.1)
        lines.append(
            stroke(rng, [(x, y), (x + lean[0] * n / 2, y + lean[1] * n / 2 + 2), (x + lean[0] * n, y + lean[1] * n)], 4)
        )
    return "".join(lines)


def draw() -> str:
    rng = random.Random(1911)
    body = [*BACK, *HIND[1:-1], *BELLY, *FORE[1:-1], *CHEST[::-1], *FACE[::-1]]
    sun = [(860 + 150 * math.cos(a), 270 + 150 * math.sin(a)) for a in (i * math.tau / 14 for i in range(14))]
    far = [
        (90, 800),
        (210, 640),
        (300, 720),
        (420, 600),
        (560, 760),
        (760, 560),
        (900, 700),
        (1010, 620),
        (1120, 800),
        (620, 860),
    ]
    snow = [*ROCK, (1030, 1080), (800, 1100), (560, 1070), (330, 1096), (170, 1060)]
    ridges = "".join(
        stroke(rng, [a, ((a[0] + b[0]) / 2 + 5, (a[1] + b[1]) / 2 + 4), b], 5)
        for a, b in list(zip(smooth(HORN, 4), smooth(HORN_IN, 4), strict=True))[2:-4:2]
    )
    washes = [
        wash(rng, sun, ROSE, 0.2),
        wash(rng, far, SLATE, 0.1, 7),
        wash(rng, snow, SLATE, 0.13, 7),
        wash(rng, FAR_HIND, OCHRE, 0.55, 2),
        wash(rng, FAR_FORE, OCHRE, 0.55, 2),
        wash(rng, body, OCHRE, 0.42, 3),
        wash(rng, [(440, 398), (600, 452), (790, 458), (850, 560), (760, 600), (600, 590), (470, 560)], OCHRE, 0.3, 6),
        wash(rng, [*HORN, *HORN_IN[::-1]], INK, 0.34, 2),
    ]
    lines = [stroke(rng, line) for line in (BACK, BELLY, CHEST, FACE, HIND, FORE, FAR_HIND, FAR_FORE)]
    lines += [stroke(rng, HORN, 8), stroke(rng, HORN_IN, 6), ridges, stroke(rng, BEARD, 5), stroke(rng, [*ROCK], 8)]
    lines += [
        stroke(rng, [(838, 492), (868, 498), (878, 520), (858, 530)], 6),
        stroke(rng, [(392, 352), (424, 340), (448, 352), (424, 370), (400, 366)], 5),
        stroke(rng, [(250, 412), (262, 418), (266, 428)], 5),
        stroke(rng, [(262, 438), (282, 434)], 4),
        stroke(rng, [(302, 366), (314, 360), (328, 366)], 5),
        '<circle cx="316" cy="370" r="6" fill="#2b2622"/>',
        hatching(rng, (700, 600), (800, 640), 9, (-0.5, 1), 46),
        hatching(rng, (560, 640), (680, 645), 8, (-0.5, -1), 34),
        hatching(rng, (410, 520), (450, 610), 7, (0.7, 0.7), 34),
        hatching(rng, (240, 960), (420, 900), 9, (0.35, 1), 70),
        hatching(rng, (560, 890), (780, 892), 11, (-0.3, 1), 84),
        hatching(rng, (860, 920), (980, 1000), 7, (-0.2, 1), 60),
        stroke(rng, [(440, 872), (470, 930), (450, 990), (490, 1040)], 6),
        stroke(rng, [(700, 872), (690, 940), (730, 1000)], 6),
    ]
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="8in" height="8in" viewBox="0 0 1200 1200">\n<title>The ibex</title>\n'
        + "\n".join([*washes, *lines])
        + "\n</svg>\n"
    )
