import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { keepAnswer } from "../api/answers";
import { api, type Kind, type Preparation, type Prepared, type Report, type Step } from "../api/client";
import { useDraft } from "../ui/useDraft";
import { useNewest, useNewestPicture } from "../ui/useNewest";

const SHEET_PX = 1800;
type Edited = { steps: Step[]; width_mm: number | null };

/** An artwork's preparation steps while they are edited: previewed as they change, saved when the pointer is released. */
export type Preparing = {
  art: number;
  prepared: Prepared;
  kinds: Record<string, Kind>;
  steps: Step[];
  width_mm: number | null;
  /** Measurements of the current picture. */
  report: Report;
  selected: number | null;
  select: (index: number | null) => void;
  /** Preview steps without saving them. */
  hold: (steps: Step[]) => void;
  decide: (steps: Step[], width_mm?: number | null) => void;
  step: (way: "undo" | "redo") => void;
  /** Any other change of the artwork's stored values. */
  keep: (work: () => Promise<Prepared>) => void;
  /** The picture as the sheet shows it, and the print size of that picture. */
  sheet: { url: string | null; problem: string | null };
  busy: boolean;
  problem: string | null;
};

/**
 * A step whose values are points on the picture is shown on the picture that it works on: a crop on its input, the others
 * without later steps that reshape the picture.
 */
function seenWith(steps: Step[], selected: number | null, kinds: Record<string, Kind>): Step[] {
  const step = selected === null ? undefined : steps[selected];
  if (!step || selected === null) return steps;
  const places = kinds[step.kind]?.fields.some((field) => field.kind === "points" || field.kind === "box");
  if (!places) return steps;
  if (step.kind === "crop") return steps.slice(0, selected);
  return steps.filter((other, i) => i <= selected || !kinds[other.kind]?.reshapes);
}

export function usePreparation(art: number, wanted: boolean): { preparing: Preparing | null; error: Error | null } {
  const queries = useQueryClient();
  const key = ["prepared", art];
  const kinds = useQuery({
    queryKey: ["kinds"],
    queryFn: api.kinds,
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const query = useQuery({ queryKey: key, queryFn: () => api.prepared(art), enabled: wanted });
  const prepared = query.data;
  const draft = useDraft<Edited, Prepared>({
    saved: prepared ? { steps: prepared.steps as Step[], width_mm: prepared.width_mm } : null,
    subject: `artwork ${art}`,
    editKey: prepared?.edit_key,
    keyOf: (answer) => answer.edit_key,
    onStale: query.refetch,
    onAnswer: (answer) => keepAnswer(queries, key, answer),
    onSettled: () => {
      for (const what of [["pair", art], ["board"]]) queries.invalidateQueries({ queryKey: what });
    },
  });
  const [selected, select] = useState<number | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a step is selected on the artwork it belongs to
  useEffect(() => select(null), [art]);

  const known = Object.fromEntries((kinds.data ?? []).map((kind) => [kind.id, kind]));
  const { steps, width_mm } = draft.value ?? { steps: [], width_mm: null };
  const seen: Preparation = { steps: seenWith(steps, selected, known), width_mm };
  const ready = wanted && prepared && kinds.data;
  const request = ready ? { art, seen } : null;
  const sheet = useNewestPicture(request, ({ art, seen }) => api.preparationPreview(art, seen, SHEET_PX, "sheet"));
  // Saved steps are shown at full size; unsaved ones, and the view of a single step, on a small copy.
  const whole = !draft.isEdited && seen.steps.length === steps.length;
  const heldReport = useNewest(whole ? null : request, ({ art, seen }) => api.preparationReport(art, seen));

  if (!ready) return { preparing: null, error: query.error ?? kinds.error };
  const preparing: Preparing = {
    art,
    prepared,
    kinds: known,
    steps,
    width_mm,
    report: (whole ? null : heldReport.value) ?? prepared.report,
    selected: selected !== null && selected < steps.length ? selected : null,
    select,
    hold: (steps) => draft.hold({ steps }),
    decide: (steps, width = width_mm) =>
      draft.save({ steps, width_mm: width }, (preparation, base) => api.prepare(art, preparation, base)),
    step: (way) => draft.act((base) => api.prepareStep(art, way, base)),
    keep: (work) => draft.act(work),
    sheet,
    busy: draft.isEdited || draft.pending,
    problem: draft.error?.message ?? null,
  };
  return { preparing, error: null };
}
