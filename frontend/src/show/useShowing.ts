import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { keepAnswer } from "../api/answers";
import { api, type Colours, type Film, type Look, type Showing, type ShowState } from "../api/client";
import type { Hand } from "../bench/usePair";
import { type Jobs, useJobs } from "../jobs/useJobs";

const SHOW_JOBS = ["pictures", "film"] as const;

/** Which pictures of the pair in hand are made, and the jobs that make them. */
export type Shows = {
  state: ShowState | null;
  showing: Showing | null;
  /** What looks are dressed with: light, words, what lies behind; not which views are made. */
  dressed: Partial<Showing> | null;
  change: (values: Partial<Showing>) => void;
  /** What is in the hand and not decided yet. */
  hold: (values: Partial<Showing>) => void;
  work: Jobs;
  make: () => void;
  film: (film: Film) => void;
  looks: Look[];
  keepLook: (name: string) => void;
  forgetLook: (name: string) => void;
  takeLook: (name: string) => void;
  settling: boolean;
  problem: string | null;
};

export function useShowing(hand: Hand, active: boolean): Shows {
  const queries = useQueryClient();
  const { place, pair } = hand;
  const key = ["showing", place.art, place.template];
  // Colours and what is printed decide what is to be said about the pictures.
  const asked = [...key, pair.colours, pair.panels.map((panel) => panel.printed)];
  const state = useQuery({
    queryKey: asked,
    queryFn: () => api.showing(place),
    enabled: active,
    placeholderData: (old) => old,
  });
  const [held, setHeld] = useState<Showing | null>(null);
  const change = useMutation({
    mutationFn: (showing: Showing) => api.setShowing(place, showing),
    scope: { id: `showing ${place.art}/${place.template}` },
    onSuccess: (answer) => keepAnswer(queries, asked, answer),
    onSettled: (_, __, settled) => setHeld((now) => (now === settled ? null : now)),
  });
  const looks = useQuery({ queryKey: ["looks"], queryFn: api.looks, enabled: active });
  const keep = useMutation({
    mutationFn: ([name, showing, colours]: [string, Showing, Colours]) => api.keepLook(name, showing, colours),
    onSuccess: (found) => keepAnswer(queries, ["looks"], found),
  });
  const forget = useMutation({
    mutationFn: api.forgetLook,
    onSuccess: (found) => keepAnswer(queries, ["looks"], found),
  });
  const use = useMutation({
    mutationFn: (name: string) => api.applyLook(place, name),
    onSuccess: () => {
      queries.invalidateQueries({ queryKey: key });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
    },
  });
  const work = useJobs(place, SHOW_JOBS, active);
  const showing = held ?? ((state.data?.showing as Showing | undefined) || null);
  const problem = change.error ?? keep.error ?? forget.error ?? use.error;
  return {
    state: state.data ?? null,
    showing,
    dressed: showing && {
      ...showing,
      shots: [],
      variants: {},
      sizes: [[2000, 2000]],
      format: showing.clear ? "png" : "jpg",
    },
    change: (values) => {
      if (!showing) return;
      const next = { ...showing, ...values };
      setHeld(next);
      change.mutate(next);
    },
    hold: (values) => showing && setHeld({ ...showing, ...values }),
    work,
    make: () => work.start(() => api.makePictures(place)),
    film: (film) => work.start(() => api.makeFilm(place, film)),
    looks: looks.data ?? [],
    keepLook: (name) => showing && keep.mutate([name, showing, hand.colours]),
    forgetLook: forget.mutate,
    takeLook: use.mutate,
    settling: change.isPending,
    problem: work.problem ?? problem?.message ?? null,
  };
}
