import type { KeyboardEvent } from "react";

export const GRIP_PX = 7;
const LOUPE_PX = 168;
const LOUPE_TIMES = 5;
/** Shares of a photograph's width and height. */
export type At = [number, number];

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
    // biome-ignore lint/a11y/useSemanticElements: a button cannot lie in an SVG
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

/** What lies under the point in the hand, closer. */
export function Loupe(props: { picture: string; at: At; size: At; name: string; right: boolean }) {
  const { at, size } = props;
  const [w, h] = [size[0] * LOUPE_TIMES, size[1] * LOUPE_TIMES];
  const half = LOUPE_PX / 2;
  return (
    <figure
      className={`pointer-events-none absolute top-6 border border-ink bg-paper shadow-md ${props.right ? "right-6" : "left-6"}`}
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
