import { useRef, useState } from "react";
import type { Pair, Panel } from "../api/client";
import { show } from "../ui/measure";
import { useUnit } from "../ui/unit";
import { useSize } from "../ui/useSize";
import { Backings } from "./Backings";
import type { Click } from "./click";
import { Marks } from "./Marks";
import type { Preparing } from "./usePreparation";
import { useSheetGestures } from "./useSheetGestures";

const MARGIN_PX = 28;

/** The artwork on any backing, with zoom, and with clicks or boxes for steps that need points. */
export function SheetPane({
  preparing,
  pair,
  panel,
  click,
}: {
  preparing: Preparing;
  pair: Pair;
  panel: Panel;
  click: Click | null;
}) {
  const { unit } = useUnit();
  const [frame, size] = useSize<HTMLDivElement>();
  const surface = useRef<SVGSVGElement>(null);
  const [backing, setBacking] = useState("#8db5a6");
  const [ratio, setRatio] = useState(1);
  const { report, sheet, prepared } = preparing;
  const fit = Math.min((size.width - 2 * MARGIN_PX) / ratio, size.height - 2 * MARGIN_PX);
  const view = useSheetGestures(surface, { size, fit, ratio }, click);
  const { height, left, top } = view.lie;
  const width = height * ratio;
  const full = prepared.artwork.px[1] / (window.devicePixelRatio || 1) / Math.max(1, fit);
  return (
    <section aria-label="Sheet" className="relative flex min-w-0 flex-col border-r border-rule bg-table">
      <div className="flex items-baseline gap-3 px-3 pt-2 text-sm">
        <h2 className="font-bold">Sheet</h2>
        <span className="min-w-0 grow truncate text-right text-xs text-soft">
          {click ? click.says : "Wheel to zoom · drag to move"}
        </span>
        <button type="button" className="shrink-0 text-xs underline" onClick={view.whole}>
          whole
        </button>
        <button
          type="button"
          className="shrink-0 text-xs underline"
          onClick={() => view.zoomTo(full)}
          title="One pixel of the picture per pixel of the screen"
        >
          1 : 1
        </button>
      </div>
      <div ref={frame} className="relative m-3 mb-2 min-h-0 grow overflow-hidden" style={{ backgroundColor: backing }}>
        <svg
          ref={surface}
          width={size.width}
          height={size.height}
          role="application"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: the view is moved by keyboard too
          tabIndex={0}
          aria-label={`${prepared.artwork.title} on its backing. Plus and minus zoom, arrow keys move it.`}
          className={`absolute inset-0 touch-none ${click ? "cursor-crosshair" : "cursor-grab active:cursor-grabbing"}`}
          data-sheet=""
          {...view.handlers}
        >
          {sheet.url && (
            <image
              href={sheet.url}
              x={left}
              y={top}
              width={width}
              height={height}
              preserveAspectRatio="none"
              data-loaded={sheet.url}
            />
          )}
          <Marks
            preparing={preparing}
            panel={panel}
            lie={{ left, top, width, height }}
            drawn={view.drawn}
            click={click}
          />
        </svg>
        {sheet.url && (
          <img
            src={sheet.url}
            alt=""
            className="hidden"
            onLoad={(event) => setRatio(event.currentTarget.naturalWidth / event.currentTarget.naturalHeight)}
          />
        )}
        {!sheet.url && !sheet.problem && <p className="grid h-full place-items-center">Preparing…</p>}
        {sheet.problem && (
          <p role="alert" className="absolute inset-x-3 bottom-3 bg-paper p-2 text-sm">
            {sheet.problem}
          </p>
        )}
      </div>
      <div className="flex items-center gap-3 px-3 pb-2 text-sm">
        <Backings value={backing} blank={pair.template.blank_colour} onValue={setBacking} />
        <span className="ml-auto text-right text-xs leading-tight whitespace-nowrap text-soft">
          {report.px[0]} × {report.px[1]} px
          <br />
          {show(report.size_mm[0], unit, 2)} × {show(report.size_mm[1], unit, 2)} {unit}
        </span>
      </div>
    </section>
  );
}
