import type { Check } from "../api/client";
import type { PairEditor } from "../bench/usePair";
import { Button, Heading, Mark, Verdict, WORDS } from "../ui/parts";
import { Limits } from "./Limits";

/** The results of the checks: findings first, then what passed. */
export function CheckStation({ editor }: { editor: PairEditor }) {
  const { checks, verdict } = editor.report;
  const open = checks.filter((check) => check.status !== "pass");
  if (editor.empty) return <p className="text-sm">Nothing is printed on this side, so there is nothing to check.</p>;
  const sound = checks.filter((check) => check.status === "pass");
  return (
    <>
      <div>
        <Heading aside={`${checks.length} checks`}>Verdict</Heading>
        <p className="flex items-baseline gap-2 text-lg">
          <Verdict status={verdict} />
          <span className="text-sm text-soft">
            {verdict === "pass"
              ? "Ready to print."
              : verdict === "warn"
                ? "Printable. Review these findings first."
                : "Fix these findings before printing."}
          </span>
        </p>
      </div>
      {open.length > 0 && (
        <ol className="grid gap-3">
          {open.map((check, i) => (
            <li key={check.id} className="border border-ink bg-paper p-3">
              <div className="flex items-center gap-2">
                {check.where.length > 0 && (
                  <span className="grid size-5 place-items-center bg-ink text-xs font-bold text-paper">{i + 1}</span>
                )}
                <b className="grow">{check.title}</b>
                <span className="inline-flex items-center gap-1 text-xs">
                  <Mark status={check.status} size={12} /> {WORDS[check.status]}
                </span>
              </div>
              <Measured check={check} />
              <p className="text-sm">{check.message}</p>
              <p className="mt-1 text-xs text-soft">{check.why}</p>
              {[check.fix, ...check.more].map(
                (fix) =>
                  fix && (
                    <Button key={fix.label} className="mt-2 w-full" onClick={() => editor.applyFix(fix)}>
                      {fix.label}
                    </Button>
                  ),
              )}
            </li>
          ))}
        </ol>
      )}
      <div>
        <Heading aside={String(sound.length)}>Sound</Heading>
        <ul className="grid gap-1.5">
          {sound.map((check) => (
            <li key={check.id} className="text-sm">
              <span className="flex items-center gap-1.5">
                <Mark status="pass" size={12} />
                <b className="font-medium">{check.title}</b>
              </span>
              <span className="block pl-[1.15rem] text-xs text-soft">{check.message}</span>
            </li>
          ))}
        </ul>
      </div>
      <Limits pair={editor.pair} />
    </>
  );
}

function Measured({ check }: { check: Check }) {
  if (check.measured === null) return null;
  const round = (value: number) => (Math.abs(value) >= 100 ? Math.round(value) : Math.round(value * 10) / 10);
  return (
    <p className="my-0.5 text-sm">
      <b className="text-base">{round(check.measured)}</b> {check.unit}
      {check.limit !== null && <span className="text-soft"> against {round(check.limit)}</span>}
    </p>
  );
}
