"""A bag on a hook, on a stage: its settled sheets, lining, binding and handles. Lengths in cm; its floor hangs at z = 0, the front towards -y."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import shapes, surfaces
from studio.bag import LONG, STRAP
from studio.cloth.surface import Piece, Surface
from studio.clothing import put_piece
from studio.draped import from_template, tote_hung
from studio.draped.tote_hung import DEEP, STRAPS, H, W
from studio.kept import kept_surface
from studio.stage import Stage, relief_of

Points = NDArray[np.float64]

LINED = 0.16
"""Of the lining inside the canvas."""

REACH = 21.0
"""How far the hook is above the opening."""

ROUND = 1.0
"""Radius of the bend of a handle over its peg."""

FINER = 2


def settled() -> Surface:
    """Return the bag as it hangs."""
    return kept_surface("tote-hung", (from_template, tote_hung), lambda: Surface.of(tote_hung.hung()))


def put_hung_tote(stage: Stage, at: Any = None, more: str = "") -> None:
    """Put the bag on the stage; ``more`` tells its shapes from another's."""
    pieces = settled().smoothed(FINER)
    canvas, plain = relief_of(surfaces.weave(1536, 190)), stage.cloth("inside", sheen=0.05)
    for panel, piece in pieces.items():
        w, h = (LONG, DEEP) if panel == "gusset" else (W, H)
        uv = np.clip(piece.flat * [1 / w, -1 / h], 0.0005, 0.9995)
        cloth = stage.cloth(panel, canvas, 0.010, (2.6 * w / W, 2.6 * h / W), 0.05)
        put_piece(stage, panel + more, piece, uv, cloth, at)
        inner = Piece(piece.flat, piece.at - LINED * piece.normal, -piece.normal, piece.triangles[:, ::-1])
        put_piece(stage, f"inside@{panel}{more}", inner, uv, plain, at)
    for number, line in enumerate(binding(pieces)):
        tube = shapes.tube(line, np.full((len(line), 2), [0.16, 0.38]), stage.folder / f"hem{number}{more}.ply", (0, 0, 1), 24)
        stage.add(f"inside@hem{number}{more}", tube, plain, at)
    webbing = stage.cloth("handles", relief_of(surfaces.weave(512, 36)), 0.03, (1, 16), 0.1)
    for panel, sign in (("front", -1.0), ("back", 1.0)):
        line, thick = handle(pieces[panel], sign)
        half = np.full((len(line), 2), STRAP)
        stage.add(
            f"handles@{panel}{more}",
            shapes.tube(line, half, stage.folder / f"strap-{panel}{more}.ply", thick, 40, 6),
            webbing,
            at,
        )


def binding(pieces: dict[str, Piece]) -> list[Points]:
    """Return the middle lines (n, 3) of the binding round the opening, one for each sheet's upper edge."""
    lines = []
    for panel, along, edge in (("front", 0, 0.0), ("back", 0, 0.0), ("gusset", 1, 0.0), ("gusset", 1, LONG)):
        piece = pieces[panel]
        upper = np.abs(piece.flat[:, 1 - along] - edge) < 0.02
        order = np.argsort(piece.flat[upper, along])
        lines.append((piece.at - 0.5 * LINED * piece.normal)[upper][order] - [0, 0, 0.02])
    return lines


def handle(piece: Piece, sign: float) -> tuple[Points, Points]:
    """Return the middle line (n, 3) of a handle and the direction of its thickness, (n, 3).

    It lies on its side of the bag where it is sewn on, and flat over the peg: it is twisted by a quarter between.
    """

    def on(x: float, y: float) -> Points:
        nearest = np.argsort(np.linalg.norm(piece.flat - [W / 2 + x, y], axis=1))[:6]
        return np.asarray((piece.at + (STRAP[0] + 0.04) * piece.normal)[nearest].mean(axis=0))

    left = -1.0 if piece.at[piece.flat[:, 0] < W / 2, 0].mean() < 0 else 1.0
    top = np.array([0.0, sign * 1.35, H + REACH])
    rising = []
    for side in (-1.0, 1.0):
        sewn = [on(left * side * STRAPS, y) for y in (-6.3, -4.2, -2.2, -0.6)]
        foot, end = sewn[-1], top + np.array([side * ROUND, 0, -0.4 * ROUND])
        free = [foot + share * (end - foot) for share in (0.12, 0.35, 0.6, 0.85, 1.0)]
        rising.append([*sewn, *free])
    over = top + np.array([(-0.6 * ROUND, 0, 0.45), (0, 0, 0.62), (0.6 * ROUND, 0, 0.45)])
    way = [*rising[0], *over, *rising[1][::-1]]
    line = shapes.spline([tuple(point) for point in way], 260)
    tangent = np.gradient(line, axis=0)
    square = np.column_stack([-tangent[:, 2], 0 * tangent[:, 0], tangent[:, 0]])  # turned by a quarter in the plane of the bag
    square /= np.linalg.norm(square, axis=1, keepdims=True)
    twist = np.clip((line[:, 2] - H - 2) / (REACH - 5), 0, 1)
    twist = (np.pi / 2 * (3 * twist**2 - 2 * twist**3))[:, None]
    return line, np.cos(twist) * [0, sign, 0] + np.sin(twist) * square


PEG = H + REACH - STRAP[0] - 0.25
"""Height of a peg's middle."""
