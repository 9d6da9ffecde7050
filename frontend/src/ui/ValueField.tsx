import { useEffect, useId, useState } from "react";

/** A text field for a value, with its label in front. Calculations are evaluated on Enter or when the field is left. */
export function ValueField(props: {
  label: string;
  /** Accessible name if the label is elsewhere. */
  name?: string;
  text: string;
  suffix: string;
  parse: (text: string) => number | null;
  onValue: (value: number) => void;
  onFocus?: () => void;
  hint: string;
  /** Room for a longer label. */
  wide?: boolean;
}) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a value changed elsewhere replaces what is being typed
  useEffect(() => setDraft(null), [props.text]);

  function finish() {
    if (draft === null || draft === props.text) return setDraft(null);
    const value = props.parse(draft);
    if (value === null) return setWrong(true);
    setWrong(false);
    setDraft(null);
    props.onValue(value);
  }

  return (
    <div>
      <div className="flex items-center gap-2">
        {props.label && (
          <label htmlFor={id} className={`${props.wide ? "w-24" : "w-16"} shrink-0 text-sm text-soft`}>
            {props.label}
          </label>
        )}
        <div className={`flex grow items-center rounded-[3px] border bg-paper ${wrong ? "border-ink" : "border-rule"}`}>
          <input
            id={id}
            aria-label={props.name}
            value={draft ?? props.text}
            aria-invalid={wrong}
            aria-describedby={wrong ? `${id}-wrong` : undefined}
            onChange={(event) => setDraft(event.target.value)}
            onFocus={(event) => {
              event.target.select();
              props.onFocus?.();
            }}
            onBlur={finish}
            onKeyDown={(event) => {
              event.stopPropagation();
              if (event.key === "Enter") finish();
              if (event.key === "Escape") {
                setDraft(null);
                setWrong(false);
              }
            }}
            className="w-full min-w-0 rounded-[3px] px-2 py-1 text-right "
          />
          <span className="w-9 pr-1.5 text-xs text-soft">{props.suffix}</span>
        </div>
      </div>
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="mt-0.5 text-right text-xs">
          {props.hint}
        </p>
      )}
    </div>
  );
}
