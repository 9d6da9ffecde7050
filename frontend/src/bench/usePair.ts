import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { keepAnswer } from "../api/answers";
import {
  api,
  type Colours,
  type Fix,
  type Follow,
  type Held,
  type Pair,
  type Panel,
  type PanelReport,
  type Piece,
  type Place,
  type Placement,
} from "../api/client";
import { WHOLE } from "./geometry";

/** A placement while it is edited: shown at once, checked as it moves, saved when the pointer is released. */
export type Hand = {
  pair: Pair;
  place: Place;
  panel: Panel;
  /** Nothing is printed on this panel; `placement` is then what would be laid there. */
  empty: boolean;
  /** It shows a part of another panel's design, and has no placement of its own. */
  follows: boolean;
  /** What is shown now; what was decided, or what the hand is doing. */
  placement: Placement;
  /** What is laid with the artwork now, and which of it is in hand. */
  pieces: Piece[];
  piece: number | null;
  takeUp: (piece: number | null) => void;
  holdPieces: (pieces: Piece[]) => void;
  layPieces: (pieces: Piece[]) => void;
  /** Carry out a mend that a check offers. */
  mend: (fix: Fix) => void;
  /** All of it, as previews and checks take it. */
  now: Held;
  /** The last report, and the placement it belongs to. */
  report: PanelReport;
  reportedPlacement: Placement;
  angle: number;
  colours: Colours;
  problem: string | null;
  /** Something is still in the hand or on its way, so files made now would not show it. */
  busy: boolean;
  /** Show a change without deciding it. */
  hold: (change: Partial<Placement>) => void;
  /** Decide a change, or what is held. */
  decide: (change?: Partial<Placement>) => void;
  /** Show what lies past a seam, or stand alone again. */
  follow: (follow: Follow) => void;
  /** Leave the panel empty. */
  clear: () => void;
  step: (way: "undo" | "redo") => void;
  turn: (angle: number, settled: boolean) => void;
  choose: (change: { route?: Pair["route"]; colours?: Colours; angle?: number }) => void;
};

const NOTHING: PanelReport = {
  placed_mm: [0, 0, 1, 1],
  effective_dpi: [0, 0],
  verdict: "pass",
  checks: [],
  pieces: [],
};

