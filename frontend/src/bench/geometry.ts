import type { Placing, Proof } from "../api/client";

/** Where a picture lies on the flat: its centre, size and turn, in mm from the trim's corner. */
export type Lie = { cx: number; cy: number; w: number; h: number; rotate: number };

/**
 * The lie of a placing that has not been proved yet, from one that has. The core fits; here a hand's movement is only
 * carried forward until its answer comes.
 */
export function lieOf(placing: Placing, proof: Proof, proved: Placing): Lie {
  const [x, y, w, h] = proof.placed_mm;
  const grown = placing.fit === proved.fit ? placing.scale / proved.scale : 1;
  return {
    cx: x + w / 2 + placing.shift_mm[0] - proved.shift_mm[0],
    cy: y + h / 2 + placing.shift_mm[1] - proved.shift_mm[1],
    w: w * grown,
    h: h * grown,
    rotate: placing.rotate_deg,
  };
}

export const clampScale = (scale: number) => Math.min(100, Math.max(0.01, scale));
export const tidy = (value: number, step = 0.01) => Math.round(value / step) * step;

/** The shift that keeps the point under the pointer in place while the picture grows by `factor`. */
export function shiftAbout(lie: Lie, placing: Placing, point: [number, number], factor: number): [number, number] {
  return [
    placing.shift_mm[0] + (point[0] - lie.cx) * (1 - factor),
    placing.shift_mm[1] + (point[1] - lie.cy) * (1 - factor),
  ];
}
