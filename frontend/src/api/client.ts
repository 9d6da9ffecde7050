import type { components } from "./generated";

type Schemas = components["schemas"];
export type Art = Schemas["Art"];
export type Blank = Schemas["Blank"];
export type Board = Schemas["Board"];
export type BoardBlank = Schemas["BoardBlank"];
export type Cell = Schemas["Cell"];
export type Check = Schemas["CheckShape"];
export type Limit = Schemas["LimitShape"];
export type MadeFile = Schemas["MadeFile"];
export type Measures = Schemas["MeasuresBody"];
export type Pair = Schemas["Pair"];
export type Panel = Schemas["PanelShape"];
export type Words = Required<Schemas["LetteringBody"]>;
export type Band = Required<Schemas["BandBody"]>;
export type Frames = Required<Schemas["FramesBody"]>;
export type Overlay = Required<Schemas["OverlayBody"]>;
export type Slot = Required<Schemas["SlotBody"]>;
/** Something that is laid with the artwork. */
export type Piece = Words | Band | Frames | Overlay;
export type Font = Schemas["FontShape"];
export type Fix = Schemas["FixShape"];
export type Placing = Schemas["PlacingBody"];
export type Follow = Schemas["FollowBody"];
export type Sewing = Schemas["SewingState"];
export type Sample = Schemas["SampleBody"];
export type Calibration = Schemas["CalibrationBody"];
export type Proof = Schemas["ProofShape"];
export type PrintState = Schemas["PrintState"];
export type Printing = Required<Schemas["PrintingBody"]>;
export type PrintPlan = Schemas["PrintPlan"];
export type Job = Schemas["JobShape"];
export type Batch = Schemas["BatchShape"];
export type BatchBody = Schemas["BatchBody"];
export type BatchList = Schemas["BatchList"];
export type Sell = Whole<Schemas["SellState"], "shop" | "costs" | "sale">;
export type SellChange = Partial<Pick<Sell, "shop" | "costs" | "sale">>;
export type Listing = Whole<Schemas["ListingState"], "art_words" | "blank_words">;
export type ListingChange = Partial<Schemas["ListingBody"]>;
export type ListingSlot = Schemas["ListingSlot"];
export type ShownSlot = Schemas["ShownSlot"];
export type Market = Schemas["MarketShape"];
export type MarketLimits = Schemas["MarketBody"];
export type Providers = Schemas["ProvidersState"];
export type Provider = Schemas["ProviderShape"];
export type Offer = Required<Schemas["OfferBody"]>;
export type OneSample = Schemas["SampleShape"];
export type SampleChange = Partial<Schemas["OrderedSample"]> & { ordered: string };
export type Learned = Partial<Schemas["LearnedBody"]> & Pick<Schemas["LearnedBody"], "to">;
export type Deed = Schemas["DeedShape"];
export type Hit = Schemas["HitShape"];
export type Orders = Schemas["OrdersState"];
export type LeftOut = Schemas["LeftOut"];
export type Shot = Schemas["ShotBody"];
export type Backdrop = Required<Schemas["BackdropBody"]>;
export type Caption = Required<Schemas["CaptionBody"]>;
export type Grade = Required<Schemas["GradeBody"]>;
export type Showing = Required<Schemas["Showing"]> & { grade: Grade };
export type ShowState = Schemas["ShowState"];
export type Surface = Schemas["SurfaceShape"];
export type Look = Schemas["LookShape"];
export type Film = Required<Schemas["FilmBody"]>;
export type Printer = Schemas["PrinterShape"];
export type GangState = Schemas["GangState"];
export type Gang = Required<Schemas["GangBody"]>;
export type Press = Schemas["PressState"];
export type PressStep = Schemas["StepShape"];
export type Figures = Required<Schemas["FiguresBody"]>;
export type Machine = Schemas["PressBody"];
export type LogEntry = Schemas["LogEntry"];
export type Fault = Schemas["FaultShape"];
/** Which press and finish are meant; what is not given is the blank's usual. */
export type Pressed = { method?: string; press?: string; finish?: string; by?: string };
export type Kind = Schemas["KindShape"];
export type Origin = Schemas["OriginBody"];
export type Preparation = Schemas["PreparationBody"];
export type Prepared = Schemas["Prepared"];
export type Report = Schemas["Report"];
export type Step = Required<Schemas["StepBody"]>;
export type StepField = Schemas["FieldShape"];
export type Region = Schemas["RegionShape"];
export type OwnScene = Schemas["OwnSceneState"];
export type OwnLine = Schemas["OwnSceneLine"];
export type PhotoMarks = Required<Schemas["MarksBody"]>;
export type Dab = Schemas["DabBody"];
export type Seam = Schemas["Seam"];
export type Scene = Schemas["SceneShape"];
export type Traced = Schemas["TracedShape"];
export type Template = Schemas["TemplateShape"];
export type Status = Check["status"];
export type Colours = Pair["colours"];

