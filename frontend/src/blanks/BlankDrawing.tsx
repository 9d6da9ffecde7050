import type { Template } from "../api/client";
import { pathOf } from "../bench/geometry";
import { show, type Unit } from "../ui/measure";

/** A blank's first panel, drawn flat to fit a box, with dimensions if there is room. */
export function BlankDrawing(props: { template: Template; width: number; height: number; unit?: Unit }) {
  const panel = props.template.panels[0] as Template["panels"][number];
  const [w, h] = panel.file_mm;
  const margin = props.unit ? 34 : 3;
  const k = Math.min((props.width - 2 * margin) / (w + panel.gap_mm), (props.height - 2 * margin) / h);
  const x = (props.width - panel.trim_mm[0] * k) / 2;
  const y = (props.height - panel.trim_mm[1] * k) / 2;
  const bleed = panel.bleed_mm * k;
  const { unit } = props;
  return (
    <svg width={props.width} height={props.height} aria-hidden="true" className="shrink-0">
      <g transform={`translate(${x} ${y})`} fill="none" stroke="var(--color-ink)">
        {bleed > 0 && (
          <rect
            x={-bleed}
            y={-bleed}
            width={w * k}
            height={h * k}
            stroke="var(--color-soft)"
            strokeWidth={0.6}
            fill="var(--color-table)"
          />
        )}
        {panel.gap_mm > 0 &&
          !panel.cone &&
          [-panel.gap_mm / 2, panel.trim_mm[0]].map((at) => (
            <rect
              key={at}
              x={at * k}
              width={(panel.gap_mm / 2) * k}
              height={panel.trim_mm[1] * k}
              strokeWidth={0.6}
              stroke="var(--color-soft)"
            />
          ))}
        <path d={pathOf(panel.cut_line, k)} fill="var(--color-paper)" strokeWidth={1.2} />
        <path d={pathOf(panel.safe_line, k)} strokeWidth={0.6} />
        {unit && (
          <g stroke="none" className="fill-ink text-xs">
            <text x={(panel.trim_mm[0] * k) / 2} y={-bleed - 8} textAnchor="middle">
              {show(panel.trim_mm[0], unit)} {unit}
            </text>
            <text
              transform={`translate(${-bleed - (panel.gap_mm / 2) * k - 8} ${(panel.trim_mm[1] * k) / 2}) rotate(-90)`}
              textAnchor="middle"
            >
              {show(panel.trim_mm[1], unit)} {unit}
            </text>
          </g>
        )}
      </g>
    </svg>
  );
}
