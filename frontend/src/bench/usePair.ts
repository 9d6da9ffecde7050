import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Colours, type Pair, type Placing, type Proof } from "../api/client";

/** A placing in the hand: shown at once, proved as it goes, decided when it is let go. */
export type Hand = {
  pair: Pair;
  /** What is shown now; what was decided, or what the hand is doing. */
  placing: Placing;
  /** The last proof, and the placing it belongs to. */
  proof: Proof;
  proved: Placing;
  angle: number;
  colours: Colours;
  problem: string | null;
  /** Something is still in the hand or on its way, so files made now would not show it. */
  busy: boolean;
  /** Show a change without deciding it. */
  hold: (change: Partial<Placing>) => void;
  /** Decide a change, or what is held. */
  decide: (change?: Partial<Placing>) => void;
  step: (way: "undo" | "redo") => void;
  turn: (angle: number, settled: boolean) => void;
  choose: (change: { route?: Pair["route"]; colours?: Colours; angle?: number }) => void;
};

export function usePair(art: number, template: string): { hand: Hand | null; error: Error | null; retry: () => void } {
  const queries = useQueryClient();
  const key = ["pair", art, template];
  const query = useQuery({ queryKey: key, queryFn: () => api.pair(art, template) });
  const [held, setHeld] = useState<Placing | null>(null);
  const [glimpse, setGlimpse] = useState<{ placing: Placing; proof: Proof } | null>(null);
  const [angle, setAngle] = useState<number | null>(null);
  const [colours, setColours] = useState<Colours | null>(null);
  const latest = useRef<Placing | null>(null);
  const pair = query.data;
  latest.current = held ?? pair?.placing ?? null;

  const settle = useMutation({
    mutationFn: ({ work }: { work: () => Promise<Pair>; settles: Placing | null }) => work(),
    scope: { id: `${art}/${template}` },
    onSuccess: (answer, { settles }) => {
      queries.setQueryData(key, answer);
      // What the hand has taken up since is not what was answered: it stays in the hand.
      setHeld((now) => (now === settles ? null : now));
      setGlimpse(null);
    },
    onError: (_, { settles }) => setHeld((now) => (now === settles ? null : now)),
    onSettled: () => queries.invalidateQueries({ queryKey: ["board"] }),
  });

  // While something is held, its proof is fetched as it goes; an older answer never replaces a newer one.
  useEffect(() => {
    if (!held) return;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      api
        .proof(art, template, held, stop.signal)
        .then((proof) => setGlimpse({ placing: held, proof }))
        .catch(() => {});
    }, 120);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [held, art, template]);

  // Left in the middle of a movement, the page still decides what was in the hand.
  useEffect(() => {
    const leave = () => held && api.place(art, template, held).catch(() => {});
    window.addEventListener("pagehide", leave);
    return () => window.removeEventListener("pagehide", leave);
  }, [held, art, template]);

  const hold = useCallback((change: Partial<Placing>) => {
    if (latest.current) {
      latest.current = { ...latest.current, ...change };
      setHeld(latest.current);
    }
  }, []);

  if (!pair) return { hand: null, error: query.error, retry: () => query.refetch() };
  const choices = (change: { route?: Pair["route"]; colours?: Colours; angle?: number }) => ({
    route: change.route ?? pair.route,
    angle: change.angle ?? angle ?? pair.angle,
    colours: change.colours ?? colours ?? pair.colours,
  });
  const choose: Hand["choose"] = (change) => {
    if (change.colours) setColours(change.colours);
    if (change.angle !== undefined) setAngle(change.angle);
    const body = choices(change);
    settle.mutate({ work: () => api.choose(art, template, body), settles: null });
  };
  const hand: Hand = {
    pair,
    placing: held ?? pair.placing,
    proof: glimpse?.proof ?? pair.proof,
    proved: glimpse?.placing ?? pair.placing,
    angle: angle ?? pair.angle,
    colours: colours ?? pair.colours,
    problem: settle.error?.message ?? null,
    busy: held !== null || settle.isPending,
    hold,
    decide: (change) => {
      if (change) hold(change);
      const placing = latest.current;
      if (placing) settle.mutate({ work: () => api.place(art, template, placing), settles: placing });
    },
    step: (way) => settle.mutate({ work: () => api.step(art, template, way), settles: held }),
    turn: (next, settled) => {
      setAngle(next);
      if (settled) choose({ angle: next });
    },
    choose,
  };
  return { hand, error: null, retry: () => query.refetch() };
}
