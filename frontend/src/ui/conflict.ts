import { useEffect, useRef, useSyncExternalStore } from "react";

/** Two values of the same thing: the one on this page, and the one that was stored meanwhile. */
export type Conflict = { mine: unknown; theirs: unknown };
type Open = Conflict & { choose: (mine: boolean) => void };

let open: Open | null = null;
const listeners = new Set<() => void>();
const show = (next: Open | null) => {
  open = next;
  for (const listener of listeners) listener();
};

/** The conflict that waits for the user's choice. */
export const useOpenConflict = () =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => open,
  );

/** Offer both values to the user while there is a conflict. `choose` is called with whether this page's value is kept. */
export function useConflict(conflict: Conflict | null, choose: (mine: boolean) => void): void {
  const chosen = useRef(choose);
  chosen.current = choose;
  const mine = conflict?.mine;
  const theirs = conflict?.theirs;
  const is = conflict !== null;
  useEffect(() => {
    if (!is) return;
    const own = { mine, theirs, choose: (keep: boolean) => chosen.current(keep) };
    show(own);
    return () => {
      if (open === own) show(null);
    };
  }, [is, mine, theirs]);
}

/** One value that differs: its name, and both values in a few characters. */
export type Difference = { name: string; theirs: string; mine: string };

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === "object" && value !== null;

function short(value: unknown): string {
  if (value === undefined || value === null) return "none";
  if (typeof value === "number") return String(Math.round(value * 100) / 100);
  if (typeof value === "boolean") return value ? "on" : "off";
  if (typeof value === "string") return value.length > 40 ? `${value.slice(0, 39)}…` : value || "empty";
  if (Array.isArray(value) && value.length > 0 && value.every((part) => typeof part === "number"))
    return value.map(short).join(" × ");
  if (Array.isArray(value)) return value.length === 1 ? "1 part" : `${value.length} parts`;
  return "set";
}

/** A value as the page shows it elsewhere: sizes against the blank in percent. */
const shown = (name: string, value: unknown) =>
  name.endsWith("scale") && typeof value === "number" ? `${short(100 * value)} %` : short(value);

/** What differs between two values, the names in words: `rotate_deg` is "rotate deg". */
export function differences(theirs: unknown, mine: unknown, name = ""): Difference[] {
  if (JSON.stringify(theirs) === JSON.stringify(mine)) return [];
  const numbers = Array.isArray(mine) && mine.every((part) => typeof part === "number");
  const alike = Array.isArray(theirs) === Array.isArray(mine);
  const lengths = Array.isArray(theirs) && Array.isArray(mine) && theirs.length !== mine.length;
  if (!isRecord(theirs) || !isRecord(mine) || numbers || !alike || lengths)
    return [{ name: name || "value", theirs: shown(name, theirs), mine: shown(name, mine) }];
  return [...new Set([...Object.keys(theirs), ...Object.keys(mine)])].flatMap((key) => {
    const word = Array.isArray(mine) ? String(Number(key) + 1) : key.replaceAll("_", " ");
    return differences(theirs[key], mine[key], name ? `${name}, ${word}` : word);
  });
}
