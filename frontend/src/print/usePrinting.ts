import { useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Pair, type Place, type Printing, type PrintState } from "../api/client";
import { type Jobs, useJobs } from "../jobs/useJobs";
import { useDraft } from "../ui/useDraft";

const PRINT_JOBS = ["print"] as const;

/** The print options of the pair, and the jobs that make its files. */
export type Print = {
  state: PrintState | null;
  work: Jobs;
  change: (values: Partial<Printing>) => void;
  make: (sides: "this" | "all") => void;
  making: boolean;
  settling: boolean;
  problem: string | null;
};

export function usePrinting(place: Place, pair: Pair, active: boolean): Print {
  const queries = useQueryClient();
  const key = ["printing", place.art, place.template, place.panel];
  // The file also depends on the route and the content, so they are part of the key.
  const state = useQuery({
    queryKey: [...key, pair.route, pair.artwork.sha256],
    queryFn: () => api.printing(place),
    enabled: active,
    placeholderData: (old) => old,
  });
  const draft = useDraft<Printing, PrintState>({
    saved: (state.data?.printing as Printing | undefined) ?? null,
    subject: `printing ${place.art}/${place.template}`,
    editKey: state.data?.edit_key,
    keyOf: (answer) => answer.edit_key,
    onStale: state.refetch,
    onAnswer: (answer) => keepAnswer(queries, [...key, pair.route, pair.artwork.sha256], answer),
    // the other sides share it
    onSettled: () => queries.invalidateQueries({ queryKey: ["printing", place.art, place.template] }),
  });
  const work = useJobs(place, PRINT_JOBS, active);
  return {
    state: state.data && draft.value ? { ...state.data, printing: draft.value } : null,
    work,
    change: (values) => draft.save(values, (printing, base) => api.setPrinting(place, printing, base)),
    make: (sides) => work.start(() => api.print(place, sides)),
    making: work.busy,
    settling: draft.pending,
    problem: work.problem ?? draft.error?.message ?? null,
  };
}
