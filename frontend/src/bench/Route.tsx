import { Link, useLocation, useNavigate } from "react-router";
import type { Pair, PanelReport } from "../api/client";
import { Button, Mark, WORDS } from "../ui/parts";
import { STATIONS, type Station } from "./stations";

/** The stations in order, each with its progress. */
export function Route({ pair, report, station }: { pair: Pair; report: PanelReport; station: Station }) {
  const navigate = useNavigate();
  const { search } = useLocation();
  const { steps } = pair.artwork;
  const open = report.checks.filter((c) => c.status !== "pass");
  const gravest = open.find((c) => c.status === report.verdict)?.title.toLowerCase();
  const states: Record<Station, { name: string; state: string; mark: "pass" | "warn" | "fail" | null }> = {
    artwork: {
      name: "Artwork",
      state: steps ? `${steps} ${steps === 1 ? "step" : "steps"}` : "as imported",
      mark: steps ? "pass" : null,
    },
    fit: { name: "Fit", state: pair.can_undo ? "by hand" : "suggested", mark: pair.can_undo ? "pass" : null },
    check: {
      name: "Check",
      state: gravest
        ? `${WORDS[report.verdict]}: ${gravest}${open.length > 1 ? `, +${open.length - 1} more` : ""}`
        : WORDS.pass,
      mark: pair.verdict,
    },
    mockups: {
      name: "Mock-ups",
      state: pair.pictured ? "mock-ups made" : "no mock-ups yet",
      mark: pair.pictured ? "pass" : null,
    },
    print: { name: "Print", state: pair.printed ? "file made" : "no file yet", mark: pair.printed ? "pass" : null },
    press: { name: "Press", state: pair.pressed ? "pressed" : "not pressed yet", mark: pair.pressed ? "pass" : null },
    sell: {
      name: "Sell",
      state: pair.listed ? "listed" : pair.priced ? `at ${pair.priced}` : "no price yet",
      mark: pair.listed || pair.priced ? "pass" : null,
    },
  };
  const here = STATIONS.indexOf(station);
  const next = STATIONS[here + 1];
  return (
    <nav aria-label="Route" className="flex h-12 shrink-0 items-stretch border-b border-rule bg-paper">
      <ol className="flex grow">
        {STATIONS.map((name) => {
          const { name: title, state, mark } = states[name];
          return (
            <li key={name} className="flex">
              <Link
                to={{ pathname: `../${name}`, search }}
                relative="path"
                aria-current={name === station ? "step" : undefined}
                className={`flex min-w-28 flex-col justify-center border-b-[3px] px-4 leading-tight ${
                  name === station ? "border-accent bg-accent-tint" : "border-transparent hover:bg-table"
                }`}
              >
                <span className="font-bold">{title}</span>
                <span className="flex items-center gap-1 text-xs text-soft">
                  {mark && <Mark status={mark} size={11} />}
                  {state}
                </span>
              </Link>
            </li>
          );
        })}
      </ol>
      <div className="flex items-center px-4">
        {next ? (
          <Button tone="main" onClick={() => navigate({ pathname: `../${next}`, search }, { relative: "path" })}>
            Next: {states[next].name}
          </Button>
        ) : (
          <Button onClick={() => navigate("/")}>Back to the board</Button>
        )}
      </div>
    </nav>
  );
}
