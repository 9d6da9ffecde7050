import { expect, test } from "vitest";
import type { Panel } from "../api/client";
import { bendOf, boxPath, canRoll, cornersOf, type Lie, shiftAbout, shorterRoll, WHOLE } from "./geometry";

const flat = bendOf({ cone: null } as Panel);
const LIE: Lie = { cx: 50, cy: 40, w: 20, h: 10, rotate: 90 };

/** A ring of 60° between radii 100 and 300 mm: as long as its outer arc, 200 mm high. Its box follows from trigonometry. */
const OUTER = 300;
const SWEEP = Math.PI / 3;
const cone = (widens_down: boolean) =>
  bendOf({
    worn_mm: [OUTER * SWEEP, 200],
    cone: {
      box_mm: [2 * OUTER * Math.sin(SWEEP / 2), OUTER - 100 * Math.cos(SWEEP / 2)],
      sweep_deg: 60,
      outer_radius_mm: OUTER,
      widens_down,
    },
  } as Panel);

test("a picture turned by a quarter has its own top left at its upper right", () => {
  const [first] = cornersOf(LIE, flat);
  expect(first?.[0]).toBeCloseTo(55);
  expect(first?.[1]).toBeCloseTo(30);
});

test("the middle of a tapered wall's upper edge touches the top of its box, and its ends lie on the box's sides", () => {
  const { to } = cone(false);
  const [w] = [2 * OUTER * Math.sin(SWEEP / 2)];
  expect(to((OUTER * SWEEP) / 2, 0)).toEqual([w / 2, 0]);
  expect(to(0, 0)[0]).toBeCloseTo(0);
  expect(to(OUTER * SWEEP, 0)[0]).toBeCloseTo(w);
});

test.each([false, true])("bending and its reverse agree (widens down: %s)", (down) => {
  const { to, back } = cone(down);
  for (const [x, y] of [
    [10, 5],
    [157, 100],
    [300, 199],
  ] as const) {
    const [u, v] = back(...to(x, y));
    expect(u).toBeCloseTo(x, 6);
    expect(v).toBeCloseTo(y, 6);
  }
});

test("growing about a point leaves that point of the picture in place", () => {
  const point: [number, number] = [58, 36];
  const [dx, dy] = shiftAbout(LIE, WHOLE, point, 2);
  // the picture's centre moves by the shift, and the point lies twice as far from it
  expect(LIE.cx + dx + (point[0] - LIE.cx) * 2).toBeCloseTo(point[0]);
  expect(LIE.cy + dy + (point[1] - LIE.cy) * 2).toBeCloseTo(point[1]);
});

test("a flat box is a path of four corners, a bent one of many", () => {
  expect(boxPath([0, 0, 10, 5], flat, 2)).toBe("M0.00 0.00L20.00 0.00L20.00 10.00L0.00 10.00Z");
  expect(boxPath([0, 0, 10, 5], cone(false), 1).split("L").length).toBeGreaterThan(50);
});

test("a wrap is rolled the shorter way round, and only where its ends meet", () => {
  const wrap = { closes: true, cone: null, worn_mm: [200, 100] } as unknown as Panel;
  expect(shorterRoll(30, wrap)).toBeCloseTo(30);
  expect(shorterRoll(130, wrap)).toBeCloseTo(-70);
  expect(shorterRoll(-230, wrap)).toBeCloseTo(-30);
  expect(canRoll(wrap, WHOLE)).toBe(true);
  expect(canRoll({ ...wrap, closes: false }, WHOLE)).toBe(false);
  expect(canRoll({ ...wrap, cone: {} } as unknown as Panel, { ...WHOLE, lay: "flat" })).toBe(false);
});
