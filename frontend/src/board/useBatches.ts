import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { keepAnswer } from "../api/answers";
import { api, type Batch, type BatchBody, type BatchList, type LeftOut } from "../api/client";

const LOOK_EVERY_MS = 700;

/** Work on many pairs: started, watched, paused, stopped. */
export type Batches = {
  batches: Batch[];
  leftOut: LeftOut[];
  begin: (body: BatchBody, then: () => void) => void;
  beginning: boolean;
  steer: (batch: Batch, how: "pause" | "resume" | "stop" | "again" | "away") => void;
  problem: string | null;
};

export function useBatches(): Batches {
  const queries = useQueryClient();
  const key = ["batches"];
  const query = useQuery({
    queryKey: key,
    queryFn: api.batches,
    refetchInterval: (query) =>
      query.state.data?.batches.some((batch) => batch.under_way && !batch.paused) ? LOOK_EVERY_MS : false,
  });
  const keep = (list: BatchList) => keepAnswer(queries, key, list);
  const begin = useMutation({ mutationFn: ({ body }: { body: BatchBody; then: () => void }) => api.beginBatch(body) });
  const steer = useMutation({
    mutationFn: ({ batch, how }: { batch: Batch; how: Parameters<Batches["steer"]>[1] }) =>
      how === "away" ? api.dismissBatch(batch.id) : api.steerBatch(batch.id, how),
    onSuccess: keep,
  });

  // cells show the progress of their pairs, so they are fetched again when a job ends
  const ended = query.data?.batches.reduce((sum, batch) => sum + batch.done, 0) ?? 0;
  const before = useRef(ended);
  useEffect(() => {
    if (ended !== before.current) queries.invalidateQueries({ queryKey: ["board", "row"] });
    before.current = ended;
  }, [ended, queries]);

  return {
    batches: query.data?.batches ?? [],
    leftOut: begin.data?.left_out ?? [],
    begin: (body, then) =>
      begin.mutate(
        { body, then },
        {
          onSuccess: (list) => {
            keep(list);
            then();
          },
        },
      ),
    beginning: begin.isPending,
    steer: (batch, how) => steer.mutate({ batch, how }),
    problem: begin.error?.message ?? steer.error?.message ?? null,
  };
}
