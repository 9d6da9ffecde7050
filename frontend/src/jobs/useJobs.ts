import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, type Job, type Place } from "../api/client";
import { fetchFile } from "../ui/Downloads";

const LOOK_EVERY_MS = 300;
export const underWay = (job: Job) => job.state === "queued" || job.state === "running";

/** The jobs of one pair, of some kinds: started, watched, stopped. */
export type Jobs = {
  jobs: Job[];
  /** Start a job. One or two files download by themselves. */
  start: (work: () => Promise<Job>) => void;
  stop: (job: Job) => void;
  starting: boolean;
  busy: boolean;
  problem: string | null;
};

const LANDS_BY_ITSELF = 2;
/** Other files wait under their links. */
const LIST = "_pictures.json";

export function useJobs(place: Place, kinds: readonly string[], active: boolean): Jobs {
  const queries = useQueryClient();
  const key = ["jobs", place.art, place.template];
  const query = useQuery({
    queryKey: key,
    queryFn: () => api.jobs(place),
    enabled: active,
    refetchInterval: (query) => (query.state.data?.some(underWay) ? LOOK_EVERY_MS : false),
  });
  const started = useRef(new Set<number>());
  const start = useMutation({
    mutationFn: (work: () => Promise<Job>) => work(),
    onSuccess: (job) => {
      started.current.add(job.id);
      queries.invalidateQueries({ queryKey: key });
    },
  });
  const stop = useMutation({
    mutationFn: (job: Job) => api.stopJob(job.id),
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
  });

  // A file requested on this page downloads by itself; after a reload it waits under its link.
  useEffect(() => {
    for (const job of query.data ?? []) {
      if (underWay(job) || !started.current.delete(job.id)) continue;
      const landing = job.files.filter((file) => !file.name.endsWith(LIST));
      if (landing.length <= LANDS_BY_ITSELF) for (const file of landing) fetchFile(file);
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
      queries.invalidateQueries({ queryKey: ["board"] });
    }
  }, [query.data, queries, place.art, place.template]);

  const jobs = (query.data ?? []).filter((job) => kinds.includes(job.kind));
  return {
    jobs,
    start: start.mutate,
    stop: stop.mutate,
    starting: start.isPending,
    busy: start.isPending || jobs.some(underWay),
    problem: start.error?.message ?? query.error?.message ?? null,
  };
}
