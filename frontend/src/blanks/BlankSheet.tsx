import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Blank, type Panel } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { show } from "../ui/measure";
import { Alert, Button, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { BlankDrawing } from "./BlankDrawing";
import { OfferedColours } from "./OfferedColours";

/** All figures of a blank, each with its source. */
export function BlankSheet({ blank, onRemoved }: { blank: Blank; onRemoved: () => void }) {
  const queries = useQueryClient();
  const { unit } = useUnit();
  const { template } = blank;
  const [side, setSide] = useState(0);
  const panel = template.panels[Math.min(side, template.panels.length - 1)] as Panel;
  const remove = useMutation({
    mutationFn: () => api.removeBlank(template.id),
    onSuccess: () => {
      for (const key of ["blanks", "board"]) queries.invalidateQueries({ queryKey: [key] });
      onRemoved();
    },
  });
  const size = (mm: [number, number]) => `${show(mm[0], unit)} × ${show(mm[1], unit)} ${unit}`;
  const rows: [string, string | null][] = [
    ["Trim", size(panel.trim_mm)],
    ["Print file", `${panel.file_px[0]} × ${panel.file_px[1]} px at ${panel.dpi} dpi`],
    ["Bleed", panel.bleed_mm ? `${show(panel.bleed_mm, unit)} ${unit}` : "none"],
    ["Safe line", panel.safe_mm ? `${show(panel.safe_mm, unit)} ${unit} inside` : "none"],
    ["Seam", panel.closes ? `${show(panel.seam_zone_mm, unit)} ${unit} on either side` : null],
    ["Tab", panel.tab_mm ? `${show(panel.tab_mm, unit)} ${unit}` : null],
    ["Handle gap", panel.gap_mm ? `${show(panel.gap_mm, unit)} ${unit}` : null],
    [
      "Ring",
      panel.cone
        ? `${show(panel.cone.inner_radius_mm, unit)} to ${show(panel.cone.outer_radius_mm, unit)} ${unit}, ${panel.cone.sweep_deg.toFixed(1)}°`
        : null,
    ],
    ["Keep clear", panel.keep_out.map((k) => k.title).join(", ") || null],
    ["Resolution", `${template.least_dpi} dpi minimum, ${template.good_dpi} recommended`],
    ["Printed by", template.route === "press" ? "you press it: mirrored" : "a provider: not mirrored"],
    ["Usual fit", template.default_fit],
    ["Made of", template.substrate || null],
    ["Finish", template.finishes.join(", ") || null],
    ["Sizes", Object.keys(template.sizes).join(", ") || null],
    ["Not printed", template.unprinted || null],
  ];
  return (
    <div className="grid gap-4">
      <div className="flex items-start gap-6">
        <BlankDrawing template={{ ...template, panels: [panel] }} width={340} height={280} unit={unit} />
        <div className="grid grow gap-2">
          <h2 className="text-xl font-bold">{template.title}</h2>
          {template.panels.length > 1 && (
            <div className="flex flex-wrap gap-1 text-sm">
              {template.panels.map((p, i) => (
                <button
                  key={p.id}
                  type="button"
                  aria-pressed={p.id === panel.id}
                  onClick={() => setSide(i)}
                  className={`rounded-[3px] px-2 py-0.5 ${p.id === panel.id ? "bg-ink text-paper" : "hover:bg-paper"}`}
                >
                  {p.title}
                </button>
              ))}
            </div>
          )}
          <dl className="grid grid-cols-[6rem_1fr] gap-x-3 gap-y-0.5 text-sm">
            {rows.map(
              ([name, value]) =>
                value && (
                  <div key={name} className="contents">
                    <dt className="text-soft">{name}</dt>
                    <dd>{value}</dd>
                  </div>
                ),
            )}
          </dl>
        </div>
      </div>
      <OfferedColours blank={blank} />
      <GuideOf blank={blank} panel={panel} />
      <div>
        <Heading>Sources of the figures</Heading>
        <dl className="grid grid-cols-[7rem_1fr] gap-x-3 text-sm">
          {Object.entries(template.provenance).map(([name, source]) => (
            <div key={name} className="contents">
              <dt className="text-soft">{name.replaceAll("_", " ")}</dt>
              <dd>{source}</dd>
            </div>
          ))}
        </dl>
      </div>
      <div className="flex items-center gap-2">
        <a
          href={api.blankFile(template.id)}
          download={`${template.id}.toml`}
          className="rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink"
        >
          Save as a template file
        </a>
        {template.own && <Button onClick={() => remove.mutate()}>Remove this blank</Button>}
      </div>
      {remove.error && <Alert>{remove.error.message}</Alert>}
    </div>
  );
}

/** A provider's guide, shown over the template of a panel. */
function GuideOf({ blank, panel }: { blank: Blank; panel: Panel }) {
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: (work: () => Promise<Blank>) => work(),
    onSuccess: () => {
      for (const key of ["blanks", "pair"]) queries.invalidateQueries({ queryKey: [key] });
    },
  });
  const id = blank.template.id;
  const name = blank.guides[panel.id];
  return (
    <div>
      <Heading aside="shown over the template, never printed">Provider's guide for {panel.title.toLowerCase()}</Heading>
      <div className="flex items-center gap-2 text-sm">
        {name && <span>{name}</span>}
        <FileButton
          name="Guide for this side"
          accept=".png,.svg,.pdf"
          onFiles={([file]) => file && change.mutate(() => api.keepGuide(id, panel.id, file))}
        >
          {name ? "Choose another" : "Choose a PNG, SVG or PDF"}
        </FileButton>
        {name && <Button onClick={() => change.mutate(() => api.dropGuide(id, panel.id))}>Remove</Button>}
      </div>
      {change.error && <Alert>{change.error.message}</Alert>}
    </div>
  );
}
