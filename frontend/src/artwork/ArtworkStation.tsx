import type { PairEditor } from "../bench/usePair";
import { parseLength, show } from "../ui/measure";
import { Alert, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { type Click, clicksOf } from "./click";
import { Leftovers } from "./Leftovers";
import { OriginForm } from "./OriginForm";
import { StepList } from "./StepList";
import type { Preparing } from "./usePreparation";

type Props = { preparing: Preparing; editor: PairEditor; click: Click | null; onClick: (name: string | null) => void };

/** The preparation of the artwork before placement. The imported file is never changed. */
export function ArtworkStation({ preparing, editor, click, onClick }: Props) {
  const ways = clicksOf(preparing);
  return (
    <>
      <div>
        <Heading aside="on every blank">Steps</Heading>
        {preparing.problem && <Alert>{preparing.problem}</Alert>}
        <StepList preparing={preparing} />
      </div>
      {ways.length > 0 && (
        <div>
          <Heading>Pointer action</Heading>
          <div className="flex flex-wrap gap-1 text-sm">
            {[{ name: null, title: "Moves the view" }, ...ways].map((way) => (
              <button
                key={way.title}
                type="button"
                aria-pressed={(click?.name ?? null) === way.name}
                onClick={() => onClick(way.name)}
                className={`border px-2 py-1 ${
                  (click?.name ?? null) === way.name
                    ? "border-ink bg-ink text-paper"
                    : "border-rule bg-paper hover:border-ink"
                }`}
              >
                {way.title}
              </button>
            ))}
          </div>
        </div>
      )}
      <Leftovers preparing={preparing} panel={editor.panel} />
      <PrintWidth preparing={preparing} editor={editor} />
      <Palette preparing={preparing} />
      <Notes preparing={preparing} />
      <OriginForm preparing={preparing} />
    </>
  );
}

/** The print width that lengths in the steps refer to. */
function PrintWidth({ preparing, editor }: { preparing: Preparing; editor: PairEditor }) {
  const { unit } = useUnit();
  const { prepared, width_mm, report } = preparing;
  const width = width_mm ?? prepared.original_mm[0];
  const here = (width * editor.report.placed_mm[2]) / report.size_mm[0];
  const same = Math.abs(here / width - 1) < 0.005;
  return (
    <div className="grid gap-1">
      <Heading aside={width_mm === null ? "from the file" : undefined}>Print width</Heading>
      <ValueField
        label="Width"
        text={show(width, unit)}
        suffix={unit}
        parse={(text) => parseLength(text, unit, 300)}
        hint="Printed width of the whole picture, 1 to 5000 mm"
        onValue={(mm) => preparing.decide(preparing.steps, Math.min(5000, Math.max(1, mm)))}
      />
      {!same && editor.placement.fit !== "repeat" && (
        <button
          type="button"
          className="justify-self-end text-xs underline"
          onClick={() => preparing.decide(preparing.steps, Math.round(here * 100) / 100)}
        >
          as it is printed here: {show(here, unit)} {unit}
        </button>
      )}
      {width_mm !== null && (
        <button
          type="button"
          className="justify-self-end text-xs underline"
          onClick={() => preparing.decide(preparing.steps, null)}
        >
          back to what the file claims: {show(prepared.original_mm[0], unit)} {unit}
        </button>
      )}
    </div>
  );
}

/** The artwork's main colours, each by its name in the file and its contrast on white. */
function Palette({ preparing }: { preparing: Preparing }) {
  return (
    <div>
      <Heading aside="contrast on white">Main colours</Heading>
      <ul className="grid grid-cols-2 gap-x-3 gap-y-0.5 text-xs">
        {preparing.report.palette.map((swatch) => (
          <li
            key={swatch.colour}
            className="flex items-center gap-1.5"
            title={`${Math.round(100 * swatch.share)} % of the picture`}
          >
            <span className="size-4 border border-rule" style={{ backgroundColor: swatch.colour }} aria-hidden="true" />
            <code className="font-sans">{swatch.colour}</code>
            <span className="ml-auto text-soft">{swatch.on_white.toFixed(1)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Notes({ preparing }: { preparing: Preparing }) {
  const { report, prepared } = preparing;
  const notes = [...prepared.artwork.notes.filter((note) => !report.notes.includes(note)), ...report.notes];
  if (!notes.length) return null;
  return (
    <ul className="grid gap-1 text-xs text-soft">
      {notes.map((note) => (
        <li key={note}>{note}</li>
      ))}
    </ul>
  );
}
