import type { Art, Panel } from "../api/client";

/** What the fields of a piece are given. `hold` looks at a change, `lay` decides it. */
export type PieceProps<T> = {
  piece: T;
  panel: Panel;
  arts: Art[];
  offered: string[];
  hold: (change: Partial<T>) => void;
  lay: (change: Partial<T>) => void;
};
