import type { Panel, PrintPlan } from "../api/client";

const INK = "var(--color-ink)";
const PAPER = "var(--color-paper)";

/** Paper round the print, and the sheets it is cut into, on the flat as the file reads. */
export function PlanMarks({ plan, panel, k }: { plan: PrintPlan; panel: Panel; k: number }) {
  const [px, py, pw, ph] = plan.print_box.map((mm) => mm * k) as [number, number, number, number];
  const x0 = -panel.bleed_mm * k - px;
  const y0 = -panel.bleed_mm * k - py;
  const [w, h] = plan.file_mm.map((mm) => mm * k) as [number, number];
  const tab = w - pw;
  const tabX = px > 0 ? x0 + px / 2 : x0 + pw + tab / 2;
  return (
    <g pointerEvents="none">
      {(tab > 0.5 || py > 0) && (
        <path
          d={`M${x0} ${y0}h${w}v${h}h${-w}zM${x0 + px} ${y0 + py}v${ph}h${pw}v${-ph}z`}
          fill={PAPER}
          fillRule="evenodd"
          stroke={INK}
          strokeWidth="1"
        />
      )}
      {tab > 0.5 && (
        <text
          transform={`translate(${tabX} ${y0 + py + ph / 2}) rotate(-90)`}
          textAnchor="middle"
          dy="3"
          fontSize="10"
          fill={INK}
        >
          white tab for the tape
        </text>
      )}
      {py > 0 &&
        [x0 + px, x0 + px + pw].map((x) => (
          <path key={x} d={`M${x} ${y0 + 1}v${py - 2}M${x} ${y0 + h - 1}v${2 - py}`} stroke={INK} strokeWidth="1.5" />
        ))}
      {plan.sheets.length > 1 &&
        plan.sheets.map(({ number, box }) => {
          const [x, y, wide, high] = box.map((mm) => mm * k) as [number, number, number, number];
          const edge = { x: x0 + x, y: y0 + y, width: wide, height: high, fill: "none" };
          return (
            <g key={number}>
              <rect {...edge} stroke={PAPER} strokeWidth="3" />
              <rect {...edge} stroke={INK} strokeWidth="1" />
              <g transform={`translate(${x0 + x + wide / 2} ${y0 + y + high / 2})`}>
                <circle r="14" fill={PAPER} stroke={INK} />
                <text textAnchor="middle" dy="5" fontSize="14" fontWeight="700" fill={INK}>
                  {number}
                </text>
              </g>
            </g>
          );
        })}
    </g>
  );
}
