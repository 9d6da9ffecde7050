import type { components, operations } from "./generated";

export type Schemas = components["schemas"];
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
/** A piece that is added to the artwork. */
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
export type SampleChange = Schemas["SampleOrderIn"];
export type Learned = Schemas["LearnedIn"];
export type HistoryEvent = Schemas["EventOut"];
export type Hit = Schemas["SearchHitOut"];
export type Orders = Schemas["OrdersStateOut"];
export type FileNames = Schemas["FileNamesModel"];
export type NewTitles = Schemas["TitlesIn"];
export type Plan = Schemas["PlanOut"];
export type PlanTask = Schemas["PlanTaskOut"];
export type PlanSettings = Schemas["PlanModel"];
export type PairState = Schemas["CellOut"]["state"];
export type OrderItem = Schemas["OrderItemOut"];
export type ProofState = OrderItem["state"];
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
/** Press and finish; the blank's defaults if not given. */
export type Pressed = Omit<NonNullable<operations["get_press_plan"]["parameters"]["query"]>, "panel">;
export type Kind = Schemas["KindOut"];
export type LogEntryBody = Schemas["PressingIn"];
export type OrdersForm = Schemas["OrdersForm"];
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

/** Answers contain every value, also those that are optional in requests. */
export type Whole<T, Parts extends keyof T> = Omit<T, Parts> & { [Part in Parts]: Required<T[Part]> };

/** The place of a pair, with its open panel. */
export type Place = { art: number; template: string; panel: string | null };

/** The current content of a panel: a placement, a panel that it follows, or nothing; and its pieces. */
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
  settings: MockupSettings | null;
  measured: boolean;
  nudged?: Record<string, [number, number]>;
};
