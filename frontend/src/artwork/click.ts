import type { Step } from "../api/client";
import type { Preparing } from "./usePreparation";

export type Point = [number, number];
export type Box = [number, number, number, number];

/** The effect of a click or a drawn box on the selected step. Points are in fractions of the picture. */
export type Click = {
  name: string;
  title: string;
  says: string;
  kind: "point" | "box";
  /** Points and boxes set so far. */
  points: Point[];
  box: Box | null;
  give: (place: Point | Box) => void;
  /** Remove the newest point near a position. */
  takeBack?: (index: number) => void;
};

const SAYS: Record<string, string> = {
  add: "Click an area to clear it too; click a mark to remove it",
  spare: "Click an area to keep it; click a mark to remove it",
  patch: "Draw a box on bare paper",
  box: "Draw the part that is kept",
};

/** The ways to set points for the selected step. */
export function clicksOf(preparing: Preparing): Click[] {
  const { selected, steps, kinds } = preparing;
  const step = selected === null ? undefined : steps[selected];
  if (!step || selected === null) return [];
  const put = (name: string, value: Step["values"][string]) =>
    preparing.decide(
      steps.map((other, i) => (i === selected ? { ...step, values: { ...step.values, [name]: value } } : other)),
    );
  const fields = kinds[step.kind]?.fields ?? [];
  return fields
    .filter((field) => field.kind === "points" || field.kind === "box")
    .map((field) => {
      const value = step.values[field.name] ?? field.default;
      const points = field.kind === "points" ? ((value ?? []) as Point[]) : [];
      return {
        name: field.name,
        title: field.title,
        says: SAYS[field.name] ?? field.hint,
        kind: field.kind === "points" ? ("point" as const) : ("box" as const),
        points,
        box: field.kind === "box" ? (value as Box | null) : null,
        give: (place: Point | Box) => put(field.name, field.kind === "points" ? [...points, place as Point] : place),
        takeBack: (index: number) =>
          put(
            field.name,
            points.filter((_, i) => i !== index),
          ),
      };
    });
}
