import { Dialog } from "radix-ui";
import { LoginForm } from "./LoginForm";

/** The dialog over a page whose session has ended. It cannot be closed: the page has no data to show. */
export default function LoginAgain() {
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content
          className="fixed top-24 left-1/2 w-80 -translate-x-1/2 border border-ink bg-paper p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-4 text-lg font-bold">Log in again</Dialog.Title>
          <LoginForm />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
