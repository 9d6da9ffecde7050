import { Redo2, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useLocation, useNavigate, useParams, useSearchParams } from "react-router";
import { ArtworkStation } from "../artwork/ArtworkStation";
import { clicksOf } from "../artwork/click";
import { SheetPane } from "../artwork/SheetPane";
import { type Preparing, usePreparation } from "../artwork/usePreparation";
import { FitStation } from "../fit/FitStation";
import { PrintStation } from "../print/PrintStation";
import { ProveStation } from "../prove/ProveStation";
import { ShowStation } from "../show/ShowStation";
import { Masthead } from "../ui/Masthead";
import { Alert, Button, Mark, WORDS } from "../ui/parts";
import { UnitChoice } from "../ui/UnitChoice";
import { FlatPane } from "./FlatPane";
import { KeySheet } from "./KeySheet";
import { ShownPane } from "./ShownPane";
import { type Hand, usePair } from "./usePair";

const STATIONS = ["artwork", "fit", "prove", "show", "print"] as const;
type Station = (typeof STATIONS)[number];
const PANES = { fit: FitStation, prove: ProveStation, show: ShowStation, print: PrintStation };

const TICKED = ["checkbox", "radio", "range", "color", "file"];
/** Fields for text have an undo of their own. */
const typesInto = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && !TICKED.includes(target.type));

