import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type Job, type Printing, type PrintState } from "../api/client";
import type { Hand } from "../bench/usePair";
import { fetchFile } from "../ui/Downloads";

const LOOK_EVERY_MS = 300;
export const underWay = (job: Job) => job.state === "queued" || job.state === "running";

/** How the pair in hand is printed, and the jobs that print it. */
export type Print = {
  state: PrintState | null;
  jobs: Job[];
  change: (values: Partial<Printing>) => void;
  make: (sides: "this" | "all") => void;
  stop: (job: Job) => void;
  making: boolean;
  problem: string | null;
};

export function usePrinting(hand: Hand, active: boolean): Print {
  const queries = useQueryClient();
  const { place, pair } = hand;
  const key = ["printing", place.art, place.template, place.panel];
  const jobsKey = ["jobs", place.art, place.template];
  // The route and what is laid decide the file too, so they are part of what is asked.
  const state = useQuery({
    queryKey: [...key, pair.route, pair.artwork.sha256],
    queryFn: () => api.printing(place),
    enabled: active,
    placeholderData: (old) => old,
  });
  const jobs = useQuery({
    queryKey: jobsKey,
    queryFn: () => api.jobs(place),
    enabled: active,
    refetchInterval: (query) => (query.state.data?.some(underWay) ? LOOK_EVERY_MS : false),
  });
  const [held, setHeld] = useState<Printing | null>(null);
  const change = useMutation({
    mutationFn: (printing: Printing) => api.setPrinting(place, printing),
    scope: { id: `printing ${place.art}/${place.template}` },
    onSuccess: (answer) => queries.setQueryData([...key, pair.route, pair.artwork.sha256], answer),
    onSettled: (_, __, settled) => {
      setHeld((now) => (now === settled ? null : now));
      // the other sides share it
      queries.invalidateQueries({ queryKey: ["printing", place.art, place.template] });
    },
  });
  const started = useRef(new Set<number>());
  const make = useMutation({
    mutationFn: (sides: "this" | "all") => api.print(place, sides),
    onSuccess: (job) => {
      started.current.add(job.id);
      queries.invalidateQueries({ queryKey: jobsKey });
    },
  });
  const stop = useMutation({
    mutationFn: (job: Job) => api.stopJob(job.id),
    onSuccess: () => queries.invalidateQueries({ queryKey: jobsKey }),
  });

  // A file that was asked for here lands by itself; after a reload it waits under its link.
  useEffect(() => {
    for (const job of jobs.data ?? []) {
      if (underWay(job) || !started.current.delete(job.id)) continue;
      for (const file of job.files) fetchFile(file);
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
      queries.invalidateQueries({ queryKey: ["board"] });
    }
  }, [jobs.data, queries, place.art, place.template]);

  const shown = state.data && held ? { ...state.data, printing: held } : (state.data ?? null);
  return {
    state: shown,
    jobs: jobs.data ?? [],
    change: (values) => {
      if (!shown) return;
      const next = { ...(shown.printing as Printing), ...values };
      setHeld(next);
      change.mutate(next);
    },
    make: make.mutate,
    stop: stop.mutate,
    making: make.isPending || change.isPending,
    problem: make.error?.message ?? change.error?.message ?? jobs.error?.message ?? null,
  };
}
