import { AlertDialog } from "radix-ui";
import { differences, useOpenConflict } from "./conflict";
import { Button } from "./parts";

/** Both values of what two people, or two windows, have changed at once, for the user to choose. */
export default function ConflictDialog() {
  const conflict = useOpenConflict();
  if (!conflict) return null;
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-ink/40" />
        <AlertDialog.Content className="fixed top-24 left-1/2 flex max-h-[70vh] w-[34rem] -translate-x-1/2 flex-col gap-3 border border-ink bg-paper p-5">
          <AlertDialog.Title className="text-lg font-bold">Changed in the meantime</AlertDialog.Title>
          <AlertDialog.Description>
            Somebody else, or another window, has changed this while you edited it. Keep one of the two; the other can
            be reached by Undo where there is one.
          </AlertDialog.Description>
          <div className="overflow-y-auto">
            <table className="w-full text-left text-sm">
              <thead>
                <tr className="border-b border-rule">
                  <th className="py-1 pr-3 font-medium">What</th>
                  <th className="py-1 pr-3 font-medium">Stored now</th>
                  <th className="py-1 font-medium">Yours</th>
                </tr>
              </thead>
              <tbody>
                {differences(conflict.theirs, conflict.mine).map(({ name, theirs, mine }) => (
                  <tr key={name} className="border-b border-rule">
                    <td className="py-1 pr-3 text-soft">{name}</td>
                    <td className="py-1 pr-3">{theirs}</td>
                    <td className="py-1">{mine}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="flex justify-end gap-3">
            <AlertDialog.Cancel asChild>
              <Button onClick={() => conflict.choose(false)}>Take what is stored</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button tone="main" onClick={() => conflict.choose(true)}>
                Keep mine
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
