import { useState } from "react";
import { api, type Pair, type Place, type Printing } from "../api/client";
import { Tick } from "../ui/fields";
import { LargeDialog } from "../ui/LargeDialog";
import { Button } from "../ui/parts";

/** The print as on the screen and as from the printer, side by side. */
export function SoftProof({
  place,
  pair,
  empty,
  busy,
  intent,
}: {
  place: Place;
  pair: Pair;
  empty: boolean;
  busy: boolean;
  intent: Printing["intent"];
}) {
  const [paper, setPaper] = useState(false);
  const pictures = [
    ["As on this screen", api.flat(place, 1000, pair.content_key)],
    ["As the printer's profile says it comes out", api.softProof(place, intent, paper)],
  ] as const;
  return (
    <LargeDialog
      trigger={<Button disabled={empty || busy}>Compare with screen colours</Button>}
      title="Colours before printing"
      aside={<Tick label="Simulate paper white" on={paper} onValue={setPaper} />}
      place="inset-8"
    >
      <div className="grid min-h-0 grow grid-cols-2 gap-4 p-4">
        {pictures.map(([title, url]) => (
          <figure key={title} className="flex min-h-0 flex-col">
            <figcaption className="pb-1 text-sm">{title}</figcaption>
            <img src={url} alt={title} className="min-h-0 grow object-contain object-top" />
          </figure>
        ))}
      </div>
    </LargeDialog>
  );
}
