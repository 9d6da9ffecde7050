import { useDrag } from "@use-gesture/react";
import type { Piece } from "../api/client";
import { type Bend, boxPath } from "../bench/geometry";
import type { PairEditor } from "../bench/usePair";
import { moved, nameOf, sized } from "./kinds";

type Props = { editor: PairEditor; k: number; bend: Bend; toMm: (x: number, y: number) => [number, number] };
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Handles of the pieces on the template: press to select, drag or use arrow keys to move, use the wheel to resize. */
export function PieceGrips({ editor, k, bend, toMm }: Props) {
  const put = (index: number, piece: Piece) => editor.pieces.map((each, i) => (i === index ? piece : each));
  const boxes = editor.report.pieces;
  const drag = useDrag(
    ({ args: [i], xy, first, last, memo }) => {
      const from: { at: [number, number]; piece: Piece } = memo ?? { at: toMm(...xy), piece: editor.pieces[i] };
      const [x, y] = toMm(...xy);
      if (first) editor.takeUp(i);
      else if (last) editor.layPieces(editor.pieces);
      else editor.holdPieces(put(i, moved(from.piece, x - from.at[0], y - from.at[1])));
      return from;
    },
    { pointer: { keys: false } },
  );
  return (
    <g>
      {editor.pieces.map((piece, i) => {
        const box = boxes[i];
        const up = editor.piece === i;
        if (!box) return null;
        return (
          // biome-ignore lint/a11y/useSemanticElements: an outline in a drawing cannot be a button element
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: a piece is identified by its position
            key={i}
            role="button"
            tabIndex={0}
            aria-label={`${nameOf(piece)}: drag or use the arrow keys to move it`}
            aria-pressed={up}
            d={boxPath(box, bend, k)}
            fill="transparent"
            stroke="var(--color-ink)"
            strokeWidth={up ? 1.6 : 0.8}
            strokeOpacity={up ? 1 : 0.5}
            className="cursor-move outline-none focus-visible:stroke-accent"
            data-piece={i}
            onFocus={() => editor.takeUp(i)}
            {...drag(i)}
            onKeyDown={(event) => {
              const arrow = ARROWS[event.key];
              const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
              if (arrow) editor.layPieces(put(i, moved(piece, arrow[0] * step, arrow[1] * step)));
              else if (event.key === "+" || event.key === "=") editor.layPieces(put(i, sized(piece, 1.02)));
              else if (event.key === "-") editor.layPieces(put(i, sized(piece, 1 / 1.02)));
              else if (event.key === "Delete") editor.layPieces(editor.pieces.filter((_, j) => j !== i));
              else return;
              event.preventDefault();
            }}
            onWheel={(event) => editor.layPieces(put(i, sized(piece, Math.exp(-event.deltaY / 1200))))}
          />
        );
      })}
    </g>
  );
}
