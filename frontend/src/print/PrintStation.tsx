import { useState } from "react";
import type { Hand } from "../bench/usePair";
import { JobList } from "../jobs/JobList";
import { PartTabs } from "../ui/PartTabs";
import { Alert, Button, Heading, Mark } from "../ui/parts";
import { FilePart } from "./FilePart";
import { HandOver } from "./HandOver";
import { PaperPart } from "./PaperPart";
import type { Print } from "./usePrinting";

const SHOWN_FILES = 3;
const PARTS = [
  { value: "file", label: "The file" },
  { value: "paper", label: "On paper" },
  { value: "over", label: "Hand over" },
] as const;

/** Who prints, what the file is, how it comes on paper; and the making of it, always in sight. */
export function PrintStation({ hand, print }: { hand: Hand; print: Print }) {
  const [part, setPart] = useState<(typeof PARTS)[number]["value"]>("file");
  const { pair, report } = hand;
  const stopped = report.checks.find((check) => check.status === "fail");
  return (
    <>
      <Route hand={hand} />
      <PartTabs label="Part" value={part} parts={PARTS} onChange={setPart} partClassName="flex flex-col gap-4">
        {!print.state && <p className="text-sm text-soft">Measuring…</p>}
        {print.state && part === "file" && <FilePart hand={hand} print={print} state={print.state} />}
        {print.state && part === "paper" && <PaperPart print={print} state={print.state} />}
        {print.state && part === "over" && <HandOver hand={hand} print={print} state={print.state} />}
      </PartTabs>
      <div className="sticky -bottom-4 -mx-4 -mb-4 mt-auto grid gap-2 border-t border-rule bg-table p-4 pt-3">
        {stopped && (
          <p className="flex items-start gap-2 text-sm" title={stopped.message}>
            <span className="mt-0.5">
              <Mark status="fail" />
            </span>
            <span>
              <b>{stopped.title}:</b> see Check before you print.
            </span>
          </p>
        )}
        {print.state?.plan.problem && <Alert>{print.state.plan.problem}</Alert>}
        {print.problem && <Alert>{print.problem}</Alert>}
        <div className="flex gap-2">
          <Button
            tone="main"
            className="grow"
            waits={hand.busy || print.settling}
            disabled={print.making || hand.empty || Boolean(print.state?.plan.problem)}
            onClick={() => print.make("this")}
          >
            Make the print file
          </Button>
          {pair.panels.length > 1 && (
            <Button
              waits={hand.busy || print.settling}
              disabled={print.making}
              onClick={() => print.make("all")}
              title="A file for every printed side, as one ZIP"
            >
              All sides
            </Button>
          )}
        </div>
        <JobList work={print.work} most={SHOWN_FILES} />
      </div>
    </>
  );
}

const ROUTES = [
  ["press", "I press it myself", "Mirrored, for transfer paper"],
  ["upload", "A provider prints it", "Not mirrored, for uploading"],
] as const;

function Route({ hand }: { hand: Hand }) {
  const { pair } = hand;
  return (
    <div>
      <Heading>Who prints it</Heading>
      <div className="grid gap-1 text-sm">
        {ROUTES.map(([route, title, hint]) => (
          <label key={route} title={hint} className="flex items-center gap-2">
            <input
              type="radio"
              name="route"
              className="accent-accent"
              checked={pair.route === route}
              onChange={() => hand.choose({ route })}
            />
            <span className={pair.route === route ? "font-bold" : ""}>{title}</span>
          </label>
        ))}
      </div>
    </div>
  );
}
