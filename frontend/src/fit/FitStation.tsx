import type { Placement } from "../api/client";
import { canRoll, shorterRoll } from "../bench/geometry";
import type { PairEditor } from "../bench/usePair";
import type { Sewn } from "../sewn/useSewing";
import { Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { parseLength, parsePlain, show } from "../ui/measure";
import { Button, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { CopyTo } from "./CopyTo";
import { Joins } from "./Joins";
import { LightFields } from "./LightFields";
import { RepeatFields } from "./RepeatFields";

const FITS: { value: Placement["fit"]; label: string; hint: string }[] = [
  { value: "cover", label: "Cover", hint: "No bare edge; some of the picture may be lost" },
  { value: "contain", label: "Contain", hint: "All of the picture; edges may stay bare" },
  { value: "actual", label: "Actual", hint: "The size the file gives itself" },
  { value: "stretch", label: "Stretch", hint: "Pulled to the print's own proportions" },
  { value: "repeat", label: "Repeat", hint: "Tiles without a gap, a whole number around a wrap" },
];

export function FitStation({ editor, sewn }: { editor: PairEditor; sewn: Sewn }) {
  if (editor.empty)
    return (
      <div className="grid gap-3">
        <Heading>{editor.panel.title}</Heading>
        <p className="text-sm">
          {editor.pair.can_undo ? "Nothing is printed on this side." : editor.pair.suggestion_reason}
        </p>
        <Button tone="main" onClick={() => editor.decide(editor.placement)}>
          Place the artwork on this side
        </Button>
      </div>
    );
  return editor.follows ? <Joins editor={editor} sewn={sewn} /> : <Placed editor={editor} sewn={sewn} />;
}

function Placed({ editor, sewn }: { editor: PairEditor; sewn: Sewn }) {
  const { unit } = useUnit();
  const { placement, report, pair, panel } = editor;
  const length = (text: string) => parseLength(text, unit, panel.dpi);
  const [x, y] = placement.shift_mm;
  const grown = placement.fit === editor.reportedPlacement.fit ? placement.scale / editor.reportedPlacement.scale : 1;
  const width = report.placed_mm[2] * grown;
  const height = report.placed_mm[3] * grown;
  const hint = "A length, for example 9.3in/2, 12mm or 300px";
  const resize = (now: number) => (mm: number) =>
    mm > 0 &&
    editor.decide({ scale: Math.min(100, Math.max(0.01, (placement.scale * mm) / now)), repeats_around: null });

  return (
    <>
      <div>
        <Heading>Fit</Heading>
        <Choice
          label="Fit"
          value={placement.fit}
          options={FITS}
          onChange={(fit) =>
            editor.decide({
              fit,
              scale: fit === "contain" ? pair.contain_scale : 1,
              shift_mm: [0, 0],
              repeats_around: null,
              copies: 1,
            })
          }
        />
        <p className="mt-1 text-xs text-soft">
          {FITS.find((f) => f.value === placement.fit)?.hint}.{!pair.can_undo && ` Proposed: ${pair.suggestion_reason}`}
        </p>
      </div>
      {placement.fit === "repeat" && <RepeatFields editor={editor} />}
      {panel.cone && (
        <div>
          <Heading>On the tapered wall</Heading>
          <Choice
            label="Lay"
            value={placement.lay}
            onChange={(lay) => editor.decide({ lay })}
            options={[
              { value: "bent", label: "Bent, level on the cup" },
              { value: "flat", label: "Flat, cut out" },
            ]}
          />
        </div>
      )}
      <div className="grid gap-1.5">
        <Heading aside={placement.fit === "repeat" ? "of the first tile" : "from the centre"}>
          Position and size
        </Heading>
        <ValueField
          label="Right"
          text={show(x, unit)}
          suffix={unit}
          parse={length}
          hint={hint}
          onValue={(mm) => editor.decide({ shift_mm: [mm, y] })}
        />
        <ValueField
          label="Down"
          text={show(y, unit)}
          suffix={unit}
          parse={length}
          hint={hint}
          onValue={(mm) => editor.decide({ shift_mm: [x, mm] })}
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
          text={show(placement.scale * 100, "mm", 1)}
          suffix="%"
          parse={parsePlain}
          hint="Between 1 and 10 000"
          onValue={(percent) =>
            editor.decide({ scale: Math.min(100, Math.max(0.01, percent / 100)), repeats_around: null })
          }
        />
        {canRoll(panel, placement) && (
          <>
            <ValueField
              label="Roll"
              text={show(placement.roll_mm, unit)}
              suffix={unit}
              parse={length}
              hint="Round the cup: what leaves one end comes in at the other"
              onValue={(mm) => editor.decide({ roll_mm: shorterRoll(mm, panel) })}
            />
            <CalmSeam editor={editor} />
          </>
        )}
        {(placement.fit === "contain" || placement.fit === "actual") && (
          <ValueField
            label="Copies"
            text={String(placement.copies)}
            suffix="×"
            parse={parsePlain}
            hint="1 to 24, side by side"
            onValue={(value) => editor.decide({ copies: Math.min(24, Math.max(1, Math.round(value))) })}
          />
        )}
        <ValueField
          label="Rotation"
          text={show(placement.rotate_deg, "mm", 1)}
          suffix="°"
          parse={parsePlain}
          hint="Degrees, clockwise"
          onValue={(rotate_deg) => editor.decide({ rotate_deg })}
        />
      </div>
      <div>
        <Heading>Background</Heading>
        <div className="flex items-center gap-3 text-sm">
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="ground"
              checked={placement.background === null}
              onChange={() => editor.decide({ background: null })}
            />
            No background
          </label>
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="ground"
              checked={placement.background !== null}
              onChange={() => editor.decide({ background: placement.background ?? pair.palette[0] ?? "#1f2a44" })}
            />
            Colour
          </label>
        </div>
        {placement.background !== null && (
          <div className="mt-1.5">
            <ColourField
              label="Background"
              value={placement.background}
              offered={pair.palette}
              onHold={(background) => editor.hold({ background })}
              onValue={(background) => background && editor.decide({ background })}
            />
          </div>
        )}
      </div>
      <LightFields placement={placement} onValue={editor.decide} />
      <Joins editor={editor} sewn={sewn} />
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
            {pair.artwork.vector ? "vector" : `${pair.artwork.px[0]} × ${pair.artwork.px[1]} px`}
          </dd>
        </dl>
      </div>
      <div className="grid gap-1.5">
        <CopyTo place={editor.place} pair={editor.pair} empty={editor.empty} busy={editor.busy} />
        {pair.suggested_placement && (
          <Button onClick={() => editor.decide(pair.suggested_placement as Placement)}>
            Reset to suggested placement
          </Button>
        )}
        {pair.template.panels.length > 1 && !editor.empty && (
          <Button onClick={editor.clear}>Leave this side empty</Button>
        )}
      </div>
    </>
  );
}

const SAME_PLACE_MM = 0.5;

/** Rolls the wrap so that its seam lies where it disturbs least. */
function CalmSeam({ editor }: { editor: PairEditor }) {
  const calm = editor.report.calm_roll_mm;
  if (calm === null)
    return (
      <p className="text-xs text-soft">
        The picture’s two ends do not meet: rolled, their step would be seen in front.
      </p>
    );
  const there = Math.abs(calm - editor.placement.roll_mm) < SAME_PLACE_MM;
  return (
    <Button disabled={there} onClick={() => editor.decide({ roll_mm: calm })}>
      {there ? "The seam lies in the calmest place" : "Turn the seam to the calmest place"}
    </Button>
  );
}
