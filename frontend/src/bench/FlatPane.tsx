import { useCallback, useRef } from "react";
import { api } from "../api/client";
import { useUnit } from "../ui/unit";
import { useSize } from "../ui/useSize";
import { Findings } from "./Findings";
import { Grips, Lines, Tag } from "./FlatMarks";
import { lieOf } from "./geometry";
import { Rulers } from "./Rulers";
import { useFlatHand } from "./useFlatHand";
import type { Hand } from "./usePair";

const MARGIN_PX = 46;

/** The template lying flat at its true proportions, with the artwork on it. */
export function FlatPane({ hand, mirrored, findings }: { hand: Hand; mirrored: boolean; findings: boolean }) {
  const { unit } = useUnit();
  const [frame, size] = useSize<HTMLDivElement>();
  const surface = useRef<SVGSVGElement>(null);
  const panel = hand.pair.template.panels[0] as (typeof hand.pair.template.panels)[number];
  const [fileW, fileH] = panel.file_mm;
  const [trimW, trimH] = panel.trim_mm;
  const k = Math.max(0.1, Math.min((size.width - 2 * MARGIN_PX) / fileW, (size.height - 2 * MARGIN_PX) / fileH));
  const left = (size.width - trimW * k) / 2;
  const top = (size.height - trimH * k) / 2;
  const lie = lieOf(hand.placing, hand.proof, hand.proved);
  const toMm = useCallback(
    (x: number, y: number): [number, number] => {
      const box = surface.current?.getBoundingClientRect();
      const mm = (x - (box?.left ?? 0) - left) / k;
      return [mirrored ? trimW - mm : mm, (y - (box?.top ?? 0) - top) / k];
    },
    [left, top, k, mirrored, trimW],
  );
  const { snaps, handlers } = useFlatHand(hand, panel, lie, toMm, k, surface);
  const art = hand.pair.artwork;
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
    Math.min(...hand.proof.effective_dpi) *
    (hand.placing.fit === hand.proved.fit ? hand.proved.scale / hand.placing.scale : 1);

  return (
    <section aria-label="Flat" className="relative flex min-w-0 flex-col border-r border-rule bg-table">
      <div className="flex items-baseline justify-between px-3 pt-2 text-sm">
        <h2 className="font-bold">Flat</h2>
        <span className="text-xs text-soft">
          Drag to move · wheel to size · Shift + wheel to turn · arrows 1 mm · 0 as proposed
        </span>
      </div>
      <div ref={frame} className="relative min-h-0 grow">
        <svg
          ref={surface}
          width={size.width}
          height={size.height}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: the flat is worked by keys as well as by pointer
          tabIndex={0}
          role="application"
          aria-label={`${art.title} on the flat. Arrow keys move it, plus and minus size it, comma and full stop turn it.`}
          className="absolute inset-0 cursor-grab touch-none active:cursor-grabbing"
          data-flat=""
          {...handlers}
        >
          <defs>
            <clipPath id="file">
              <rect {...file} />
            </clipPath>
            <pattern id="bleed" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <path d="M0 0v6" stroke="var(--color-soft)" strokeWidth="1" />
            </pattern>
          </defs>
          <g transform={`translate(${left} ${top})`}>
            <g transform={mirrored ? `translate(${trimW * k} 0) scale(-1 1)` : undefined}>
              <rect {...file} fill="var(--color-paper)" />
              {hand.placing.background && <rect {...file} fill={hand.placing.background} />}
              <image {...picture} opacity={0.16} />
              <g clipPath="url(#file)">
                <image {...picture} />
              </g>
              <Grips lie={lie} k={k} />
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
            <Lines panel={panel} k={k} seam={hand.proof.checks.find((check) => check.id === "seam-match")} />
            {snaps.map(({ axis, mm, name }) => (
              <g key={axis} pointerEvents="none">
                <path
                  d={
                    axis === "x"
                      ? `M${(mirrored ? trimW - mm : mm) * k} -14V${trimH * k + 14}`
                      : `M-14 ${mm * k}H${trimW * k + 14}`
                  }
                  stroke="var(--color-accent)"
                  strokeWidth={1.5}
                />
                <text
                  x={axis === "x" ? (mirrored ? trimW - mm : mm) * k + 4 : trimW * k + 4}
                  y={axis === "x" ? trimH * k + 14 : mm * k - 4}
                  className="fill-accent text-xs font-bold"
                  textAnchor={axis === "x" ? "start" : "end"}
                >
                  {name}
                </text>
              </g>
            ))}
            {findings && <Findings checks={hand.proof.checks} panel={panel} k={k} mirrored={mirrored} />}
            <Tag
              x={(trimW * k) / 2}
              y={trimH * k + bleed + 30}
              text={art.vector ? "lines: sharp at any size" : `${Math.round(dpi)} dpi in print`}
            />
            <Rulers width={trimW} height={trimH} k={k} unit={unit} offset={bleed + 8} />
          </g>
        </svg>
        {mirrored && (
          <p
            className="pointer-events-none absolute top-1 right-3 border-2 border-ink bg-paper px-2 text-sm font-bold"
            role="status"
          >
            ᴙ Mirrored: the file reads right to left
          </p>
        )}
      </div>
    </section>
  );
}
