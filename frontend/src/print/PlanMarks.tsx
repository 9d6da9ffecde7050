import type { Panel, PrintPlan } from "../api/client";

const INK = "var(--color-ink)";
const PAPER = "var(--color-paper)";

/** Extra paper around the print and the cuts into sheets, drawn on the template as in the file. */
export function PlanMarks({ plan, panel, k }: { plan: PrintPlan; panel: Panel; k: number }) {
  const [px, py, pw, ph] = plan.print_box.map((mm) => mm * k) as [number, number, number, number];
  const [w, h] = plan.file_mm.map((mm) => mm * k) as [number, number];
  const tab = plan.tab.map(([x, y]) => [x * k, y * k] as const);
  const [a, b, c] = tab;
  const straight = panel.cone === null && (tab.length > 0 || plan.marks.length > 0);
  // the label runs along the tab, upward
  const turn = a && b ? (Math.atan2(a[1] - b[1], a[0] - b[0]) * 180) / Math.PI : 0;
  return (
    <g pointerEvents="none" transform={`translate(${-panel.bleed_mm * k - px} ${-panel.bleed_mm * k - py})`}>
      {straight && (
        <path
          d={`M0 0h${w}v${h}h${-w}zM${px} ${py}v${ph}h${pw}v${-ph}z`}
          fill={PAPER}
          fillRule="evenodd"
          stroke={INK}
          strokeWidth="1"
        />
      )}
      {a && b && c && (
        <>
          <polygon points={tab.map((point) => point.join(",")).join(" ")} fill={PAPER} stroke={INK} strokeWidth="1" />
          <text
            transform={`translate(${(a[0] + c[0]) / 2} ${(a[1] + c[1]) / 2}) rotate(${turn})`}
            textAnchor="middle"
            dy="3"
            fontSize="10"
            fill={INK}
          >
            white tab for the tape
          </text>
        </>
      )}
      {plan.marks.map(([x0, y0, x1, y1]) => (
        <path key={`${x0} ${y0}`} d={`M${x0 * k} ${y0 * k}L${x1 * k} ${y1 * k}`} stroke={INK} strokeWidth="1.5" />
      ))}
      {plan.sheets.length > 1 &&
        plan.sheets.map(({ number, box }) => {
          const [x, y, width, height] = box.map((mm) => mm * k) as [number, number, number, number];
          const edge = { x, y, width, height, fill: "none" };
          return (
            <g key={number}>
              <rect {...edge} stroke={PAPER} strokeWidth="3" />
              <rect {...edge} stroke={INK} strokeWidth="1" />
              <g transform={`translate(${x + width / 2} ${y + height / 2})`}>
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
