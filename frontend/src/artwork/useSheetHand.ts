import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { Box, Click, Point } from "./click";

const CLOSEST = 40;
const NEAR_PX = 9;
const DRAG_PX = 4;

type Frame = { size: { width: number; height: number }; fit: number; ratio: number };
type Lie = { left: number; top: number; height: number };

const clamp = (v: number) => Math.min(1, Math.max(0, v));

/** Looking closer, moving about, clicking places and drawing boxes on the sheet. */
export function useSheetHand(surface: RefObject<SVGSVGElement | null>, frame: Frame, click: Click | null) {
  const [zoom, setZoom] = useState(1);
  const [shift, setShift] = useState<Point>([0, 0]);
  const [drawn, setDrawn] = useState<Box | null>(null);
  const start = useRef<{ at: Point; shift: Point; moved: boolean } | null>(null);
  const height = Math.max(1, frame.fit * zoom);
  const lie: Lie = {
    height,
    left: (frame.size.width - height * frame.ratio) / 2 + shift[0],
    top: (frame.size.height - height) / 2 + shift[1],
  };
  const at = (event: { clientX: number; clientY: number }): Point => {
    const box = surface.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  };
  const place = ([x, y]: Point): Point => [(x - lie.left) / (height * frame.ratio), (y - lie.top) / height];

  /** Look closer about a point of the pane, which stays where it is. */
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

  const latest = useRef(closer);
  latest.current = closer;
  useEffect(() => {
    const pane = surface.current;
    if (!pane) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault(); // which React's own wheel events cannot do
      const box = pane.getBoundingClientRect();
      latest.current(Math.exp(-event.deltaY / 400), [event.clientX - box.left, event.clientY - box.top]);
    };
    pane.addEventListener("wheel", wheel, { passive: false });
    return () => pane.removeEventListener("wheel", wheel);
  }, [surface]);

  const boxOf = (from: Point, to: Point): Box => {
    const [a, b] = [place(from).map(clamp) as Point, place(to).map(clamp) as Point];
    return [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])];
  };

  const handlers = {
    onPointerDown: (event: PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      start.current = { at: at(event), shift, moved: false };
    },
    onPointerMove: (event: PointerEvent) => {
      const from = start.current;
      if (!from) return;
      const now = at(event);
      if (Math.hypot(now[0] - from.at[0], now[1] - from.at[1]) > DRAG_PX) from.moved = true;
      if (!from.moved) return;
      if (click?.kind === "box") setDrawn(boxOf(from.at, now));
      else setShift([from.shift[0] + now[0] - from.at[0], from.shift[1] + now[1] - from.at[1]]);
    },
    onPointerUp: (event: PointerEvent) => {
      const from = start.current;
      start.current = null;
      if (!from || !click) return;
      const now = at(event);
      if (click.kind === "box") {
        const box = boxOf(from.at, now);
        setDrawn(null);
        if (from.moved && box[2] > 0 && box[3] > 0) click.give(box);
        return;
      }
      if (from.moved) return;
      const near = click.points.findIndex(
        ([x, y]) => Math.hypot(lie.left + x * height * frame.ratio - now[0], lie.top + y * height - now[1]) < NEAR_PX,
      );
      const [x, y] = place(now);
      if (near >= 0) click.takeBack?.(near);
      else if (x >= 0 && x <= 1 && y >= 0 && y <= 1) click.give([x, y]);
    },
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
