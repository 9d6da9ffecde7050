import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./parts";

/** A large dialog: title, content beside the title, and body. */
export function LargeDialog(props: {
  trigger: ReactNode;
  title: string;
  aside?: ReactNode;
  /** Class names for position and size. */
  place: string;
  onOpen?: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root onOpenChange={(open) => open && props.onOpen?.()}>
      <Dialog.Trigger asChild>{props.trigger}</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content
          className={`fixed flex flex-col border border-ink bg-paper ${props.place}`}
          aria-describedby={undefined}
        >
          <div className="flex items-center gap-3 border-b border-rule px-4 py-2">
            <Dialog.Title className="text-lg font-bold">{props.title}</Dialog.Title>
            <span className="grow text-sm text-soft">{props.aside}</span>
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
          </div>
          {props.children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
