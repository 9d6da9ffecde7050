import { Trash2 } from "lucide-react";
import { useState } from "react";
import { Button, Heading, IconButton } from "../ui/parts";
import type { Mockups } from "./useMockups";

/** Named settings that can be used for every design. */
export function PresetsPart({ shows }: { shows: Mockups }) {
  const [name, setName] = useState("");
  const wanted = name.trim();
  const known = shows.presets.some((preset) => preset.name === wanted);
  return (
    <div className="grid gap-2">
      <Heading>Presets</Heading>
      <p className="text-sm text-soft">
        A preset saves the scenes, colours, backgrounds, light and sizes chosen here. On another blank it uses that
        blank's own scenes of the same kind.
      </p>
      {shows.presets.map((preset) => (
        <div key={preset.name} className="flex items-center gap-1 text-sm">
          <Button className="grow" onClick={() => shows.applyPreset(preset.name)}>
            {preset.name}
          </Button>
          <span className="w-20 text-right text-xs text-soft">
            {preset.mockup_settings.shots?.length ?? 0} view{preset.mockup_settings.shots?.length === 1 ? "" : "s"}
          </span>
          <IconButton label={`Remove the preset ${preset.name}`} onClick={() => shows.removePreset(preset.name)}>
            <Trash2 size={15} aria-hidden="true" />
          </IconButton>
        </div>
      ))}
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (wanted) shows.savePreset(wanted);
          setName("");
        }}
      >
        <input
          aria-label="Name of the preset"
          placeholder="Name of the preset"
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
