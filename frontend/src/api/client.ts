import type { components } from "./generated";
import { json, send } from "./http";

export { Problem } from "./http";

type Schemas = components["schemas"];
export type Art = Schemas["ArtworkOut"];
export type Blank = Schemas["BlankOut"];
export type Board = Schemas["BoardOut"];
export type BoardBlank = Schemas["BoardBlankOut"];
export type Cell = Schemas["CellOut"];
export type Check = Schemas["CheckOut"];
export type Limit = Schemas["LimitOut"];
export type MadeFile = Schemas["MadeFileOut"];
export type Measures = Schemas["MeasuresIn"];
export type Pair = Schemas["PairOut"];
export type Panel = Schemas["PanelOut"];
export type Words = Required<Schemas["LetteringModel"]>;
export type Band = Required<Schemas["BandModel"]>;
export type Frames = Required<Schemas["FramesModel"]>;
export type Overlay = Required<Schemas["OverlayModel"]>;
export type Slot = Required<Schemas["SlotModel"]>;
/** Something that is laid with the artwork. */
export type Piece = Words | Band | Frames | Overlay;
export type Font = Schemas["FontOut"];
export type Fix = Schemas["FixOut"];
export type Placement = Schemas["PlacementModel"];
export type Follow = Schemas["FollowModel"];
export type Sewing = Schemas["SewingStateOut"];
export type Sample = Schemas["SamplePointsIn"];
export type Calibration = Schemas["CalibrationIn"];
export type PanelReport = Schemas["PanelReportOut"];
export type PrintState = Schemas["PrintStateOut"];
export type Printing = Required<Schemas["PrintingModel"]>;
export type PrintPlan = Schemas["PrintPlanOut"];
export type Job = Schemas["JobOut"];
export type Batch = Schemas["BatchOut"];
export type BatchBody = Schemas["BatchIn"];
export type BatchList = Schemas["BatchListOut"];
export type Sell = Whole<Schemas["SaleStateOut"], "shop" | "costs" | "sale">;
export type SellChange = Partial<Pick<Sell, "shop" | "costs" | "sale">>;
export type Listing = Whole<Schemas["ListingStateOut"], "art_words" | "blank_words">;
export type ListingChange = Partial<Schemas["ListingIn"]>;
export type ListingSlot = Schemas["ListingSlotModel"];
export type ShownSlot = Schemas["ListingPictureOut"];
export type Market = Schemas["MarketOut"];
export type MarketLimits = Schemas["MarketIn"];
export type Providers = Schemas["ProvidersStateOut"];
export type Provider = Schemas["ProviderOut"];
export type Offer = Required<Schemas["OfferModel"]>;
export type OneSample = Schemas["SampleOut"];
export type SampleChange = Partial<Schemas["SampleOrderIn"]> & { ordered: string };
export type Learned = Partial<Schemas["LearnedIn"]> & Pick<Schemas["LearnedIn"], "to">;
export type HistoryEvent = Schemas["EventOut"];
export type Hit = Schemas["SearchHitOut"];
export type Orders = Schemas["OrdersStateOut"];
export type LeftOut = Schemas["SkippedPairOut"];
export type Shot = Schemas["ShotModel"];
export type Backdrop = Required<Schemas["BackdropModel"]>;
export type Caption = Required<Schemas["CaptionModel"]>;
export type Grade = Required<Schemas["GradeModel"]>;
export type MockupSettings = Required<Schemas["MockupSettings"]> & { grade: Grade };
export type MockupState = Schemas["MockupStateOut"];
export type Surface = Schemas["SurfaceOut"];
export type Preset = Schemas["PresetOut"];
export type Film = Required<Schemas["FilmIn"]>;
export type Printer = Schemas["PrinterOut"];
export type GangState = Schemas["GangStateOut"];
export type Gang = Required<Schemas["GangModel"]>;
export type Press = Schemas["PressStateOut"];
export type PressStep = Schemas["PressStepOut"];
export type Figures = Required<Schemas["FiguresIn"]>;
export type Machine = Schemas["PressIn"];
export type LogEntry = Schemas["LogEntryOut"];
export type Fault = Schemas["FaultOut"];
/** Which press and finish are meant; what is not given is the blank's usual. */
export type Pressed = { method?: string; press?: string; finish?: string; by?: string };
export type Kind = Schemas["KindOut"];
export type Origin = Schemas["OriginIn"];
export type Preparation = Schemas["PreparationIn"];
export type Prepared = Schemas["PreparationOut"];
export type Report = Schemas["PreparationReportOut"];
export type Step = Required<Schemas["StepIn"]>;
export type StepField = Schemas["FieldOut"];
export type Region = Schemas["RegionOut"];
export type OwnScene = Schemas["OwnSceneStateOut"];
export type OwnLine = Schemas["OwnSceneLineOut"];
export type PhotoMarks = Required<Schemas["MarksModel"]>;
export type Dab = Schemas["DabModel"];
export type Seam = Schemas["SeamMatchOut"];
export type Scene = Schemas["SceneOut"];
export type Traced = Schemas["GuideTraceOut"];
export type Template = Schemas["TemplateOut"];
export type Status = Check["status"];
export type Colours = Pair["colours"];

