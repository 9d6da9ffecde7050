import type { Placement } from "../api/client";
import type { PairEditor } from "../bench/usePair";
import { parseLength, parsePlain, show } from "../ui/measure";
import { Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";

const KINDS: { value: Placement["repeat_kind"]; label: string; hint: string }[] = [
  { value: "grid", label: "Straight", hint: "Tiles in rows and columns" },
  { value: "half-drop", label: "Half drop", hint: "Every other column half a tile lower" },
  { value: "brick", label: "Brick", hint: "Every other row half a tile along" },
  { value: "mirror", label: "Mirror", hint: "Every other tile is mirrored, so that edges always match" },
];

/** Kind of repeat, number of tiles around, and spacing. */
export function RepeatFields({ editor }: { editor: PairEditor }) {
  const { unit } = useUnit();
  const { placement, panel, pair } = editor;
  const exact = panel.worn_mm[0] / (editor.report.placed_mm[2] + placement.spacing_mm);
  const around = placement.repeats_around ?? (panel.closes ? Math.round(exact) : Math.round(exact * 10) / 10);
  const even = panel.closes && (placement.repeat_kind === "half-drop" || placement.repeat_kind === "mirror");
  const kind = (repeat_kind: Placement["repeat_kind"]) => {
    const needsEven = panel.closes && (repeat_kind === "half-drop" || repeat_kind === "mirror");
    const now = placement.repeats_around;
    editor.decide({ repeat_kind, repeats_around: now && needsEven && now % 2 ? now + 1 : now });
  };
  return (
    <div className="grid gap-1.5">
      <Heading aside={panel.closes ? "closes round the blank" : undefined}>Repeat</Heading>
      <div role="radiogroup" aria-label="Repeat" className="grid grid-cols-2 gap-1">
        {KINDS.map(({ value, label, hint }) => (
          <label
            key={value}
            title={hint}
            className={`border px-2 py-1 text-sm has-focus-visible:outline-2 has-focus-visible:outline-accent ${
              value === placement.repeat_kind ? "border-ink bg-ink text-paper" : "border-rule bg-paper hover:border-ink"
            }`}
          >
            <input
              type="radio"
              name="repeat-kind"
              className="sr-only"
              checked={value === placement.repeat_kind}
              onChange={() => kind(value)}
            />
            {label}
          </label>
        ))}
      </div>
      <ValueField
        label="Across"
        text={String(around)}
        suffix="×"
        parse={parsePlain}
        hint={even ? "An even whole number, so that it closes" : "A whole number"}
        onValue={(value) => {
          const whole = Math.max(1, Math.min(400, Math.round(value)));
          editor.decide({ repeats_around: even && whole % 2 ? whole + 1 : whole });
        }}
      />
      {pair.offers.length > 1 && (
        <p className="flex flex-wrap gap-1 text-xs">
          <span className="text-soft">Fits exactly:</span>
          {pair.offers.map((offer) => (
            <button
              key={offer.around}
              type="button"
              aria-pressed={offer.around === around}
              onClick={() => editor.decide({ repeats_around: offer.around })}
              className={`underline ${offer.around === around ? "font-bold" : ""}`}
            >
              {offer.around} of {show(offer.pitch_mm, unit, unit === "in" ? 2 : 1)} {unit}
            </button>
          ))}
        </p>
      )}
      <ValueField
        label="Gap"
        text={show(placement.spacing_mm, unit)}
        suffix={unit}
        parse={(text) => parseLength(text, unit, panel.dpi)}
        hint="A length, 0 or more"
        onValue={(mm) => editor.decide({ spacing_mm: Math.max(0, mm) })}
      />
      <ValueField
        label="Blend"
        text={show(placement.blend * 100, "mm", 1)}
        suffix="%"
        parse={parsePlain}
        hint="0 to 45 % of a tile"
        onValue={(percent) => editor.decide({ blend: Math.min(0.45, Math.max(0, percent / 100)) })}
      />
    </div>
  );
}
