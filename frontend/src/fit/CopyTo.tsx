import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, type Pair, type Place } from "../api/client";
import { Alert, Button } from "../ui/parts";

/** Copy this placement to other blanks on the board; those of the same kind are preselected. */
export function CopyTo({ place, pair, empty, busy }: { place: Place; pair: Pair; empty: boolean; busy: boolean }) {
  const queries = useQueryClient();
  const board = useQuery({ queryKey: ["board"], queryFn: api.board });
  const [chosen, setChosen] = useState<string[]>([]);
  const [open, setOpen] = useState(false);
  const others = board.data?.templates.filter((t) => t.id !== pair.template.id) ?? [];
  const copy = useMutation({
    mutationFn: () => api.copy(place, chosen),
    onSuccess: () => {
      setOpen(false);
      queries.invalidateQueries({ queryKey: ["board"] });
      queries.invalidateQueries({ queryKey: ["pair", place.art] });
    },
  });
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(now) => {
        setOpen(now);
        if (now) setChosen(pair.other_blanks);
      }}
    >
      <Dialog.Trigger asChild>
        <Button disabled={empty || busy}>Copy placement to other blanks</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content className="fixed top-24 left-1/2 w-[26rem] -translate-x-1/2 border border-ink bg-paper p-5">
          <Dialog.Title className="text-lg font-bold">Copy this placement to</Dialog.Title>
          <Dialog.Description className="mb-3 text-sm text-soft">
            Fit, turn, scale, repeat and background are kept; shifts keep their share of each print. It can be undone on
            each blank.
          </Dialog.Description>
          <ul className="mb-4 grid gap-1">
            {others.map((t) => (
              <li key={t.id}>
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    checked={chosen.includes(t.id)}
                    onChange={() =>
                      setChosen(chosen.includes(t.id) ? chosen.filter((id) => id !== t.id) : [...chosen, t.id])
                    }
                  />
                  {t.title}
                </label>
              </li>
            ))}
          </ul>
          {copy.error && <Alert>{copy.error.message}</Alert>}
          <div className="mt-2 flex gap-2">
            <Button tone="main" disabled={!chosen.length || copy.isPending} onClick={() => copy.mutate()}>
              Copy to {chosen.length}
            </Button>
            <Dialog.Close asChild>
              <Button>Cancel</Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
