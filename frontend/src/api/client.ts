import { artworks } from "./artworks";
import { blanks } from "./blanks";
import { mockups } from "./mockups";
import { pairs } from "./pairs";
import { production } from "./production";
import { selling } from "./selling";

export { Problem } from "./http";
export type * from "./types";

/** Everything that the page asks the server, by resource in the files beside this one. */
export const api = { ...artworks, ...pairs, ...production, ...selling, ...mockups, ...blanks };
