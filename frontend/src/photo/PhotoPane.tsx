import { useGesture } from "@use-gesture/react";
import { type KeyboardEvent, useRef, useState } from "react";
import { api, type Dab } from "../api/client";
import { useSize } from "../ui/useSize";
import { type At, Grip, Loupe, stepped, taken } from "./Grips";
import type { Tool } from "./tools";
import type { Photo } from "./usePhoto";

/** The photograph with its marks: points with a magnifier, brush strokes, a box, and the masked-out area. */
export function PhotoPane(props: { photo: Photo; tool: Tool; reach: number; shown: "marks" | "design"; art: number }) {
  const { photo, tool, reach } = props;
  const { scene, marks } = photo;
  const [frame, size] = useSize<HTMLDivElement>();
  const surface = useRef<SVGSVGElement>(null);
  const [pointer, setPointer] = useState<At | null>(null);
  const [grip, setGrip] = useState<number | null>(null);
  const [stroke, setStroke] = useState<Dab[] | null>(null);
  const [corner, setCorner] = useState<At | null>(null);
  const scale = Math.min(size.width / scene.px[0], size.height / scene.px[1]) || 0.001;
  const [w, h] = [scene.px[0] * scale, scene.px[1] * scale];
  const picture = `/api/artworks/${scene.photo_id}/preview?px=2048`;
  const place = ([x, y]: At): At => {
    const box = surface.current?.getBoundingClientRect();
    return [(x - (box?.left ?? 0)) / w, (y - (box?.top ?? 0)) / h];
  };
  const dabbing = tool === "keep" || tool === "leave" || tool === "front" || tool === "behind";
  const list = tool === "keep" || tool === "leave" ? "product" : "front";
  const dab = (at: At): Dab => ({ at, reach, keep: tool === "keep" || tool === "front" });
  const boxed = (from: At, to: At): [number, number, number, number] => [
    Math.max(0, Math.min(from[0], to[0])),
    Math.max(0, Math.min(from[1], to[1])),
    Math.min(1, Math.max(from[0], to[0])),
    Math.min(1, Math.max(from[1], to[1])),
  ];
  const moved = (index: number, at: At) => marks.points.map((p, i) => (i === index ? at : p));

  const begin = (at: At) => {
    if (tool === "points") setGrip(taken(marks.points as At[], at, [w, h]));
    else if (dabbing) setStroke([dab(at)]);
    else if (tool === "box") setCorner(at);
    else if (tool === "spot") photo.mark({ plain: at });
  };
  const go = (at: At) => {
    if (grip !== null) photo.hold({ points: moved(grip, at) });
    if (!stroke) return;
    const before = stroke[stroke.length - 1]?.at ?? at;
    if (Math.hypot((before[0] - at[0]) * w, (before[1] - at[1]) * h) > 0.6 * reach * w) setStroke([...stroke, dab(at)]);
  };
  const finish = (at: At) => {
    if (grip !== null) photo.mark({ points: moved(grip, at) });
    if (stroke) photo.mark({ [list]: [...marks[list], ...stroke].slice(-400) });
    if (corner) photo.mark({ box: boxed(corner, at) });
    setGrip(null);
    setStroke(null);
    setCorner(null);
  };
  const gestures = useGesture(
    {
      onDrag: ({ xy, first, last }) => (first ? begin : last ? finish : go)(place(xy)),
      onMove: ({ xy }) => setPointer(place(xy)),
      onHover: ({ hovering }) => hovering || setPointer(null),
    },
    { drag: { pointer: { keys: false } } },
  );
  const nudge = (index: number) => (event: KeyboardEvent) => {
    const from = marks.points[index] as At | undefined;
    const to = from && stepped(event, from, scene.px as At);
    if (!to) return;
    event.preventDefault();
    photo.mark({ points: moved(index, to) });
  };
  const [focused, setFocused] = useState<number | null>(null);
  const close = grip ?? (tool === "points" ? focused : null);
  const closeAt = close === null ? null : (marks.points[close] as At);
  const design = props.shown === "design" && !scene.problem;
  const line = (points: At[]) => points.map(([x, y]) => `${x * w},${y * h}`).join(" ");
  const box = corner && pointer ? boxed(corner, pointer) : tool === "box" ? marks.box : null;
  return (
    <section aria-label="Photograph" className="relative flex min-w-0 flex-col bg-table p-3">
      <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
        {/* biome-ignore lint/a11y/noSvgWithoutTitle: the section names it, and its points are buttons of their own */}
        <svg
          ref={surface}
          width={w}
          height={h}
          className={`touch-none ${tool === "points" ? "" : "cursor-crosshair"}`}
          data-photo={scene.key}
          {...gestures()}
        >
          <image href={design ? api.scenePreview(scene, props.art) : picture} width={w} height={h} />
          {!design && !scene.problem && tool !== "points" && tool !== "spot" && (
            <image href={api.sceneMask(scene)} width={w} height={h} preserveAspectRatio="none" data-mask={scene.key} />
          )}
          {!design && (
            <polygon
              points={line(scene.outline as At[])}
              fill="none"
              stroke="#fff"
              strokeWidth="1.6"
              style={{ filter: "drop-shadow(0 0 1px #000)" }}
            />
          )}
          {box && (
            <rect
              x={box[0] * w}
              y={box[1] * h}
              width={(box[2] - box[0]) * w}
              height={(box[3] - box[1]) * h}
              fill="none"
              stroke="#fff"
              strokeDasharray="6 4"
              strokeWidth="1.6"
            />
          )}
          {!design &&
            [...(dabbing ? marks[list] : []), ...(stroke ?? [])].map((d, i) => (
              <circle
                // biome-ignore lint/suspicious/noArrayIndexKey: touches have no names and keep their order
                key={i}
                cx={d.at[0] * w}
                cy={d.at[1] * h}
                r={d.reach * w}
                fill={d.keep ? "#ffffff40" : "#00000055"}
                stroke={d.keep ? "#fff" : "#111"}
                strokeWidth="0.8"
              />
            ))}
          {dabbing && pointer && (
            <circle cx={pointer[0] * w} cy={pointer[1] * h} r={reach * w} fill="none" stroke="#fff" strokeWidth="1.2" />
          )}
          {marks.plain && tool === "spot" && (
            <path
              d={`M${marks.plain[0] * w - 9} ${marks.plain[1] * h}h18m-9-9v18`}
              stroke="#fff"
              strokeWidth="2"
              style={{ filter: "drop-shadow(0 0 1px #000)" }}
            />
          )}
          {tool === "points" &&
            !design &&
            marks.points.map(([x, y], i) => (
              <Grip
                key={scene.names[i]}
                name={scene.names[i] ?? ""}
                x={x * w}
                y={y * h}
                onFocus={() => setFocused(i)}
                onBlur={() => setFocused(null)}
                onKeyDown={nudge(i)}
              />
            ))}
        </svg>
      </div>
      {closeAt && !design && (
        <Loupe
          picture={picture}
          at={closeAt}
          size={[w, h]}
          name={scene.names[close ?? 0] ?? ""}
          right={closeAt[0] < 0.5}
        />
      )}
    </section>
  );
}
