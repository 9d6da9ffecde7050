import { parseLength, parsePlain, show } from "./measure";
import { useUnit } from "./unit";
import { ValueField } from "./ValueField";

/** A length. */
export function Length(props: {
  label: string;
  mm: number;
  /** Size of a px, for lengths typed in px. */
  panel: { dpi: number };
  least?: number;
  onValue: (mm: number) => void;
}) {
  const { unit } = useUnit();
  return (
    <ValueField
      label={props.label}
      wide
      text={show(props.mm, unit)}
      suffix={unit}
      parse={(text) => parseLength(text, unit, props.panel.dpi)}
      hint="A length, for example 1.5in, 12mm or 300px"
      onValue={(mm) => props.onValue(Math.max(props.least ?? 0.01, mm))}
    />
  );
}

/** A plain number within its limits. */
export function Plain(props: {
  label: string;
  /** Accessible name if the label is elsewhere. */
  name?: string;
  value: number;
  suffix: string;
  least: number;
  most: number;
  onValue: (value: number) => void;
}) {
  return (
    <ValueField
      label={props.label}
      name={props.name}
      wide
      text={String(Math.round(props.value * 1000) / 1000)}
      suffix={props.suffix}
      parse={parsePlain}
      hint={`${props.least} to ${props.most}`}
      onValue={(value) => props.onValue(Math.min(props.most, Math.max(props.least, value)))}
    />
  );
}

/** A share, shown in per cent. */
export function Percent(props: {
  label: string;
  share: number;
  least?: number;
  most: number;
  onShare: (share: number) => void;
}) {
  return (
    <Plain
      label={props.label}
      value={Math.round(props.share * 1000) / 10}
      suffix="%"
      least={props.least ?? 0}
      most={props.most}
      onValue={(percent) => props.onShare(percent / 100)}
    />
  );
}

/** A choice of many options, as a drop-down list. */
export function Pick<T extends string>(props: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onValue: (value: T) => void;
}) {
  return (
    <label className="flex items-center gap-2 text-sm">
      <span className="w-24 shrink-0 text-soft">{props.label}</span>
      <select
        aria-label={props.label}
        className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1"
        value={props.value}
        onChange={(event) => props.onValue(event.target.value as T)}
      >
        {props.options.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    </label>
  );
}

export function Tick(props: { label: string; on: boolean; hint?: string; onValue: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-2 text-sm" title={props.hint}>
      <input
        type="checkbox"
        className="accent-accent"
        checked={props.on}
        onChange={(event) => props.onValue(event.target.checked)}
      />
      {props.label}
    </label>
  );
}