/** What is answered holds every value, also those that may be left out when it is sent. */
type Whole<T, Parts extends keyof T> = Omit<T, Parts> & { [Part in Parts]: Required<T[Part]> };

/** Where a pair is, with one of its panels in front. */
export type Place = { art: number; template: string; panel: string | null };

function at({ art, template, panel }: Place, rest = "", query: Record<string, string> = {}): string {
  const asked = new URLSearchParams(panel ? { panel, ...query } : query).toString();
  return `/api/pairs/${art}/${encodeURIComponent(template)}${rest}${asked ? `?${asked}` : ""}`;
}

/** What lies on a panel now: a placement, what it follows, or nothing; and what is laid with it. */
export type Held = { placement: Placement | Follow | null; pieces: Piece[] };

/** A quick mock-up of edited content; `settings` renders it as the finished mock-ups will be. */
export type MockupRequest = {
  place: Place;
  now: Held;
  scene: string;
  colours: Colours;
  angle: number;
  size: [width: number, height: number];
  view: string | null;
  settings: Partial<MockupSettings> | null;
  measured?: boolean;
  nudged?: Record<string, [number, number]>;
};

const edited = ({ placement, pieces }: Held) => ({ content: placement, pieces });

function form(file: File): FormData {
  const data = new FormData();
  data.set("file", file);
  return data;
}

const art = (id: number, rest: string) => `/api/artworks/${id}/${rest}`;
const blank = (id: string, rest = "") => `/api/blanks/${encodeURIComponent(id)}${rest}`;

