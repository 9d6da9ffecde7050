import { useState } from "react";
import type { Panel, Place } from "../api/client";
import { parseLength, show } from "../ui/measure";
import { Alert, Button, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { SampleDialog } from "./SampleDialog";
import type { Sewn } from "./useSewing";

const STEP_MM = 0.5;

/** The calibration of an attached panel: it is moved in the picture until the picture matches the sample. */
export function Calibration({ place, panel, sewn, seam }: { place: Place; panel: Panel; sewn: Sewn; seam: string }) {
  const { unit } = useUnit();
  const { state, nudge } = sewn;
  const [provider, setProvider] = useState<string | null>(null);
  const [sample, setSample] = useState("");
  if (!state) return null;
  const now = nudge?.seam === seam ? nudge : { seam, right: 0, down: 0 };
  const [right, down] = state.corrections[seam] ?? [0, 0];
  const length = (text: string) => parseLength(text, unit, panel.dpi);
  const by = provider ?? state.provider;
  const saved = state.calibrations.filter((each) => each.seam === seam && each.provider === state.provider);
  const field = "rounded-[3px] border border-rule bg-paper px-2 py-1";
  return (
    <div className="grid gap-1.5">
      <Heading aside={saved.length > 0 ? `set on ${saved[0]?.made_on}` : "not calibrated"}>
        Calibrate with a sample
      </Heading>
      <p className="text-xs text-soft">
        Move the panel until the picture matches your sample. The correction then applies to every design on this blank.
      </p>
      {(["right", "down"] as const).map((way) => (
        <ValueField
          key={way}
          label={way === "right" ? "Sewn to the right" : "Sewn lower"}
          text={show(now[way], unit)}
          suffix={unit}
          parse={length}
          hint="A length, for example 3mm, 1/8in or 12px; negative for the other direction"
          onValue={(mm) => sewn.hold({ ...now, [way]: mm })}
        />
      ))}
      <fieldset aria-label="Nudge" className="flex gap-1">
        {(
          [
            ["←", "left", -STEP_MM, 0],
            ["→", "right", STEP_MM, 0],
            ["↑", "up", 0, -STEP_MM],
            ["↓", "down", 0, STEP_MM],
          ] as const
        ).map(([sign, name, dx, dy]) => (
          <Button
            key={name}
            className="grow"
            aria-label={`Nudge ${name}`}
            onClick={() => sewn.hold({ seam, right: now.right + dx, down: now.down + dy })}
          >
            {sign}
          </Button>
        ))}
      </fieldset>
      <SampleDialog place={place} panel={panel} sewn={sewn} seam={seam} />
      <label className="grid gap-0.5 text-sm">
        <span className="text-soft">Sewn by</span>
        <input
          className={field}
          value={by}
          maxLength={80}
          placeholder="any provider"
          onChange={(event) => setProvider(event.target.value)}
          onBlur={() => by !== state.provider && !nudge && sewn.sewnBy(by)}
        />
      </label>
      <label className="grid gap-0.5 text-sm">
        <span className="text-soft">Sample</span>
        <input
          className={field}
          value={sample}
          maxLength={200}
          placeholder="which one, for your own record"
          onChange={(event) => setSample(event.target.value)}
        />
      </label>
      {sewn.problem && <Alert>{sewn.problem}</Alert>}
      <Button tone="main" disabled={!nudge || sewn.busy} onClick={() => sewn.keep(by, sample)}>
        Save for this blank
      </Button>
      {saved.length > 0 && (
        <>
          <p className="text-xs text-soft">
            Holds now: {show(right, unit)} {unit} right, {show(down, unit)} {unit} down
            {saved[0]?.sample && `, by ${saved[0].sample}`}.
          </p>
          <Button disabled={sewn.busy} onClick={sewn.takeBack}>
            Remove the last calibration
          </Button>
        </>
      )}
    </div>
  );
}
