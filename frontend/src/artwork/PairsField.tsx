import { X } from "lucide-react";
import { ColourField } from "../ui/ColourField";

type Pair = [string, string];

/** Colours to replace: chosen from the artwork's palette, each with its new colour. */
export function PairsField(props: { value: Pair[]; offered: string[]; onValue: (value: Pair[]) => void }) {
  const { value } = props;
  const taken = value.map(([from]) => from);
  return (
    <div className="grid gap-2">
      {value.map(([from, to], i) => (
        <div
          key={from}
          className="grid grid-cols-[1fr_auto] items-start gap-1 border-l-4 pl-2"
          style={{ borderColor: from }}
        >
          <ColourField
            label={`${from} to`}
            value={to}
            offered={[]}
            onValue={(colour) => props.onValue(value.map((pair, j) => (i === j ? [from, colour ?? to] : pair)))}
          />
          <button
            type="button"
            aria-label={`Leave ${from} as it is`}
            className="p-1.5"
            onClick={() => props.onValue(value.filter((_, j) => i !== j))}
          >
            <X size={14} aria-hidden="true" />
          </button>
        </div>
      ))}
      <p className="text-xs text-soft">Choose a colour of the artwork to replace:</p>
      <div className="flex flex-wrap gap-1">
        {props.offered
          .filter((colour) => !taken.includes(colour))
          .map((colour) => (
            <button
              key={colour}
              type="button"
              aria-label={`Exchange ${colour}`}
              title={colour}
              className="size-6 border border-rule"
              style={{ backgroundColor: colour }}
              onClick={() => props.onValue([...value, [colour, colour]])}
            />
          ))}
      </div>
    </div>
  );
}
