import { address, data, forView, server, upload } from "./http";
import { edited, ofPair, onPanel, PAIR } from "./places";
import type { Calibration, Follow, Held, MockupRequest, Pair, Piece, Place, Placement, Sample } from "./types";

/** One artwork on one blank: placement, content of its panels, previews, and sewing. */
export const pairs = {
  pair: (place: Place) => data(server.GET(PAIR, onPanel(place))),
  place: (place: Place, placement: Placement | null, based_on?: string) =>
    placement
      ? data(server.PUT(`${PAIR}/placement`, { ...onPanel(place, { based_on }), body: placement }))
      : data(server.DELETE(`${PAIR}/placement`, onPanel(place, { based_on }))),
  step: (place: Place, way: "undo" | "redo", based_on?: string) =>
    data(server.POST(`${PAIR}/${way}`, onPanel(place, { based_on }))),
  copy: (place: Place, template_ids: string[]) =>
    data(server.POST(`${PAIR}/copy`, { ...onPanel(place), body: { template_ids } })),
  follow: (place: Place, body: Follow, based_on?: string) =>
    data(server.PUT(`${PAIR}/follow`, { ...onPanel(place, { based_on }), body })),
  choose: (place: Place, body: Pick<Pair, "route" | "angle" | "colours">) =>
    data(server.PUT(`${PAIR}/choices`, { ...onPanel(place), body })),
  lay: (place: Place, pieces: Piece[], based_on?: string) =>
    data(server.PUT(`${PAIR}/pieces`, { ...onPanel(place, { based_on }), body: { pieces } })),
  history: async (place: Place) => (await data(server.GET(`${PAIR}/history`, ofPair(place)))).events,
  search: async (words: string) => (await data(server.GET("/api/search", { params: { query: { words } } }))).hits,

  flat: (place: Place, width: number, stamp: string) =>
    address(`${PAIR}/flat`, onPanel(place, { width, of: stamp }).params),
  report: (place: Place, now: Held, signal?: AbortSignal) =>
    data(server.POST(`${PAIR}/check`, { ...onPanel(place), body: edited(now), signal })),
  mockupPreview: ({ place, now, size: [width, height], ...shot }: MockupRequest, view?: string) =>
    data(
      server.POST(`${PAIR}/mockup-preview`, {
        ...onPanel(place),
        ...forView(view),
        body: { ...edited(now), ...shot, width, height },
        parseAs: "blob",
      }),
    ),
  flatPreview: (place: Place, now: Held, width: number, view?: string) =>
    data(
      server.POST(`${PAIR}/flat-preview`, {
        ...onPanel(place),
        ...forView(view),
        body: { ...edited(now), width },
        parseAs: "blob",
      }),
    ),
  seam: (place: Place, now: Held) => data(server.POST(`${PAIR}/seam`, { ...onPanel(place), body: edited(now) })),
  seamPreview: (place: Place, now: Held) =>
    data(server.POST(`${PAIR}/seam-preview`, { ...onPanel(place), body: edited(now), parseAs: "blob" })),

  sewing: (place: Place) => data(server.GET(`${PAIR}/sewing`, ofPair(place))),
  calibrate: (place: Place, body: Calibration) => data(server.POST(`${PAIR}/calibrations`, { ...ofPair(place), body })),
  measureSample: (place: Place, body: Sample) => data(server.POST(`${PAIR}/sample-shift`, { ...ofPair(place), body })),
  removeCalibration: (place: Place) => data(server.DELETE(`${PAIR}/calibrations`, ofPair(place))),
  sewnBy: (place: Place, provider: string) =>
    data(server.PUT(`${PAIR}/sewing-provider`, { ...ofPair(place), body: { provider } })),

  fonts: async () => (await data(server.GET("/api/fonts"))).fonts,
  addFont: async (file: File) => (await data(server.POST("/api/fonts", { body: upload(file) }))).fonts,
  fontSample: (key: string) => address("/api/fonts/{key}/sample", { path: { key } }),
};
