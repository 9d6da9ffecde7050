import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Calibration, type Pair, type Place, type Sewing } from "../api/client";

/** The unsaved offset of a following panel, in mm from its assumed sewn position. */
export type Nudge = { seam: string; right: number; down: number };

/** How the pair is sewn, and its calibrations. */
export type Sewn = {
  state: Sewing | null;
  /** The pictures of its panels change with it. */
  stamp: string;
  nudge: Nudge | null;
  hold: (nudge: Nudge | null) => void;
  keep: (provider: string, sample: string) => void;
  takeBack: () => void;
  sewnBy: (provider: string) => void;
  busy: boolean;
  problem: string | null;
};

export function useSewing(place: Place, pair: Pair, active: boolean): Sewn {
  const queries = useQueryClient();
  const key = ["sewing", place.art, place.template, pair.artwork.sha256, pair.content_key];
  const query = useQuery({
    queryKey: key,
    queryFn: () => api.sewing(place),
    enabled: active && pair.template.seams.length > 0,
    placeholderData: (old) => old,
  });
  const [nudge, hold] = useState<Nudge | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: an unsaved correction belongs to its blank
  useEffect(() => hold(null), [place.template]);
  const change = useMutation({
    mutationFn: (work: () => Promise<Sewing>) => work(),
    scope: { id: `sewing ${place.template}` },
    onSuccess: () => {
      hold(null);
      // files, pictures and checks of every design on this blank change too
      queries.invalidateQueries({ queryKey: ["pair"] });
      queries.invalidateQueries({ queryKey: ["sewing"] });
      queries.invalidateQueries({ queryKey: ["board"] });
    },
  });
  const state = query.data ?? null;
  return {
    state,
    stamp: JSON.stringify([pair.artwork.sha256, pair.content_key, state?.corrections ?? null]),
    nudge,
    hold,
    keep: (provider, sample) => {
      if (!nudge || !state) return;
      const [right, down] = state.corrections[nudge.seam] ?? [0, 0];
      const body: Calibration = {
        provider,
        sample,
        seam: nudge.seam,
        right_mm: right + nudge.right,
        down_mm: down + nudge.down,
      };
      change.mutate(() => api.calibrate(place, body));
    },
    takeBack: () => change.mutate(() => api.removeCalibration(place)),
    sewnBy: (provider) => change.mutate(() => api.sewnBy(place, provider)),
    busy: change.isPending,
    problem: change.error?.message ?? query.error?.message ?? null,
  };
}
