import { type Bend, pathOf } from "./geometry";
import type { Snap } from "./useFlatGestures";

/** The lines to which a moving picture has snapped, with their names. */
export function SnapLines(props: {
  snaps: Snap[];
  bend: Bend;
  trim: [number, number];
  k: number;
  mirrored: boolean;
  width: number;
}) {
  const { bend, k, mirrored, width } = props;
  const [w, h] = props.trim;
  return (
    <g pointerEvents="none">
      {props.snaps.map(({ axis, mm, name }) => {
        const steps = Array.from({ length: 25 }, (_, i) => i / 24);
        const line = steps.map((t) => (axis === "x" ? bend.to(mm, h * t) : bend.to(w * t, mm)));
        const points = line.map(([x, y]): [number, number] => [mirrored ? width - x : x, y]);
        const [x, y] = points[axis === "x" ? 24 : 0] as [number, number];
        return (
          <g key={axis}>
            <path d={pathOf(points, k).slice(0, -1)} fill="none" stroke="var(--color-accent)" strokeWidth={1.5} />
            <text x={x * k + 4} y={axis === "x" ? y * k + 14 : y * k - 4} className="fill-accent text-xs font-bold">
              {name}
            </text>
          </g>
        );
      })}
    </g>
  );
}
