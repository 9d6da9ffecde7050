import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, type Printing } from "../api/client";
import type { Hand } from "../bench/usePair";
import { Button } from "../ui/parts";

/** The print on the screen and out of the printer, side by side. */
export function ProofBeside({ hand, intent }: { hand: Hand; intent: Printing["intent"] }) {
  const [paper, setPaper] = useState(false);
  const pictures = [
    ["As on this screen", api.flatPicture(hand.place, hand.now, 1000)],
    ["As the printer's profile says it comes out", api.softProof(hand.place, intent, paper)],
  ] as const;
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button disabled={hand.empty || hand.busy}>Look at it beside the screen's</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content
          className="fixed inset-x-8 inset-y-8 flex flex-col border border-ink bg-paper"
          aria-describedby={undefined}
        >
          <div className="flex items-center gap-4 border-b border-rule px-4 py-2">
            <Dialog.Title className="grow text-lg font-bold">Colours before printing</Dialog.Title>
            <label className="flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="accent-accent"
                checked={paper}
                onChange={(event) => setPaper(event.target.checked)}
              />
              White as the paper's own
            </label>
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
          </div>
          <div className="grid min-h-0 grow grid-cols-2 gap-4 p-4">
            {pictures.map(([title, url]) => (
              <figure key={title} className="flex min-h-0 flex-col">
                <figcaption className="pb-1 text-sm">{title}</figcaption>
                <img src={url} alt={title} className="min-h-0 grow object-contain object-top" />
              </figure>
            ))}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
