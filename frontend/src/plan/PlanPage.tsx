import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Plan, type PlanTask } from "../api/client";
import { Alert, Button, DownloadLink, Heading } from "../ui/parts";
import { SubPage } from "../ui/SubPage";
import { PlanSettings } from "./PlanSettings";
import { byKind, DOES, inTime, inWords, whereDone } from "./tasks";

/** The work over all pairs, orders and samples, day by day. */
export function PlanPage() {
  const query = useQuery({ queryKey: ["plan"], queryFn: api.plan, refetchOnMount: "always" });
  const exports = (
    <>
      <DownloadLink href="/api/plan/plan.csv">Table, CSV</DownloadLink>
      <DownloadLink href="/api/plan/plan.ics">Calendar, iCalendar</DownloadLink>
    </>
  );
  return (
    <SubPage title="Plan" asked={query} waiting="Planning the work…" actions={exports}>
      {(plan) => (
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
          <section>
            <p className="mb-4 text-sm text-soft">{inAll(plan)}</p>
            <Unchecked count={plan.unchecked} />
            <Days plan={plan} />
          </section>
          <div className="grid content-start gap-6">
            <PlanSettings settings={plan.settings} />
            <Batches plan={plan} />
            <Samples plan={plan} />
          </div>
        </div>
      )}
    </SubPage>
  );
}

function inAll({ days }: Plan): string {
  const minutes = days.reduce((sum, day) => sum + day.minutes, 0);
  if (!days.length) return "Nothing is waiting.";
  return `${inTime(minutes)} of work on ${days.length === 1 ? "one day" : `${days.length} days`}. What buyers wait for comes first.`;
}

/** Pairs without a check are not in the plan: they can be checked here, one after another. */
function Unchecked({ count }: { count: number }) {
  const queries = useQueryClient();
  const [left, setLeft] = useState<number | null>(null);
  const check = useMutation({
    mutationFn: async () => {
      const { artworks } = await api.boardStates();
      const open = artworks.flatMap(({ artwork_id, states }) =>
        Object.entries(states).flatMap(([template, state]) =>
          state === "check" ? [[artwork_id, template] as const] : [],
        ),
      );
      for (const [i, [art, template]] of open.entries()) {
        setLeft(open.length - i);
        await api.cell(art, template);
      }
    },
    onSettled: () => {
      setLeft(null);
      return queries.invalidateQueries({ queryKey: ["plan"] });
    },
  });
  if (!count) return null;
  return (
    <div className="mb-4 flex flex-wrap items-center gap-3 text-sm">
      {check.error && <Alert>{check.error.message}</Alert>}
      <span role="status">
        {left === null
          ? `${count === 1 ? "1 pair is" : `${count} pairs are`} not checked yet and not in the plan.`
          : `Checking: ${left} left.`}
      </span>
      <Button disabled={check.isPending} onClick={() => check.mutate()}>
        Check them now
      </Button>
    </div>
  );
}

function Days({ plan }: { plan: Plan }) {
  return (
    <ol className="grid gap-5">
      {plan.days.map((day) => (
        <li key={day.date}>
          <div className="flex items-baseline justify-between border-b border-ink pb-0.5">
            <h2 className="font-bold">{inWords(day.date)}</h2>
            <span className="text-sm text-soft">{inTime(day.minutes)}</span>
          </div>
          {byKind(day.tasks).map(([kind, tasks]) => (
            <div
              key={kind}
              className="grid grid-cols-[8.5rem_minmax(0,1fr)] gap-x-3 border-b border-rule py-1.5 text-sm"
            >
              <p>
                <b>{DOES[kind]}</b>
                <span className="block text-xs text-soft">
                  {inTime(tasks.reduce((sum, task) => sum + task.minutes, 0))}
                </span>
              </p>
              <div>
                <Tasks tasks={tasks.slice(0, FEW)} />
                {tasks.length > FEW && (
                  <details>
                    <summary className="cursor-pointer text-soft">and {tasks.length - FEW} more</summary>
                    <Tasks tasks={tasks.slice(FEW)} />
                  </details>
                )}
              </div>
            </div>
          ))}
        </li>
      ))}
    </ol>
  );
}

const FEW = 8;

function Tasks({ tasks }: { tasks: readonly PlanTask[] }) {
  return (
    <ul>
      {tasks.map((task) => (
        <li key={`${task.artwork_id} ${task.template_id} ${task.why}`}>
          {task.count > 1 && `${task.count} × `}
          <Link to={whereDone(task)} className="underline">
            {task.title}
          </Link>
          {task.why && <span className="text-soft"> · {task.kind === "fix" ? task.why.toLowerCase() : task.why}</span>}
          {task.heat && <span className="text-soft"> · {task.heat}</span>}
        </li>
      ))}
    </ul>
  );
}

function Batches({ plan }: { plan: Plan }) {
  return (
    <section>
      <Heading aside="at the same heat">Pressing</Heading>
      {plan.batches.length === 0 && <p className="text-sm text-soft">Nothing is to be pressed.</p>}
      <ul className="grid gap-2 text-sm">
        {plan.batches.map((batch) => (
          <li key={`${batch.method} ${batch.temperature_c} ${batch.seconds} ${batch.pressure}`}>
            <p>
              <b>{batch.count === 1 ? "1 piece" : `${batch.count} pieces`}</b>, {inTime(batch.minutes)} in all
            </p>
            <p className="text-soft">
              {batch.method}, {Math.round(batch.temperature_c)} °C ({Math.round(batch.temperature_c * 1.8 + 32)} °F),{" "}
              {Math.round(batch.seconds)} s, {batch.pressure}
            </p>
            <p className="text-xs text-soft">{batch.titles.join("; ")}</p>
          </li>
        ))}
      </ul>
      {plan.batches.length > 0 && (
        <p className="mt-2 text-xs text-soft">
          The maker's own figures for a blank win. Hot platens burn: wear heat gloves, ventilate, and stay at the press.
        </p>
      )}
    </section>
  );
}

function Samples({ plan }: { plan: Plan }) {
  return (
    <section>
      <Heading>Samples on their way</Heading>
      {plan.samples.length === 0 && <p className="text-sm text-soft">None.</p>}
      <ul className="grid gap-2 text-sm">
        {plan.samples.map((sample) => (
          <li key={sample.id}>
            <Link to={`/bench/${sample.artwork_id}/${sample.template_id}/sell?part=providers`} className="underline">
              {sample.title}
            </Link>
            <p className="text-soft">
              Expected {inWords(sample.expected)}
              {sample.own ? "" : ", by the usual days"}
            </p>
            <p className="text-xs text-soft">
              {sample.provider || "pressed by you"}, ordered {sample.ordered}
              {sample.shipped && `, shipped ${sample.shipped}`}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
