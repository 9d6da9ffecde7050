import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type PlanSettings as Settings } from "../api/client";
import { Plain, Tick } from "../ui/fields";
import { Alert, Heading } from "../ui/parts";

const WORK = [
  ["print", "Print a piece"],
  ["press", "Handle a piece at the press"],
  ["order", "Order from a provider"],
  ["fix", "Fix a pair"],
  ["picture", "Make mock-ups"],
  ["list", "List a pair"],
] as const;

/** Minutes of work a day, and how long each kind of work takes. */
export function PlanSettings({ settings }: { settings: Settings }) {
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: (change: Partial<Settings>) => api.putPlanSettings({ ...settings, ...change }),
    onSuccess: (plan) => queries.setQueryData(["plan"], plan),
  });
  return (
    <section className="grid gap-1.5" aria-busy={save.isPending}>
      <Heading>Your time</Heading>
      {save.error && <Alert>{save.error.message}</Alert>}
      <Plain
        label="Work a day"
        value={settings.minutes_a_day}
        suffix="min"
        least={1}
        most={1440}
        onValue={(minutes_a_day) => save.mutate({ minutes_a_day })}
      />
      <label className="flex items-center gap-2 text-sm">
        <span className="grow text-soft">First day{settings.start ? "" : ": today, or"}</span>
        <input
          type="date"
          aria-label="First day"
          value={settings.start ?? ""}
          className="rounded-[3px] border border-rule bg-paper px-2 py-1"
          onChange={(event) => save.mutate({ start: event.target.value || null })}
        />
      </label>
      <Tick label="Weekends too" on={settings.weekends} onValue={(weekends) => save.mutate({ weekends })} />
      <details className="border-t border-rule pt-1">
        <summary className="cursor-pointer text-sm text-soft">Minutes for each kind of work</summary>
        <div className="mt-1.5 grid gap-1.5">
          {WORK.map(([kind, label]) => (
            <Plain
              key={kind}
              label={label}
              value={settings[kind]}
              suffix="min"
              least={0}
              most={600}
              onValue={(minutes) => save.mutate({ [kind]: minutes })}
            />
          ))}
        </div>
      </details>
    </section>
  );
}
