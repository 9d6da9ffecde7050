import type { Held, Place } from "./types";

/** The place of a pair: artwork, blank and panel. */
export const PAIR = "/api/pairs/{artwork_id}/{template_id}";

/** Parameters of addresses of a pair as a whole. */
export const ofPair = ({ art, template }: Place) => ({ params: { path: { artwork_id: art, template_id: template } } });

/** Parameters of addresses of one panel of a pair. */
export const onPanel = <Query extends object>(place: Place, query: Query = {} as Query) => ({
  params: { ...ofPair(place).params, query: { panel: place.panel, ...query } },
});

/** Unsaved content, as sent to previews and checks. */
export const edited = ({ placement, pieces }: Held) => ({ content: placement, pieces });
