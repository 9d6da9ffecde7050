import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
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
import { useDraft } from "../ui/useDraft";
import { WHOLE } from "./geometry";

/** A placement while it is edited: shown at once, checked as it moves, saved when the pointer is released. */
export type PairEditor = {
  pair: Pair;
  place: Place;
  panel: Panel;
  /** Nothing is printed on this panel; `placement` is then the suggested placement. */
  empty: boolean;
  /** It shows a part of another panel's design, and has no placement of its own. */
  follows: boolean;
  /** The placement on the page now: the edited one, else the saved one. */
  placement: Placement;
  /** The current pieces, and the index of the selected one. */
  pieces: Piece[];
  piece: number | null;
  takeUp: (piece: number | null) => void;
  holdPieces: (pieces: Piece[]) => void;
  layPieces: (pieces: Piece[]) => void;
  /** Apply a fix that a check offers. */
  applyFix: (fix: Fix) => void;
  /** The current content, as sent to previews and checks. */
  now: Held;
  /** The last report, and the placement it belongs to. */
  report: PanelReport;
  reportedPlacement: Placement;
  angle: number;
  colours: Colours;
  problem: string | null;
  /** An edit is not saved yet, so files made now would not show it. */
  busy: boolean;
  /** Show a change without saving it. */
  hold: (change: Partial<Placement>) => void;
  /** Save a change, or the unsaved changes. */
  decide: (change?: Partial<Placement>) => void;
  /** Follow another panel across a seam, or stop following. */
  follow: (follow: Follow) => void;
  /** Leave the panel empty. */
  clear: () => void;
  step: (way: "undo" | "redo") => void;
  turn: (angle: number, settled: boolean) => void;
  choose: (change: { route?: Pair["route"]; colours?: Colours; angle?: number }) => void;
};

type Content = { placement: Placement | null; pieces: Piece[] };
const NO_CONTENT: Content = { placement: null, pieces: [] };

const NOTHING: PanelReport = {
  placed_mm: [0, 0, 1, 1],
  effective_dpi: [0, 0],
  verdict: "pass",
  checks: [],
  pieces: [],
  cut_lines: [],
  calm_roll_mm: null,
};

