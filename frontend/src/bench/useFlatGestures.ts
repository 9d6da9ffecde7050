import { useGesture } from "@use-gesture/react";
import { type KeyboardEvent, type RefObject, useState } from "react";
import { canRoll, clampScale, type Lie, shiftAbout, shorterRoll, tidy } from "./geometry";
import type { PairEditor } from "./usePair";

const SNAP_PX = 7;
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
type Grip = "move" | "scale" | "turn";
type Start = {
  grip: Grip;
  lie: Lie;
  shift: [number, number];
  scale: number;
  rotate: number;
  roll: number;
  at: [number, number];
};
export type Snap = { axis: "x" | "y"; mm: number; name: string };

type Line = [from: number, to: number, name: string];

/** The nearest snap on an axis within range. */
function snapped(lines: Line[], reach: number): { by: number; mm: number; name: string } | null {
  let best: { by: number; mm: number; name: string } | null = null;
  for (const [from, to, name] of lines)
    if (Math.abs(to - from) < Math.min(reach, best ? Math.abs(best.by) : reach)) best = { by: to - from, mm: to, name };
  return best;
}

/** Snap lines of a picture: centre to centre, edges to trim and safe line, middle to the seam, tiles to tiles. */
function linesOf(editor: PairEditor, axis: 0 | 1, centre: number, size: number): Line[] {
  const { panel, placement } = editor;
  const trim = (placement.lay === "bent" ? panel.worn_mm : panel.trim_mm)[axis] ?? 0;
  const [low, high] = [centre - size / 2, centre + size / 2];
  const pitch = size + placement.spacing_mm;
  if (placement.fit === "repeat") {
    const near = Math.round(low / pitch) * pitch;
    return [
      [low, near, "whole tiles"],
      [low, near + pitch / 2, "half a tile"],
      [centre, trim / 2, "centre"],
    ];
  }
  const seam: Line[] =
    panel.closes && axis === 0
      ? [
          [centre, 0, "seam"],
          [centre, trim, "seam"],
        ]
      : [];
  return [
    [centre, trim / (axis === 0 ? 2 * placement.copies : 2), "centre"],
    [low, 0, "trim"],
    [high, trim, "trim"],
    [low, panel.safe_mm, "safe line"],
    [high, trim - panel.safe_mm, "safe line"],
    ...seam,
  ];
}

/** Pointer, wheel, pinch and keys on the flat. `toMm` turns a point of the window into mm from the trim's corner. */
export function useFlatGestures(
  editor: PairEditor,
  lie: Lie,
  toMm: (x: number, y: number) => [number, number],
  pxPerMm: number,
  surface: RefObject<SVGSVGElement | null>,
  enabled: boolean,
) {
  const [snaps, setSnaps] = useState<Snap[]>([]);

  /** Scale about a fixed point. */
  function scaleAbout(at: [number, number], factor: number) {
    const { placement } = editor;
    const scale = clampScale(placement.scale * factor);
    const shift_mm = shiftAbout(lie, placement, toMm(...at), scale / placement.scale);
    editor.hold(placement.fit === "repeat" ? { scale, repeats_around: null } : { scale, shift_mm });
  }

  function start(target: EventTarget | null, at: [number, number]): Start {
    const grip = ((target as Element | null)?.getAttribute("data-grip") ?? "move") as Grip;
    const { shift_mm, scale, rotate_deg, roll_mm } = editor.placement;
    return { grip, lie, shift: shift_mm, scale, rotate: rotate_deg, roll: roll_mm, at: toMm(...at) };
  }

  function drag(from: Start, to: [number, number], snapping: boolean, rolling: boolean) {
    const [x, y] = toMm(...to);
    if (rolling && from.grip === "move") {
      editor.hold({ roll_mm: shorterRoll(tidy(from.roll + x - from.at[0], 0.1), editor.panel) });
      return;
    }
    const { cx, cy } = from.lie;
    if (from.grip === "scale") {
      const factor = Math.hypot(x - cx, y - cy) / Math.max(1e-6, Math.hypot(from.at[0] - cx, from.at[1] - cy));
      editor.hold({ scale: clampScale(tidy(from.scale * factor, 0.001)), repeats_around: null });
    } else if (from.grip === "turn") {
      const turned = (Math.atan2(y - cy, x - cx) - Math.atan2(from.at[1] - cy, from.at[0] - cx)) * (180 / Math.PI);
      const free = tidy(from.rotate + turned, 0.1);
      const eighth = Math.round(free / 45) * 45;
      editor.hold({ rotate_deg: snapping && Math.abs(free - eighth) < 2 ? eighth : free });
    } else {
      let dx = x - from.at[0];
      let dy = y - from.at[1];
      const reached: Snap[] = [];
      if (snapping && from.rotate % 180 === 0) {
        const reach = SNAP_PX / pxPerMm;
        const sx = snapped(linesOf(editor, 0, cx + dx, from.lie.w), reach);
        const sy = snapped(linesOf(editor, 1, cy + dy, from.lie.h), reach);
        if (sx) {
          dx += sx.by;
          reached.push({ axis: "x", ...sx });
        }
        if (sy) {
          dy += sy.by;
          reached.push({ axis: "y", ...sy });
        }
      }
      setSnaps(reached);
      editor.hold({ shift_mm: [from.shift[0] + dx, from.shift[1] + dy] });
    }
  }

  useGesture(
    {
      onDrag: ({ target, xy, first, last, altKey, shiftKey, memo }) => {
        const from: Start = memo ?? start(target, xy);
        if (!first) drag(from, xy, !altKey, shiftKey && canRoll(editor.panel, editor.placement));
        if (last) {
          setSnaps([]);
          editor.decide();
        }
        return from;
      },
      onWheel: ({ event, last }) => {
        if (last) return editor.decide();
        event.preventDefault();
        if (event.ctrlKey) return; // a pinch on a trackpad
        const steps = Math.max(-3, Math.min(3, event.deltaY / 100));
        if (event.shiftKey) editor.hold({ rotate_deg: tidy(editor.placement.rotate_deg + steps, 0.1) });
        else scaleAbout([event.clientX, event.clientY], 1.03 ** -steps);
      },
      onPinch: ({ origin, movement: [factor], last, memo }) => {
        scaleAbout(origin, factor / (memo ?? 1));
        if (last) editor.decide();
        return factor;
      },
    },
    { target: surface, enabled, eventOptions: { passive: false }, drag: { pointer: { keys: false } } },
  );

  function keyDown(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey) return;
    const mm = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const { shift_mm, scale, rotate_deg } = editor.placement;
    const along = MOVES[event.key];
    const changes: Record<string, Partial<typeof editor.placement>> = {
      "+": { scale: clampScale(scale * 1.01) },
      "=": { scale: clampScale(scale * 1.01) },
      "-": { scale: clampScale(scale / 1.01) },
      ",": { rotate_deg: tidy(rotate_deg - 1, 0.1) },
      ".": { rotate_deg: tidy(rotate_deg + 1, 0.1) },
      "0": { shift_mm: [0, 0], scale: 1, rotate_deg: 0 },
    };
    const change = along
      ? { shift_mm: [shift_mm[0] + along[0] * mm, shift_mm[1] + along[1] * mm] as [number, number] }
      : changes[event.key];
    if (!change) return;
    event.preventDefault();
    editor.hold(change);
  }

  function keyUp(event: KeyboardEvent) {
    if (/^(Arrow|[-+=,.0]$)/.test(event.key)) editor.decide();
  }

  return { snaps, handlers: enabled ? { onKeyDown: keyDown, onKeyUp: keyUp } : {} };
}
