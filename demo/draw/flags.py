"""A repeat: signal flags, discs and lamps of the line, one tile three times round and three times down."""

from __future__ import annotations

from typing import Any

W, H, N = 310.0, 820.0 / 3, 3
NAVY, RED, GOLD, PINE, CREAM = "#22345a", "#c2452f", "#dda43a", "#2f5a4a", "#f4ead6"


def flag(x: float, y: float, turn: float, kind: str) -> str:
    cloth = {
        "halves": f'<path d="M0 0h52v19H0z" fill="{RED}"/><path d="M0 19h52v19H0z" fill="{CREAM}"/>',
        "cross": f'<path d="M0 0h52v38H0z" fill="{NAVY}"/><path d="M0 15h18V0h8v15h26v8H26v15h-8V23H0z" fill="{CREAM}"/>',
        "diamond": f'<path d="M0 0h52v38H0z" fill="{GOLD}"/><path d="M26 4 44 19 26 34 8 19z" fill="{NAVY}"/>',
        "checks": f'<path d="M0 0h52v38H0z" fill="{CREAM}"/><path d="M0 0h26v19H0zM26 19h26v19H26z" fill="{PINE}"/>',
        "pennant": f'<path d="M0 0 60 19 0 38z" fill="{RED}"/><circle cx="17" cy="19" r="7.500" fill="{CREAM}"/>',
        "swallow": f'<path d="M0 0h58L42 19l16 19H0z" fill="{PINE}"/><path d="M0 14h46l-4 5 4 5H0z" fill="{GOLD}"/>',
    }[kind]
    edge = {"pennant": "M0 0 60 19 0 38z", "swallow": "M0 0h58L42 19l16 19H0z"}.get(kind, "M0 0h52v38H0z")
    return (
        f'<g transform="translate({x} {y}) rotate({turn})"><path d="M-2.500-7V76" stroke="#7a5a3c" stroke-width="5" stroke-linecap="round"/>'
        f'<circle cx="-2.500" cy="-9" r="4.500" fill="{GOLD}"/>{cloth}<path d="{edge}" fill="none" stroke="{NAVY}" stroke-width="2"/></g>'
    )


def lamp(x: float, y: float, light: str) -> str:
    return (
        f'<g transform="translate({x} {y})" stroke="{NAVY}" stroke-width="2"><path d="M-9-25q9-13 18 0" fill="none"/>'
        f'<path d="M-12-25h24l4 8h-32z" fill="{NAVY}"/><path d="M-14-17h28v28h-28z" fill="{GOLD}"/><circle cy="-3" r="9.500" fill="{light}"/>'
        f'<path d="M-4-7q3-3 6-2" fill="none" stroke="{CREAM}"/><path d="M-17 11h34v6h-34z" fill="{NAVY}"/></g>'
    )


def disc(x: float, y: float, turn: float) -> str:
    return (
        f'<g transform="translate({x} {y}) rotate({turn})"><path d="M0 20v46" stroke="#7a5a3c" stroke-width="6" stroke-linecap="round"/>'
        f'<circle r="22" fill="{CREAM}" stroke="{NAVY}" stroke-width="2"/><circle r="14" fill="{RED}"/><path d="M-9 0h18" stroke="{CREAM}" stroke-width="5"/></g>'
    )


def sprig(x: float, y: float, turn: float) -> str:
    leaves = "".join(f'<path d="M0 {-i * 8}q9-7 13-1-4 7-13 1M0 {-i * 8 - 3}q-9-7-13-1 4 7 13 1"/>' for i in range(4))
    return f'<g transform="translate({x} {y}) rotate({turn})" fill="{PINE}"><path d="M-1 6h2v-40h-2z"/>{leaves}</g>'


def tile() -> str:
    things: list[tuple[Any, ...]] = [
        (flag, 34, 34, -14, "halves"),
        (flag, 196, 22, 12, "cross"),
        (flag, 118, 120, -6, "diamond"),
        (flag, 262, 132, 16, "pennant"),
        (flag, 26, 176, 10, "swallow"),
        (flag, 186, 200, -12, "checks"),
        (disc, 140, 42, 18),
        (disc, 96, 226, -22),
        (disc, 294, 246, 8),
        (lamp, 280, 66, "#e2584a"),
        (lamp, 70, 128, "#7fc08a"),
        (lamp, 222, 118, "#f3e3b0"),
        (sprig, 92, 84, 30),
        (sprig, 160, 176, -40),
        (sprig, 152, 262, 20),
        (sprig, 16, 108, -15),
        (sprig, 270, 212, -60),
    ]
    out = []
    for draw_it, x, y, *rest in things:
        out += [draw_it(x + i * W, y + j * H, *rest) for i in (-1, 0, 1) for j in (-1, 0, 1)]
    return "".join(out)


def draw() -> str:
    uses = "".join(f'<use href="#tile" x="{i * W:g}" y="{j * H:.4f}"/>' for i in range(N) for j in range(N))
    return f"""<svg xmlns="http://www.w3.org/2000/svg" width="9.3in" height="8.2in" viewBox="0 0 {W * N:g} {H * N:g}">
<title>Signals of the Summit Line</title>
<defs><clipPath id="edge"><path d="M0 0h{W:g}v{H:.4f}H0z"/></clipPath><g id="tile"><g clip-path="url(#edge)">{tile()}</g></g></defs>
<rect width="{W * N:g}" height="{H * N:g}" fill="{CREAM}"/>{uses}
</svg>
"""
