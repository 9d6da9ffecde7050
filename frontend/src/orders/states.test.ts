import { describe, expect, it } from "vitest";
import type { OrderItem, ProofState } from "../api/client";
import { filters, shown, toPrint } from "./states";

const item = (id: number, state: ProofState, held = true): OrderItem => ({
  id,
  artwork_id: 1,
  template_id: "mug-11oz",
  title: "Tarn on Mug",
  name: `${id}`,
  quantity: 1,
  values: {},
  held,
  state,
  words: "",
  changed_at: "",
});
const ITEMS = [item(1, "made"), item(2, "approved"), item(3, "approved", false), item(4, "shipped")];

describe("the list of order items", () => {
  it("offers only filters that show something, with their numbers", () => {
    expect(filters(ITEMS).map(({ label }) => label)).toEqual(["All 4", "Proof made 1", "Approved 2", "Shipped 1"]);
  });
  it("shows the items of a filter, and all when it has none left", () => {
    expect(shown(ITEMS, "approved").map(({ id }) => id)).toEqual([2, 3]);
    expect(shown(ITEMS, "sent")).toHaveLength(4);
  });
  it("counts approved items whose print files were held", () => {
    expect(toPrint(ITEMS)).toBe(1);
  });
});
