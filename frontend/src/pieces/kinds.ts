import type { Art, Band, Frames, Overlay, Panel, Piece, Words } from "../api/client";
import { WHOLE } from "../bench/geometry";

const MIXING = {
  opacity: 1,
  blend: "normal" as const,
  behind: false,
  clipped: "" as const,
  flip: "" as const,
  twin: "" as const,
};
const tidy = (mm: number) => Math.round(mm * 100) / 100;

/** The name of a piece in the list. */
export function nameOf(piece: Piece): string {
  if (piece.kind === "words") return `“${piece.text.split("\n")[0]?.slice(0, 22) ?? ""}”`;
  return { band: "Border", frames: "Frames", overlay: "Second artwork" }[piece.kind];
}

/** A piece moved on its panel. A border follows the trim and does not move. */
export function moved(piece: Piece, right: number, down: number): Piece {
  const shift = ([x, y]: [number, number]): [number, number] => [tidy(x + right), tidy(y + down)];
  if (piece.kind === "overlay")
    return { ...piece, placement: { ...piece.placement, shift_mm: shift(piece.placement.shift_mm) } };
  return piece.kind === "band" ? piece : { ...piece, shift_mm: shift(piece.shift_mm) };
}

/** A piece scaled about its centre. */
export function sized(piece: Piece, factor: number): Piece {
  const by = (mm: number) => tidy(mm * factor);
  if (piece.kind === "words")
    return {
      ...piece,
      size_mm: by(piece.size_mm),
      width_mm: by(piece.width_mm),
      height_mm: by(piece.height_mm),
      outline_mm: by(piece.outline_mm),
    };
  if (piece.kind === "frames") return { ...piece, size_mm: [by(piece.size_mm[0]), by(piece.size_mm[1])] };
  if (piece.kind === "overlay")
    return {
      ...piece,
      placement: { ...piece.placement, scale: Math.min(100, Math.max(0.01, piece.placement.scale * factor)) },
    };
  return { ...piece, width_mm: by(piece.width_mm) };
}

/** New pieces of each kind, sized for the panel. */
export function firstWords(panel: Panel, colour: string): Words {
  const [w, h] = panel.worn_mm;
  return {
    ...MIXING,
    kind: "words",
    text: "Your words",
    least_caps: 0,
    font: "poster",
    align: "centre",
    leading: 1.15,
    tracking: 0,
    stacked: false,
    along: "line",
    amount: 0,
    other: 0,
    waves: 1,
    sizing: "width",
    size_mm: tidy(h * 0.12),
    width_mm: tidy(Math.min(w * 0.6, h * 1.4)),
    height_mm: tidy(h * 0.15),
    shift_mm: [0, 0],
    rotate_deg: 0,
    fill: colour,
    outline: null,
    outline_mm: tidy(h * 0.004),
    shadow: null,
    plaque: "none",
    plaque_fill: "#f6ecd9",
    plaque_line: null,
    plaque_margin_mm: tidy(h * 0.03),
  };
}

export function firstBand(panel: Panel, colour: string): Band {
  const short = Math.min(...panel.worn_mm);
  return {
    ...MIXING,
    kind: "band",
    sides: panel.closes ? "level" : "all",
    width_mm: tidy(short * 0.08),
    colour,
    art: null,
    tile_mm: tidy(short * 0.2),
    line_mm: tidy(short * 0.006),
    line_gap_mm: tidy(short * 0.012),
    line_colour: "#ffffff",
  };
}

export function firstFrames(panel: Panel): Frames {
  const [w, h] = panel.worn_mm;
  const width = Math.min(w * 0.6, h * 1.2);
  return {
    ...MIXING,
    kind: "frames",
    layout: "instant",
    across: 2,
    down: 1,
    size_mm: [tidy(width), tidy(width * 0.56)],
    rim_mm: tidy(width * 0.025),
    gap_mm: tidy(width * 0.04),
    colour: "#ffffff",
    line: null,
    shift_mm: [0, 0],
    rotate_deg: 0,
    slots: [],
  };
}

export function firstOverlay(art: Art): Overlay {
  return { ...MIXING, kind: "overlay", art: art.id, placement: { ...WHOLE, scale: 0.4 } };
}
