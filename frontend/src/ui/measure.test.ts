import { expect, test } from "vitest";
import { celsius, fahrenheit, parseLength, parsePlain, show } from "./measure";

test.each([
  ["1", 25.4],
  ["25.4mm", 25.4],
  ["2.54 cm", 25.4],
  ["300px", 25.4],
  ["9.3in/2", 118.11],
  ["1/8in", 3.175],
  ["3 * 0.5in", 38.1],
  ["(1in + 12.7mm) * 2", 76.2],
  ["1,5", 38.1],
  ['2" - 1in', 25.4],
])("%s is %d mm where bare numbers are inches", (text, mm) => {
  expect(parseLength(text, "in", 300)).toBeCloseTo(mm, 9);
});

test.each(["", "in", "1in * 1in", "1in + 2", "(1in", "1 yard", "1/0"])("%j is no length", (text) => {
  expect(parseLength(text, "mm", 300)).toBeNull();
});

test("plain sums pass over per cent and degrees", () => {
  expect(parsePlain("100/3 %")).toBeCloseTo(33.333, 3);
  expect(parsePlain("360/8°")).toBe(45);
  expect(parsePlain("5mm")).toBeNull();
});

test("lengths are shown without trailing zeros or a negative zero", () => {
  expect(show(25.4, "in")).toBe("1");
  expect(show(-0.0001, "mm")).toBe("0");
  expect(show(12.75, "mm")).toBe("12.8");
});

test("water boils at 212 °F", () => {
  expect(fahrenheit(100)).toBe(212);
  expect(celsius(212)).toBe(100);
});
