import type { Pair, Panel, PanelReport, Place, PrintState } from "../api/client";
import { Choice } from "../ui/Choice";
import { Length, Pick, Tick } from "../ui/fields";
import { parsePlain, show } from "../ui/measure";
import { Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { SoftProof } from "./SoftProof";
import type { Print } from "./usePrinting";

const FORMATS = [
  { value: "png", label: "PNG" },
  { value: "tif", label: "TIFF" },
  { value: "pdf", label: "PDF" },
  { value: "jpg", label: "JPEG" },
] as const;

const INTENTS = [
  ["relative", "Keep what can be printed"],
  ["perceptual", "Keep the steps between colours"],
  ["saturation", "Keep them vivid"],
  ["absolute", "Match, paper included"],
] as const;

/** The print file: format, resolution, size, colours, and the extra paper around a wrap. */
export function FilePart({
  place,
  pair,
  panel,
  report,
  empty,
  busy,
  print,
  state,
}: {
  place: Place;
  pair: Pair;
  panel: Panel;
  report: PanelReport;
  empty: boolean;
  busy: boolean;
  print: Print;
  state: PrintState;
}) {
  const { unit } = useUnit();
  const { printing, plan } = state;
  const dpi = printing.dpi ?? panel.dpi;
  const own = Math.round(Math.min(...report.effective_dpi));
  return (
    <>
      <div className="grid gap-2">
        <Heading>The file</Heading>
        <Choice
          label="File format"
          value={printing.format ?? "png"}
          onChange={(format) => print.change({ format })}
          options={[...FORMATS]}
        />
        <ValueField
          label="Resolution (dpi)"
          text={String(dpi)}
          suffix="dpi"
          parse={parsePlain}
          hint="Between 36 and 1200"
          onValue={(value) => print.change({ dpi: Math.min(1200, Math.max(36, value)) })}
        />
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-sm">
          <dt className="text-soft">Size</dt>
          <dd className="text-right">
            {show(plan.file_mm[0], unit)} × {show(plan.file_mm[1], unit)} {unit}
          </dd>
          <dt className="text-soft">Pixels</dt>
          <dd className="text-right">
            {plan.file_px[0]} × {plan.file_px[1]}
          </dd>
          <dt className="text-soft">Effective resolution</dt>
          <dd className="text-right">{pair.artwork.vector ? "vector, any dpi" : `${own} dpi here`}</dd>
        </dl>
        {!pair.artwork.vector && dpi > own * 1.05 && (
          <p className="text-xs text-soft">
            The file is made at {dpi} dpi; the artwork brings fewer, and more pixels add no detail.
          </p>
        )}
      </div>
      <div className="grid gap-1.5">
        <Heading aside={printing.own_profile ? "converted" : "sRGB, profile inside"}>Colours</Heading>
        {state.has_profile ? (
          <>
            <Tick
              label="Convert to the printer's profile"
              on={printing.own_profile ?? false}
              onValue={(own_profile) => print.change({ own_profile })}
            />
            <Pick
              label="Out-of-gamut colours"
              value={printing.intent ?? "relative"}
              options={INTENTS}
              onValue={(intent) => print.change({ intent })}
            />
            <SoftProof place={place} pair={pair} empty={empty} busy={busy} intent={printing.intent ?? "relative"} />
          </>
        ) : (
          <p className="text-xs text-soft">To preview and convert colours, add the printer's ICC profile at Check.</p>
        )}
      </div>
      {state.can_tab ? (
        <div className="grid gap-1.5">
          <Heading aside="white paper for the tape">Tab at the end</Heading>
          <Choice
            label="Tab"
            value={printing.tab ?? "none"}
            onChange={(tab) => print.change({ tab })}
            options={[
              { value: "none", label: "None" },
              { value: "left", label: "Left" },
              { value: "right", label: "Right" },
            ]}
          />
          {printing.tab !== "none" && (
            <>
              <Length
                label="Width"
                mm={printing.tab_mm ?? 0}
                least={0}
                panel={{ dpi }}
                onValue={(mm) => print.change({ tab_mm: Math.min(60, mm) })}
              />
              <p className="text-xs text-soft">
                Cut the other end flush, so that the seam butts and the tape sits on the tab. Sides are as on the blank
                {pair.route === "press" ? "; on the mirrored paper they change places." : "."}
              </p>
            </>
          )}
          <Tick
            label="Trim marks above and below"
            on={printing.marks ?? false}
            onValue={(marks) => print.change({ marks })}
          />
        </div>
      ) : null}
      {panel.shape !== "rectangle" && (
        <Tick
          label="Draw the cut line"
          on={printing.cut_line ?? false}
          onValue={(cut_line) => print.change({ cut_line })}
        />
      )}
    </>
  );
}
