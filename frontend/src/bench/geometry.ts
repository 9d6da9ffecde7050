import type { Panel, PanelReport, Placement } from "../api/client";

/** The default placement: the whole picture, as large as possible. */
export const WHOLE: Placement = {
  fit: "contain",
  shift_mm: [0, 0],
  scale: 1,
  rotate_deg: 0,
  background: null,
  repeat_kind: "grid",
  repeats_around: null,
  spacing_mm: 0,
  blend: 0,
  copies: 1,
  lay: "bent",
  roll_mm: 0,
  brightness: 0,
  saturation: 0,
  white_point: 255,
};

/** The position of a picture on the template: centre, size and rotation, in mm from the trim's corner. */
export type Lie = { cx: number; cy: number; w: number; h: number; rotate: number };

/**
 * The position of a placement without an answer yet, derived from the last answered one. The core computes the fit; this only applies a movement
 * until the answer arrives.
 */
export function lieOf(placement: Placement, report: PanelReport, reportedPlacement: Placement): Lie {
  const [x, y, w, h] = report.placed_mm;
  const grown = placement.fit === reportedPlacement.fit ? placement.scale / reportedPlacement.scale : 1;
  return {
    cx: x + w / 2 + placement.shift_mm[0] - reportedPlacement.shift_mm[0] + placement.roll_mm,
    cy: y + h / 2 + placement.shift_mm[1] - reportedPlacement.shift_mm[1],
    w: w * grown,
    h: h * grown,
    rotate: placement.rotate_deg,
  };
}

/** Whether a panel's art can be rolled round the blank: its ends meet, and level lines run round it. */
export const canRoll = (panel: Panel, placement: Placement) =>
  panel.closes && (!panel.cone || placement.lay === "bent");

/** A roll as the shorter way round. */
export function shorterRoll(mm: number, panel: Panel): number {
  const [around] = panel.worn_mm;
  return tidy(around / 2 - ((((around / 2 - mm) % around) + around) % around), 0.1);
}

export const clampScale = (scale: number) => Math.min(100, Math.max(0.01, scale));
export const tidy = (value: number, step = 0.01) => Math.round(value / step) * step;

/** The shift that keeps the point under the pointer in place while the picture grows by `factor`. */
export function shiftAbout(lie: Lie, placement: Placement, point: [number, number], factor: number): [number, number] {
  return [
    placement.shift_mm[0] + (point[0] - lie.cx) * (1 - factor),
    placement.shift_mm[1] + (point[1] - lie.cy) * (1 - factor),
  ];
}

type Point = [number, number];

/** Mapping between the rectangle for placement and the template: identity, except for bent art on a tapered wall. */
export type Bend = { to: (x: number, y: number) => Point; back: (x: number, y: number) => Point; curved: boolean };

const FLAT: Bend = { to: (x, y) => [x, y], back: (x, y) => [x, y], curved: false };

/** Mapping from a level panel to the template. The core bends the print; this only maps points. */
export function bendOf(panel: Panel): Bend {
  const cone = panel.cone;
  if (!cone) return FLAT;
  const [w, h] = cone.box_mm;
  const [round, slant] = panel.worn_mm;
  const sweep = (cone.sweep_deg * Math.PI) / 180;
  const outer = cone.outer_radius_mm;
  return {
    curved: true,
    to: (x, y) => {
      const angle = (x / round - 0.5) * sweep;
      const radius = outer - (cone.widens_down ? slant - y : y);
      const down = outer - radius * Math.cos(angle);
      return [w / 2 + radius * Math.sin(angle), cone.widens_down ? h - down : down];
    },
    back: (x, y) => {
      const down = cone.widens_down ? h - y : y;
      const inward = outer - Math.hypot(x - w / 2, outer - down);
      const angle = Math.atan2(x - w / 2, outer - down);
      return [(angle / sweep + 0.5) * round, cone.widens_down ? slant - inward : inward];
    },
  };
}

/** Points along the sides of a box, close enough for a bent box to look smooth. */
function sides([x, y, w, h]: [number, number, number, number], curved: boolean): Point[] {
  const steps = curved ? 24 : 1;
  const along = Array.from({ length: steps }, (_, i) => i / steps);
  return [
    ...along.map((t): Point => [x + w * t, y]),
    ...along.map((t): Point => [x + w, y + h * t]),
    ...along.map((t): Point => [x + w - w * t, y + h]),
    ...along.map((t): Point => [x, y + h - h * t]),
  ];
}

export function pathOf(points: readonly (readonly number[])[], k: number): string {
  return points.length
    ? `M${points.map(([x = 0, y = 0]) => `${(x * k).toFixed(2)} ${(y * k).toFixed(2)}`).join("L")}Z`
    : "";
}

/** A box of the level panel, as a path on the flat in px. */
export function boxPath(box: [number, number, number, number], bend: Bend, k: number): string {
  return pathOf(
    sides(box, bend.curved).map(([x, y]) => bend.to(x, y)),
    k,
  );
}

/** The four corners of a picture on the flat, in mm, clockwise from its own top left. */
export function cornersOf(lie: Lie, bend: Bend): Point[] {
  const angle = (lie.rotate * Math.PI) / 180;
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([i = 1, j = 1]) => {
    const [dx, dy] = [(i * lie.w) / 2, (j * lie.h) / 2];
    return bend.to(
      lie.cx + dx * Math.cos(angle) - dy * Math.sin(angle),
      lie.cy + dx * Math.sin(angle) + dy * Math.cos(angle),
    );
  });
}
