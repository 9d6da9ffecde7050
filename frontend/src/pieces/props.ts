import type { Art, Panel } from "../api/client";

/** Props of the fields of a piece. `hold` previews a change, `lay` saves it. */
export type PieceProps<T> = {
  piece: T;
  panel: Panel;
  arts: Art[];
  offered: string[];
  hold: (change: Partial<T>) => void;
  lay: (change: Partial<T>) => void;
};
