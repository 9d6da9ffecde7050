import { ArrowDown, ArrowUp, ChevronRight, X } from "lucide-react";
import type { Piece } from "../api/client";
import type { PairEditor } from "../bench/usePair";
import { Alert, Button, Heading, IconButton } from "../ui/parts";
import { useArts } from "./ArtPick";
import { BandFields } from "./BandFields";
import { FramesFields } from "./FramesFields";
import { firstBand, firstFrames, firstOverlay, firstWords, nameOf } from "./kinds";
import { MirrorFields, MixingFields } from "./MixingFields";
import { OverlayFields } from "./OverlayFields";
import { WordsFields } from "./WordsFields";

/** The pieces on this side of this blank, from back to front. */
export function PiecesPanel({ editor, offered }: { editor: PairEditor; offered: string[] }) {
  const { pieces, panel } = editor;
  const ink = offered[0] ?? "#23211e";
  const add = (piece: Piece) => {
    editor.layPieces([...pieces, piece]);
    editor.takeUp(pieces.length);
  };
  const swapped = (index: number, by: number) => {
    const next = [...pieces];
    const [piece] = next.splice(index, 1);
    next.splice(index + by, 0, piece as Piece);
    editor.layPieces(next);
    editor.takeUp(index + by);
  };
  if (editor.follows)
    return (
      <p className="text-sm text-soft">This side shows a part of another side's design: add text and extras there.</p>
    );
  if (editor.empty)
    return <p className="text-sm text-soft">This side is empty: place the artwork on it first, at Fit.</p>;
  return (
    <div>
      <Heading aside="on this blank">Text and extras</Heading>
      {editor.problem && <Alert>{editor.problem}</Alert>}
      <WordsSwatches editor={editor} offered={offered} />
      <ol className="border-t border-rule">
        {pieces.map((piece, i) => {
          const up = editor.piece === i;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a piece is identified by its position
            <li key={i} className={`border-b border-rule ${up ? "bg-paper px-2" : ""}`}>
              <div className="flex min-h-8 items-center gap-1">
                <button
                  type="button"
                  aria-expanded={up}
                  onClick={() => editor.takeUp(up ? null : i)}
                  className={`flex min-w-0 grow items-center gap-1 py-1 text-left ${up ? "font-bold" : ""}`}
                >
                  <ChevronRight size={13} aria-hidden="true" className={`shrink-0 ${up ? "rotate-90" : ""}`} />
                  <span className="truncate">{nameOf(piece)}</span>
                  {piece.behind && <span className="text-xs font-normal text-soft">behind</span>}
                </button>
                {up && (
                  <>
                    <IconButton label="Move back" off={i === 0} onClick={() => swapped(i, -1)}>
                      <ArrowUp size={14} aria-hidden="true" />
                    </IconButton>
                    <IconButton label="Move forward" off={i === pieces.length - 1} onClick={() => swapped(i, 1)}>
                      <ArrowDown size={14} aria-hidden="true" />
                    </IconButton>
                    <IconButton
                      label={`Remove ${nameOf(piece)}`}
                      onClick={() => {
                        editor.takeUp(null);
                        editor.layPieces(pieces.filter((_, j) => j !== i));
                      }}
                    >
                      <X size={14} aria-hidden="true" />
                    </IconButton>
                  </>
                )}
              </div>
              {up && <Fields editor={editor} piece={piece} index={i} offered={offered} />}
            </li>
          );
        })}
      </ol>
      {pieces.length === 0 && <p className="py-2 text-sm text-soft">No text or extras yet.</p>}
      <div className="mt-2 grid grid-cols-2 gap-1">
        <Button onClick={() => add(firstWords(panel, ink))}>Words</Button>
        <Button onClick={() => add(firstBand(panel, ink))}>Border</Button>
        <Button onClick={() => add(firstFrames(panel))}>Frames</Button>
        <Button onClick={() => add(firstOverlay(editor.pair.artwork))}>Second artwork</Button>
      </div>
    </div>
  );
}

/** Colours of the artwork: one press colours the selected words, or all words while no piece is selected. */
function WordsSwatches({ editor, offered }: { editor: PairEditor; offered: string[] }) {
  const { pieces, piece: selected } = editor;
  const chosen = (i: number) => pieces[i]?.kind === "words" && (selected === null || selected === i);
  if (!offered.length || !pieces.some((_, i) => chosen(i))) return null;
  const one = selected !== null || pieces.filter((piece) => piece.kind === "words").length === 1;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-1 text-sm text-soft">
      <span className="mr-1">{one ? "Words in" : "All words in"}</span>
      {offered.slice(0, 8).map((colour) => (
        <button
          key={colour}
          type="button"
          aria-label={`Words in ${colour}`}
          title={colour}
          style={{ background: colour }}
          className="size-6 rounded-[3px] border border-rule"
          onClick={() =>
            editor.layPieces(pieces.map((piece, i) => (chosen(i) ? ({ ...piece, fill: colour } as Piece) : piece)))
          }
        />
      ))}
    </div>
  );
}

function Fields(props: { editor: PairEditor; piece: Piece; index: number; offered: string[] }) {
  const { editor, piece, index, offered } = props;
  const changed = (change: Partial<Piece>) =>
    editor.pieces.map((each, i) => (i === index ? ({ ...each, ...change } as Piece) : each));
  const hold = (change: Partial<Piece>) => editor.holdPieces(changed(change));
  const lay = (change: Partial<Piece>) => editor.layPieces(changed(change));
  const arts = useArts(editor.pair.other_artworks);
  const shared = { panel: editor.panel, arts, offered, hold, lay };
  return (
    <div className="grid gap-1.5 py-1.5">
      {piece.kind === "words" && <WordsFields piece={piece} {...shared} />}
      {piece.kind === "band" && <BandFields piece={piece} {...shared} />}
      {piece.kind === "frames" && <FramesFields piece={piece} {...shared} />}
      {piece.kind === "overlay" && <OverlayFields piece={piece} {...shared} />}
      <MirrorFields piece={piece} lay={lay} />
      <details className="border-t border-rule pt-1">
        <summary className="cursor-pointer text-sm text-soft">Blending</summary>
        <div className="mt-1.5 grid gap-1.5">
          <MixingFields piece={piece} before={editor.pieces[index - 1]} lay={lay} />
        </div>
      </details>
    </div>
  );
}
