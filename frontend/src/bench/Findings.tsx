import type { Check, Panel } from "../api/client";
import { type Bend, boxPath } from "./geometry";

/** Findings at their positions: a numbered flag and an outline for each box of a check. */
export function Findings(props: { checks: Check[]; panel: Panel; k: number; mirrored: boolean; bend: Bend }) {
  const { k, panel, mirrored, bend } = props;
  const open = props.checks.filter((check) => check.status !== "pass");
  const width = panel.trim_mm[0] * k;
  return (
    <g pointerEvents="none">
      {open.flatMap((check, i) =>
        check.where.map((box, nth) => {
          const [x, y, w, h] = box;
          const [fx, fy] = bend.to(x + w / 2, Math.max(y, 0));
          const at = mirrored ? width - fx * k : fx * k;
          return (
            <g key={`${check.id}${x},${y}`}>
              <path
                d={boxPath(box, bend, k)}
                transform={mirrored ? `translate(${width} 0) scale(-1 1)` : undefined}
                fill="var(--color-ink)"
                fillOpacity={0.08}
                stroke="var(--color-ink)"
                strokeWidth={1.2}
              />
              {(nth === 0 || check.where.length === 2) && (
                <g transform={`translate(${at} ${fy * k + 18 + (h * k > 60 ? i * 26 : 0)})`}>
                  <path d="M-11 -11h22v22h-22z" fill="var(--color-ink)" />
                  <text y={5} textAnchor="middle" className="fill-paper text-sm font-bold">
                    {i + 1}
                  </text>
                </g>
              )}
            </g>
          );
        }),
      )}
    </g>
  );
}
