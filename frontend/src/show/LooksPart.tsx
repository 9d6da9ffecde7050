import { Trash2 } from "lucide-react";
import { useState } from "react";
import { Button, Heading, IconButton } from "../ui/parts";
import type { Shows } from "./useShowing";

/** Choices kept under a name, to be used on every design. */
export function LooksPart({ shows }: { shows: Shows }) {
  const [name, setName] = useState("");
  const wanted = name.trim();
  const known = shows.looks.some((look) => look.name === wanted);
  return (
    <div className="grid gap-2">
      <Heading>Looks</Heading>
      <p className="text-sm text-soft">
        A look keeps the scenes, colours, grounds, light and sizes chosen here. Used on another blank, it takes that
        blank's own scenes of the same kind.
      </p>
      {shows.looks.map((look) => (
        <div key={look.name} className="flex items-center gap-1 text-sm">
          <Button className="grow" onClick={() => shows.takeLook(look.name)}>
            {look.name}
          </Button>
          <span className="w-20 text-right text-xs text-soft">
            {look.showing.shots?.length ?? 0} view{look.showing.shots?.length === 1 ? "" : "s"}
          </span>
          <IconButton label={`Forget the look ${look.name}`} onClick={() => shows.forgetLook(look.name)}>
            <Trash2 size={15} aria-hidden="true" />
          </IconButton>
        </div>
      ))}
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (wanted) shows.keepLook(wanted);
          setName("");
        }}
      >
        <input
          aria-label="Name of the look"
          placeholder="Name of the look"
          maxLength={60}
          className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" disabled={!wanted}>
          {known ? "Replace" : "Keep"}
        </Button>
      </form>
    </div>
  );
}
