"""A wrap: the last train over the viaduct at dusk. It closes by construction, for all that runs round is periodic."""

from __future__ import annotations

import math
import random
from collections.abc import Sequence

from demo.draw import lettering

W, H = 930.0, 820.0
COPIES = (-W, 0.0, W)  # what crosses the edge is drawn again on the other side


def ridge(base: float, waves: Sequence[tuple[int, float, float]], fill: str, jag: float = 0.0, seed: int = 1) -> str:
    """A mountain ridge as a sum of whole waves round the wrap, with facets of ``jag`` that repeat too."""
    rng = random.Random(seed)
    steps = 155
    rough = [rng.uniform(-jag, jag) for _ in range(steps)]
    points = []
    for i in range(steps + 1):
        u = i / steps
        y = base + sum(a * math.sin(2 * math.pi * (n * u + p)) for n, a, p in waves) + rough[i % steps]
        points.append(f"{u * W:.1f},{y:.1f}")
    return f'<polygon points="0,{H} {" ".join(points)} {W},{H}" fill="{fill}"/>'


def snowfields(base: float, waves: Sequence[tuple[int, float, float]], seed: int) -> str:
    rng, out = random.Random(seed), []
    for _ in range(26):
        u = rng.random()
        y = base + sum(a * math.sin(2 * math.pi * (n * u + p)) for n, a, p in waves)
        if y > base - 12:
            continue
        s = rng.uniform(7, 18)
        d = f"M0 3l{s * 0.5:.1f} {s * 0.9:.1f} {-s * 0.32:.1f} {s * 0.25:.1f} {-s * 0.1:.1f} {s * 0.8:.1f} {-s * 0.5:.1f} {-s * 0.7:.1f}z"
        out += [f'<path transform="translate({u * W + dx:.1f} {y:.1f})" d="{d}"/>' for dx in COPIES]
    return f'<g fill="#f2c9b4" opacity=".55">{"".join(out)}</g>'


def pine(x: float, y: float, h: float, fill: str) -> str:
    tiers = []
    for i in range(5):
        top, half = y - h + i * h * 0.17, h * (0.07 + 0.045 * i)
        foot = top + h * 0.30
        tiers.append(f"M{x:.1f} {top:.1f}L{x + half:.1f} {foot:.1f}Q{x:.1f} {foot - h * 0.05:.1f} {x - half:.1f} {foot:.1f}Z")
    trunk = f"M{x - h * 0.02:.1f} {y - h * 0.1:.1f}h{h * 0.04:.1f}V{y + 4:.1f}h{-h * 0.04:.1f}z"
    return f'<path d="{"".join(tiers)}{trunk}" fill="{fill}"/>'


def forest(count: int, base: float, wave: float, low: float, high: float, fill: str, seed: int) -> str:
    rng, trees = random.Random(seed), []
    for i in range(count):
        x = (i + rng.uniform(0.15, 0.85)) * W / count
        y = base + wave * math.sin(2 * math.pi * (2 * x / W + 0.3))
        h = rng.uniform(low, high)
        trees += [pine(x + dx, y, h, fill) for dx in COPIES]
    return "".join(trees)


def viaduct(y: float) -> str:
    arches, pitch = [], W / 15
    for i in range(16):
        x = (i - 0.5) * pitch
        arches.append(
            f"M{x + 9:.1f} {H:.0f}V{y + 62:.1f}a{pitch / 2 - 9:.1f} {pitch / 2 - 9:.1f} 0 0 1 {pitch - 18:.1f} 0V{H:.0f}z"
        )
    wall = (
        f'<path fill-rule="evenodd" d="M{-pitch:.1f} {y}H{W + pitch:.1f}V{H}H{-pitch:.1f}z{"".join(arches)}" fill="#4a3656"/>'
    )
    light = "".join(f'<path d="M{i * pitch - 9 + pitch / 2:.1f} {y + 26}v{H}h3v-{H}z" fill="#6a5070"/>' for i in range(16))
    courses = "".join(f'<path d="M0 {y + d}H{W}" stroke="#241a31" stroke-width="1.1" opacity=".55"/>' for d in (9, 16))
    posts = "".join(f"M{i * pitch / 2:.2f} {y}v-9" for i in range(31))
    rail = f'<path d="{posts}M0 {y - 9}H{W}" stroke="#2a1f38" stroke-width="1.6" fill="none"/>'
    return f'{wall}{light}<path d="M0 {y}H{W}v7H0z" fill="#715a78"/>{courses}{rail}'


