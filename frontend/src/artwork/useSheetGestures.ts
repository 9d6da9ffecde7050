import { useGesture } from "@use-gesture/react";
import { type KeyboardEvent, type RefObject, useState } from "react";
import type { Box, Click, Point } from "./click";

const CLOSEST = 40;
const NEAR_PX = 9;

type Frame = { size: { width: number; height: number }; fit: number; ratio: number };
type Lie = { left: number; top: number; height: number };

const clamp = (v: number) => Math.min(1, Math.max(0, v));

/** Zooming, panning, clicking points and drawing boxes on the view of the artwork. */
export function useSheetGestures(surface: RefObject<SVGSVGElement | null>, frame: Frame, click: Click | null) {
  const [zoom, setZoom] = useState(1);
  const [shift, setShift] = useState<Point>([0, 0]);
  const [drawn, setDrawn] = useState<Box | null>(null);
  const height = Math.max(1, frame.fit * zoom);
  const lie: Lie = {
    height,
    left: (frame.size.width - height * frame.ratio) / 2 + shift[0],
    top: (frame.size.height - height) / 2 + shift[1],
  };
  const at = ([x, y]: Point): Point => {
    const box = surface.current?.getBoundingClientRect();
    return [x - (box?.left ?? 0), y - (box?.top ?? 0)];
  };
  const place = ([x, y]: Point): Point => [(x - lie.left) / (height * frame.ratio), (y - lie.top) / height];

  /** Zoom about a point of the pane, which stays in place. */
  const closer = (factor: number, about: Point = [frame.size.width / 2, frame.size.height / 2]) => {
    const next = Math.min(CLOSEST, Math.max(1, zoom * factor));
    const grown = next / zoom;
    const keep = (middle: number, v: number, s: number) => (v - middle - s) * (1 - grown) + s;
    setShift(
      next === 1
        ? [0, 0]
        : [keep(frame.size.width / 2, about[0], shift[0]), keep(frame.size.height / 2, about[1], shift[1])],
    );
    setZoom(next);
  };

  const boxOf = (from: Point, to: Point): Box => {
    const [a, b] = [place(from).map(clamp) as Point, place(to).map(clamp) as Point];
    return [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])];
  };

  const press = (now: Point) => {
    if (click?.kind !== "point") return;
    const near = click.points.findIndex(
      ([x, y]) => Math.hypot(lie.left + x * height * frame.ratio - now[0], lie.top + y * height - now[1]) < NEAR_PX,
    );
    const [x, y] = place(now);
    if (near >= 0) click.takeBack?.(near);
    else if (x >= 0 && x <= 1 && y >= 0 && y <= 1) click.give([x, y]);
  };

  useGesture(
    {
      onDrag: ({ initial, xy, last, tap, memo }) => {
        if (tap) return press(at(xy));
        if (click?.kind === "box") {
          const box = boxOf(at(initial), at(xy));
          setDrawn(last ? null : box);
          if (last && box[2] > 0 && box[3] > 0) click.give(box);
          return;
        }
        const from: Point = memo ?? shift;
        setShift([from[0] + xy[0] - initial[0], from[1] + xy[1] - initial[1]]);
        return from;
      },
      onWheel: ({ event, last }) => {
        if (last) return;
        event.preventDefault();
        if (!event.ctrlKey) closer(Math.exp(-event.deltaY / 400), at([event.clientX, event.clientY]));
      },
      onPinch: ({ origin, movement: [factor], memo }) => {
        closer(factor / (memo ?? 1), at(origin));
        return factor;
      },
    },
    {
      target: surface,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { keys: false } },
    },
  );

  const handlers = {
    onKeyDown: (event: KeyboardEvent) => {
      const moves: Record<string, Point> = {
        ArrowLeft: [40, 0],
        ArrowRight: [-40, 0],
        ArrowUp: [0, 40],
        ArrowDown: [0, -40],
      };
      const move = moves[event.key];
      if (move) setShift([shift[0] + move[0], shift[1] + move[1]]);
      else if (event.key === "+" || event.key === "=") closer(1.25);
      else if (event.key === "-") closer(0.8);
      else if (event.key === "0") closer(0);
      else if (event.key === "Enter" && click?.kind === "point")
        click.give(place([frame.size.width / 2, frame.size.height / 2]));
      else return;
      event.preventDefault();
    },
  };
  return { lie, drawn, handlers, whole: () => closer(0), zoomTo: (next: number) => closer(next / zoom) };
}
