import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { keepAnswer } from "../api/answers";
import { api, type Printing, type PrintState } from "../api/client";
import type { Hand } from "../bench/usePair";
import { type Jobs, useJobs } from "../jobs/useJobs";

const PRINT_JOBS = ["print"] as const;

/** How the pair in hand is printed, and the jobs that print it. */
export type Print = {
  state: PrintState | null;
  work: Jobs;
  change: (values: Partial<Printing>) => void;
  make: (sides: "this" | "all") => void;
  making: boolean;
  settling: boolean;
  problem: string | null;
};

export function usePrinting(hand: Hand, active: boolean): Print {
  const queries = useQueryClient();
  const { place, pair } = hand;
  const key = ["printing", place.art, place.template, place.panel];
  // The route and what is laid decide the file too, so they are part of what is asked.
  const state = useQuery({
    queryKey: [...key, pair.route, pair.artwork.sha256],
    queryFn: () => api.printing(place),
    enabled: active,
    placeholderData: (old) => old,
  });
  const [held, setHeld] = useState<Printing | null>(null);
  const change = useMutation({
    mutationFn: (printing: Printing) => api.setPrinting(place, printing),
    scope: { id: `printing ${place.art}/${place.template}` },
    onSuccess: (answer) => keepAnswer(queries, [...key, pair.route, pair.artwork.sha256], answer),
    onSettled: (_, __, settled) => {
      setHeld((now) => (now === settled ? null : now));
      // the other sides share it
      queries.invalidateQueries({ queryKey: ["printing", place.art, place.template] });
    },
  });
  const work = useJobs(place, PRINT_JOBS, active);
  const shown = state.data && held ? { ...state.data, printing: held } : (state.data ?? null);
  return {
    state: shown,
    work,
    change: (values) => {
      if (!shown) return;
      const next = { ...(shown.printing as Printing), ...values };
      setHeld(next);
      change.mutate(next);
    },
    make: (sides) => work.start(() => api.print(place, sides)),
    making: work.busy,
    settling: change.isPending,
    problem: work.problem ?? change.error?.message ?? null,
  };
}
