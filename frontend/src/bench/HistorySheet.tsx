import { useQuery } from "@tanstack/react-query";
import { History } from "lucide-react";
import { api, type Place } from "../api/client";
import { LargeDialog } from "../ui/LargeDialog";
import { Alert, Button } from "../ui/parts";

/** The history of this pair, newest first. */
export function HistorySheet({ place }: { place: Place }) {
  const key = ["timeline", place.art, place.template];
  const query = useQuery({ queryKey: key, queryFn: () => api.history(place), enabled: false });
  const days = new Map<string, { at: string; what: string; detail: string }[]>();
  for (const deed of query.data ?? []) {
    const day = local(deed.at).slice(0, 10);
    days.set(day, [...(days.get(day) ?? []), deed]);
  }
  return (
    <LargeDialog
      trigger={
        <Button tone="quiet" aria-label="History" title="History of this artwork on this blank">
          <History size={17} aria-hidden="true" />
        </Button>
      }
      title="History"
      aside="newest first"
      place="inset-y-16 left-1/2 w-[40rem] max-w-[92vw] -translate-x-1/2"
      onOpen={() => query.refetch()}
    >
      <div className="min-h-0 grow overflow-y-auto p-4 text-sm">
        {query.error && <Alert onRetry={() => query.refetch()}>{query.error.message}</Alert>}
        {!query.data && !query.error && <p className="text-soft">Loading the history…</p>}
        {[...days].map(([day, events]) => (
          <section key={day} className="mb-3 grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-4">
            <h3 className="font-bold tabular-nums">{day}</h3>
            <ol className="grid gap-0.5 border-l border-rule pl-4">
              {events.map(({ at, what, detail }) => (
                <li key={`${at} ${what} ${detail}`} className="grid grid-cols-[3rem_minmax(0,1fr)] gap-2">
                  <span className="text-soft tabular-nums">{at.length > 10 ? local(at).slice(11, 16) : ""}</span>
                  <span className="break-words">
                    <span className="inline-block font-medium first-letter:uppercase">{what}</span>
                    {detail && <span className="text-soft">: {detail}</span>}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        ))}
      </div>
    </LargeDialog>
  );
}

/** A time in the seller's time zone; a date without time stays as it is. */
function local(at: string): string {
  if (at.length <= 10) return at;
  const time = new Date(at);
  return new Date(time.getTime() - time.getTimezoneOffset() * 60_000).toISOString();
}
