"""A timetable in words and rules only, to be printed too small for what it says."""

from __future__ import annotations

from demo.draw.lettering import DECO, SANS, SANS_BOLD, line

W, H = 930.0, 820.0
INK, RED, PAPER = "#22263a", "#b23a2a", "#f3ead7"
STOPS = (
    ("Valley Foot", 640),
    ("Larch Halt", 905),
    ("Gorge Bridge", 1120),
    ("Marmot Meadow", 1480),
    ("Windgap", 1935),
    ("Summit House", 2311),
)
FIRST = (6 * 60 + 10, 8 * 60 + 25, 10 * 60 + 40, 13 * 60 + 5, 16 * 60 + 20, 19 * 60 + 40)
MINUTES = (0, 9, 17, 28, 41, 54)


def draw() -> str:
    out = [f'<rect width="{W:g}" height="{H:g}" fill="{PAPER}"/>']
    out.append(f'<path d="M22 22H{W - 22}V{H - 22}H22zM30 30V{H - 30}H{W - 30}V30z" fill="{INK}" fill-rule="evenodd"/>')
    out.append(line(DECO, "SUMMIT LINE", 92, W / 2, 136, anchor="middle", tracking=30, fill=INK))
    out.append(line(SANS, "TIMETABLE OF TRAINS GOING UP", 25, W / 2, 182, anchor="middle", tracking=230, fill=RED))
    out.append(f'<path d="M70 208h{W - 140}v4H70zM70 217h{W - 140}v1.500H70z" fill="{INK}"/>')
    top, step, left = 262.0, 68.0, 462.0
    column = (W - 84 - left) / (len(FIRST) - 1)
    for i, (name, metres) in enumerate(STOPS):
        y = top + 24 + i * step
        if i % 2 == 0:
            out.append(f'<rect x="70" y="{y - 42:g}" width="{W - 140:g}" height="{step:g}" fill="#e6d8bb"/>')
        out.append(line(SANS_BOLD, name, 28, 84, y + 2, fill=INK))
        out.append(line(SANS, f"{metres} m", 19, 382, y, anchor="end", tracking=20, fill=RED))
        for j, start in enumerate(FIRST):
            at = start + MINUTES[i]
            out.append(line(SANS, f"{at // 60}:{at % 60:02d}", 25, left + j * column, y, anchor="end", fill=INK))
    foot = top + len(STOPS) * step
    out.append(f'<path d="M70 {foot:g}h{W - 140}v1.500H70zM70 {foot + 6:g}h{W - 140}v4H70z" fill="{INK}"/>')
    out.append(line(SANS, "Marmots are not to be fed from the open platform.", 24, W / 2, foot + 56, anchor="middle", fill=INK))
    out.append(line(DECO, "Please whistle before the tunnel", 30, W / 2, foot + 102, anchor="middle", fill=RED))
    return f'<svg xmlns="http://www.w3.org/2000/svg" width="9.3in" height="8.2in" viewBox="0 0 {W:g} {H:g}">\n<title>Timetable</title>\n{"".join(out)}\n</svg>\n'
