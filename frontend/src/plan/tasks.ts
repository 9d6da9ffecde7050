import type { PlanTask } from "../api/client";

export const DOES: Record<PlanTask["kind"], string> = {
  print: "Print",
  press: "Press",
  order: "Order",
  fix: "Fix",
  picture: "Make mock-ups",
  list: "List",
};

/** The station at which a task is done. */
const STATIONS: Record<PlanTask["kind"], string> = {
  print: "sell?part=orders",
  press: "press",
  order: "sell?part=orders",
  fix: "check",
  picture: "mockups",
  list: "sell",
};

export const whereDone = (task: PlanTask) => `/bench/${task.artwork_id}/${task.template_id}/${STATIONS[task.kind]}`;

/** Minutes in words: "45 min", "2 h 05 min". */
export function inTime(minutes: number): string {
  const whole = Math.max(1, Math.round(minutes));
  const hours = Math.floor(whole / 60);
  return hours ? `${hours} h ${String(whole % 60).padStart(2, "0")} min` : `${whole} min`;
}

/** An ISO day in words, for example "Monday, 30 November". */
export const inWords = (day: string) =>
  new Date(`${day}T12:00:00`).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" });

/** The tasks of a day by their kind, in the order of the plan. */
export function byKind(tasks: readonly PlanTask[]): [PlanTask["kind"], PlanTask[]][] {
  const groups = new Map<PlanTask["kind"], PlanTask[]>();
  for (const task of tasks) groups.set(task.kind, [...(groups.get(task.kind) ?? []), task]);
  return [...groups];
}
