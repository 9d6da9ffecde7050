import type { Check, Panel } from "../api/client";
import type { Lie } from "./geometry";

/** Trim, safe line and seam zones, each named on itself. */
export function Lines({ panel, k, seam }: { panel: Panel; k: number; seam: Check | undefined }) {
  const step =
    seam?.measured == null
      ? ""
      : ` · ends ${seam.status === "pass" ? "match" : "differ"}, ΔE ${seam.measured.toFixed(1)}`;
  const [w, h] = [panel.trim_mm[0] * k, panel.trim_mm[1] * k];
  const s = panel.safe_mm * k;
  const zone = panel.seam_zone_mm * k;
  const halo = { paintOrder: "stroke", stroke: "var(--color-paper)", strokeWidth: 3 } as const;
  return (
    <g pointerEvents="none" fill="none">
      {s > 0 && (
        <g>
          <rect
            x={s}
            y={s}
            width={w - 2 * s}
            height={h - 2 * s}
            stroke="var(--color-paper)"
            strokeWidth={2.4}
            opacity={0.55}
          />
          <rect x={s} y={s} width={w - 2 * s} height={h - 2 * s} stroke="var(--color-ink)" strokeWidth={0.8} />
          <text x={w - s - 10} y={s + 4} textAnchor="end" className="fill-ink text-[11px]" {...halo}>
            keep words inside this line
          </text>
        </g>
      )}
      {panel.closes &&
        zone > 0 &&
        [0, w - zone].map((x) => (
          <g key={x}>
            <path
              d={Array.from({ length: Math.floor(h / 7) }, (_, i) => `M${x} ${i * 7 + 6}l${zone} -5`).join("")}
              stroke="var(--color-ink)"
              strokeWidth={0.5}
              opacity={0.35}
            />
            <text
              transform={`translate(${x === 0 ? -5 : w + 13} ${h / 2}) rotate(-90)`}
              textAnchor="middle"
              className="fill-soft text-[11px]"
            >
              seam{step}
            </text>
          </g>
        ))}
      <rect width={w} height={h} stroke="var(--color-ink)" strokeWidth={1.4} />
    </g>
  );
}

/** Corner marks to size by and a ring to turn by. */
export function Grips({ lie, k }: { lie: Lie; k: number }) {
  const [w, h] = [(lie.w * k) / 2, (lie.h * k) / 2];
  const arm = 14;
  return (
    <g transform={`translate(${lie.cx * k} ${lie.cy * k}) rotate(${lie.rotate})`}>
      {[
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ].map(([i = 1, j = 1]) => (
        <g key={`${i}${j}`}>
          <path
            d={`M${i * w} ${j * (h - arm)}V${j * h}H${i * (w - arm)}`}
            fill="none"
            stroke="var(--color-accent)"
            strokeWidth={2.5}
            pointerEvents="none"
          />
          <circle data-grip="scale" cx={i * w} cy={j * h} r={11} fill="transparent" className="cursor-nwse-resize" />
        </g>
      ))}
      <path d={`M0 ${-h}v14`} stroke="var(--color-accent)" strokeWidth={2} pointerEvents="none" />
      <circle
        data-grip="turn"
        cx={0}
        cy={-h + 18}
        r={7}
        fill="var(--color-paper)"
        stroke="var(--color-accent)"
        strokeWidth={2}
        className="cursor-alias"
      />
    </g>
  );
}

/** A number beside what it measures. */
export function Tag({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <text x={x} y={y} textAnchor="middle" className="fill-ink text-sm font-bold" pointerEvents="none" data-dpi="">
      {text}
    </text>
  );
}
