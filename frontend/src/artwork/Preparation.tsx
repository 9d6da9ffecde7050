import { useState } from "react";
import { FlatPane } from "../bench/FlatPane";
import { PreviewPane, type Seen } from "../bench/PreviewPane";
import { Sides } from "../bench/Sides";
import { COLUMN, COLUMNS } from "../bench/stations";
import type { PairEditor } from "../bench/usePair";
import { PiecesPanel } from "../pieces/PiecesPanel";
import { PartTabs } from "../ui/PartTabs";
import { usePart } from "../ui/usePart";
import { ArtworkStation } from "./ArtworkStation";
import { clicksOf } from "./click";
import { SheetPane } from "./SheetPane";
import type { Preparing } from "./usePreparation";

const PARTS = [
  { value: "picture", label: "Steps", hint: "Steps that hold on every blank" },
  { value: "with-it", label: "Text and extras", hint: "Words, borders, frames and a second artwork on this blank" },
] as const;

/** The artwork's steps with its view, or the pieces on the template, and the preview of the result. */
export function Preparation({
  preparing,
  editor,
  onSide,
}: {
  preparing: Preparing;
  editor: PairEditor;
  onSide: (side: string) => void;
}) {
  const [part, turn] = usePart(["picture", "with-it"]);
  const [tool, setTool] = useState<string | null>(null);
  const [seen, setSeen] = useState<Seen | null>(null);
  const click = clicksOf(preparing).find((way) => way.name === tool) ?? null;
  return (
    <main aria-busy={preparing.busy || editor.busy} className={COLUMNS}>
      <section aria-label="artwork" className={COLUMN}>
        <PartTabs label="Part" value={part} parts={PARTS} onChange={turn} partClassName="flex grow flex-col gap-4">
          {part === "picture" ? (
            <ArtworkStation preparing={preparing} editor={editor} click={click} onClick={setTool} />
          ) : (
            <>
              {editor.pair.panels.length > 1 && <Sides pair={editor.pair} panel={editor.panel} onSide={onSide} />}
              <PiecesPanel editor={editor} offered={editor.pair.palette} />
            </>
          )}
        </PartTabs>
      </section>
      {part === "picture" ? (
        <SheetPane preparing={preparing} pair={editor.pair} panel={editor.panel} click={click} />
      ) : (
        <FlatPane editor={editor} mirrored={false} findings={false} laying />
      )}
      <PreviewPane editor={editor} seen={seen} onSee={setSeen} />
    </main>
  );
}
