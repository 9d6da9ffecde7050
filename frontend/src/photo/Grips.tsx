import type { KeyboardEvent } from "react";

const GRIP_PX = 7;
const LOUPE_PX = 168;
const LOUPE_TIMES = 5;
/** Shares of a photograph's width and height. */
export type At = [number, number];

const STEPS: Record<string, At> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** The position of a point after an arrow key: moved by one pixel of the photograph, with Shift by ten; null for other
 * keys. */
export function stepped(event: KeyboardEvent, from: At, px: At): At | null {
  const way = STEPS[event.key];
  const step = event.shiftKey ? 10 : 1;
  return way ? [from[0] + (way[0] * step) / px[0], from[1] + (way[1] * step) / px[1]] : null;
}

/** The point that a press grabs, for a picture of the given size on the screen; null if none is near. */
export function taken(points: At[], at: At, [w, h]: At): number | null {
  const far = points.map(([x, y]) => Math.hypot((x - at[0]) * w, (y - at[1]) * h));
  const nearest = far.indexOf(Math.min(...far));
  return (far[nearest] ?? 99) < 3 * GRIP_PX ? nearest : null;
}

/** A point on a photograph that is dragged, or moved by arrow keys. */
export function Grip(props: {
  name: string;
  x: number;
  y: number;
  onFocus: () => void;
  onBlur: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
}) {
  const { name, x, y, ...rest } = props;
  return (
    // biome-ignore lint/a11y/useSemanticElements: an SVG cannot contain a button
    <g
      role="button"
      tabIndex={0}
      aria-label={`${name}: drag it, or move it by arrow keys`}
      className="cursor-grab outline-none [&:focus-visible>circle]:stroke-[3]"
      {...rest}
    >
      <title>{name}</title>
      <circle cx={x} cy={y} r={GRIP_PX} fill="#00000030" stroke="#fff" strokeWidth="1.8" />
      <path d={`M${x - 3} ${y}h6m-3-3v6`} stroke="#fff" strokeWidth="1.2" />
    </g>
  );
}

/** A magnified view of the photograph around a dragged point. */
export function Loupe(props: { picture: string; at: At; size: At; name: string; right: boolean }) {
  const { at, size } = props;
  const [w, h] = [size[0] * LOUPE_TIMES, size[1] * LOUPE_TIMES];
  const half = LOUPE_PX / 2;
  return (
    <figure
      className={`pointer-events-none absolute top-6 w-[170px] border border-ink bg-paper shadow-md ${props.right ? "right-6" : "left-6"}`}
      aria-hidden="true"
    >
      <svg width={LOUPE_PX} height={LOUPE_PX} className="block">
        <title>{props.name}</title>
        <image href={props.picture} x={half - at[0] * w} y={half - at[1] * h} width={w} height={h} />
        <path
          d={`M0 ${half}h${half - 8}m16 0h${half - 8}M${half} 0v${half - 8}m0 16v${half - 8}`}
          stroke="#fff"
          strokeWidth="1.4"
          style={{ filter: "drop-shadow(0 0 1px #000)" }}
        />
      </svg>
      <figcaption className="px-2 py-0.5 text-xs">{props.name}</figcaption>
    </figure>
  );
}
