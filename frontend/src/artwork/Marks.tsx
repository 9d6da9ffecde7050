import type { Panel, Report } from "../api/client";
import { show } from "../ui/measure";
import { useUnit } from "../ui/unit";
import type { Box, Click } from "./click";
import { ringed, sewn } from "./Leftovers";
import type { Preparing } from "./usePreparation";

type Lie = { left: number; top: number; width: number; height: number };
const HALO = { fill: "none", stroke: "var(--color-paper)", strokeWidth: 4, strokeOpacity: 0.85 };
const INK = { fill: "none", stroke: "var(--color-ink)", strokeWidth: 1.5 };

type MarksProps = { preparing: Preparing; panel: Panel; lie: Lie; drawn: Box | null; click: Click | null };

/** Findings and set points, drawn at their positions on the artwork. */
export function Marks(props: MarksProps) {
  const { preparing, lie, click } = props;
  const { unit } = useUnit();
  const { report } = preparing;
  const x = (u: number) => lie.left + u * lie.width;
  const y = (v: number) => lie.top + v * lie.height;
  const pxPerMm = lie.width / report.size_mm[0];
  const box = props.drawn ?? (click?.kind === "box" && click.box && !isWhole(click.box) ? click.box : null);
  return (
    <g pointerEvents="none">
      {ringed(preparing).map((spot) => (
        <Ring
          key={`${spot.kind} ${spot.at}`}
          x={x(spot.at[0])}
          y={y(spot.at[1])}
          r={Math.max(7, spot.size_mm * pxPerMm)}
          spot={spot}
        />
      ))}
      {report.has_alpha &&
        sewn(preparing, props.panel) &&
        report.necks.map((neck) => (
          <g key={`${neck.at}`} transform={`translate(${x(neck.at[0])} ${y(neck.at[1])})`}>
            <path d="M-9 0H9M-9-4v8M9-4v8" {...HALO} />
            <path d="M-9 0H9M-9-4v8M9-4v8" {...INK} />
            <text
              x={13}
              y={4}
              fontSize={12}
              stroke="var(--color-paper)"
              strokeWidth={3}
              paintOrder="stroke"
              fill="var(--color-ink)"
            >
              {show(neck.width_mm, unit, unit === "in" ? 2 : 1)} {unit}
            </text>
          </g>
        ))}
      {click?.points.map(([u, v], i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a point is identified by its number
        <g key={i} transform={`translate(${x(u)} ${y(v)})`}>
          <path d={MARKS[click.name] ?? ""} {...HALO} />
          <path d={MARKS[click.name] ?? ""} {...INK} />
        </g>
      ))}
      {box && (
        <>
          <rect x={x(box[0])} y={y(box[1])} width={box[2] * lie.width} height={box[3] * lie.height} {...HALO} />
          <rect x={x(box[0])} y={y(box[1])} width={box[2] * lie.width} height={box[3] * lie.height} {...INK} />
        </>
      )}
    </g>
  );
}

const MARKS: Record<string, string> = { add: "M-6-6 6 6M6-6-6 6", spare: "M-6 0-2 5 7-6" };

const isWhole = ([x, y, w, h]: Box) => x === 0 && y === 0 && w === 1 && h === 1;

function Ring(props: { x: number; y: number; r: number; spot: Report["specks"][number] }) {
  const hole = props.spot.kind === "hole";
  return (
    <g data-spot={props.spot.kind}>
      <circle cx={props.x} cy={props.y} r={props.r} {...HALO} />
      <circle cx={props.x} cy={props.y} r={props.r} {...INK} strokeDasharray={hole ? "2 2.5" : undefined} />
    </g>
  );
}
