import type { Step, StepField } from "../api/client";
import { Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { parseLength, parsePlain, show } from "../ui/measure";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { PairsField } from "./PairsField";
import type { Preparing } from "./usePreparation";

type Value = Step["values"][string];
const SLID_UNITS = ["%", "steps"];

/** The values of one step, as described by its kind. */
export function StepFields({ preparing, index }: { preparing: Preparing; index: number }) {
  const step = preparing.steps[index] as Step;
  const kind = preparing.kinds[step.kind];
  const changed = (name: string, value: Value) =>
    preparing.steps.map((other, i) => (i === index ? { ...step, values: { ...step.values, [name]: value } } : other));
  return (
    <div className="grid gap-1.5 py-1.5">
      <p className="text-xs text-soft">{kind?.says}</p>
      {kind?.fields.map((field) => (
        <OneField
          key={field.name}
          field={field}
          preparing={preparing}
          value={step.values[field.name] ?? field.default}
          hold={(value) => preparing.hold(changed(field.name, value))}
          decide={(value) => preparing.decide(changed(field.name, value))}
        />
      ))}
    </div>
  );
}

type FieldProps = {
  field: StepField;
  preparing: Preparing;
  value: Value;
  hold: (value: Value) => void;
  decide: (value: Value) => void;
};

function OneField({ field, preparing, value, hold, decide }: FieldProps) {
  const offered = preparing.report.palette.map((swatch) => swatch.colour);
  if (field.kind === "number") return <NumberField field={field} value={value as number} hold={hold} decide={decide} />;
  if (field.kind === "choice")
    return (
      <div title={field.hint}>
        <p className="mb-0.5 text-sm text-soft">{field.title}</p>
        <Choice
          label={field.title}
          value={value as string}
          options={field.choices.map(([name, label]) => ({ value: name, label }))}
          onChange={decide}
        />
      </div>
    );
  if (field.kind === "switch")
    return (
      <label className="flex items-center gap-2 text-sm" title={field.hint}>
        <input type="checkbox" checked={value === true} onChange={(event) => decide(event.target.checked)} />
        {field.title}
      </label>
    );
  if (field.kind === "colour")
    return (
      <ColourField
        label={field.title}
        value={value as string | null}
        offered={offered}
        none={field.default === null ? "found" : undefined}
        hint={field.hint}
        onHold={hold}
        onValue={decide}
      />
    );
  if (field.kind === "pairs")
    return <PairsField value={value as [string, string][]} offered={offered} onValue={decide} />;
  return <Places field={field} value={value as number[][] | number[] | null} decide={decide} />;
}

/** A number field; short ranges also have a slider with a live preview. */
function NumberField({ field, value, hold, decide }: Omit<FieldProps, "preparing" | "value"> & { value: number }) {
  const { unit } = useUnit();
  const length = field.unit === "mm";
  const least = field.least ?? Number.NEGATIVE_INFINITY;
  const most = field.most ?? Number.POSITIVE_INFINITY;
  const shown = (v: number) => (length ? show(v, unit) : String(Math.round(v * 1000) / 1000));
  const clamped = (v: number) => Math.min(most, Math.max(least, v));
  const slid = SLID_UNITS.includes(field.unit) && Number.isFinite(least) && Number.isFinite(most);
  const far = field.unit === "steps" && most === 255 && field.name === "tolerance" ? 60 : most;
  return (
    <div title={field.hint}>
      <ValueField
        label={field.title}
        wide
        text={shown(value)}
        suffix={length ? unit : field.unit === "steps" ? "/255" : field.unit}
        parse={(text) => (length ? parseLength(text, unit, 300) : parsePlain(text))}
        hint={`${shown(least)} to ${shown(most)}${field.hint ? `: ${field.hint}` : ""}`}
        onValue={(v) => decide(clamped(v))}
      />
      {slid && (
        <input
          type="range"
          aria-label={`${field.title}, slid`}
          min={least}
          max={far}
          step={1}
          value={Math.min(value, far)}
          onChange={(event) => hold(Number(event.target.value))}
          onPointerUp={(event) => decide(Number(event.currentTarget.value))}
          onKeyUp={(event) => decide(Number(event.currentTarget.value))}
          className="mt-0.5 w-full"
        />
      )}
    </div>
  );
}

/** Points or boxes that are set on the view: their number, and a button that clears them. */
function Places(props: { field: StepField; value: number[][] | number[] | null; decide: (value: Value) => void }) {
  const { field, value } = props;
  const count = field.kind === "points" ? (value?.length ?? 0) : value ? 1 : 0;
  const whole = field.kind === "box" && JSON.stringify(value) === JSON.stringify(field.default);
  return (
    <p className="flex items-baseline gap-2 text-sm" title={field.hint}>
      <span className="w-24 shrink-0 text-soft">{field.title}</span>
      <span className="grow">
        {field.kind === "points" ? `${count} ${count === 1 ? "place" : "places"}` : whole ? "not drawn" : "as drawn"}
      </span>
      {count > 0 && !whole && (
        <button type="button" className="text-xs underline" onClick={() => props.decide(field.default as Value)}>
          forget
        </button>
      )}
    </p>
  );
}