export function usePair(place: Place): { hand: Hand | null; error: Error | null; retry: () => void } {
  const { art, template, panel } = place;
  const queries = useQueryClient();
  const key = ["pair", art, template, panel];
  const query = useQuery({ queryKey: key, queryFn: () => api.pair(place), placeholderData: (old) => old });
  const [held, setHeld] = useState<Placement | null>(null);
  const [heldPieces, setHeldPieces] = useState<Piece[] | null>(null);
  const [piece, takeUp] = useState<number | null>(null);
  const [glimpse, setGlimpse] = useState<{ placement: Placement; report: PanelReport } | null>(null);
  const [angle, setAngle] = useState<number | null>(null);
  const [colours, setColours] = useState<Colours | null>(null);
  const latest = useRef<Placement | null>(null);
  const pair = query.data;
  const decided = pair?.placement ?? pair?.suggested_placement ?? WHOLE;
  const pieces = heldPieces ?? (pair?.pieces as Piece[] | undefined) ?? [];
  latest.current = held ?? (pair ? decided : null);
  const here = useRef(place);
  here.current = place;

  // biome-ignore lint/correctness/useExhaustiveDependencies: what was in the hand belongs to the panel it was on
  useEffect(() => {
    setHeld(null);
    setHeldPieces(null);
    takeUp(null);
    setGlimpse(null);
  }, [art, template, panel]);

  const letGo = (settled: Placement | Piece[] | null) => {
    setHeld((now) => (now === settled ? null : now));
    setHeldPieces((now) => (now === settled ? null : now));
  };
  const settle = useMutation({
    mutationFn: ({ work }: { work: () => Promise<Pair>; settles: Placement | Piece[] | null }) => work(),
    scope: { id: `${art}/${template}` },
    onSuccess: async (answer, { settles }) => {
      await keepAnswer(queries, ["pair", art, template, answer.panel], answer);
      if (panel === null) await keepAnswer(queries, key, answer);
      // What the hand has taken up since is not what was answered: it stays in the hand.
      letGo(settles);
      setGlimpse(null);
    },
    onError: (_, { settles }) => letGo(settles),
    onSettled: (answer) => {
      queries.invalidateQueries({ queryKey: ["board"] });
      // other panels share the history and may follow; one that was gone to meanwhile is asked anew
      const whole = { queryKey: ["pair", art, template] };
      const told = (side: unknown) => side === answer?.panel || (side === null && panel === null);
      queries.invalidateQueries({ ...whole, refetchType: "none" });
      queries.refetchQueries({ ...whole, type: "active", predicate: ({ queryKey }) => !told(queryKey[3]) });
    },
  });

  // While something is held, its report is fetched as it goes; an older answer never replaces a newer one.
  const proving = held || heldPieces ? JSON.stringify({ placement: held ?? decided, pieces }) : null;
  useEffect(() => {
    if (!proving) return;
    const asked = JSON.parse(proving) as { placement: Placement; pieces: Piece[] };
    const stop = new AbortController();
    const timer = setTimeout(() => {
      api
        .report(here.current, asked, stop.signal)
        .then((report) => setGlimpse({ placement: asked.placement, report }))
        .catch(() => {});
    }, 120);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [proving]);

  // Left in the middle of a movement, the page still decides what was in the hand.
  useEffect(() => {
    const leave = () => held && api.place(here.current, held).catch(() => {});
    window.addEventListener("pagehide", leave);
    return () => window.removeEventListener("pagehide", leave);
  }, [held]);

  const hold = useCallback((change: Partial<Placement>) => {
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
    settle.mutate({ work: () => api.choose(place, body), settles: null });
  };
  const hand: Hand = {
    pair,
    place: { art, template, panel: pair.panel },
    panel: pair.template.panels.find((p) => p.id === pair.panel) as Panel,
    empty: pair.placement === null && held === null && pair.follow === null,
    follows: pair.follow !== null && held === null,
    placement: held ?? decided,
    pieces,
    piece: piece !== null && piece < pieces.length ? piece : null,
    takeUp,
    holdPieces: setHeldPieces,
    layPieces: (next) => {
      setHeldPieces(next);
      settle.mutate({ work: () => api.lay(place, next), settles: next });
    },
    mend: (fix) => {
      if (fix.piece === null || fix.piece === undefined) hand.decide(fix.placement as Partial<Placement>);
      else hand.layPieces(pieces.map((each, i) => (i === fix.piece ? ({ ...each, ...fix.values } as Piece) : each)));
    },
    now: { placement: held ?? pair.placement ?? pair.follow, pieces },
    report: glimpse?.report ?? pair.report ?? NOTHING,
    reportedPlacement: glimpse?.placement ?? decided,
    angle: angle ?? pair.angle,
    colours: colours ?? pair.colours,
    problem: settle.error?.message ?? null,
    busy: held !== null || heldPieces !== null || settle.isPending,
    hold,
    decide: (change) => {
      if (change) hold(change);
      const placement = latest.current;
      if (placement && !hand.follows) settle.mutate({ work: () => api.place(place, placement), settles: placement });
    },
    follow: (follow) => settle.mutate({ work: () => api.follow(place, follow), settles: null }),
    clear: () => settle.mutate({ work: () => api.place(place, null), settles: held }),
    step: (way) => settle.mutate({ work: () => api.step(place, way), settles: held }),
    turn: (next, settled) => {
      setAngle(next);
      if (settled) choose({ angle: next });
    },
    choose,
  };
  return { hand, error: null, retry: () => query.refetch() };
}