export function usePair(place: Place): { editor: PairEditor | null; error: Error | null; retry: () => void } {
  const { art, template, panel } = place;
  const queries = useQueryClient();
  const key = ["pair", art, template, panel];
  const query = useQuery({ queryKey: key, queryFn: () => api.pair(place), placeholderData: (old) => old });
  const pair = query.data;
  const decided = pair?.placement ?? pair?.suggested_placement ?? WHOLE;
  const draft = useDraft<Content, Pair>({
    saved: pair ? { placement: pair.placement, pieces: pair.pieces as Piece[] } : null,
    subject: key.join("/"),
    scope: `${art}/${template}`,
    editKey: pair?.edit_key,
    keyOf: (answer) => answer.edit_key,
    onStale: () => queries.refetchQueries({ queryKey: ["pair", art, template], type: "active" }),
    onAnswer: async (answer) => {
      await keepAnswer(queries, ["pair", art, template, answer.panel], answer);
      if (panel === null) await keepAnswer(queries, key, answer);
      // an edit of another panel that follows at once is based on this one
      const { edit_key } = answer;
      queries.setQueriesData<Pair>({ queryKey: ["pair", art, template] }, (side) => side && { ...side, edit_key });
      setLive(null);
    },
    onSettled: (answer) => {
      queries.invalidateQueries({ queryKey: ["board"] });
      // other panels share the history and may follow; a panel opened in the meantime is fetched again
      const whole = { queryKey: ["pair", art, template] };
      const isAnswered = (side: unknown) => side === answer?.panel || (side === null && panel === null);
      queries.invalidateQueries({ ...whole, refetchType: "none" });
      queries.refetchQueries({ ...whole, type: "active", predicate: ({ queryKey }) => !isAnswered(queryKey[3]) });
    },
  });
  const [piece, takeUp] = useState<number | null>(null);
  const [live, setLive] = useState<{ placement: Placement; report: PanelReport } | null>(null);
  const [angle, setAngle] = useState<number | null>(null);
  const [colours, setColours] = useState<Colours | null>(null);
  const here = useRef(place);
  here.current = place;

  // biome-ignore lint/correctness/useExhaustiveDependencies: a piece is selected on the panel it belongs to
  useEffect(() => {
    takeUp(null);
    setLive(null);
  }, [art, template, panel]);

  // While something is edited, its report is fetched as it changes; an older answer never replaces a newer one.
  const { placement, pieces } = draft.value ?? NO_CONTENT;
  const edited = draft.isEdited ? JSON.stringify({ placement: placement ?? decided, pieces }) : null;
  useEffect(() => {
    if (!edited) return;
    const now = JSON.parse(edited) as Content & { placement: Placement };
    const stop = new AbortController();
    const timer = setTimeout(() => {
      api
        .report(here.current, now, stop.signal)
        .then((report) => setLive({ placement: now.placement, report }))
        .catch(() => {});
    }, 120);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [edited]);

  // Leaving the page during a movement still saves the placement.
  const held = placement === pair?.placement ? null : placement;
  useEffect(() => {
    const leave = () => held && api.place(here.current, held).catch(() => {});
    window.addEventListener("pagehide", leave);
    return () => window.removeEventListener("pagehide", leave);
  }, [held]);

  if (!pair) return { editor: null, error: query.error, retry: () => query.refetch() };
  const choices = (change: { route?: Pair["route"]; colours?: Colours; angle?: number }) => ({
    route: change.route ?? pair.route,
    angle: change.angle ?? angle ?? pair.angle,
    colours: change.colours ?? colours ?? pair.colours,
  });
  const choose: PairEditor["choose"] = (change) => {
    if (change.colours) setColours(change.colours);
    if (change.angle !== undefined) setAngle(change.angle);
    const body = choices(change);
    draft.act(() => api.choose(place, body), false);
  };
  const placed = (change: Partial<Placement>) => (now: Content) => ({
    placement: { ...(now.placement ?? decided), ...change },
  });
  const follows = pair.follow !== null && placement === null;
  const editor: PairEditor = {
    pair,
    place: { art, template, panel: pair.panel },
    panel: pair.template.panels.find((p) => p.id === pair.panel) as Panel,
    empty: placement === null && pair.follow === null,
    follows,
    placement: placement ?? decided,
    pieces,
    piece: piece !== null && piece < pieces.length ? piece : null,
    takeUp,
    holdPieces: (pieces) => draft.hold({ pieces }),
    layPieces: (pieces) => draft.save({ pieces }, (content, base) => api.lay(place, content.pieces, base)),
    applyFix: (fix) => {
      if (fix.piece === null || fix.piece === undefined) editor.decide(fix.placement as Partial<Placement>);
      else editor.layPieces(pieces.map((each, i) => (i === fix.piece ? ({ ...each, ...fix.values } as Piece) : each)));
    },
    now: { placement: placement ?? pair.follow, pieces },
    report: live?.report ?? pair.report ?? NOTHING,
    reportedPlacement: live?.placement ?? decided,
    angle: angle ?? pair.angle,
    colours: colours ?? pair.colours,
    problem: draft.error?.message ?? null,
    busy: draft.isEdited || draft.pending,
    hold: (change) => draft.hold(placed(change)),
    decide: (change = {}) => {
      if (follows) draft.hold(placed(change));
      else draft.save(placed(change), (content, base) => api.place(place, content.placement, base));
    },
    follow: (follow) => draft.act((base) => api.follow(place, follow, base), false),
    clear: () => draft.act((base) => api.place(place, null, base)),
    step: (way) => draft.act((base) => api.step(place, way, base)),
    turn: (next, settled) => {
      setAngle(next);
      if (settled) choose({ angle: next });
    },
    choose,
  };
  return { editor, error: null, retry: () => query.refetch() };
}
