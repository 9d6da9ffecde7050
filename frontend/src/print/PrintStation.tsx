import { useState } from "react";
import type { Pair } from "../api/client";
import type { PairEditor } from "../bench/usePair";
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

/** Route, file, paper and handing over, and the always visible button that makes the file. */
export function PrintStation({ editor, print }: { editor: PairEditor; print: Print }) {
  const [part, setPart] = useState<(typeof PARTS)[number]["value"]>("file");
  const { pair, report } = editor;
  const stopped = report.checks.find((check) => check.status === "fail");
  return (
    <>
      <PrinterChoice route={pair.route} onRoute={(route) => editor.choose({ route })} />
      <PartTabs label="Part" value={part} parts={PARTS} onChange={setPart} partClassName="flex flex-col gap-4">
        {!print.state && <p className="text-sm text-soft">Measuring…</p>}
        {print.state && part === "file" && (
          <FilePart
            place={editor.place}
            pair={editor.pair}
            panel={editor.panel}
            report={editor.report}
            empty={editor.empty}
            busy={editor.busy}
            print={print}
            state={print.state}
          />
        )}
        {print.state && part === "paper" && <PaperPart print={print} state={print.state} />}
        {print.state && part === "over" && (
          <HandOver
            place={editor.place}
            pair={editor.pair}
            panel={editor.panel}
            empty={editor.empty}
            print={print}
            state={print.state}
          />
        )}
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
            waits={editor.busy || print.settling}
            disabled={print.making || editor.empty || Boolean(print.state?.plan.problem)}
            onClick={() => print.make("this")}
          >
            Make the print file
          </Button>
          {pair.panels.length > 1 && (
            <Button
              waits={editor.busy || print.settling}
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

type Route = Pair["route"];

function PrinterChoice(props: { route: Route; onRoute: (route: Route) => void }) {
  return (
    <div>
      <Heading>Printed by</Heading>
      <div className="grid gap-1 text-sm">
        {ROUTES.map(([route, title, hint]) => (
          <label key={route} title={hint} className="flex items-center gap-2">
            <input
              type="radio"
              name="route"
              className="accent-accent"
              checked={props.route === route}
              onChange={() => props.onRoute(route)}
            />
            <span className={props.route === route ? "font-bold" : ""}>{title}</span>
          </label>
        ))}
      </div>
    </div>
  );
}
