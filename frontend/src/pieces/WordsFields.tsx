import { useEffect, useState } from "react";
import type { Panel, Words } from "../api/client";
import { Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { Length, Pick, Plain, Tick } from "../ui/fields";
import { FontPick } from "./FontPick";
import type { PieceProps } from "./props";

const READINGS = [
  ["level", "Level"],
  ["up", "Upward"],
  ["down", "Downward"],
  ["stacked", "Letters stacked"],
  ["turned", "Turned"],
] as const;
type Reading = (typeof READINGS)[number][0];
const TURNS: Record<Reading, number> = { level: 0, up: -90, down: 90, stacked: 0, turned: 0 };
/** Stacked letters stand closer than lines do, straight, and are sized by their own height. */
const UPRIGHT = { leading: 0.95, along: "line", sizing: "size" } as const;

function reading(piece: Words): Reading {
  if (piece.stacked) return "stacked";
  const turn = ((piece.rotate_deg % 360) + 360) % 360;
  return turn === 0 ? "level" : turn === 270 ? "up" : turn === 90 ? "down" : "turned";
}

const PATHS = [
  ["line", "Straight"],
  ["arc", "Arc"],
  ["circle", "Circle"],
  ["wave", "Wave"],
  ["bulge", "Bulge"],
  ["envelope", "Envelope"],
] as const;
const SIZINGS = [
  ["width", "As wide as"],
  ["size", "By letter size"],
  ["box", "Into a box"],
  ["fill", "Filling a box"],
] as const;
const PLAQUES = [
  ["none", "None"],
  ["oval", "Oval"],
  ["box", "Box"],
  ["banner", "Banner"],
] as const;

/** Words: text, font, path, size, colours and plaque. */
export function WordsFields({ piece, panel, offered, hold, lay }: PieceProps<Words>) {
  const sized = piece.along !== "circle";
  return (
    <>
      <WordsText piece={piece} hold={hold} lay={lay} />
      {/\{[^{}\n]+\}/.test(piece.text) && (
        <Length
          label="Minimum letter height"
          mm={piece.least_caps}
          least={0}
          panel={panel}
          onValue={(least_caps) => lay({ least_caps })}
        />
      )}
      <FontPick value={piece.font} onValue={(font) => lay({ font })} />
      <Pick
        label="Reading"
        value={reading(piece)}
        options={READINGS.filter(([way]) => way !== "turned" || reading(piece) === "turned")}
        onValue={(way) =>
          lay({ stacked: way === "stacked", rotate_deg: TURNS[way], ...(way === "stacked" && UPRIGHT) })
        }
      />
      {(piece.text.includes("\n") || piece.stacked) && (
        <>
          <Choice
            label="Alignment"
            value={piece.align}
            options={[
              { value: "left", label: piece.stacked ? "Top" : "Left" },
              { value: "centre", label: "Middle" },
              { value: "right", label: piece.stacked ? "Bottom" : "Right" },
            ]}
            onChange={(align) => lay({ align })}
          />
          <Plain
            label={piece.stacked ? "Letter spacing" : "Line spacing"}
            value={piece.leading}
            suffix="×"
            least={0.4}
            most={5}
            onValue={(leading) => lay({ leading })}
          />
        </>
      )}
      <Plain
        label="Tracking"
        value={piece.tracking * 100}
        suffix="%"
        least={-20}
        most={300}
        onValue={(percent) => lay({ tracking: percent / 100 })}
      />
      <Pick label="Path" value={piece.along} options={PATHS} onValue={(along) => lay({ along, ...FIRST[along] })} />
      <Bend piece={piece} lay={lay} />
      {sized && <Pick label="Size" value={piece.sizing} options={SIZINGS} onValue={(sizing) => lay({ sizing })} />}
      {(!sized || piece.sizing === "size") && (
        <Length label="Letter height" mm={piece.size_mm} panel={panel} onValue={(size_mm) => lay({ size_mm })} />
      )}
      {(!sized || piece.sizing !== "size") && (
        <Length
          label={sized ? "Width" : "Diameter"}
          mm={piece.width_mm}
          panel={panel}
          onValue={(width_mm) => lay({ width_mm })}
        />
      )}
      {sized && (piece.sizing === "box" || piece.sizing === "fill") && (
        <Length label="Height" mm={piece.height_mm} panel={panel} onValue={(height_mm) => lay({ height_mm })} />
      )}
      <Plain
        label="Rotation"
        value={piece.rotate_deg}
        suffix="°"
        least={-360}
        most={360}
        onValue={(rotate_deg) => lay({ rotate_deg })}
      />
      <ColourField
        label="Colour"
        value={piece.fill}
        offered={offered}
        onHold={(fill) => hold({ fill })}
        onValue={(fill) => fill && lay({ fill })}
      />
      <ColourField
        label="Outline"
        value={piece.outline}
        offered={offered}
        none="none"
        onHold={(outline) => hold({ outline })}
        onValue={(outline) => lay({ outline })}
      />
      {piece.outline && (
        <Length
          label="Outline width"
          mm={piece.outline_mm}
          panel={panel}
          onValue={(outline_mm) => lay({ outline_mm })}
        />
      )}
      <Shade piece={piece} panel={panel} lay={lay} />
      <Pick label="Plaque" value={piece.plaque} options={PLAQUES} onValue={(plaque) => lay({ plaque })} />
      {piece.plaque !== "none" && (
        <>
          <ColourField
            label="Plaque colour"
            value={piece.plaque_fill}
            offered={offered}
            onHold={(plaque_fill) => hold({ plaque_fill })}
            onValue={(plaque_fill) => plaque_fill && lay({ plaque_fill })}
          />
          <Length
            label="Plaque margin"
            mm={piece.plaque_margin_mm}
            panel={panel}
            least={0}
            onValue={(plaque_margin_mm) => lay({ plaque_margin_mm })}
          />
        </>
      )}
    </>
  );
}

/** Initial bends, strong enough to be noticed. */
const FIRST: Record<Words["along"], Partial<Words>> = {
  line: {},
  arc: { amount: 90 },
  circle: { amount: 1 },
  wave: { amount: 30, waves: 1 },
  bulge: { amount: 50 },
  envelope: { amount: 40, other: 40 },
};

function Bend({ piece, lay }: BendProps) {
  const amount = (label: string, suffix: string, most: number) => (
    <Plain
      label={label}
      value={piece.amount}
      suffix={suffix}
      least={-most}
      most={most}
      onValue={(v) => lay({ amount: v })}
    />
  );
  if (piece.along === "arc") return amount("Arc angle", "°", 355);
  if (piece.along === "bulge") return amount("Bulge", "%", 300);
  if (piece.along === "circle")
    return (
      <Tick label="Read from inside" on={piece.amount < 0} onValue={(inside) => lay({ amount: inside ? -1 : 1 })} />
    );
  if (piece.along === "wave")
    return (
      <>
        {amount("Height", "%", 300)}
        <Plain label="Waves" value={piece.waves} suffix="×" least={0.1} most={20} onValue={(waves) => lay({ waves })} />
      </>
    );
  if (piece.along === "envelope")
    return (
      <>
        {amount("Top rise", "%", 300)}
        <Plain
          label="Bottom drop"
          value={piece.other}
          suffix="%"
          least={-300}
          most={300}
          onValue={(other) => lay({ other })}
        />
      </>
    );
  return null;
}

type BendProps = { piece: Words; lay: (change: Partial<Words>) => void };

function Shade({ piece, panel, lay }: BendProps & { panel: Panel }) {
  const { shadow } = piece;
  const first = piece.size_mm * 0.06;
  return (
    <>
      <Tick
        label="Soft shadow"
        on={shadow !== null}
        onValue={(on) =>
          lay({ shadow: on ? { colour: "#000000", shift_mm: [first, first], blur_mm: first, opacity: 0.5 } : null })
        }
      />
      {shadow && (
        <>
          <Length
            label="Blur"
            mm={shadow.blur_mm ?? 0}
            panel={panel}
            least={0}
            onValue={(blur_mm) => lay({ shadow: { ...shadow, blur_mm } })}
          />
          <Length
            label="Offset"
            mm={shadow.shift_mm?.[1] ?? 0}
            panel={panel}
            least={0}
            onValue={(mm) => lay({ shadow: { ...shadow, shift_mm: [mm, mm] } })}
          />
        </>
      )}
    </>
  );
}

function WordsText({ piece, hold, lay }: BendProps & { hold: (change: Partial<Words>) => void }) {
  const [draft, setDraft] = useState(piece.text);
  useEffect(() => setDraft(piece.text), [piece.text]);
  return (
    <textarea
      aria-label="Words"
      rows={Math.min(5, draft.split("\n").length + 1)}
      value={draft}
      maxLength={600}
      className="w-full rounded-[3px] border border-rule bg-paper px-2 py-1"
      onKeyDown={(event) => event.stopPropagation()}
      onChange={(event) => {
        setDraft(event.target.value);
        if (event.target.value.trim()) hold({ text: event.target.value });
      }}
      onBlur={() => (draft.trim() ? lay({ text: draft }) : setDraft(piece.text))}
    />
  );
}
