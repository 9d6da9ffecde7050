import { useState } from "react";
import { api, type Learned, type OneSample, type Panel, type Place, type Providers } from "../api/client";
import { Choice } from "../ui/Choice";
import { FileButton } from "../ui/FileButton";
import { Length } from "../ui/fields";
import { INPUT, KeptText } from "../ui/KeptText";
import { Button, Heading } from "../ui/parts";
import type { Providing } from "./useProviders";

type Parts = { state: Providers; providing: Providing; place: Place; panel: Panel };
const today = () => new Date().toISOString().slice(0, 10);
/** A new sample, with its order date only. */
const NOT_SEEN = { shipped: "", delivered: "", note: "" };

/** Samples of this pair: dates, comparison with the proof, and what they teach. */
export function SamplesPart({ state, providing, place, panel }: Parts) {
  const [provider, setProvider] = useState("");
  return (
    <>
      <Heading aside="compared with the proof">Samples</Heading>
      <div className="flex gap-2">
        <select
          aria-label="Who makes the sample"
          className={INPUT}
          value={provider}
          onChange={(event) => setProvider(event.target.value)}
        >
          {state.pressed_here && <option value="">Pressed by me</option>}
          {state.providers.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        <Button
          className="shrink-0"
          waits={providing.busy}
          onClick={() => providing.act(() => api.addSample(place, { provider, ordered: today(), ...NOT_SEEN }))}
        >
          Add a sample ordered today
        </Button>
      </div>
      {state.samples.length === 0 && (
        <p className="text-sm text-soft">
          None yet. Order one before you list: from overseas, five days to ship and nine in total is quick.
        </p>
      )}
      {state.samples.map((sample) => (
        <SampleCard key={sample.id} sample={sample} state={state} providing={providing} panel={panel} />
      ))}
    </>
  );
}

function SampleCard({ sample, state, providing, panel }: Omit<Parts, "place"> & { sample: OneSample }) {
  const { days } = sample;
  const set = (change: Partial<OneSample>) =>
    providing.act((now) => {
      const newest = now.samples.find((each) => each.id === sample.id) ?? sample;
      const { provider, ordered, shipped, delivered, checks, note } = { ...newest, ...change };
      return api.changeSample(sample.id, { provider, ordered, shipped, delivered, checks, note });
    });
  const learn = (body: Learned) => providing.act(() => api.learned(sample.id, body));
  const counted = [
    days.to_ship !== null && `${days.to_ship} days to ship`,
    days.on_the_way !== null && `${days.on_the_way} on the way`,
    days.in_all !== null && `${days.in_all} in total`,
  ].filter(Boolean);
  return (
    <article aria-label={`Sample of ${sample.ordered}`} className="grid gap-2 border border-rule bg-paper p-2 text-sm">
      <div className="flex items-baseline justify-between">
        <b>{sample.provider || "Pressed by me"}</b>
        <span className="text-xs text-soft">{counted.join(", ") || "on its way"}</span>
      </div>
      <div className="grid grid-cols-3 gap-1">
        {(["ordered", "shipped", "delivered"] as const).map((name) => (
          <label key={name} className="grid gap-0.5 text-xs text-soft">
            <span className="first-letter:uppercase">{name}</span>
            <input
              type="date"
              className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-1 py-1 text-xs"
              key={sample[name]}
              defaultValue={sample[name]}
              onBlur={(event) => event.target.value !== sample[name] && set({ [name]: event.target.value })}
            />
          </label>
        ))}
      </div>
      {state.checks.map((check) => (
        <div key={check} className="grid grid-cols-[5.5rem_minmax(0,1fr)] items-center gap-2">
          <span className="text-soft first-letter:uppercase">{check}</span>
          <Choice
            label={`${check} of the sample of ${sample.ordered}, ${sample.id}`}
            value={sample.checks?.[check] ?? "none"}
            options={[
              { value: "none", label: "not checked" },
              { value: "good", label: "as proofed" },
              { value: "off", label: "wrong" },
            ]}
            onChange={(value) => {
              const { [check]: _, ...others } = sample.checks ?? {};
              set({ checks: value === "none" ? others : { ...others, [check]: value } });
            }}
          />
        </div>
      ))}
      <KeptText
        name="Notes on the sample"
        hint="Notes on the sample"
        rows={2}
        value={sample.note ?? ""}
        onValue={(note) => set({ note })}
      />
      {sample.checks?.alignment === "off" && state.seams.length > 0 && (
        <Moved state={state} panel={panel} onLearn={learn} />
      )}
      <div className="flex flex-wrap items-center gap-2">
        {sample.photos.map((photo) => (
          <a key={photo} href={photo} target="_blank" rel="noreferrer">
            <img src={photo} alt={`Sample of ${sample.ordered}`} className="size-12 object-cover" />
          </a>
        ))}
        <FileButton
          name={`Photograph of the sample of ${sample.ordered}`}
          accept="image/*"
          onFiles={([file]) => file && providing.act(() => api.addSamplePhoto(sample.id, file))}
        >
          Add a photograph
        </FileButton>
        {sample.note && (
          <Button
            onClick={() =>
              learn({ to: sample.provider ? "provider notes" : "press log", seam: null, right_mm: 0, down_mm: 0 })
            }
          >
            {sample.provider ? "Add to the provider’s notes" : "Add to the press log"}
          </Button>
        )}
        <Button tone="quiet" onClick={() => providing.act(() => api.removeSample(sample.id))}>
          Remove
        </Button>
      </div>
    </article>
  );
}

/** The offset of a sample's panel from its place; later files correct it. */
function Moved(props: { state: Providers; panel: Panel; onLearn: (body: Learned) => void }) {
  const [seam, setSeam] = useState(props.state.seams[0]?.id ?? "");
  const [right, setRight] = useState(0);
  const [down, setDown] = useState(0);
  return (
    <div className="grid gap-1 border-t border-rule pt-1">
      <select aria-label="Seam" className={INPUT} value={seam} onChange={(event) => setSeam(event.target.value)}>
        {props.state.seams.map(({ id, title }) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
      </select>
      <Length label="Too far right by" mm={right} least={-200} panel={props.panel} onValue={setRight} />
      <Length label="Too low by" mm={down} least={-200} panel={props.panel} onValue={setDown} />
      <Button onClick={() => props.onLearn({ to: "calibration", seam, right_mm: right, down_mm: down })}>
        Calibrate the seam with it
      </Button>
    </div>
  );
}
