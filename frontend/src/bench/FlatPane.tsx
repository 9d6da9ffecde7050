import { useCallback, useRef, useState } from "react";
import { api, type Placement, type PrintPlan } from "../api/client";
import { PieceGrips } from "../pieces/PieceGrips";
import { PlanMarks } from "../print/PlanMarks";
import { useUnit } from "../ui/unit";
import { useNewestPicture } from "../ui/useNewest";
import { useSize } from "../ui/useSize";
import { Findings } from "./Findings";
import { Grips, Lines, Tag } from "./FlatMarks";
import { bendOf, canRoll, lieOf } from "./geometry";
import { Rulers } from "./Rulers";
import { SeamView } from "./SeamView";
import { SnapLines } from "./SnapLines";
import { useFlatGestures } from "./useFlatGestures";
import type { PairEditor } from "./usePair";

const MARGIN_PX = 46;
const FLAT_PX = 1100;

/** Patterns, copies and bent art are drawn by the core; a single straight picture is moved by the page. */
const drawnByCore = (placement: Placement, cone: boolean) =>
  placement.fit === "repeat" || placement.copies > 1 || placement.roll_mm !== 0 || cone;

/** The flat template in true proportions, with the artwork on it. */
export function FlatPane(props: {
  editor: PairEditor;
  mirrored: boolean;
  findings: boolean;
  laying?: boolean;
  /** At the Print station: the print plan, drawn as in the file. */
  plan?: PrintPlan | null;
}) {
  const { editor, mirrored, findings, laying, plan } = props;
  const { unit } = useUnit();
  const [frame, size] = useSize<HTMLDivElement>();
  const [guide, setGuide] = useState(true);
  const surface = useRef<SVGSVGElement>(null);
  const { panel, placement } = editor;
  const bend = bendOf(panel);
  const bent = placement.lay === "bent" ? bend : bendOf({ ...panel, cone: null });
  const [fileW, fileH] = panel.file_mm;
  const [trimW, trimH] = panel.trim_mm;
  const beside = panel.gap_mm + (panel.cone ? 0 : panel.tab_mm);
  const paperW = Math.max(fileW, plan ? 2 * plan.file_mm[0] - fileW : 0);
  const k = Math.max(
    0.05,
    Math.min(
      (size.width - 2 * MARGIN_PX) / (paperW + beside),
      (size.height - 2 * MARGIN_PX) / Math.max(fileH, plan?.file_mm[1] ?? 0),
    ),
  );
  const left = (size.width - trimW * k) / 2;
  const top = (size.height - trimH * k) / 2;
  const lie = lieOf(placement, editor.report, editor.reportedPlacement);
  const toMm = useCallback(
    (x: number, y: number): [number, number] => {
      const box = surface.current?.getBoundingClientRect();
      const mm = (x - (box?.left ?? 0) - left) / k;
      return bent.back(mirrored ? trimW - mm : mm, (y - (box?.top ?? 0) - top) / k);
    },
    [left, top, k, mirrored, trimW, bent],
  );
  const { snaps, handlers } = useFlatGestures(
    editor,
    lie,
    toMm,
    k,
    surface,
    !editor.empty && !editor.follows && !laying,
  );
  const byCore =
    (editor.follows || drawnByCore(placement, panel.cone !== null) || editor.pieces.length > 0) && !editor.empty;
  const { url } = useNewestPicture(
    byCore ? { place: editor.place, now: editor.now } : null,
    ({ place, now }) => api.flatPreview(place, now, FLAT_PX, "flat"),
    `${editor.pair.artwork.sha256} ${editor.pair.content_key}`,
  );
  const art = editor.pair.artwork;
  const bleed = panel.bleed_mm * k;
  const file = { x: -bleed, y: -bleed, width: fileW * k, height: fileH * k };
  const picture = {
    href: api.preview(art, 1800),
    x: (-lie.w / 2) * k,
    y: (-lie.h / 2) * k,
    width: lie.w * k,
    height: lie.h * k,
    preserveAspectRatio: "none",
    transform: `translate(${lie.cx * k} ${lie.cy * k}) rotate(${lie.rotate})`,
  };
  const dpi =
    Math.min(...editor.report.effective_dpi) *
    (placement.fit === editor.reportedPlacement.fit && placement.fit !== "repeat"
      ? editor.reportedPlacement.scale / placement.scale
      : 1);

  return (
    <section aria-label="Flat" className="relative flex min-w-0 flex-col border-r border-rule bg-table">
      <div className="flex items-center justify-between gap-3 px-3 pt-2 text-sm">
        <h2 className="font-bold">Flat</h2>
        {plan ? (
          <Reads mirrored={mirrored} />
        ) : (
          <span className="min-w-0 grow truncate text-right text-xs text-soft">
            {editor.follows
              ? "Shows a part of another side's design: change it there"
              : laying
                ? "Click an extra to select it · drag to move · wheel to scale"
                : `Drag to move${canRoll(panel, placement) ? ", with Shift to roll" : ""} · wheel to scale · Shift + wheel to rotate · arrows 1 mm`}
          </span>
        )}
        {editor.pair.guide && (
          <label className="flex shrink-0 items-center gap-1 text-xs">
            <input type="checkbox" checked={guide} onChange={(event) => setGuide(event.target.checked)} />
            Provider's guide
          </label>
        )}
        {panel.closes && !editor.empty && <SeamView place={editor.place} now={editor.now} />}
      </div>
      <div ref={frame} className="relative min-h-0 grow">
        <svg
          ref={surface}
          width={size.width}
          height={size.height}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: the template is edited by keyboard too
          tabIndex={0}
          role="application"
          aria-label={`${art.title} on the flat. Arrow keys move it, plus and minus size it, comma and full stop turn it.`}
          className="absolute inset-0 cursor-grab touch-none active:cursor-grabbing"
          data-flat=""
          {...handlers}
        >
          <Patterns file={file} />
          <g transform={`translate(${left} ${top})`}>
            <g transform={mirrored ? `translate(${trimW * k} 0) scale(-1 1)` : undefined}>
              {!panel.cone && <rect {...file} fill="var(--color-paper)" />}
              {!byCore && !editor.empty && (
                <>
                  {placement.background && <rect {...file} fill={placement.background} />}
                  <image {...picture} opacity={0.16} />
                  <g clipPath="url(#file)">
                    <image {...picture} />
                  </g>
                </>
              )}
              {byCore && url && <image href={url} {...file} preserveAspectRatio="none" data-core="" />}
              {!editor.empty && !editor.follows && !laying && <Grips lie={lie} k={k} bend={bent} />}
              {!editor.empty && !editor.follows && laying && (
                <PieceGrips editor={editor} k={k} bend={bend} toMm={toMm} />
              )}
            </g>
            {bleed > 0 && (
              <path
                d={`M${-bleed} ${-bleed}h${file.width}v${file.height}h${-file.width}zM0 0v${trimH * k}h${trimW * k}v${-trimH * k}z`}
                fill="url(#bleed)"
                fillRule="evenodd"
                opacity={0.6}
                pointerEvents="none"
              />
            )}
            <Lines
              panel={plan ? { ...panel, tab_mm: 0 } : panel}
              k={k}
              bend={bend}
              unit={unit}
              cut={plan ? [] : editor.report.cut_lines}
              seam={plan ? undefined : editor.report.checks.find((check) => check.id === "seam-match")}
            />
            {editor.pair.guide && guide && (
              <image
                href={api.guide(editor.pair.template.id, panel.id)}
                {...file}
                preserveAspectRatio="none"
                opacity={0.75}
                pointerEvents="none"
              />
            )}
            <SnapLines
              snaps={snaps}
              bend={bent}
              trim={bent.curved ? panel.worn_mm : panel.trim_mm}
              k={k}
              mirrored={mirrored}
              width={trimW}
            />
            {plan && <PlanMarks plan={plan} panel={panel} k={k} />}
            {findings && <Findings checks={editor.report.checks} panel={panel} k={k} mirrored={mirrored} bend={bend} />}
            {!editor.empty && (
              <Tag
                x={(trimW * k) / 2}
                y={trimH * k + bleed + 30}
                text={
                  art.vector
                    ? "vector: sharp at any size"
                    : `${Math.round(dpi)} dpi in print${art.enlarged > 1 ? `, enlarged ×${Math.round(art.enlarged * 10) / 10}` : ""}`
                }
              />
            )}
            <Rulers
              width={trimW}
              height={trimH}
              k={k}
              unit={unit}
              offset={bleed + 8 + (plan ? Math.max(plan.print_box[0], plan.print_box[1]) * k : 0)}
              aside={(panel.gap_mm / 2) * k}
            />
          </g>
        </svg>
        {editor.empty && (
          <div className="pointer-events-none absolute inset-0 grid place-items-center">
            <p className="bg-table px-4 py-2">Nothing is printed on this side.</p>
          </div>
        )}
      </div>
    </section>
  );
}

/** Whether the file is mirrored, in large letters. */
function Reads({ mirrored }: { mirrored: boolean }) {
  return (
    <p role="status" className="ml-auto flex items-center gap-2 border-2 border-ink bg-paper px-3 text-lg font-bold">
      <span aria-hidden="true" className={`text-2xl leading-8 ${mirrored ? "-scale-x-100" : ""}`}>
        R
      </span>
      {mirrored ? "Mirrored: reads right to left" : "Not mirrored: reads left to right"}
    </p>
  );
}

function Patterns({ file }: { file: { x: number; y: number; width: number; height: number } }) {
  return (
    <defs>
      <clipPath id="file">
        <rect {...file} />
      </clipPath>
      <pattern id="bleed" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0v6" stroke="var(--color-soft)" strokeWidth="1" />
      </pattern>
      <pattern id="zone" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-40)">
        <path d="M0 0v7" stroke="var(--color-ink)" strokeWidth="0.5" opacity="0.4" />
      </pattern>
    </defs>
  );
}
