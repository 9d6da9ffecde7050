import { expect, test } from "vitest";
import { differences } from "./conflict";

const placement = { fit: "cover", shift_mm: [0, 0], scale: 1, rotate_deg: 0, background: null };

test("equal values do not differ", () => {
  expect(differences({ placement, pieces: [] }, { placement: { ...placement }, pieces: [] })).toEqual([]);
});

test("each value that differs is named, with both values", () => {
  const mine = { placement: { ...placement, scale: 1.2345, shift_mm: [3, -1.5], background: "#203040" }, pieces: [] };
  expect(differences({ placement, pieces: [] }, mine)).toEqual([
    { name: "placement, shift mm", theirs: "0 × 0", mine: "3 × -1.5" },
    { name: "placement, scale", theirs: "100 %", mine: "123.45 %" },
    { name: "placement, background", theirs: "none", mine: "#203040" },
  ]);
});

test("lists of another length are counted, equal ones compared part by part", () => {
  const words = { text: "Summit Line", on: true };
  expect(differences({ pieces: [words] }, { pieces: [] })).toEqual([
    { name: "pieces", theirs: "1 part", mine: "0 parts" },
  ]);
  expect(differences({ pieces: [words] }, { pieces: [{ ...words, on: false }] })).toEqual([
    { name: "pieces, 1, on", theirs: "on", mine: "off" },
  ]);
});

test("a value that one side lacks is none", () => {
  expect(differences({ placement: null }, { placement })).toEqual([{ name: "placement", theirs: "none", mine: "set" }]);
});
