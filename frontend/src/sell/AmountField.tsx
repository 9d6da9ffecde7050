import { useEffect, useId, useState } from "react";

/** An amount or a percentage as typed, kept as text, because binary fractions cannot represent most decimals. */
export function AmountField(props: {
  label: string;
  /** Accessible name if the label is elsewhere, as in the head of a column. */
  name?: string;
  value: string;
  suffix: string;
  onValue: (value: string) => void;
}) {
  const id = useId();
  const [draft, setDraft] = useState(props.value);
  useEffect(() => setDraft(props.value), [props.value]);
  const finish = () => {
    const value = draft.trim().replace(",", ".");
    if (value === props.value) return;
    if (/^\d+(\.\d*)?$|^\.\d+$/.test(value)) props.onValue(value);
    else setDraft(props.value);
  };
  return (
    <div className="flex items-center gap-2">
      {props.label && (
        <label htmlFor={id} className="w-28 shrink-0 text-sm text-soft">
          {props.label}
        </label>
      )}
      <div className="flex min-w-0 grow items-center rounded-[3px] border border-rule bg-paper">
        <input
          id={id}
          aria-label={props.name}
          inputMode="decimal"
          value={draft}
          onChange={(event) => setDraft(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={finish}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Enter") finish();
            if (event.key === "Escape") setDraft(props.value);
          }}
          className="w-full min-w-0 rounded-[3px] px-2 py-1 text-right text-sm"
        />
        <span className="shrink-0 pr-1.5 text-xs text-soft">{props.suffix}</span>
      </div>
    </div>
  );
}
