import type { PairEditor } from "../bench/usePair";
import { Calibration } from "../sewn/Calibration";
import type { Sewn } from "../sewn/useSewing";
import { Choice } from "../ui/Choice";
import { Heading } from "../ui/parts";

const WAYS = {
  alone: { label: "Own placement", hint: "Does not follow another side" },
  flow: { label: "Runs on", hint: "Shows what would lie here if the cloth were not cut" },
  mirror: { label: "Mirrors", hint: "Shows the other side turned over at the seam" },
} as const;

/** The seams across which this side can continue another side's design; it follows at most one. */
export function Joins({ editor, sewn }: { editor: PairEditor; sewn: Sewn }) {
  const { joins } = editor.pair;
  const lying = joins.find((join) => join.lies_on && join.way !== "alone");
  if (joins.length === 0) return null;
  return (
    <div className="grid gap-3">
      {joins.map((join) => (
        <div key={join.seam}>
          <Heading aside={`from the ${join.leader.toLowerCase()}`}>{join.title}</Heading>
          <Choice
            label={join.title}
            value={join.way}
            options={join.ways
              .map((way) => ({ value: way, ...WAYS[way] }))
              .sort((a, b) => order(a.value) - order(b.value))}
            onChange={(way) => editor.follow({ seam: join.seam, way })}
          />
          {join.way !== "alone" && <p className="mt-1 text-xs text-soft">{WAYS[join.way].hint}.</p>}
        </div>
      ))}
      {lying && <Calibration place={editor.place} panel={editor.panel} sewn={sewn} seam={lying.seam} />}
    </div>
  );
}

const order = (way: keyof typeof WAYS) => Object.keys(WAYS).indexOf(way);
