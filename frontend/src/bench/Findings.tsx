import type { Check, Panel } from "../api/client";

/** Findings where they are: a numbered flag and an outline for each place that a check points at. */
export function Findings(props: { checks: Check[]; panel: Panel; k: number; mirrored: boolean }) {
  const { k, panel, mirrored } = props;
  const open = props.checks.filter((check) => check.status !== "pass");
  return (
    <g pointerEvents="none">
      {open.flatMap((check, i) =>
        check.where.map(([x, y, w, h]) => {
          const at = mirrored ? panel.trim_mm[0] - x - w : x;
          return (
            <g key={`${check.id}${x},${y}`}>
              <rect
                x={at * k}
                y={y * k}
                width={w * k}
                height={h * k}
                fill="var(--color-ink)"
                fillOpacity={0.08}
                stroke="var(--color-ink)"
                strokeWidth={1.2}
              />
              <g transform={`translate(${(at + w / 2) * k} ${Math.max(y * k, 0) + 18 + i * 26})`}>
                <path d="M-11 -11h22v22h-22z" fill="var(--color-ink)" />
                <text y={5} textAnchor="middle" className="fill-paper text-sm font-bold">
                  {i + 1}
                </text>
              </g>
            </g>
          );
        }),
      )}
    </g>
  );
}
