import type { OrderItem, ProofState } from "../api/client";

/** How far an item's proof has come, in the order of the work. */
export const STATES: readonly (readonly [ProofState, string])[] = [
  ["made", "Proof made"],
  ["sent", "Proof sent"],
  ["changes", "Changes asked"],
  ["approved", "Approved"],
  ["printed", "Printed"],
  ["shipped", "Shipped"],
];

export type Shown = ProofState | "all";

/** The filters that have items, each with their number. */
export function filters(items: readonly OrderItem[]): { value: Shown; label: string }[] {
  const counted = STATES.map(([state, label]) => ({
    value: state as Shown,
    label,
    count: items.filter((item) => item.state === state).length,
  }));
  return [{ value: "all" as Shown, label: "All", count: items.length }, ...counted]
    .filter(({ count }) => count > 0)
    .map(({ value, label, count }) => ({ value, label: `${label} ${count}` }));
}

/** The items that a filter shows. A filter whose last item moved on shows all. */
export function shown(items: readonly OrderItem[], filter: Shown): readonly OrderItem[] {
  const found = items.filter((item) => filter === "all" || item.state === filter);
  return found.length ? found : items;
}

/** Items whose print files wait for nothing more. */
export const toPrint = (items: readonly OrderItem[]) =>
  items.filter((item) => item.held && item.state === "approved").length;
