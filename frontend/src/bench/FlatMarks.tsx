import type { Check, Panel } from "../api/client";
import { show, type Unit } from "../ui/measure";
import { type Bend, boxPath, cornersOf, type Lie, pathOf } from "./geometry";

const HALO = { paintOrder: "stroke", stroke: "var(--color-paper)", strokeWidth: 3 } as const;

/** Trim, safe line, seam zones and covered parts, each named on itself. */
export function Lines(props: {
  panel: Panel;
  k: number;
  bend: Bend;
  seam: Check | undefined;
  /** Where a shape is cut out round its artwork. */
  cut: [number, number][][];
  unit: Unit;
}) {
  const { panel, k, bend, seam } = props;
  const [w, h] = panel.trim_mm;
  const [ww, wh] = panel.worn_mm;
  const step =
    seam?.measured == null
      ? ""
      : ` · ends ${seam.status === "pass" ? "match" : "differ"}, ΔE ${seam.measured.toFixed(1)}`;
  const zone = panel.seam_zone_mm;
  const safe = pathOf(panel.safe_line, k);
  const [safeX, safeY] = panel.safe_line.reduce(
    ([bx = 0, by = 1e9], [x = 0, y = 0]) => (y < by ? [x, y] : [bx, by]),
    [0, 1e9],
  );
  return (
    <g pointerEvents="none" fill="none">
      {safe && (
        <g>
          <path d={safe} stroke="var(--color-paper)" strokeWidth={2.4} opacity={0.55} />
          <path d={safe} stroke="var(--color-ink)" strokeWidth={0.8} />
          <text
            x={(panel.shape !== "outline" ? w / 2 : (safeX ?? 0)) * k}
            y={(safeY ?? 0) * k + 4}
            textAnchor="middle"
            className="fill-ink text-[11px]"
            {...HALO}
          >
            keep words inside this line
          </text>
        </g>
      )}
      {zone > 0 &&
        (panel.closes || panel.gap_mm > 0) &&
        [0, ww - zone].map((x) => (
          <path key={x} d={boxPath([x, 0, zone, wh], bend, k)} fill="url(#zone)" stroke="none" />
        ))}
      {panel.keep_out.map(({ title, box }) => (
        <g key={title}>
          <path d={boxPath(box as Box, bend, k)} fill="url(#zone)" stroke="var(--color-ink)" strokeWidth={0.6} />
          <text x={box[0] * k + 12} y={(box[1] + box[3] / 2) * k + 4} className="fill-ink text-[11px]" {...HALO}>
            {title}
          </text>
        </g>
      ))}
      {panel.closes && !panel.cone && (
        <g>
          {[-5, w * k + 13 + panel.tab_mm * k].map((x) => (
            <text
              key={x}
              transform={`translate(${x} ${(h * k) / 2}) rotate(-90)`}
              textAnchor="middle"
              className="fill-soft text-[11px]"
            >
              seam{step}
            </text>
          ))}
        </g>
      )}
      {panel.tab_mm > 0 && !panel.cone && (
        <g>
          <rect
            x={w * k}
            y={0}
            width={panel.tab_mm * k}
            height={h * k}
            fill="var(--color-paper)"
            stroke="var(--color-soft)"
            strokeWidth={0.6}
          />
          <text
            transform={`translate(${(w + panel.tab_mm / 2) * k + 4} ${h * k - 8}) rotate(-90)`}
            className="fill-soft text-[10px]"
          >
            tab for the tape, not printed
          </text>
        </g>
      )}
      {panel.gap_mm > 0 && <Gap panel={panel} bend={bend} k={k} unit={props.unit} />}
      {props.cut.map((ring) => (
        <g key={`${ring[0]}`}>
          <path d={pathOf(ring, k)} stroke="var(--color-paper)" strokeWidth={2.6} opacity={0.7} />
          <path d={pathOf(ring, k)} stroke="var(--color-ink)" strokeWidth={1.1} strokeDasharray="7 4">
            <title>Cut along here: the contour with its border and the sewing allowance</title>
          </path>
        </g>
      ))}
      <path d={pathOf(panel.cut_line, k)} stroke="var(--color-ink)" strokeWidth={1.4} />
    </g>
  );
}

type Box = [number, number, number, number];

/** Half of the handle gap on either side of the wrap, labelled with the full width. */
function Gap({ panel, bend, k, unit }: { panel: Panel; bend: Bend; k: number; unit: Unit }) {
  const [w, h] = panel.worn_mm;
  const half = panel.gap_mm / 2;
  const upright = (x: number) => {
    const [[ax, ay], [bx, by]] = [bend.to(x, h * 0.75), bend.to(x, h * 0.25)];
    return (Math.atan2(by - ay, bx - ax) * 180) / Math.PI;
  };
  const middle = (x: number) => bend.to(x + half / 2, h / 2).map((mm) => mm * k);
  return (
    <g>
      {[-half, w].map((x) => (
        <g key={x}>
          <path
            d={boxPath([x, 0, half, h], bend, k)}
            fill="var(--color-paper)"
            stroke="var(--color-soft)"
            strokeWidth={0.6}
          />
          <text
            transform={`translate(${middle(x).join(" ")}) rotate(${upright(x + half / 2)}) translate(0 4)`}
            textAnchor="middle"
            className="fill-soft text-[11px]"
          >
            bare at the handle, {show(panel.gap_mm, unit)} {unit} in all
          </text>
        </g>
      ))}
    </g>
  );
}

/** Corner handles for scaling and a ring for rotation, on the picture's outline. */
export function Grips({ lie, k, bend }: { lie: Lie; k: number; bend: Bend }) {
  const points = cornersOf(lie, bend).map(([x, y]): [number, number] => [x * k, y * k]);
  const towards = (a: [number, number], b: [number, number], by: number): [number, number] => {
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [a[0] + ((b[0] - a[0]) / length) * by, a[1] + ((b[1] - a[1]) / length) * by];
  };
  const corner = (i: number) => points[(i + 4) % 4] as [number, number];
  const top: [number, number] = [(corner(0)[0] + corner(1)[0]) / 2, (corner(0)[1] + corner(1)[1]) / 2];
  const foot: [number, number] = [(corner(2)[0] + corner(3)[0]) / 2, (corner(2)[1] + corner(3)[1]) / 2];
  const ring = towards(top, foot, 18);
  return (
    <g>
      {points.map((at, i) => {
        const [a, b] = [towards(at, corner(i - 1), 14), towards(at, corner(i + 1), 14)];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a picture always has four corners
          <g key={i}>
            <path
              d={`M${a[0]} ${a[1]}L${at[0]} ${at[1]}L${b[0]} ${b[1]}`}
              fill="none"
              stroke="var(--color-accent)"
              strokeWidth={2.5}
              pointerEvents="none"
            />
            <circle data-grip="scale" cx={at[0]} cy={at[1]} r={11} fill="transparent" className="cursor-nwse-resize" />
          </g>
        );
      })}
      <path
        d={`M${top[0]} ${top[1]}L${ring[0]} ${ring[1]}`}
        stroke="var(--color-accent)"
        strokeWidth={2}
        pointerEvents="none"
      />
      <circle
        data-grip="turn"
        cx={ring[0]}
        cy={ring[1]}
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
