import { useCallback, useMemo, useState } from "react";
import type { Board } from "../api/client";

export const pairKey = (art: number, template: string) => `${art}/${template}`;

/** The pairs of the board that are selected for work on many pairs. */
export type Picks = {
  has: (art: number, template: string) => boolean;
  count: number;
  pairs: { artwork_id: number; template_id: string }[];
  /** Select pairs, or deselect them if all of them are selected. */
  turn: (arts: number[], templates: string[]) => void;
  /** Whether all, some or none of some pairs are selected. */
  state: (arts: number[], templates: string[]) => "all" | "some" | "none";
  clear: () => void;
};

/** `shows` tells which pairs the board shows: others are not selected with a whole row, column or board. */
export function usePicks(board: Board | undefined, shows: (art: number, template: string) => boolean): Picks {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  // pairs that left the board are deselected
  const there = useMemo(
    () => new Set(board?.artworks.flatMap((art) => board.templates.map((t) => pairKey(art.id, t.id)))),
    [board],
  );
  const now = useMemo(() => [...picked].filter((key) => there.has(key)), [picked, there]);
  const keysOf = useCallback(
    (arts: number[], templates: string[]) =>
      arts.flatMap((art) => templates.filter((t) => shows(art, t)).map((template) => pairKey(art, template))),
    [shows],
  );
  const turn = useCallback(
    (arts: number[], templates: string[]) => {
      setPicked((before) => {
        const keys = keysOf(arts, templates);
        const after = new Set(before);
        const all = keys.every((key) => before.has(key));
        for (const key of keys) all ? after.delete(key) : after.add(key);
        return after;
      });
    },
    [keysOf],
  );
  const clear = useCallback(() => setPicked(new Set()), []);
  return {
    has: (art, template) => picked.has(pairKey(art, template)),
    count: now.length,
    pairs: now.map((key) => {
      const [art = "", template = ""] = key.split("/");
      return { artwork_id: Number(art), template_id: template };
    }),
    turn,
    state: (arts, templates) => {
      const keys = keysOf(arts, templates);
      const count = keys.filter((key) => picked.has(key)).length;
      return count === 0 ? "none" : count === keys.length ? "all" : "some";
    },
    clear,
  };
}
