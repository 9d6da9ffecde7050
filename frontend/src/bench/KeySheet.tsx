import { Keyboard } from "lucide-react";
import { Dialog } from "radix-ui";
import { Button } from "../ui/parts";

const KEYS: [string, string][] = [
  ["Arrow keys", "Move 1 mm; with Shift 10 mm, with Alt 0.1 mm"],
  ["+ and −", "Larger and smaller by a hundredth"],
  [", and .", "Turn by a degree"],
  ["0", "Back to the fit's own size, position and rotation"],
  ["Wheel", "Size about the pointer; with Shift, turn"],
  ["Alt while dragging", "Without snapping"],
  ["Ctrl Z, Ctrl Shift Z", "Undo, redo: without limit, also after a restart"],
  ["← and → on the mock-up", "Turn it by five degrees"],
];

/** A list of all keyboard shortcuts. */
export function KeySheet() {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button tone="quiet" aria-label="Keys" title="Keys">
          <Keyboard size={17} aria-hidden="true" />
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content
          className="fixed top-24 left-1/2 w-[30rem] -translate-x-1/2 border border-ink bg-paper p-5"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-3 text-lg font-bold">Keys on the bench</Dialog.Title>
          <dl className="grid grid-cols-[11rem_1fr] gap-y-1.5 text-sm">
            {KEYS.map(([key, does]) => (
              <div key={key} className="contents">
                <dt className="font-bold">{key}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close asChild>
            <Button className="mt-4">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
