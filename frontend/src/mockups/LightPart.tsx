import { useState } from "react";
import type { Grade, MockupSettings } from "../api/client";
import { Tick } from "../ui/fields";
import { Button } from "../ui/parts";

const LIGHTS: { id: keyof Grade; label: string; least: number; most: number; low: string; high: string }[] = [
  { id: "exposure", label: "Exposure", least: -1.5, most: 1.5, low: "darker", high: "brighter" },
  { id: "warmth", label: "Warmth", least: -1, most: 1, low: "cooler", high: "warmer" },
  { id: "vignette", label: "Vignette", least: 0, most: 1, low: "none", high: "dark corners" },
  { id: "softness", label: "Background blur", least: 0, most: 1, low: "as lit", high: "far out of focus" },
];
const PLAIN: Grade = { exposure: 0, warmth: 0, vignette: 0, softness: 0 };

/** Light beyond the scene's own, the same for every picture. */
export function LightPart({
  settings,
  onChange,
}: {
  settings: MockupSettings;
  onChange: (values: Partial<MockupSettings>) => void;
}) {
  return (
    <div className="grid gap-3">
      {LIGHTS.map((light) => (
        <Slider
          key={light.id}
          {...light}
          value={settings.grade[light.id]}
          onValue={(value) => onChange({ grade: { ...settings.grade, [light.id]: value } })}
        />
      ))}
      <Tick
        label="As a camera would"
        hint="Glow, grain and slightly darker corners. Switch it off to judge colours."
        on={settings.camera}
        onValue={(camera) => onChange({ camera })}
      />
      <Button disabled={LIGHTS.every((l) => settings.grade[l.id] === 0)} onClick={() => onChange({ grade: PLAIN })}>
        As the scene was lit
      </Button>
    </div>
  );
}

function Slider(props: {
  label: string;
  least: number;
  most: number;
  low: string;
  high: string;
  value: number;
  onValue: (value: number) => void;
}) {
  const [draft, setDraft] = useState<number | null>(null);
  const value = draft ?? props.value;
  const settle = () => {
    if (draft !== null && draft !== props.value) props.onValue(draft);
    setDraft(null);
  };
  return (
    <label className="grid gap-0.5 text-sm">
      <span className="flex justify-between">
        <b>{props.label}</b>
        <span className="tabular-nums text-soft">{value > 0 ? `+${value.toFixed(2)}` : value.toFixed(2)}</span>
      </span>
      <input
        type="range"
        className="w-full accent-accent"
        min={props.least}
        max={props.most}
        step={0.05}
        value={value}
        onChange={(event) => setDraft(Number(event.target.value))}
        onPointerUp={settle}
        onKeyUp={settle}
        onBlur={settle}
      />
      <span className="flex justify-between text-xs text-soft">
        <span>{props.low}</span>
        <span>{props.high}</span>
      </span>
    </label>
  );
}