/** What is answered holds every value, also those that may be left out when it is sent. */
type Whole<T, Parts extends keyof T> = Omit<T, Parts> & { [Part in Parts]: Required<T[Part]> };

/** A sentence for the person at the page. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly offline = false,
  ) {
    super(message);
  }
}

async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  const init: RequestInit = { method, signal };
  if (body instanceof FormData) init.body = body;
  else if (body !== undefined) {
    init.body = JSON.stringify(body);
    init.headers = { "Content-Type": "application/json" };
    init.keepalive = true; // what was decided arrives even if the page is left at once
  }
  let answer: Response;
  try {
    answer = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Problem("Improva does not answer. Is it still running? What you decided so far is kept.", true);
  }
  if (answer.ok) return answer;
  const told = await answer.json().catch(() => null);
  throw new Problem(typeof told?.detail === "string" ? told.detail : `The request failed (${answer.status}).`);
}

async function json<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  return (await (await send(method, path, body, signal)).json()) as T;
}

/** Where a pair is, with one of its panels in front. */
export type Place = { art: number; template: string; panel: string | null };

function at({ art, template, panel }: Place, rest = "", query: Record<string, string> = {}): string {
  const asked = new URLSearchParams(panel ? { panel, ...query } : query).toString();
  return `/api/pairs/${art}/${encodeURIComponent(template)}${rest}${asked ? `?${asked}` : ""}`;
}

/** What lies on a panel now: a placing, what it follows, or nothing; and what is laid with it. */
export type Held = { placing: Placing | Follow | null; pieces: Piece[] };

const held = ({ placing, pieces }: Held): Record<string, string> => ({
  placing: placing ? JSON.stringify(placing) : "",
  pieces: JSON.stringify(pieces),
});

function form(file: File): FormData {
  const data = new FormData();
  data.set("file", file);
  return data;
}

const art = (id: number, rest: string) => `/api/artworks/${id}/${rest}`;
const asked = (preparation: Preparation, px = 64) =>
  new URLSearchParams({ preparation: JSON.stringify(preparation), px: `${px}` });
const blank = (id: string, rest = "") => `/api/blanks/${encodeURIComponent(id)}${rest}`;

