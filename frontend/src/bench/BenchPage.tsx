import { Redo2, Undo2 } from "lucide-react";
import { type ComponentType, useEffect, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { Preparation } from "../artwork/Preparation";
import { usePreparation } from "../artwork/usePreparation";
import { CheckStation } from "../check/CheckStation";
import { FitStation } from "../fit/FitStation";
import { MockupStation } from "../mockups/MockupStation";
import { ScenesPane } from "../mockups/ScenesPane";
import { type Mockups, useMockups } from "../mockups/useMockups";
import { PressStation } from "../press/PressStation";
import { PrintStation } from "../print/PrintStation";
import { type Print, usePrinting } from "../print/usePrinting";
import { SellStation } from "../sell/SellStation";
import { SewnPane } from "../sewn/SewnPane";
import { type Sewn, useSewing } from "../sewn/useSewing";
import { Choice } from "../ui/Choice";
import { Below, Masthead } from "../ui/Masthead";
import { Alert, Button } from "../ui/parts";
import { UnitChoice } from "../ui/UnitChoice";
import { useKeys } from "../ui/useKeys";
import { FlatPane } from "./FlatPane";
import { HistorySheet } from "./HistorySheet";
import { KeySheet } from "./KeySheet";
import { PreviewPane, type Seen } from "./PreviewPane";
import { Route } from "./Route";
import { Sides } from "./Sides";
import { COLUMN, COLUMNS, RENAMED, STATIONS, type Station } from "./stations";
import { type PairEditor, usePair } from "./usePair";

const PANES: Record<
  Laid,
  ComponentType<{ editor: PairEditor; print: Print; shows: Mockups; seen: Seen | null; sewn: Sewn }>
> = {
  fit: FitStation,
  check: CheckStation,
  mockups: MockupStation,
  print: PrintStation,
};

const TICKED = ["checkbox", "radio", "range", "color", "file"];
/** Text fields have their own undo. */
const typesInto = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && !TICKED.includes(target.type));

export function BenchPage() {
  const params = useParams();
  const station = STATIONS.find((s) => s === params.station) ?? RENAMED[params.station ?? ""] ?? "fit";
  const [search, setSearch] = useSearchParams();
  const place = { art: Number(params.art), template: params.template ?? "", panel: search.get("side") };
  const { editor, error: unpaired, retry } = usePair(place);
  const { preparing, error: unprepared } = usePreparation(place.art, station === "artwork");
  const error = unpaired ?? unprepared;
  // Undo applies to what is open: the artwork's steps, or the placement on this blank.
  const ofSteps = station === "artwork" && search.get("part") !== "with-it";
  const history = ofSteps ? preparing : editor;
  const { can_undo, can_redo } = (ofSteps ? preparing?.prepared : editor?.pair) ?? {};

  const toSide = (side: string) =>
    setSearch(
      (now) => {
        now.set("side", side);
        return now;
      },
      { replace: true },
    );

  useKeys((event) => {
    if (!(event.ctrlKey || event.metaKey) || typesInto(event.target) || !history) return;
    const name = event.key.toLowerCase();
    if (name !== "z" && name !== "y") return;
    event.preventDefault();
    history.step(name === "y" || event.shiftKey ? "redo" : "undo");
  });

  return (
    <div className="flex h-full flex-col">
      <Masthead
        where={
          editor && (
            <Below>
              <b className="text-ink">{editor.pair.artwork.title}</b> on {editor.pair.template.title}
            </Below>
          )
        }
      >
        {editor && (
          <div className="flex items-center gap-1">
            <Button
              tone="quiet"
              aria-label="Undo"
              title="Undo (Ctrl+Z)"
              disabled={!can_undo}
              onClick={() => history?.step("undo")}
            >
              <Undo2 size={17} aria-hidden="true" />
            </Button>
            <Button
              tone="quiet"
              aria-label="Redo"
              title="Redo (Ctrl+Shift+Z)"
              disabled={!can_redo}
              onClick={() => history?.step("redo")}
            >
              <Redo2 size={17} aria-hidden="true" />
            </Button>
            <HistorySheet place={editor.place} />
            <KeySheet />
          </div>
        )}
        <UnitChoice />
      </Masthead>
      {error && (
        <main className="p-6">
          <Alert onRetry={retry}>{error.message}</Alert>
        </main>
      )}
      {!error && !editor && <p className="p-8 text-soft">Loading the bench…</p>}
      {editor && (
        <>
          <Route pair={editor.pair} report={editor.report} station={station} />
          {station === "press" && <PressStation place={editor.place} pair={editor.pair} />}
          {station === "sell" && (
            <SellStation place={editor.place} pair={editor.pair} panel={editor.panel} busy={editor.busy} />
          )}
          {station !== "artwork" && station !== "press" && station !== "sell" && (
            <Bench editor={editor} station={station} onSide={toSide} />
          )}
          {station === "artwork" &&
            !error &&
            (preparing ? <Preparation preparing={preparing} editor={editor} onSide={toSide} /> : <Waiting />)}
        </>
      )}
    </div>
  );
}

const Waiting = () => <p className="p-8 text-soft">Loading the artwork…</p>;

type Laid = Exclude<Station, "artwork" | "press" | "sell">;

function Bench({ editor, station, onSide }: { editor: PairEditor; station: Laid; onSide: (side: string) => void }) {
  const Column = PANES[station];
  const printing = station === "print";
  const mirrored = printing && editor.pair.route === "press";
  const print = usePrinting(editor.place, editor.pair, printing);
  const showsMockups = station === "mockups";
  const shows = useMockups(editor, showsMockups);
  const [seen, setSeen] = useState<Seen | null>(null);
  const [flatView, setFlatView] = useState<"cut" | "sewn">("cut");
  const canBeSewn = editor.pair.template.seams.length > 0 && (station === "fit" || station === "check");
  const sewn = useSewing(editor.place, editor.pair, canBeSewn);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another panel or blank has its own scene
  useEffect(() => setSeen(null), [editor.panel.id, editor.pair.template.id]);
  return (
    <main aria-busy={editor.busy} className={COLUMNS}>
      <section aria-label={station} className={COLUMN}>
        {editor.pair.panels.length > 1 && <Sides pair={editor.pair} panel={editor.panel} onSide={onSide} />}
        {canBeSewn && (
          <Choice
            label="Flat view"
            value={flatView}
            options={[
              { value: "cut", label: "As cut" },
              { value: "sewn", label: "Sewn together" },
            ]}
            onChange={setFlatView}
          />
        )}
        {editor.problem && <Alert>{editor.problem}</Alert>}
        <Column
          key={`${editor.pair.template.id} ${editor.panel.id}`}
          editor={editor}
          print={print}
          shows={shows}
          seen={seen}
          sewn={sewn}
        />
      </section>
      {showsMockups ? (
        <ScenesPane editor={editor} shows={shows} seen={seen} onSee={setSeen} />
      ) : canBeSewn && flatView === "sewn" ? (
        <SewnPane place={editor.place} pair={editor.pair} panel={editor.panel} sewn={sewn} onSide={onSide} />
      ) : (
        <FlatPane
          editor={editor}
          mirrored={mirrored}
          findings={station === "check"}
          plan={printing ? print.state?.plan : null}
        />
      )}
      <PreviewPane editor={editor} seen={seen} onSee={setSeen} shows={showsMockups ? shows : null} nudge={sewn.nudge} />
    </main>
  );
}
