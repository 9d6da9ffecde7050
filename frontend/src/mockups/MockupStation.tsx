import { useState } from "react";
import type { Seen } from "../bench/PreviewPane";
import type { PairEditor } from "../bench/usePair";
import { JobList } from "../jobs/JobList";
import { PartTabs } from "../ui/PartTabs";
import { Alert, Button, Mark } from "../ui/parts";
import { CaptionsPart } from "./CaptionsPart";
import { FilesPart } from "./FilesPart";
import { LightPart } from "./LightPart";
import { PartChoice } from "./PartChoice";
import { PlacesPart } from "./PlacesPart";
import { PresetsPart } from "./PresetsPart";
import type { Mockups } from "./useMockups";

const SHOWN_FILES = 6;
const PARTS = [
  { value: "colours", label: "Colours" },
  { value: "light", label: "Light" },
  { value: "captions", label: "Captions" },
  { value: "files", label: "Files" },
  { value: "presets", label: "Presets" },
] as const;

/** Colours, light and files of the pictures, and the always visible button that makes them. */
export function MockupStation({ editor, shows, seen }: { editor: PairEditor; shows: Mockups; seen: Seen | null }) {
  const [part, setPart] = useState<(typeof PARTS)[number]["value"]>("colours");
  const { state, settings } = shows;
  if (editor.pair.scenes.length === 0) return <p className="text-soft">No scene shows this blank yet.</p>;
  const parts = new Map(
    editor.pair.scenes.flatMap((scene) => scene.regions.filter((r) => r.panel === null).map((r) => [r.id, r] as const)),
  );
  const scene = editor.pair.scenes.find((s) => s.id === seen?.scene) ?? editor.pair.scenes[0];
  const count = state?.pictures ?? 0;
  return (
    <>
      <PartTabs label="Part" value={part} parts={PARTS} onChange={setPart} partClassName="flex flex-col gap-4">
        {!settings && <p className="text-sm text-soft">Loading the scenes…</p>}
        {settings && part === "colours" && scene?.regions.some((region) => region.place) && (
          <PlacesPart scene={scene} place={editor.place} shows={shows} settings={settings} />
        )}
        {settings &&
          part === "colours" &&
          [...parts.values()].map((region) => (
            <PartChoice key={region.id} region={region} editor={editor} shows={shows} settings={settings} />
          ))}
        {settings && part === "light" && <LightPart settings={settings} onChange={shows.change} />}
        {settings && part === "captions" && (
          <CaptionsPart pair={editor.pair} settings={settings} onChange={shows.change} />
        )}
        {settings && part === "files" && (
          <FilesPart pair={editor.pair} busy={editor.busy} shows={shows} settings={settings} />
        )}
        {settings && part === "presets" && <PresetsPart shows={shows} />}
      </PartTabs>
      <div className="sticky -bottom-4 -mx-4 -mb-4 mt-auto grid gap-2 border-t border-rule bg-table p-4 pt-3">
        {state?.findings.map((finding) => (
          <p key={finding.message} className="flex items-start gap-2 text-sm">
            <span className="mt-0.5">
              <Mark status={finding.status} />
            </span>
            {finding.message}
          </p>
        ))}
        {shows.problem && <Alert>{shows.problem}</Alert>}
        <Button
          tone="main"
          waits={editor.busy || shows.settling}
          disabled={count === 0 || shows.work.busy}
          onClick={() => shows.make()}
        >
          {count === 0 ? "Select views to make mock-ups" : count === 1 ? "Make 1 picture" : `Make ${count} pictures`}
        </Button>
        <JobList work={shows.work} most={SHOWN_FILES} />
      </div>
    </>
  );
}
