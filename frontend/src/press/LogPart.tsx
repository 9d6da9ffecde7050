import { useState } from "react";
import { api, type Fault, type LogEntry, type Press } from "../api/client";
import { Choice } from "../ui/Choice";
import { FileButton } from "../ui/FileButton";
import { Tick } from "../ui/fields";
import { Button, Heading } from "../ui/parts";
import type { Entry, Pressing } from "./usePress";

const RESULTS = [
  { value: "good", label: "Good" },
  { value: "usable", label: "Usable" },
  { value: "spoiled", label: "Spoiled" },
] as const;
const EMPTY: Entry = { result: "good", faults: [], note: "", photo: null };

/** Likely causes of some faults: every fault's first cause, then every second one. */
function causes(faults: Fault[]) {
  const most = Math.max(0, ...faults.map((fault) => fault.causes.length));
  return Array.from({ length: most }, (_, n) =>
    faults.flatMap((fault) => (fault.causes[n] ? [{ fault, cause: fault.causes[n] }] : [])),
  ).flat();
}

/** The form that logs a result, with the likely causes of faults. */
export function LogPart({ press, pressing }: { press: Press; pressing: Pressing }) {
  const [entry, setEntry] = useState<Entry>(EMPTY);
  const chosen = press.faults.filter((fault) => entry.faults.includes(fault.id));
  return (
    <div className="grid gap-2">
      <Heading aside="improves the suggestion">Log the result</Heading>
      <Choice
        label="Result"
        value={entry.result}
        options={[...RESULTS]}
        onChange={(result) => setEntry({ ...entry, result })}
      />
      <div className="grid grid-cols-2 gap-x-2">
        {press.faults.map((fault) => (
          <Tick
            key={fault.id}
            label={fault.title}
            hint={fault.looks}
            on={entry.faults.includes(fault.id)}
            onValue={(on) =>
              setEntry({
                ...entry,
                result: on && entry.result === "good" ? "usable" : entry.result,
                faults: on ? [...entry.faults, fault.id] : entry.faults.filter((id) => id !== fault.id),
              })
            }
          />
        ))}
      </div>
      {chosen.length > 0 && (
        <ol aria-label="Likely causes" className="grid gap-1 border-l-2 border-ink pl-2 text-sm">
          {causes(chosen).map(({ fault, cause }) => (
            <li key={`${fault.id} ${cause.why}`}>
              <b>{cause.why}</b> {cause.do}
              {chosen.length > 1 && <span className="text-soft"> ({fault.title.toLowerCase()})</span>}
            </li>
          ))}
        </ol>
      )}
      <textarea
        aria-label="Note"
        placeholder="Note"
        rows={2}
        maxLength={2000}
        className="rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
        value={entry.note}
        onChange={(event) => setEntry({ ...entry, note: event.target.value })}
      />
      <div className="flex gap-2">
        <FileButton
          name="Photograph of the result"
          accept="image/*"
          onFiles={([photo]) => setEntry({ ...entry, photo: photo ?? null })}
        >
          {entry.photo ? "Photograph chosen" : "Photograph"}
        </FileButton>
        <Button
          tone="main"
          className="grow"
          disabled={pressing.busy}
          onClick={() => {
            pressing.log(entry);
            setEntry(EMPTY);
          }}
        >
          Log this pressing
        </Button>
      </div>
      {press.log.length > 0 && (
        <ul aria-label="Log of pressings" className="grid gap-1 text-sm">
          {press.log.map((each) => (
            <Logged key={each.id} entry={each} faults={press.faults} onRemove={() => pressing.remove(each.id)} />
          ))}
        </ul>
      )}
    </div>
  );
}

function Logged({ entry, faults, onRemove }: { entry: LogEntry; faults: Fault[]; onRemove: () => void }) {
  const { figures } = entry;
  const titles = faults.filter((fault) => entry.faults?.includes(fault.id)).map((fault) => fault.title.toLowerCase());
  return (
    <li className={`flex gap-2 border bg-paper p-1.5 ${entry.counts ? "border-ink" : "border-rule"}`}>
      {entry.photo && (
        <a href={api.pressingPhoto(entry.id)} target="_blank" rel="noreferrer">
          <img src={api.pressingPhoto(entry.id)} alt={`Result of ${entry.on}`} className="size-12 object-cover" />
        </a>
      )}
      <span className="min-w-0 grow">
        <b className="inline-block first-letter:uppercase">{entry.result}</b>
        {titles.length > 0 && `, ${titles.join(", ")}`}
        <span className="block text-xs text-soft">
          {entry.on} · {Math.round(figures.temperature_c)} °C, {figures.main_s} s, {figures.pressure}
          {entry.counts && " · used for the suggestion"}
        </span>
        {entry.note && <span className="block text-xs">{entry.note}</span>}
      </span>
      <button
        type="button"
        className="self-start text-xs whitespace-nowrap underline"
        onClick={onRemove}
        aria-label={`Remove the pressing of ${entry.on} out`}
      >
        Remove
      </button>
    </li>
  );
}
