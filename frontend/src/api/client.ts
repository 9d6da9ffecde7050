import { artworks } from "./artworks";
import { blanks } from "./blanks";
import { mockups } from "./mockups";
import { pairs } from "./pairs";
import { production } from "./production";
import { selling } from "./selling";
import { session } from "./session";

export { Problem } from "./http";
export type * from "./types";

/** All requests of the page to the server; the files beside this one hold them by resource. */
export const api = { ...artworks, ...pairs, ...production, ...selling, ...mockups, ...blanks, ...session };
