import { useState } from "react";
import type { Pair, Place, Press } from "../api/client";
import { COLUMN } from "../bench/stations";
import { Choice } from "../ui/Choice";
import { Length, Pick } from "../ui/fields";
import { Alert, Button, Heading } from "../ui/parts";
import { ClockPane } from "./ClockPane";
import { FiguresPart } from "./FiguresPart";
import { LogPart } from "./LogPart";
import { useClock } from "./useClock";
import { type Pressing, usePress } from "./usePress";

/** Pressing: the plan with its clock, the log, and the safety notes, always visible. */
export function PressStation({ place, pair }: { place: Place; pair: Pair }) {
  const pressing = usePress(place);
  const { press } = pressing;
  if (!press)
    return (
      <main className="p-6">
        {pressing.problem ? (
          <Alert onRetry={pressing.retry}>{pressing.problem}</Alert>
        ) : (
          <p className="text-soft">Loading the press plan…</p>
        )}
      </main>
    );
  return (
    <AtThePress
      key={`${press.method} ${press.press} ${press.finish}`}
      place={place}
      pair={pair}
      press={press}
      pressing={pressing}
    />
  );
}

function AtThePress({ place, pair, press, pressing }: { place: Place; pair: Pair; press: Press; pressing: Pressing }) {
  const clock = useClock(
    ["improva.clock", place.art, place.template, press.method, press.press, press.finish].join("."),
    press.steps,
  );
  return (
    <main
      aria-busy={pressing.busy}
      className="grid min-h-0 grow grid-cols-[18.5rem_minmax(0,1fr)_22rem] grid-rows-[minmax(0,1fr)]"
    >
      <section aria-label="press" className={COLUMN}>
        {pair.route !== "press" && (
          <p className="border border-ink bg-paper p-2 text-sm">
            A provider prints this one. Choose under Print that you press it yourself, and its file is mirrored.
          </p>
        )}
        {pressing.problem && <Alert>{pressing.problem}</Alert>}
        <Machine press={press} pressing={pressing} />
        <FiguresPart press={press} pressing={pressing} />
      </section>
      <ClockPane press={press} clock={clock} />
      <div className="flex min-h-0 flex-col">
        <Cautions lines={press.cautions} />
        <section aria-label="Log" className="min-h-0 grow overflow-y-auto p-4">
          <LogPart press={press} pressing={pressing} />
        </section>
      </div>
    </main>
  );
}

/** Press, finish, and the platen of a flat press. */
function Machine({ press, pressing }: { press: Press; pressing: Pressing }) {
  const [name, setName] = useState<string | null>(null);
  const machine = press.presses.find((each) => each.name === press.press);
  const methods = Object.entries(press.methods) as [Press["method"], string][];
  const setPlaten = (platen_mm: [number, number]) => machine && pressing.keepMachine({ ...machine, platen_mm });
  return (
    <div className="grid gap-2">
      <Heading>Press and blank</Heading>
      {methods.length > 1 && (
        <Choice
          label="Kind of press"
          value={press.method}
          options={methods.map(([value, label]) => ({ value, label }))}
          onChange={(method) => pressing.choose({ method, press: "" })}
        />
      )}
      <Pick
        label="Press"
        value={press.press}
        options={[...press.presses.map((each) => [each.name, each.name] as const), ["+", "Another press…"] as const]}
        onValue={(chosen) => (chosen === "+" ? setName("") : pressing.choose({ press: chosen }))}
      />
      {name !== null && (
        <div className="flex gap-2">
          <input
            aria-label="Name of the press"
            placeholder="Its name"
            maxLength={80}
            className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button
            disabled={!name.trim()}
            onClick={() => {
              pressing.keepMachine({ name, method: press.method, platen_mm: machine?.platen_mm ?? [381, 381] });
              setName(null);
            }}
          >
            Keep
          </Button>
        </div>
      )}
      {press.finishes.length > 1 && (
        <Choice
          label="Finish"
          value={press.finish}
          options={press.finishes.map((finish) => ({ value: finish, label: finish }))}
          onChange={(finish) => pressing.choose({ finish })}
        />
      )}
      {press.finishes.length > 1 && <p className="text-xs text-soft">Gloss comes out more vivid than matte.</p>}
      {press.method === "flat" && machine && (
        <>
          <Length
            label="Platen width"
            mm={machine.platen_mm[0]}
            panel={{ dpi: 300 }}
            least={50}
            onValue={(mm) => setPlaten([mm, machine.platen_mm[1]])}
          />
          <Length
            label="Platen depth"
            mm={machine.platen_mm[1]}
            panel={{ dpi: 300 }}
            least={50}
            onValue={(mm) => setPlaten([machine.platen_mm[0], mm])}
          />
        </>
      )}
    </div>
  );
}

function Cautions({ lines }: { lines: string[] }) {
  return (
    <section aria-label="Cautions" className="shrink-0 border-b-2 border-ink bg-paper px-4 py-3">
      <h3 className="mb-1 text-sm font-bold">Safety: heat and fumes</h3>
      <ul className="grid list-disc gap-0.5 pl-4 text-xs leading-snug">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
