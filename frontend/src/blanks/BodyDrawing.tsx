import type { Measures } from "../api/client";
import { show, type Unit } from "../ui/measure";

/** A drawing of the measured blank with a label for each measurement; the focused one is highlighted. */
export function BodyDrawing({ measures, active, unit }: { measures: Measures; active: string; unit: Unit }) {
  const [W, H] = [300, 260];
  const colour = (name: string) => (active === name ? "var(--color-accent)" : "var(--color-ink)");
  const say = (mm: number | undefined, name: string) => (mm ? `${show(mm, unit)} ${unit}` : name);
  if (measures.form !== "round") {
    const [w, h] =
      measures.form === "pixels" ? (measures.file_px ?? [1, 1]) : [measures.width_mm ?? 0, measures.height_mm ?? 0];
    const k = Math.min(190 / Math.max(w, 1), 170 / Math.max(h, 1));
    const [dw, dh] = w && h ? [w * k, h * k] : [150, 120];
    const [x, y] = [(W - dw) / 2 + 10, (H - dh) / 2];
    const pixels = measures.form === "pixels";
    return (
      <svg width={W} height={H} role="img" aria-label="What is being measured">
        <rect
          x={x}
          y={y}
          width={dw}
          height={dh}
          fill="var(--color-paper)"
          stroke="var(--color-ink)"
          strokeWidth={1.4}
        />
        <text
          x={x + dw / 2}
          y={y - 8}
          textAnchor="middle"
          className="text-sm"
          fill={colour(pixels ? "px_w" : "width_mm")}
        >
          {pixels ? `${w} px` : say(measures.width_mm, "width")}
        </text>
        <text
          transform={`translate(${x - 8} ${y + dh / 2}) rotate(-90)`}
          textAnchor="middle"
          className="text-sm"
          fill={colour(pixels ? "px_h" : "height_mm")}
        >
          {pixels ? `${h} px` : say(measures.height_mm, "height")}
        </text>
      </svg>
    );
  }
  const widest = Math.max(measures.top_mm ?? 0, measures.bottom_mm ?? 0) || 260;
  const tall = measures.height_mm || 150;
  const k = Math.min(150 / (widest / Math.PI), 170 / tall);
  const [rt, rb] = [
    ((measures.top_mm || widest) * k) / (2 * Math.PI),
    ((measures.bottom_mm || widest) * k) / (2 * Math.PI),
  ];
  const [cx, top, foot] = [W / 2, (H - tall * k) / 2, (H + tall * k) / 2];
  const ring = (r: number, y: number) => `M${cx - r} ${y}a${r} ${r * 0.17} 0 0 0 ${2 * r} 0`;
  return (
    <svg width={W} height={H} role="img" aria-label="What is being measured" fill="none" strokeWidth={1.4}>
      <path
        d={`M${cx - rt} ${top}L${cx - rb} ${foot}M${cx + rt} ${top}L${cx + rb} ${foot}`}
        stroke="var(--color-ink)"
      />
      <ellipse cx={cx} cy={top} rx={rt} ry={rt * 0.17} stroke="var(--color-soft)" strokeWidth={0.8} />
      <path d={ring(rt, top)} stroke={colour("top_mm")} strokeWidth={active === "top_mm" ? 3 : 1.4} />
      <path d={ring(rb, foot)} stroke={colour("bottom_mm")} strokeWidth={active === "bottom_mm" ? 3 : 1.4} />
      <path
        d={`M${cx - Math.max(rt, rb) - 16} ${top}v${foot - top}m-4 0h8m-8 ${top - foot}h8`}
        stroke={colour("height_mm")}
      />
      {(measures.gap_mm ?? 0) > 0 && (
        <path
          d={`M${cx + rt} ${top + tall * k * 0.18}c46 0 46 ${tall * k * 0.6} 0 ${tall * k * 0.6}`}
          stroke={colour("gap_mm")}
          strokeWidth={active === "gap_mm" ? 8 : 6}
        />
      )}
      <g stroke="none" className="text-sm" textAnchor="middle">
        <text x={cx} y={top - rt * 0.17 - 8} fill={colour("top_mm")}>
          round the top: {say(measures.top_mm, "?")}
        </text>
        <text x={cx} y={foot + rb * 0.17 + 20} fill={colour("bottom_mm")}>
          round the foot: {say(measures.bottom_mm, "?")}
        </text>
        <text
          transform={`translate(${cx - Math.max(rt, rb) - 24} ${(top + foot) / 2}) rotate(-90)`}
          fill={colour("height_mm")}
        >
          {say(measures.height_mm, "height")}, upright
        </text>
      </g>
    </svg>
  );
}
