import { useEffect, useRef } from "react";
import type { Press, PressStep } from "../api/client";
import { Button, Mark } from "../ui/parts";
import { useKeys } from "../ui/useKeys";
import { LieDrawing } from "./LieDrawing";
import type { Clock } from "./useClock";

const typed = (target: EventTarget | null) =>
  target instanceof HTMLElement && Boolean(target.closest("input, textarea, select, button, summary"));

export const seconds = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;
export const heat = (step: PressStep) =>
  `${Math.round(step.temperature_c ?? 0)} °C · ${Math.round(step.temperature_f ?? 0)} °F · ${step.pressure} pressure`;

/** The current action of the Space key. */
function deed(clock: Clock): string {
  if (clock.finished) return "Press another";
  if (clock.step.seconds === 0) return "Done: next";
  if (clock.left === null) return `Start ${clock.step.seconds} s`;
  return clock.over ? "Next" : "Running…";
}

/** The press clock: the current step, the blank's position, and the time; operated by the Space key alone. */
export function ClockPane({ press, clock }: { press: Press; clock: Clock }) {
  const { step } = clock;
  const peeking = step.kind === "peek";
  const act = () => {
    if (clock.finished) clock.restart();
    else if (step.seconds === 0) clock.next();
    else if (clock.left === null) clock.start();
    else if (clock.over) clock.next();
  };
  useKeys((event) => {
    if (typed(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
    const seen = { e: "even", p: "pale", n: "ends" }[event.key.toLowerCase()] as "even" | "pale" | "ends" | undefined;
    if (event.key === " " && !peeking) act();
    else if (event.key === "Backspace") clock.back();
    else if (peeking && seen) clock.answer(seen);
    else return;
    event.preventDefault();
  });
  const list = useRef<HTMLOListElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the current step is brought into sight when it changes
  useEffect(() => {
    list.current?.querySelector("[aria-current]")?.scrollIntoView({ block: "nearest" });
  }, [clock.index]);
  const ends = press.steps.some((each) => each.kind === "if-pale");
  return (
    <section aria-label="Press clock" className="flex min-w-0 flex-col overflow-y-auto border-r border-rule bg-table">
      <div className="grid grid-cols-[minmax(0,1fr)_12.5rem] gap-4 px-5 pt-4">
        <div className="flex flex-col">
          <p className="text-sm text-soft">
            Step {clock.index + 1} of {press.steps.length}
          </p>
          <p className="text-xl leading-snug font-bold" role="status">
            {step.do}
          </p>
          {step.temperature_c !== null && <p className="mt-1 text-soft">{heat(step)}</p>}
        </div>
        <output
          aria-label="Time left"
          className={`self-start border-2 px-3 py-2 text-right text-5xl font-bold tabular-nums ${
            clock.over ? "border-ink bg-ink text-paper" : "border-rule bg-paper"
          }`}
        >
          {step.seconds === 0 ? "–" : seconds(Math.ceil(Math.max(0, clock.left ?? step.seconds)))}
          {clock.over && <span className="block text-base">time is up: open the press</span>}
        </output>
      </div>
      <div className="h-56 shrink-0 px-5 py-2">
        <LieDrawing step={step} printMm={press.print_mm} />
      </div>
      <div className="flex flex-wrap items-center gap-2 px-5">
        {peeking ? (
          <>
            <Button tone="main" onClick={() => clock.answer("even")}>
              Even and deep (E)
            </Button>
            <Button onClick={() => clock.answer("pale")}>Pale: once more (P)</Button>
            {ends && <Button onClick={() => clock.answer("ends")}>Pale at the ends (N)</Button>}
          </>
        ) : (
          <Button tone="main" className="min-w-40" disabled={clock.left !== null && !clock.over} onClick={act}>
            {deed(clock)} {!(clock.left !== null && !clock.over) && "(Space)"}
          </Button>
        )}
        <Button onClick={clock.back} disabled={clock.index === 0}>
          Back one step
        </Button>
        {clock.index > 0 && !clock.finished && <Button onClick={clock.restart}>From the beginning</Button>}
      </div>
      <ol ref={list} className="mx-5 my-4 grid gap-px border-t border-rule text-sm">
        {press.steps.map((each, i) => (
          <li
            key={`${each.kind} ${each.do}`}
            aria-current={i === clock.index ? "step" : undefined}
            className={`flex items-baseline gap-2 border-b border-rule px-1 py-1 ${i === clock.index ? "bg-accent-tint font-bold" : ""} ${
              each.kind === "again" || each.kind === "if-pale" ? "pl-6 text-soft" : ""
            }`}
          >
            <span className="w-5 shrink-0 text-right">
              {i < clock.index ? <Mark status="pass" size={11} /> : i + 1}
            </span>
            <span className="grow">{each.do}</span>
            {each.seconds > 0 && <span className="shrink-0 tabular-nums">{each.seconds} s</span>}
          </li>
        ))}
      </ol>
    </section>
  );
}
