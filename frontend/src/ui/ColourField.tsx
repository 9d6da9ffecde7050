import { useId } from "react";

const isHex = (text: string) => /^#[0-9a-f]{6}$/i.test(text);

/** A colour: chosen from the artwork's colours, from the system's colour picker, or typed as #rrggbb. */
export function ColourField(props: {
  label: string;
  value: string | null;
  /** Colours of the artwork, offered first. */
  offered: string[];
  /** Label for no colour, where that is allowed. */
  none?: string;
  hint?: string;
  onHold?: (colour: string) => void;
  onValue: (colour: string | null) => void;
}) {
  const id = useId();
  const { value } = props;
  return (
    <div title={props.hint}>
      <div className="flex items-center gap-2">
        <label htmlFor={id} className="w-24 shrink-0 text-sm text-soft">
          {props.label}
        </label>
        <input
          type="color"
          aria-label={`${props.label}: choose`}
          value={value ?? "#ffffff"}
          onChange={(event) => props.onHold?.(event.target.value)}
          onBlur={(event) => event.target.value !== value && props.onValue(event.target.value)}
          className="h-7 w-9 shrink-0 border border-rule bg-paper"
        />
        <input
          id={id}
          key={value}
          defaultValue={value ?? ""}
          placeholder={props.none ?? "#rrggbb"}
          maxLength={7}
          spellCheck={false}
          className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1"
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Enter") event.currentTarget.blur();
          }}
          onBlur={(event) => {
            const text = event.target.value.trim().toLowerCase();
            if (isHex(text)) text !== value && props.onValue(text);
            else if (!text && props.none) value !== null && props.onValue(null);
            else event.target.value = value ?? "";
          }}
        />
      </div>
      {props.offered.length > 0 && (
        <div className="mt-1 pl-26">
          <Swatches label={props.label} colours={props.offered} value={value} onValue={props.onValue} />
        </div>
      )}
    </div>
  );
}

/** Buttons for the artwork's own colours. */
export function Swatches(props: {
  label: string;
  colours: string[];
  value: string | null;
  onValue: (colour: string) => void;
}) {
  return (
    <div className="flex flex-wrap gap-1">
      {props.colours.map((colour) => (
        <button
          key={colour}
          type="button"
          title={`${colour}, from the artwork`}
          aria-label={`${props.label}: ${colour}, from the artwork`}
          aria-pressed={colour === props.value}
          onClick={() => props.onValue(colour)}
          className={`size-5 border ${colour === props.value ? "border-2 border-ink" : "border-rule"}`}
          style={{ backgroundColor: colour }}
        />
      ))}
    </div>
  );
}