export function BenchPage() {
  const params = useParams();
  const station = STATIONS.find((s) => s === params.station) ?? "fit";
  const [search, setSearch] = useSearchParams();
  const place = { art: Number(params.art), template: params.template ?? "", panel: search.get("side") };
  const { hand, error: unpaired, retry } = usePair(place);
  const { preparing, error: unprepared } = usePreparation(place.art, station === "artwork");
  const error = unpaired ?? unprepared;
  // Undo belongs to what is in front: the artwork's steps, or how it lies on this blank.
  const history = station === "artwork" ? preparing : hand;
  const { can_undo, can_redo } = (station === "artwork" ? preparing?.prepared : hand?.pair) ?? {};

  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || typesInto(event.target) || !history) return;
      const name = event.key.toLowerCase();
      if (name !== "z" && name !== "y") return;
      event.preventDefault();
      history.step(name === "y" || event.shiftKey ? "redo" : "undo");
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  }, [history]);

  return (
    <div className="flex h-full flex-col">
      <Masthead
        where={
          hand && (
            <>
              <Link to="/" className="underline">
                Range board
              </Link>
              <span className="mx-2">/</span>
              <b className="text-ink">{hand.pair.artwork.title}</b> on {hand.pair.template.title}
            </>
          )
        }
      >
        {hand && (
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
      {!error && !hand && <p className="p-8 text-soft">Laying it on the bench…</p>}
      {hand && (
        <>
          <Route hand={hand} station={station} />
          {station !== "artwork" && (
            <Bench hand={hand} station={station} onSide={(side) => setSearch({ side }, { replace: true })} />
          )}
          {station === "artwork" &&
            !error &&
            (preparing ? <Preparation preparing={preparing} hand={hand} /> : <Waiting />)}
        </>
      )}
    </div>
  );
}

const Waiting = () => <p className="p-8 text-soft">Taking the artwork out…</p>;
const COLUMNS = "grid min-h-0 grow grid-rows-[minmax(0,1fr)] grid-cols-[18.5rem_minmax(0,1.25fr)_minmax(0,1fr)]";
const COLUMN = "flex min-h-0 flex-col gap-4 overflow-y-auto border-r border-rule p-4";

/** The artwork by itself: its steps, the sheet, and what comes of it on this blank. */
function Preparation({ preparing, hand }: { preparing: Preparing; hand: Hand }) {
  const [asked, setAsked] = useState<string | null>(null);
  const click = clicksOf(preparing).find((way) => way.name === asked) ?? null;
  return (
    <main aria-busy={preparing.busy} className={COLUMNS}>
      <section aria-label="artwork" className={COLUMN}>
        <ArtworkStation preparing={preparing} hand={hand} click={click} onClick={setAsked} />
      </section>
      <SheetPane preparing={preparing} hand={hand} click={click} />
      <ShownPane hand={hand} />
    </main>
  );
}

type Laid = Exclude<Station, "artwork">;

function Bench({ hand, station, onSide }: { hand: Hand; station: Laid; onSide: (side: string) => void }) {
  const Column = PANES[station];
  const mirrored = station === "print" && hand.pair.route === "press";
  return (
    <main aria-busy={hand.busy} className={COLUMNS}>
      <section aria-label={station} className={COLUMN}>
        {hand.pair.panels.length > 1 && <Sides hand={hand} onSide={onSide} />}
        {hand.problem && <Alert>{hand.problem}</Alert>}
        <Column key={`${hand.pair.template.id} ${hand.panel.id}`} hand={hand} />
      </section>
      <FlatPane hand={hand} mirrored={mirrored} findings={station === "prove"} />
      <ShownPane hand={hand} />
    </main>
  );
}

/** The printed sides of the blank, each with its verdict; the one in front is worked on. */
function Sides({ hand, onSide }: { hand: Hand; onSide: (side: string) => void }) {
  return (
    <nav aria-label="Sides" className="grid grid-cols-2 gap-1">
      {hand.pair.panels.map((side) => (
        <button
          key={side.id}
          type="button"
          aria-pressed={side.id === hand.panel.id}
          onClick={() => onSide(side.id)}
          className={`flex items-center gap-1.5 border px-2 py-1 text-left text-sm ${
            side.id === hand.panel.id ? "border-ink bg-accent-tint font-bold" : "border-rule bg-paper hover:border-ink"
          }`}
        >
          {side.verdict ? (
            <Mark status={side.verdict} size={11} />
          ) : (
            <span className="size-2 border border-soft" aria-hidden="true" />
          )}
          {side.title}
          {!side.printed && <span className="ml-auto text-xs font-normal text-soft">empty</span>}
        </button>
      ))}
    </nav>
  );
}

/** The stations in the order of the work, each with how far it is. */
function Route({ hand, station }: { hand: Hand; station: Station }) {
  const navigate = useNavigate();
  const { search } = useLocation();
  const { pair, proof } = hand;
  const { steps } = pair.artwork;
  const open = proof.checks.filter((c) => c.status !== "pass").length;
  const states: Record<Station, { name: string; state: string; mark: "pass" | "warn" | "fail" | null }> = {
    artwork: {
      name: "Artwork",
      state: steps ? `${steps} ${steps === 1 ? "step" : "steps"}` : "as it came",
      mark: steps ? "pass" : null,
    },
    fit: { name: "Fit", state: pair.can_undo ? "by hand" : "as proposed", mark: pair.can_undo ? "pass" : null },
    prove: {
      name: "Prove",
      state: open ? `${WORDS[proof.verdict]}: ${open} to see` : "sound",
      mark: pair.verdict,
    },
    show: { name: "Show", state: pair.pictured ? "pictured" : "no pictures yet", mark: pair.pictured ? "pass" : null },
    print: { name: "Print", state: pair.printed ? "file made" : "no file yet", mark: pair.printed ? "pass" : null },
  };
  const here = STATIONS.indexOf(station);
  const next = STATIONS[here + 1];
  return (
    <nav aria-label="Route" className="flex h-12 shrink-0 items-stretch border-b border-rule bg-paper">
      <ol className="flex grow">
        {STATIONS.map((name) => {
          const { name: title, state, mark } = states[name];
          return (
            <li key={name} className="flex">
              <Link
                to={{ pathname: `../${name}`, search }}
                relative="path"
                aria-current={name === station ? "step" : undefined}
                className={`flex min-w-32 flex-col justify-center border-b-[3px] px-4 leading-tight ${
                  name === station ? "border-accent bg-accent-tint" : "border-transparent hover:bg-table"
                }`}
              >
                <span className="font-bold">{title}</span>
                <span className="flex items-center gap-1 text-xs text-soft">
                  {mark && <Mark status={mark} size={11} />}
                  {state}
                </span>
              </Link>
            </li>
          );
        })}
      </ol>
      <div className="flex items-center px-4">
        {next ? (
          <Button tone="main" onClick={() => navigate({ pathname: `../${next}`, search }, { relative: "path" })}>
            Next: {states[next].name}
          </Button>
        ) : (
          <Button onClick={() => navigate("/")}>Back to the board</Button>
        )}
      </div>
    </nav>
  );
}
