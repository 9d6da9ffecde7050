import type { Placing } from "../api/client";
import type { Hand } from "../bench/usePair";
import type { Sewn } from "../sewn/useSewing";
import { ColourField } from "../ui/ColourField";
import { parseLength, parsePlain, show } from "../ui/measure";
import { Button, Choice, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { CopyTo } from "./CopyTo";
import { Joins } from "./Joins";
import { RepeatFields } from "./RepeatFields";

const FITS: { value: Placing["fit"]; label: string; hint: string }[] = [
  { value: "cover", label: "Cover", hint: "No bare edge; some of the picture may be lost" },
  { value: "contain", label: "Contain", hint: "All of the picture; edges may stay bare" },
  { value: "actual", label: "Actual", hint: "The size the file gives itself" },
  { value: "stretch", label: "Stretch", hint: "Pulled to the print's own proportions" },
  { value: "repeat", label: "Repeat", hint: "Tiles without a gap, a whole number round a wrap" },
];

export function FitStation({ hand, sewn }: { hand: Hand; sewn: Sewn }) {
  if (hand.empty)
    return (
      <div className="grid gap-3">
        <Heading>{hand.panel.title}</Heading>
        <p className="text-sm">
          {hand.pair.can_undo ? "Nothing is printed on this side." : hand.pair.proposed_because}
        </p>
        <Button tone="main" onClick={() => hand.decide(hand.placing)}>
          Lay the artwork on it
        </Button>
      </div>
    );
  return hand.follows ? <Joins hand={hand} sewn={sewn} /> : <Placed hand={hand} sewn={sewn} />;
}

function Placed({ hand, sewn }: { hand: Hand; sewn: Sewn }) {
  const { unit } = useUnit();
  const { placing, proof, pair, panel } = hand;
  const length = (text: string) => parseLength(text, unit, panel.dpi);
  const [x, y] = placing.shift_mm;
  const grown = placing.fit === hand.proved.fit ? placing.scale / hand.proved.scale : 1;
  const width = proof.placed_mm[2] * grown;
  const height = proof.placed_mm[3] * grown;
  const hint = "A length, for example 9.3in/2, 12mm or 300px";
  const resize = (now: number) => (mm: number) =>
    mm > 0 && hand.decide({ scale: Math.min(100, Math.max(0.01, (placing.scale * mm) / now)), repeats_around: null });

  return (
    <>
      <div>
        <Heading>How it fits</Heading>
        <Choice
          label="Fit"
          value={placing.fit}
          options={FITS}
          onChange={(fit) => hand.decide({ fit, scale: 1, shift_mm: [0, 0], repeats_around: null, copies: 1 })}
        />
        <p className="mt-1 text-xs text-soft">
          {FITS.find((f) => f.value === placing.fit)?.hint}.{!pair.can_undo && ` Proposed: ${pair.proposed_because}`}
        </p>
      </div>
      {placing.fit === "repeat" && <RepeatFields hand={hand} />}
      {panel.cone && (
        <div>
          <Heading>On the tapered wall</Heading>
          <Choice
            label="Lay"
            value={placing.lay}
            onChange={(lay) => hand.decide({ lay })}
            options={[
              { value: "bent", label: "Bent, level on the cup" },
              { value: "flat", label: "Flat, cut out" },
            ]}
          />
        </div>
      )}
      <div className="grid gap-1.5">
        <Heading aside={placing.fit === "repeat" ? "of the first tile" : "from the centre"}>Place and size</Heading>
        <ValueField
          label="Right"
          text={show(x, unit)}
          suffix={unit}
          parse={length}
          hint={hint}
          onValue={(mm) => hand.decide({ shift_mm: [mm, y] })}
        />
        <ValueField
          label="Down"
          text={show(y, unit)}
          suffix={unit}
          parse={length}
          hint={hint}
          onValue={(mm) => hand.decide({ shift_mm: [x, mm] })}
        />
        <ValueField
          label="Width"
          text={show(width, unit)}
          suffix={unit}
          parse={length}
          hint={hint}
          onValue={resize(width)}
        />
        <ValueField
          label="Height"
          text={show(height, unit)}
          suffix={unit}
          parse={length}
          hint={hint}
          onValue={resize(height)}
        />
        <ValueField
          label="Scale"
          text={show(placing.scale * 100, "mm", 1)}
          suffix="%"
          parse={parsePlain}
          hint="Between 1 and 10 000"
          onValue={(percent) =>
            hand.decide({ scale: Math.min(100, Math.max(0.01, percent / 100)), repeats_around: null })
          }
        />
        {(placing.fit === "contain" || placing.fit === "actual") && (
          <ValueField
            label="Copies"
            text={String(placing.copies)}
            suffix="×"
            parse={parsePlain}
            hint="1 to 24, side by side"
            onValue={(value) => hand.decide({ copies: Math.min(24, Math.max(1, Math.round(value))) })}
          />
        )}
        <ValueField
          label="Turn"
          text={show(placing.rotate_deg, "mm", 1)}
          suffix="°"
          parse={parsePlain}
          hint="Degrees, clockwise"
          onValue={(rotate_deg) => hand.decide({ rotate_deg })}
        />
      </div>
      <div>
        <Heading>Ground beneath it</Heading>
        <div className="flex items-center gap-3 text-sm">
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="ground"
              checked={placing.background === null}
              onChange={() => hand.decide({ background: null })}
            />
            Bare blank
          </label>
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="ground"
              checked={placing.background !== null}
              onChange={() => hand.decide({ background: placing.background ?? pair.palette[0] ?? "#1f2a44" })}
            />
            Colour
          </label>
        </div>
        {placing.background !== null && (
          <div className="mt-1.5">
            <ColourField
              label="Ground"
              value={placing.background}
              offered={pair.palette}
              onHold={(background) => hand.hold({ background })}
              onValue={(background) => background && hand.decide({ background })}
            />
          </div>
        )}
      </div>
      <Joins hand={hand} sewn={sewn} />
      <div>
        <Heading>The print</Heading>
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-sm">
          <dt className="text-soft">Trim</dt>
          <dd className="text-right">
            {show(panel.trim_mm[0], unit)} × {show(panel.trim_mm[1], unit)} {unit}
          </dd>
          <dt className="text-soft">File</dt>
          <dd className="text-right">
            {panel.file_px[0]} × {panel.file_px[1]} px
          </dd>
          <dt className="text-soft">Artwork</dt>
          <dd className="text-right">
            {pair.artwork.vector ? "drawn as lines" : `${pair.artwork.px[0]} × ${pair.artwork.px[1]} px`}
          </dd>
        </dl>
      </div>
      <div className="grid gap-1.5">
        <CopyTo hand={hand} />
        {pair.default_placing && (
          <Button onClick={() => hand.decide(pair.default_placing as Placing)}>Back to the proposal</Button>
        )}
        {pair.template.panels.length > 1 && !hand.empty && <Button onClick={hand.clear}>Leave this side empty</Button>}
      </div>
    </>
  );
}
