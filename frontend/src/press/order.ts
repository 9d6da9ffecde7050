import type { PressStep } from "../api/client";

/** What was seen under the paper. */
export type Seen = "even" | "pale" | "ends";

const ONLY_IF_PALE = ["again", "if-pale"];

/** The peek that a step of a repetition goes back to. */
export const peekBefore = (steps: readonly PressStep[], index: number) =>
  steps.findLastIndex((each, i) => i < index && each.kind === "peek");

/** The step that follows a peek: the next position or the end where the print is even, else its own repetition; -1 where there is none. */
export function stepAfterPeek(steps: readonly PressStep[], peek: number, seen: Seen): number {
  if (seen === "even") return steps.findIndex((each, i) => i > peek && !ONLY_IF_PALE.includes(each.kind));
  const kind = seen === "pale" ? "again" : "if-pale";
  return steps.findIndex((each, i) => i > peek && each.kind === kind);
}