def coach(x: float, y: float, w: float, body: str) -> str:
    n = int(w // 17)
    gap = w / n
    panes = "".join(
        f'<rect x="{x + i * gap + gap * 0.2:.1f}" y="{y - 31}" width="{gap * 0.6:.1f}" height="12.5" rx="1.6"/>'
        for i in range(n)
    )
    wheels = "".join(f'<circle cx="{x + d:.1f}" cy="{y - 3.5}" r="3.5"/>' for d in (9, 18, w - 18, w - 9))
    return (
        f'<path d="M{x} {y - 36}q0-5 5-5h{w - 10}q5 0 5 5v30h{-w}z" fill="{body}"/>'
        f'<path d="M{x - 1.5} {y - 39}q{w / 2 + 1.5}-9 {w + 3} 0z" fill="#221a2c"/>'
        f'<path d="M{x} {y - 15}h{w}v2.2h{-w}z" fill="#f0c987"/>'
        f'<g fill="#ffe3a0">{panes}</g><g fill="#1a1422">{wheels}</g>'
        f'<path d="M{x + 4} {y - 6}h{w - 8}v3h{-w + 8}z" fill="#1a1422"/>'
    )


def engine(x: float, y: float) -> str:
    """A rack engine facing left: its boiler is level only on the slope, so it leans forward here."""
    wheels = "".join(
        f'<circle cx="{x + d}" cy="{y - 7}" r="7" fill="#1a1422"/><circle cx="{x + d}" cy="{y - 7}" r="2.6" fill="#8a3b3a"/>'
        for d in (22, 39, 56)
    )
    return (
        f'<path d="M{x + 6} {y - 12}h72v-6H{x + 6}z" fill="#1a1422"/>'
        f'<path d="M{x + 4} {y - 35}q-4 10 0 20h48v-24z" fill="#7c2f34"/>'
        f'<path d="M{x + 49} {y - 50}h27v35H{x + 49}z" fill="#8e383b"/><path d="M{x + 45} {y - 53}h36v4H{x + 45}z" fill="#221a2c"/>'
        f'<rect x="{x + 55}" y="{y - 45}" width="14" height="13" rx="1.5" fill="#ffe3a0"/>'
        f'<path d="M{x + 10} {y - 36}l-2.5-17h11l-2 16.400z" fill="#221a2c"/><path d="M{x + 5.500} {y - 54}h16v4h-16z" fill="#3b2c46"/>'
        f'<path d="M{x + 28} {y - 38}q5-11 10-.8z" fill="#caa25e"/>'
        f'<path d="M{x + 5} {y - 15}l-9 9h12z" fill="#221a2c"/><circle cx="{x - 1}" cy="{y - 27}" r="4" fill="#fff2c8"/>'
        f'<path d="M{x - 3} {y - 30}l-74-13v31l74-12z" fill="url(#beam)"/>{wheels}'
        f'<path d="M{x + 22} {y - 7}h34" stroke="#caa25e" stroke-width="2.2"/>'
    )


def steam(x: float, y: float) -> str:
    rng, puffs = random.Random(11), []
    for i in range(34):
        t = i / 33
        cx, cy = x + t * 300 + rng.uniform(-6, 6), y - 18 - 66 * t**0.55 + rng.uniform(-9, 9) * (0.4 + t)
        puffs.append(
            f'<circle cx="{cx:.1f}" cy="{cy:.1f}" r="{6 + 20 * t**0.7 + rng.uniform(-2, 3):.1f}" opacity="{0.62 * (1 - t) ** 0.8 + 0.04:.2f}"/>'
        )
    return f'<g fill="#f6d9c9">{"".join(puffs)}</g>'


def hut(x: float, y: float) -> str:
    """The signal hut at the back of the wrap, with its lamp lit."""
    return (
        f'<g transform="translate({x} {y})"><path d="M-30 0v-34h60V0z" fill="#4a2f3a"/>'
        '<path d="M-38-32 0-58 38-32z" fill="#2a1d2b"/><path d="M-38-32 0-58 38-32l-6 1L0-53-32-31z" fill="#e9c4b0" opacity=".8"/>'
        '<path d="M-28-8h56M-28-16h56M-28-24h56" stroke="#3a2430" stroke-width="1.2"/>'
        '<rect x="-18" y="-27" width="15" height="13" fill="#ffdf9a"/><path d="M-10.500-27v13M-18-20.500h15" stroke="#4a2f3a" stroke-width="1.300"/>'
        '<path d="M6 0v-25h13V0z" fill="#33202b"/><path d="M17-50v-10h7v13z" fill="#33202b"/>'
        '<path d="M56 0v-76h4V0z" fill="#2a1d2b"/><path d="m58-72 30-9v11l-30 6z" fill="#b8403a"/><path d="m72-76.200 5-1.500v10.600l-5 1z" fill="#f4ead8"/>'
        '<circle cx="58" cy="-62" r="4.500" fill="#ffb45c"/><circle cx="58" cy="-62" r="11" fill="#ffb45c" opacity=".25"/></g>'
    )


def stars() -> str:
    rng = random.Random(5)
    dots = []
    for _ in range(150):
        x, y = rng.uniform(0, W), rng.random() ** 1.5 * 235
        dots.append(
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{rng.uniform(0.5, 1.7) * (1 - y / 400):.2f}" opacity="{(1 - y / 260) * rng.uniform(0.4, 1):.2f}"/>'
        )
    return f'<g fill="#fff1dc">{"".join(dots)}</g>'


def draw() -> str:
    far = [(2, 34, 0.08), (3, 26, 0.41), (5, 16, 0.77), (9, 7, 0.2)]
    mid = [(2, 22, 0.55), (4, 24, 0.1), (7, 11, 0.62), (13, 4, 0.3)]
    near = [(3, 18, 0.2), (5, 9, 0.8), (8, 4, 0.5)]
    track = 560.0
    x = 330.0
    train = engine(x, track - 9) + "".join(
        coach(x + 86 + i * 108, track - 9, 102, c) for i, c in enumerate(("#8e383b", "#8e383b", "#3f5a58"))
    )
    words = lettering.line(
        lettering.DECO, "SUMMIT LINE", 46, W / 2, 748, anchor="middle", tracking=40, fill="#f7e3c3"
    ) + lettering.line(lettering.SANS, "LAST TRAIN UP 19:40", 16, W / 2, 778, anchor="middle", tracking=200, fill="#f0b98a")
    return f"""<svg xmlns="http://www.w3.org/2000/svg" width="9.3in" height="8.2in" viewBox="0 0 {W:g} {H:g}">
<title>Dusk on the Summit Line</title>
<defs><linearGradient id="sky" x2="0" y2="1"><stop offset="0" stop-color="#141b3d"/><stop offset=".2" stop-color="#2b2f63"/>
<stop offset=".38" stop-color="#6b4777"/><stop offset=".5" stop-color="#b9627a"/><stop offset=".6" stop-color="#ea9170"/><stop offset=".68" stop-color="#f8c27c"/></linearGradient>
<linearGradient id="beam" x1="1" x2="0"><stop stop-color="#fff2c8" stop-opacity=".8"/><stop offset="1" stop-color="#fff2c8" stop-opacity="0"/></linearGradient>
<linearGradient id="mist" x2="0" y2="1"><stop stop-color="#f3b091" stop-opacity="0"/><stop offset="1" stop-color="#f3b091" stop-opacity=".5"/></linearGradient>
<linearGradient id="deep" x2="0" y2="1"><stop stop-color="#2b2138"/><stop offset="1" stop-color="#161022"/></linearGradient></defs>
<rect width="{W:g}" height="{H:g}" fill="url(#sky)"/>{stars()}
{ridge(372, far, "#7d5482", 5, 3)}{snowfields(374, far, 4)}
<rect y="330" width="{W:g}" height="235" fill="url(#mist)"/>
{ridge(452, mid, "#5a3d6b", 4, 8)}
<rect y="430" width="{W:g}" height="140" fill="url(#mist)" opacity=".5"/>
{forest(64, 520, 12, 26, 48, "#46305a", 21)}
{ridge(516, near, "#46305a", 2, 9)}
{steam(x + 14, track - 50)}{viaduct(track)}{train}
{forest(46, 676, 9, 34, 66, "#2b2138", 33)}
{ridge(672, near, "#2b2138", 2, 12)}
{hut(80, 668)}{hut(80 + W, 668)}
{forest(30, 706, 6, 26, 62, "#1d1529", 42)}
<rect y="696" width="{W:g}" height="{H - 696:g}" fill="url(#deep)"/>
{words}
</svg>
"""
