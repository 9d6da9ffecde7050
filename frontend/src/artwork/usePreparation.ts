import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { keepAnswer } from "../api/answers";
import { api, type Kind, type Preparation, type Prepared, type Report, type Step } from "../api/client";
import { useNewest, useNewestPicture } from "../ui/useNewest";

const SHEET_PX = 1800;

/** An artwork's preparing steps in the hand: looked at as they change, decided when they are let go. */
export type Preparing = {
  art: number;
  prepared: Prepared;
  kinds: Record<string, Kind>;
  steps: Step[];
  width_mm: number | null;
  /** What is found on the picture as it is now. */
  report: Report;
  selected: number | null;
  select: (index: number | null) => void;
  /** Look at steps without deciding them. */
  hold: (steps: Step[]) => void;
  decide: (steps: Step[], width_mm?: number | null) => void;
  step: (way: "undo" | "redo") => void;
  /** Any other change of what is kept with the artwork. */
  keep: (work: () => Promise<Prepared>) => void;
  /** The picture as the sheet shows it, and the print size of that picture. */
  sheet: { url: string | null; problem: string | null };
  busy: boolean;
  problem: string | null;
};

/**
 * Steps whose values are places on the picture are shown with it as they know it: a crop as it finds it, the others
 * without what reshapes it later.
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
  const [held, setHeld] = useState<Step[] | null>(null);
  const [selected, select] = useState<number | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was in the hand belongs to the artwork it was on
  useEffect(() => {
    setHeld(null);
    select(null);
  }, [art]);

  const settle = useMutation({
    mutationFn: ({ work }: { work: () => Promise<Prepared>; steps: Step[] | null }) => work(),
    scope: { id: `artwork ${art}` },
    onSuccess: (answer) => keepAnswer(queries, key, answer),
    onSettled: (_, __, { steps }) => {
      setHeld((now) => (now === steps ? null : now));
      for (const what of [["pair", art], ["board"]]) queries.invalidateQueries({ queryKey: what });
    },
  });

  const known = Object.fromEntries((kinds.data ?? []).map((kind) => [kind.id, kind]));
  const prepared = query.data;
  const steps = held ?? (prepared?.steps as Step[] | undefined) ?? [];
  const width_mm = prepared?.width_mm ?? null;
  const seen: Preparation = { steps: seenWith(steps, selected, known), width_mm };
  const ready = wanted && prepared && kinds.data;
  const request = ready ? { art, seen } : null;
  const sheet = useNewestPicture(request, ({ art, seen }) => api.preparationPreview(art, seen, SHEET_PX));
  // What is decided was looked at whole; what is held, or another step's view, on a small copy.
  const whole = held === null && seen.steps.length === steps.length;
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
    hold: setHeld,
    decide: (next, width = width_mm) => {
      setHeld(next);
      settle.mutate({ work: () => api.prepare(art, { steps: next, width_mm: width }), steps: next });
    },
    step: (way) => settle.mutate({ work: () => api.prepareStep(art, way), steps: held }),
    keep: (work) => settle.mutate({ work, steps: held }),
    sheet,
    busy: held !== null || settle.isPending,
    problem: settle.error?.message ?? null,
  };
  return { preparing, error: null };
}