export const api = {
  board: () => json<Board>("GET", "/api/board"),
  boardRow: (art: number) => json<Schemas["BoardRowOut"]>("GET", `/api/board/${art}`),
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
  preparationPreview: async (id: number, preparation: Preparation, px: number) =>
    (await send("POST", art(id, `preparation/preview?px=${px}`), preparation)).blob(),
  preparationReport: (id: number, preparation: Preparation) =>
    json<Report>("POST", art(id, "preparation/report"), preparation),
  noteOrigin: (id: number, origin: Origin) => json<Prepared>("PUT", art(id, "origin"), origin),
  keepLicence: (id: number, file: File) => json<Prepared>("PUT", art(id, "licence"), form(file)),
  dropLicence: (id: number) => json<Prepared>("DELETE", art(id, "licence")),
  licence: (id: number) => art(id, "licence"),
  pair: (place: Place) => json<Pair>("GET", at(place)),
  place: (place: Place, placement: Placement | null) =>
    placement ? json<Pair>("PUT", at(place, "/placement"), placement) : json<Pair>("DELETE", at(place, "/placement")),
  step: (place: Place, way: "undo" | "redo") => json<Pair>("POST", at(place, `/${way}`)),
  copy: (place: Place, template_ids: string[]) =>
    json<{ template_ids: string[] }>("POST", at(place, "/copy"), { template_ids }),
  follow: (place: Place, follow: Follow) => json<Pair>("PUT", at(place, "/follow"), follow),
  sewing: (place: Place) => json<Sewing>("GET", at(place, "/sewing")),
  calibrate: (place: Place, body: Calibration) => json<Sewing>("POST", at(place, "/calibrations"), body),
  sampleShows: (place: Place, body: Sample) =>
    json<{ right_mm: number; down_mm: number }>("POST", at(place, "/sample-shift"), body),
  takeBackCalibration: (place: Place) => json<Sewing>("DELETE", at(place, "/calibrations")),
  sewnBy: (place: Place, provider: string) => json<Sewing>("PUT", at(place, "/sewing-provider"), { provider }),
  flat: (place: Place, width: number, stamp: string) => at(place, "/flat", { width: `${width}`, of: stamp }),
  choose: (place: Place, choices: { route: Pair["route"]; angle: number; colours: Colours }) =>
    json<Pair>("PUT", at(place, "/choices"), choices),
  lay: (place: Place, pieces: Piece[]) => json<Pair>("PUT", at(place, "/pieces"), { pieces }),
  fonts: async () => (await json<{ fonts: Font[] }>("GET", "/api/fonts")).fonts,
  addFont: async (file: File) => (await json<{ fonts: Font[] }>("POST", "/api/fonts", form(file))).fonts,
  fontSample: (key: string) => `/api/fonts/${encodeURIComponent(key)}/sample`,
  report: (place: Place, now: Held, signal?: AbortSignal) =>
    json<PanelReport>("POST", at(place, "/check"), edited(now), signal),
  mockupPreview: async ({ place, now, size: [width, height], ...shot }: MockupRequest) =>
    (await send("POST", at(place, "/mockup-preview"), { ...edited(now), ...shot, width, height })).blob(),
  flatPreview: async (place: Place, now: Held, width: number) =>
    (await send("POST", at(place, "/flat-preview"), { ...edited(now), width })).blob(),
  seam: (place: Place, now: Held) => json<Seam>("POST", at(place, "/seam"), edited(now)),
  seamPreview: async (place: Place, now: Held) => (await send("POST", at(place, "/seam-preview"), edited(now))).blob(),
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
  listingPreview: async (place: Place, slot: ListingSlot) =>
    (await send("POST", at({ ...place, panel: null }, "/listing/preview"), slot)).blob(),
  overrule: (place: Place, why: string) =>
    json<Listing>("POST", at({ ...place, panel: null }, "/listing/overruling"), { why }),
  withdrawOverruling: (place: Place) => json<Listing>("DELETE", at({ ...place, panel: null }, "/listing/overruling")),
  makePack: (place: Place) => json<Job>("POST", at({ ...place, panel: null }, "/listing-job")),
  handIn: (place: Place, url: string) =>
    json<Listing>("POST", at({ ...place, panel: null }, "/listing/submission"), { url }),
  setMarket: (id: string, limits: MarketLimits) => send("PUT", `/api/marketplaces/${encodeURIComponent(id)}`, limits),
  forgetMarket: (id: string) => send("DELETE", `/api/marketplaces/${encodeURIComponent(id)}`),
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
    (await json<{ events: HistoryEvent[] }>("GET", at({ ...place, panel: null }, "/history"))).events,
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
  logPressing: (place: Place, asked: Pressed, entry: Schemas["PressingIn"]) =>
    json<Press>("POST", at(place, "/press/log", asked), entry),
  pressingPhoto: (id: number) => `/api/pressings/${id}/photo`,
  keepPressingPhoto: (id: number, file: File) => send("PUT", `/api/pressings/${id}/photo`, form(file)),
  removePressing: (id: number) => send("DELETE", `/api/pressings/${id}`),
  ticket: (place: Place) => at({ ...place, panel: null }, "/ticket"),
  printer: () => json<Printer>("GET", "/api/simulated-printer"),
  tendPrinter: (deed: "refill" | "clear" | "jam") => json<Printer>("POST", `/api/simulated-printer/${deed}`),
  queue: (url: string, copies: number) =>
    json<Schemas["PrintedOut"]>("POST", "/api/simulated-printer/queue", { url, copies }),
  bringToDesk: (place: Place, url: string) =>
    json<Schemas["UploadAnswerOut"]>("POST", at(place, "/simulated-upload"), { url }),
  gang: () => json<GangState>("GET", "/api/gang"),
  setGang: (gang: Gang) => json<GangState>("PUT", "/api/gang", gang),
  makeGang: () => json<Job>("POST", "/api/gang/job"),
  softProof: (place: Place, intent: Printing["intent"], paper: boolean) =>
    at(place, "/soft-proof", { intent, paper: `${paper}` }),
  mockupSettings: (place: Place) => json<MockupState>("GET", at({ ...place, panel: null }, "/mockup-settings")),
  setMockupSettings: (place: Place, settings: MockupSettings) =>
    json<MockupState>("PUT", at({ ...place, panel: null }, "/mockup-settings"), settings),
  makePictures: (place: Place) => json<Job>("POST", at({ ...place, panel: null }, "/mockup-job")),
  makeFilm: (place: Place, film: Film) => json<Job>("POST", at({ ...place, panel: null }, "/film-job"), film),
  presets: async () => (await json<{ presets: Preset[] }>("GET", "/api/presets")).presets,
  savePreset: async (name: string, settings: MockupSettings, colours: Colours) =>
    (
      await json<{ presets: Preset[] }>("PUT", `/api/presets/${encodeURIComponent(name)}`, {
        mockup_settings: settings,
        colours,
      })
    ).presets,
  removePreset: async (name: string) =>
    (await json<{ presets: Preset[] }>("DELETE", `/api/presets/${encodeURIComponent(name)}`)).presets,
  applyPreset: (place: Place, name: string) =>
    json<MockupState>("POST", at({ ...place, panel: null }, `/presets/${encodeURIComponent(name)}`)),
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
