import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Art, api } from "../api/client";
import { Button } from "../ui/parts";
import { RenameArts } from "./RenameArts";
import type { Batches } from "./useBatches";
import type { Picks } from "./usePicks";

/** Actions for all selected pairs. */
export function PickBar({ picks, batches, arts }: { picks: Picks; batches: Batches; arts: Art[] }) {
  const [renaming, setRenaming] = useState(false);
  const [preset, setPreset] = useState("");
  const presets = useQuery({ queryKey: ["presets"], queryFn: api.presets, enabled: picks.count > 0 });
  if (picks.count === 0) return null;
  const known = presets.data?.some(({ name }) => name === preset) ? preset : null;
  const ids = new Set(picks.pairs.map(({ artwork_id }) => artwork_id));
  const chosen = arts.filter(({ id }) => ids.has(id));
  const begin = (kind: "pictures" | "print" | "listing") =>
    batches.begin({ kind, pairs: picks.pairs, preset: kind === "pictures" ? known : null }, picks.clear);
  return (
    <section
      aria-label="Selection"
      className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-2 border-t border-ink bg-table px-4 py-2"
    >
      <p className="font-bold" role="status">
        {picks.count === 1 ? "1 pair selected" : `${picks.count} pairs selected`}
      </p>
      <label className="flex items-center gap-2 text-sm">
        Preset
        <select
          value={known ?? ""}
          onChange={(event) => setPreset(event.target.value)}
          className="min-h-8 max-w-72 rounded-[3px] border border-rule bg-paper px-2"
        >
          <option value="">each pair’s own, or every scene</option>
          {presets.data?.map(({ name }) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <Button tone="main" waits={batches.beginning} onClick={() => begin("pictures")}>
        Make all mock-ups
      </Button>
      <Button waits={batches.beginning} onClick={() => begin("print")}>
        Make all print files
      </Button>
      <Button waits={batches.beginning} onClick={() => begin("listing")}>
        Make listing packs
      </Button>
      <Button aria-expanded={renaming} onClick={() => setRenaming(!renaming)}>
        Rename artworks…
      </Button>
      <Button tone="quiet" className="ml-auto" onClick={picks.clear}>
        Clear selection
      </Button>
      {renaming && <RenameArts arts={chosen} onDone={() => setRenaming(false)} />}
    </section>
  );
}
