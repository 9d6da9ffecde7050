import type { Held, Place } from "./types";

/** Where everything of a pair is found. */
export const PAIR = "/api/pairs/{artwork_id}/{template_id}";

/** Parameters of addresses of a pair as a whole. */
export const ofPair = ({ art, template }: Place) => ({ params: { path: { artwork_id: art, template_id: template } } });

/** Parameters of addresses of a pair that mean the panel in front. */
export const onPanel = <Query extends object>(place: Place, query: Query = {} as Query) => ({
  params: { ...ofPair(place).params, query: { panel: place.panel, ...query } },
});

/** Content that is still being edited, as previews and checks are asked about it. */
export const edited = ({ placement, pieces }: Held) => ({ content: placement, pieces });
