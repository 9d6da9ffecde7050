import { useState } from "react";
import { api, type Origin } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Mark } from "../ui/parts";
import type { Preparing } from "./usePreparation";

const SOURCES: [Origin["source"], string][] = [
  ["", "not recorded"],
  ["own", "My own work"],
  ["ordered", "Made to order for me"],
  ["bought", "A bought element"],
  ["free", "A free element"],
];
const ALLOWS: ["personal" | "commercial" | "print_on_demand", string][] = [
  ["personal", "Personal use"],
  ["commercial", "Commercial use"],
  ["print_on_demand", "Print on demand"],
];
const input = "w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1";

/** The artwork's source and licence. They are checked at Check. */
export function OriginForm({ preparing }: { preparing: Preparing }) {
  const { origin, licence_file, altered } = preparing.prepared;
  const note = (change: Partial<Origin>) =>
    preparing.keep(() => api.noteOrigin(preparing.art, { ...origin, ...change }));
  const had = origin.source === "bought" || origin.source === "free" || origin.source === "ordered";
  const refused = origin.commercial === false || origin.print_on_demand === false;
  const doubtful = (origin.source === "bought" || origin.source === "free") && (!origin.print_on_demand || !altered);
  return (
    <details className="border-t border-rule pt-2">
      <summary className="flex cursor-pointer items-center gap-1.5 text-sm font-bold">
        {origin.source && <Mark status={refused ? "fail" : doubtful ? "warn" : "pass"} size={12} />}
        Origin and licence
        <span className="ml-auto text-xs font-normal text-soft">{SOURCES.find(([s]) => s === origin.source)?.[1]}</span>
      </summary>
      <div className="mt-2 grid gap-1.5 text-sm">
        <Row label="Source">
          <select
            aria-label="Source"
            className={input}
            value={origin.source}
            onChange={(event) => note({ source: event.target.value as Origin["source"] })}
          >
            {SOURCES.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </Row>
        {had && (
          <>
            <Text label="Made by" value={origin.maker} onValue={(maker) => note({ maker })} />
            <Text label="Licence" value={origin.licence} onValue={(licence) => note({ licence })} />
            <Text label="Link" type="url" value={origin.link} onValue={(link) => note({ link })} />
            <Row label="Date obtained">
              <input
                type="date"
                aria-label="Date obtained"
                className={input}
                value={origin.on}
                onChange={(event) => note({ on: event.target.value })}
              />
            </Row>
            {ALLOWS.map(([name, label]) => (
              <ThreeWays key={name} label={label} value={origin[name]} onValue={(value) => note({ [name]: value })} />
            ))}
            <ThreeWays
              label="Changed by me"
              value={origin.changed}
              unknown={altered ? "from its steps: yes" : "from its steps: no"}
              words={["yes", "no"]}
              onValue={(changed) => note({ changed })}
            />
          </>
        )}
        {licence_file ? (
          <p>
            <a className="underline" href={api.licence(preparing.art)}>
              {licence_file}
            </a>{" "}
            <button
              type="button"
              className="text-xs underline"
              onClick={() => preparing.keep(() => api.dropLicence(preparing.art))}
            >
              Remove the licence file
            </button>
          </p>
        ) : (
          had && (
            <FileButton
              name="Licence file"
              accept=".pdf,.txt,.png,.jpg,.jpeg,.html"
              onFiles={([file]) => file && preparing.keep(() => api.keepLicence(preparing.art, file))}
            >
              Attach the licence file
            </FileButton>
          )
        )}
        <p className="text-xs text-soft">Read the licence yourself. Improva shows your record of it before you list.</p>
      </div>
    </details>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[6.5rem_1fr] items-center gap-2">
      <span className="text-soft">{label}</span>
      {children}
    </div>
  );
}

function Text(props: { label: string; value: string; type?: string; onValue: (text: string) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  return (
    <Row label={props.label}>
      <input
        aria-label={props.label}
        type={props.type ?? "text"}
        className={input}
        value={draft ?? props.value}
        onChange={(event) => setDraft(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") event.currentTarget.blur();
        }}
        onBlur={() => {
          if (draft !== null && draft.trim() !== props.value) props.onValue(draft.trim());
          setDraft(null);
        }}
      />
    </Row>
  );
}

function ThreeWays(props: {
  label: string;
  value: boolean | null;
  unknown?: string;
  words?: [string, string];
  onValue: (value: boolean | null) => void;
}) {
  const [yes, no] = props.words ?? ["allowed", "not allowed"];
  return (
    <Row label={props.label}>
      <select
        aria-label={props.label}
        className={input}
        value={String(props.value)}
        onChange={(event) => props.onValue(event.target.value === "null" ? null : event.target.value === "true")}
      >
        <option value="null">{props.unknown ?? "not known"}</option>
        <option value="true">{yes}</option>
        <option value="false">{no}</option>
      </select>
    </Row>
  );
}
