import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { useSearchParams } from "react-router";
import { api, type Board, type PairState } from "../api/client";
import { pairKey } from "./usePicks";

/** The states of a pair, in the order of the work. */
export const STATES: readonly (readonly [PairState, string])[] = [
  ["check", "To check"],
  ["fix", "To fix"],
  ["picture", "To picture"],
  ["list", "To list"],
  ["listed", "Listed"],
];

export type Shown = PairState | "all";

/** How far each pair has come, and the filter by it. */
export type States = {
  shown: Shown;
  show: (shown: Shown) => void;
  count: (shown: Shown) => number;
  /** Whether the filter shows a pair. */
  shows: (art: number, template: string) => boolean;
  /** The board with the artworks and blanks that have such pairs. */
  filtered: Board | undefined;
};

const unchecked = (art: { states: Record<string, PairState> }) => Object.values(art.states).includes("check");

export function useStates(board: Board | undefined): States {
  const [params, setParams] = useSearchParams();
  const asked = params.get("show") ?? "all";
  const shown: Shown = STATES.find(([state]) => state === asked)?.[0] ?? "all";
  const query = useQuery({
    queryKey: ["board", "states"],
    queryFn: api.boardStates,
    refetchOnMount: "always",
    // the board checks its pairs as they come into sight
    refetchInterval: ({ state }) => (state.data?.artworks.some(unchecked) ? 3000 : false),
  });
  const states = useMemo(() => {
    const map = new Map<string, PairState>();
    for (const { artwork_id, states } of query.data?.artworks ?? [])
      for (const [template, state] of Object.entries(states)) map.set(pairKey(artwork_id, template), state);
    return map;
  }, [query.data]);
  return useMemo(() => {
    const shows = (art: number, template: string) => shown === "all" || states.get(pairKey(art, template)) === shown;
    const artworks = board?.artworks.filter((art) => board.templates.some((t) => shows(art.id, t.id)));
    const templates = board?.templates.filter((t) => board.artworks.some((art) => shows(art.id, t.id)));
    return {
      shown,
      show: (next) => setParams(next === "all" ? {} : { show: next }, { replace: true }),
      count: (of) =>
        of === "all" ? states.size : [...states.values()].reduce((sum, state) => sum + Number(state === of), 0),
      shows,
      filtered: board && shown !== "all" ? { ...board, artworks: artworks ?? [], templates: templates ?? [] } : board,
    };
  }, [board, states, shown, setParams]);
}