export const api = {
  board: () => json<Board>("GET", "/api/board"),
  boardRow: (art: number) => json<Schemas["BoardRow"]>("GET", `/api/board/${art}`),
  cell: (art: number, template: string) => json<Cell>("GET", `/api/board/${art}/${encodeURIComponent(template)}`),
  addArt: (file: File) => json<Art>("POST", "/api/artworks", form(file)),
  addPhoto: (file: File) => json<Art>("POST", "/api/artworks?aside=true", form(file)),
  renameArt: (id: number, title: string) => json<Art>("PATCH", `/api/artworks/${id}`, { title }),
  removeArt: (id: number) => send("DELETE", `/api/artworks/${id}`),
  restoreArt: (id: number) => json<Art>("POST", `/api/artworks/${id}/restore`),
  preview: (art: Art, px: number) => `/api/artworks/${art.id}/preview?px=${px}&of=${art.sha256.slice(0, 12)}`,
  kinds: async () => (await json<{ kinds: Kind[] }>("GET", "/api/artworks/steps")).kinds,
  prepared: (id: number) => json<Prepared>("GET", art(id, "preparation")),
  prepare: (id: number, body: Preparation) => json<Prepared>("PUT", art(id, "preparation"), body),
  prepareStep: (id: number, way: "undo" | "redo") => json<Prepared>("POST", art(id, `preparation/${way}`)),
  held: async (id: number, preparation: Preparation, px: number) =>
    (await send("GET", art(id, `held?${asked(preparation, px)}`))).blob(),
  heldReport: (id: number, preparation: Preparation) =>
    json<Report>("GET", art(id, `held/report?${asked(preparation)}`)),
  noteOrigin: (id: number, origin: Origin) => json<Prepared>("PUT", art(id, "origin"), origin),
  keepLicence: (id: number, file: File) => json<Prepared>("PUT", art(id, "licence"), form(file)),
  dropLicence: (id: number) => json<Prepared>("DELETE", art(id, "licence")),
  licence: (id: number) => art(id, "licence"),
  pair: (place: Place) => json<Pair>("GET", at(place)),
  place: (place: Place, placing: Placing | null) =>
    placing ? json<Pair>("PUT", at(place, "/placing"), placing) : json<Pair>("DELETE", at(place, "/placing")),
  step: (place: Place, way: "undo" | "redo") => json<Pair>("POST", at(place, `/${way}`)),
  copy: (place: Place, template_ids: string[]) =>
    json<{ template_ids: string[] }>("POST", at(place, "/copy"), { template_ids }),
  follow: (place: Place, follow: Follow) => json<Pair>("PUT", at(place, "/follow"), follow),
  sewing: (place: Place) => json<Sewing>("GET", at(place, "/sewing")),
  calibrate: (place: Place, body: Calibration) => json<Sewing>("POST", at(place, "/calibrations"), body),
  sampleShows: (place: Place, body: Sample) =>
    json<{ right_mm: number; down_mm: number }>("POST", at(place, "/sample"), body),
  takeBackCalibration: (place: Place) => json<Sewing>("DELETE", at(place, "/calibrations")),
  sewnBy: (place: Place, provider: string) => json<Sewing>("PUT", at(place, "/sewer"), { provider }),
  flatOf: (place: Place, laying: string, width: number, stamp: string) =>
    at(place, "/flat", { placing: laying, width: `${width}`, of: stamp }),
  choose: (place: Place, choices: { route: Pair["route"]; angle: number; colours: Colours }) =>
    json<Pair>("PUT", at(place, "/choices"), choices),
  lay: (place: Place, pieces: Piece[]) => json<Pair>("PUT", at(place, "/pieces"), { pieces }),
  fonts: async () => (await json<{ fonts: Font[] }>("GET", "/api/fonts")).fonts,
  addFont: async (file: File) => (await json<{ fonts: Font[] }>("POST", "/api/fonts", form(file))).fonts,
  fontSample: (key: string) => `/api/fonts/${encodeURIComponent(key)}/sample`,
  proof: (place: Place, now: Held, signal?: AbortSignal) =>
    json<Proof>("GET", at(place, "/proof", held(now)), undefined, signal),
  look: async (
    place: Place,
    now: Held,
    scene: string,
    colours: Colours,
    angle: number,
    [width, height]: [number, number],
    view: string | null = null,
    dressed: Partial<Showing> | null = null,
    measured = false,
    nudged: Record<string, [number, number]> = {},
  ) => {
    const asked: Record<string, string> = { ...held(now), scene, colours: JSON.stringify(colours), angle: `${angle}` };
    if (view) asked.view = view;
    if (dressed) asked.dressed = JSON.stringify(dressed);
    if (measured) asked.measured = "true";
    if (Object.keys(nudged).length > 0) asked.nudged = JSON.stringify(nudged);
    const sized = { ...asked, width: `${width}`, height: `${height}` };
    return (await send("GET", at(place, "/look", sized))).blob();
  },
  flat: async (place: Place, now: Held, width: number) =>
    (await send("GET", at(place, "/flat", { ...held(now), width: `${width}` }))).blob(),
  seam: (place: Place, now: Held) => json<Seam>("GET", at(place, "/seam", held(now))),
  seamPicture: (place: Place, now: Held) => at(place, "/seam-picture", held(now)),
  printing: (place: Place) => json<PrintState>("GET", at(place, "/printing")),
  setPrinting: (place: Place, printing: Printing) => json<PrintState>("PUT", at(place, "/printing"), printing),
  print: (place: Place, sides: "this" | "all") => json<Job>("POST", at(place, "/print-job"), { sides }),
  jobs: async (place: Place) => (await json<{ jobs: Job[] }>("GET", at({ ...place, panel: null }, "/jobs"))).jobs,
  selling: (place: Place) => json<Sell>("GET", at({ ...place, panel: null }, "/selling")),
  decideSelling: (place: Place, change: SellChange) =>
    json<Sell>("PUT", at({ ...place, panel: null }, "/selling"), change),
  listing: (place: Place) => json<Listing>("GET", at({ ...place, panel: null }, "/listing")),
  decideListing: (place: Place, change: ListingChange) =>
    json<Listing>("PUT", at({ ...place, panel: null }, "/listing"), change),
  listingLook: (place: Place, slot: ListingSlot, of: string) =>
    at({ ...place, panel: null }, "/listing/look", { slot: JSON.stringify(slot), of }),
  overrule: (place: Place, why: string) =>
    json<Listing>("POST", at({ ...place, panel: null }, "/listing/overruling"), { why }),
  withdrawOverruling: (place: Place) => json<Listing>("DELETE", at({ ...place, panel: null }, "/listing/overruling")),
  makePack: (place: Place) => json<Job>("POST", at({ ...place, panel: null }, "/listing-job")),
  handIn: (place: Place, url: string) =>
    json<Listing>("POST", at({ ...place, panel: null }, "/listing/hand-in"), { url }),
  setMarket: (id: string, limits: MarketLimits) => send("PUT", `/api/markets/${encodeURIComponent(id)}`, limits),
  forgetMarket: (id: string) => send("DELETE", `/api/markets/${encodeURIComponent(id)}`),
  providers: (place: Place) => json<Providers>("GET", at({ ...place, panel: null }, "/providers")),
  keepProvider: (name: string, origin: string, note: string) =>
    send("PUT", `/api/providers/${encodeURIComponent(name)}`, { origin, note }),
  forgetProvider: (name: string) => send("DELETE", `/api/providers/${encodeURIComponent(name)}`),
  keepOffer: (place: Place, name: string, offer: Offer) =>
    json<Providers>("PUT", at({ ...place, panel: null }, `/providers/${encodeURIComponent(name)}/offer`), offer),
  takeCosts: (place: Place, name: string) =>
    json<Providers>("POST", at({ ...place, panel: null }, `/providers/${encodeURIComponent(name)}/costs`)),
  addSample: (place: Place, sample: SampleChange) =>
    json<Providers>("POST", at({ ...place, panel: null }, "/samples"), sample),
  changeSample: (id: number, sample: SampleChange) => json<Providers>("PUT", `/api/samples/${id}`, sample),
  removeSample: (id: number) => json<Providers>("DELETE", `/api/samples/${id}`),
  learned: (id: number, body: Learned) => json<Providers>("POST", `/api/samples/${id}/learned`, body),
  addSamplePhoto: (id: number, file: File) => json<Providers>("POST", `/api/samples/${id}/photos`, form(file)),
  timeline: async (place: Place) =>
    (await json<{ deeds: Deed[] }>("GET", at({ ...place, panel: null }, "/timeline"))).deeds,
  search: async (words: string) =>
    (await json<{ hits: Hit[] }>("GET", `/api/search?${new URLSearchParams({ words })}`)).hits,
  orders: (place: Place) => json<Orders>("GET", at({ ...place, panel: null }, "/orders")),
  makeOrders: (place: Place, table: File, photos: File[]) => {
    const body = form(table);
    for (const photo of photos) body.append("photos", photo);
    return json<Job>("POST", at({ ...place, panel: null }, "/orders"), body);
  },
  makeOrder: (place: Place, name: string, values: Record<string, string>, photos: Record<string, number>) =>
    json<Job>("POST", at({ ...place, panel: null }, "/order"), { name, values, photos }),
  batches: () => json<BatchList>("GET", "/api/batches"),
  beginBatch: (body: BatchBody) => json<BatchList>("POST", "/api/batches", body),
  steerBatch: (id: number, how: "pause" | "resume" | "stop" | "again") =>
    json<BatchList>("POST", `/api/batches/${id}/${how}`),
  putBatchAway: (id: number) => json<BatchList>("DELETE", `/api/batches/${id}`),
  stopJob: (id: number) => json<Job>("POST", `/api/jobs/${id}/stop`),
  press: (place: Place, asked: Pressed) => json<Press>("GET", at(place, "/press", asked)),
  keepMaker: (place: Place, asked: Pressed, figures: Figures | null) =>
    json<Press>("PUT", at(place, "/press/maker", asked), { figures }),
  keepPress: (place: Place, asked: Pressed, press: Machine) =>
    json<Press>("PUT", at(place, "/press/machine", asked), press),
  logPressing: (place: Place, asked: Pressed, entry: Schemas["PressingBody"]) =>
    json<Press>("POST", at(place, "/press/log", asked), entry),
  pressingPhoto: (id: number) => `/api/pressings/${id}/photo`,
  keepPressingPhoto: (id: number, file: File) => send("PUT", `/api/pressings/${id}/photo`, form(file)),
  removePressing: (id: number) => send("DELETE", `/api/pressings/${id}`),
  ticket: (place: Place) => at({ ...place, panel: null }, "/ticket"),
  printer: () => json<Printer>("GET", "/api/simulated-printer"),
  tendPrinter: (deed: "refill" | "clear" | "jam") => json<Printer>("POST", `/api/simulated-printer/${deed}`),
  queue: (url: string, copies: number) =>
    json<Schemas["PrintedShape"]>("POST", "/api/simulated-printer/queue", { url, copies }),
  bringToDesk: (place: Place, url: string) =>
    json<Schemas["DeskAnswer"]>("POST", at(place, "/simulated-upload"), { url }),
  gang: () => json<GangState>("GET", "/api/gang"),
  setGang: (gang: Gang) => json<GangState>("PUT", "/api/gang", gang),
  makeGang: () => json<Job>("POST", "/api/gang/job"),
  softProof: (place: Place, intent: Printing["intent"], paper: boolean) =>
    at(place, "/soft-proof", { intent, paper: `${paper}` }),
  flatPicture: (place: Place, now: Held, width: number) => at(place, "/flat", { ...held(now), width: `${width}` }),
  showing: (place: Place) => json<ShowState>("GET", at({ ...place, panel: null }, "/showing")),
  setShowing: (place: Place, showing: Showing) =>
    json<ShowState>("PUT", at({ ...place, panel: null }, "/showing"), showing),
  makePictures: (place: Place) => json<Job>("POST", at({ ...place, panel: null }, "/picture-job")),
  makeFilm: (place: Place, film: Film) => json<Job>("POST", at({ ...place, panel: null }, "/film-job"), film),
  looks: async () => (await json<{ looks: Look[] }>("GET", "/api/looks")).looks,
  keepLook: async (name: string, showing: Showing, colours: Colours) =>
    (await json<{ looks: Look[] }>("PUT", `/api/looks/${encodeURIComponent(name)}`, { showing, colours })).looks,
  forgetLook: async (name: string) =>
    (await json<{ looks: Look[] }>("DELETE", `/api/looks/${encodeURIComponent(name)}`)).looks,
  applyLook: (place: Place, name: string) =>
    json<ShowState>("POST", at({ ...place, panel: null }, `/looks/${encodeURIComponent(name)}`)),
  ownScenes: async () => (await json<{ scenes: OwnLine[] }>("GET", "/api/own-scenes")).scenes,
  beginScene: (photo_id: number, template_id: string, panel_id: string | null) =>
    json<OwnScene>("POST", "/api/own-scenes", { photo_id, template_id, panel_id }),
  ownScene: (id: number) => json<OwnScene>("GET", `/api/own-scenes/${id}`),
  markScene: (id: number, title: string, panel: string, marks: PhotoMarks) =>
    json<OwnScene>("PUT", `/api/own-scenes/${id}`, { title, panel, marks }),
  makeScene: (id: number) => json<OwnScene>("POST", `/api/own-scenes/${id}/pack`),
  takeScene: (file: File) => json<unknown>("POST", "/api/own-scenes/packs", form(file)),
  removeScene: (id: number) => json<unknown>("DELETE", `/api/own-scenes/${id}`),
  restoreScene: (id: number) => json<unknown>("POST", `/api/own-scenes/${id}/restore`),
  scenePack: (id: number) => `/api/own-scenes/${id}/pack`,
  sceneMask: (scene: OwnScene) => `/api/own-scenes/${scene.id}/mask?key=${scene.key}`,
  sceneLook: (scene: OwnScene, artwork: number) =>
    `/api/own-scenes/${scene.id}/look?key=${scene.key}&artwork_id=${artwork}`,
  blanks: async () => (await json<{ blanks: Blank[] }>("GET", "/api/blanks")).blanks,
  setBoard: (template_ids: string[]) => json<unknown>("PUT", "/api/blanks/board", { template_ids }),
  drawing: (measures: Measures, signal?: AbortSignal) =>
    json<Template>("POST", "/api/blanks/drawing", measures, signal),
  keepMeasured: (measures: Measures) => json<Blank>("POST", "/api/blanks/measured", measures),
  importBlank: (file: File) => json<Blank>("POST", "/api/blanks/import", form(file)),
  blankFile: (id: string) => blank(id, "/toml"),
  removeBlank: (id: string) => send("DELETE", blank(id)),
  restoreBlank: (id: string) => json<Blank>("POST", blank(id, "/restore")),
  setLimit: (id: string, name: string, value: number | null) =>
    json<Blank>("PUT", blank(id, `/limits/${name}`), { value }),
  traceGuide: (file: File) => json<Traced>("POST", "/api/blanks/guide", form(file)),
  keepGuide: (id: string, panel: string, file: File) =>
    json<Blank>("PUT", blank(id, `/panels/${panel}/guide`), form(file)),
  dropGuide: (id: string, panel: string) => json<Blank>("DELETE", blank(id, `/panels/${panel}/guide`)),
  guide: (id: string, panel: string) => blank(id, `/panels/${panel}/guide`),
  keepProfile: (id: string, file: File) => json<Blank>("PUT", blank(id, "/profile"), form(file)),
  dropProfile: (id: string) => json<Blank>("DELETE", blank(id, "/profile")),
};
