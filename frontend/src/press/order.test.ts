import { expect, test } from "vitest";
import type { PressStep } from "../api/client";
import { peekBefore, stepAfterPeek } from "./order";

const steps = (kinds: string) => kinds.split(" ").map((kind) => ({ kind })) as PressStep[];
const POSITIONS = steps("ready ready press peek again press peek again ready");
const TUMBLER = steps("ready press press peek again if-pale if-pale ready");

test("every position has its own peek", () => {
  expect(stepAfterPeek(POSITIONS, 3, "even")).toBe(5);
  expect(stepAfterPeek(POSITIONS, 3, "pale")).toBe(4);
  expect(peekBefore(POSITIONS, 4)).toBe(3);
  expect(stepAfterPeek(POSITIONS, 6, "even")).toBe(8);
  expect(stepAfterPeek(POSITIONS, 6, "pale")).toBe(7);
  expect(peekBefore(POSITIONS, 7)).toBe(6);
});

test("pale ends of a tumbler have steps of their own", () => {
  expect(stepAfterPeek(TUMBLER, 3, "ends")).toBe(5);
  expect(stepAfterPeek(TUMBLER, 3, "even")).toBe(7);
  expect(peekBefore(TUMBLER, 6)).toBe(3);
  expect(stepAfterPeek(POSITIONS, 3, "ends")).toBe(-1);
});
