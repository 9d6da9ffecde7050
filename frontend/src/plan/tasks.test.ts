import { expect, test } from "vitest";
import { inTime, inWords, whereDone } from "./tasks";

test("minutes are told in hours from sixty on", () => {
  expect(inTime(0.2)).toBe("1 min");
  expect(inTime(59.4)).toBe("59 min");
  expect(inTime(60)).toBe("1 h 00 min");
  expect(inTime(125)).toBe("2 h 05 min");
});

test("a day is told with its weekday, whatever the time zone", () => {
  expect(inWords("2026-11-30")).toBe("Monday 30 November");
});

test("a task leads to the station where it is done", () => {
  const task = { artwork_id: 3, template_id: "mug-11oz", title: "", count: 1, minutes: 5, why: "", heat: "" };
  expect(whereDone({ ...task, kind: "fix" })).toBe("/bench/3/mug-11oz/check");
  expect(whereDone({ ...task, kind: "order" })).toBe("/bench/3/mug-11oz/sell?part=orders");
});
