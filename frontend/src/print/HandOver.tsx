import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { keepAnswer } from "../api/answers";
import { api, type MadeFile, type Pair, type Panel, type Place, type PrintState } from "../api/client";
import { Plain } from "../ui/fields";
import { Alert, Button, Heading } from "../ui/parts";
import type { Print } from "./usePrinting";

/** Handing over: the job ticket, the gang sheet, and the simulated printer and provider. */
export function HandOver({
  place,
  pair,
  panel,
  empty,
  print,
  state,
}: {
  place: Place;
  pair: Pair;
  panel: Panel;
  empty: boolean;
  print: Print;
  state: PrintState;
}) {
  const { printing } = state;
  const newest = print.work.jobs.flatMap((job) => job.files)[0] ?? null;
  return (
    <>
      <div className="grid gap-2">
        <Heading aside="one page">Job ticket</Heading>
        <Plain
          label="Copies"
          value={printing.copies ?? 1}
          suffix=""
          least={1}
          most={10_000}
          onValue={(copies) => print.change({ copies: Math.round(copies) })}
        />
        <textarea
          key={printing.notes}
          aria-label="Notes for the ticket"
          placeholder="Notes for whoever prints"
          rows={2}
          maxLength={2000}
          className="rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
          defaultValue={printing.notes}
          onBlur={(event) => event.target.value !== printing.notes && print.change({ notes: event.target.value })}
        />
        <div className="flex gap-2">
          <a
            href={api.ticket(place)}
            download
            className="inline-flex min-h-8 grow items-center justify-center rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink"
          >
            Download the ticket
          </a>
          <OnGangSheet place={place} panel={panel} empty={empty} />
        </div>
      </div>
      {pair.route === "press" ? (
        <PrinterPart newest={newest} copies={printing.copies ?? 1} />
      ) : (
        <DeskPart place={place} newest={newest} />
      )}
    </>
  );
}

function OnGangSheet({ place, panel, empty }: { place: Place; panel: Panel; empty: boolean }) {
  const queries = useQueryClient();
  const add = useMutation({
    mutationFn: async () => {
      const { gang } = await api.gang();
      const here = (item: { artwork_id: number; template_id: string; panel: string }) =>
        item.artwork_id === place.art && item.template_id === place.template && item.panel === panel.id;
      const items = gang.items ?? [];
      const next = items.some(here)
        ? items.map((item) => (here(item) ? { ...item, count: (item.count ?? 1) + 1 } : item))
        : [...items, { artwork_id: place.art, template_id: place.template, panel: panel.id, count: 1 }];
      return api.setGang({ ...(gang as Required<typeof gang>), items: next });
    },
    onSuccess: (answer) => keepAnswer(queries, ["gang"], answer),
  });
  const count = add.data?.puts.length;
  return (
    <div className="grid justify-items-center">
      <Button disabled={add.isPending || empty} onClick={() => add.mutate()}>
        To the gang sheet
      </Button>
      {(count || add.error) && (
        <Link to="/gang" className="text-xs underline">
          {add.error ? add.error.message : `${count} on it: view`}
        </Link>
      )}
    </div>
  );
}

const Simulated = () => (
  <p className="border border-dashed border-ink px-2 py-1 text-xs">
    <b>Simulated.</b> No real device or service is reached from here.
  </p>
);

function PrinterPart({ newest, copies }: { newest: MadeFile | null; copies: number }) {
  const queries = useQueryClient();
  const state = useQuery({ queryKey: ["printer"], queryFn: api.printer });
  const done = () => queries.invalidateQueries({ queryKey: ["printer"] });
  const print = useMutation({ mutationFn: (file: MadeFile) => api.queue(file.url, copies), onSettled: done });
  const tend = useMutation({ mutationFn: api.tendPrinter, onSettled: done });
  const printer = state.data;
  const fit = newest && !newest.name.endsWith(".zip");
  return (
    <div className="grid gap-2">
      <Heading aside={printer?.jammed ? "jammed" : printer?.low.length ? "runs low" : "ready"}>Print queue</Heading>
      <Simulated />
      {printer && (
        <p className="text-sm">
          {printer.sheets} sheets; ink{" "}
          {Object.entries(printer.ink_ml)
            .map(([ink, ml]) => `${ink} ${Math.round(ml)} ml`)
            .join(", ")}
          .{printer.low.length > 0 && <b> Low: {printer.low.join(", ")}.</b>}
        </p>
      )}
      <Button disabled={!fit || print.isPending} onClick={() => newest && print.mutate(newest)}>
        {newest ? `Print ${copies > 1 ? `${copies} copies` : "it"}` : "Make the file first"}
      </Button>
      {print.data && !print.isPending && !print.error && (
        <p role="status" className="text-sm">
          Printed: {print.data.used_sheets} {print.data.used_sheets === 1 ? "sheet" : "sheets"},{" "}
          {print.data.used_ink_ml} ml of ink. It lies in {printer?.tray.split("/").slice(-2).join("/")}.
        </p>
      )}
      {print.error && <Alert>{print.error.message}</Alert>}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => tend.mutate("refill")}>Refill paper and ink</Button>
        {printer?.jammed ? (
          <Button
            onClick={() => {
              print.reset();
              tend.mutate("clear");
            }}
          >
            Remove the jammed sheet
          </Button>
        ) : (
          <Button tone="quiet" disabled={printer?.jam_next} onClick={() => tend.mutate("jam")}>
            {printer?.jam_next ? "The next one will jam" : "Let the next one jam"}
          </Button>
        )}
      </div>
    </div>
  );
}

function DeskPart({ place, newest }: { place: Place; newest: MadeFile | null }) {
  const bring = useMutation({ mutationFn: (file: MadeFile) => api.uploadToProvider(place, file.url) });
  const answer = bring.data;
  return (
    <div className="grid gap-2">
      <Heading aside="an invented provider">Upload desk</Heading>
      <Simulated />
      <Button disabled={!newest || bring.isPending} onClick={() => newest && bring.mutate(newest)}>
        {newest ? "Upload the file" : "Make the file first"}
      </Button>
      {bring.error && <Alert>{bring.error.message}</Alert>}
      {answer && (
        <div role="status" className="grid gap-1 border border-ink bg-paper p-2 text-sm">
          <b>{answer.accepted ? "Accepted" : "Refused"}</b>
          {answer.reasons.map((reason) => (
            <p key={reason}>{reason}</p>
          ))}
          <p className="text-xs text-soft">Seen: {answer.seen.join(", ") || "no picture"}.</p>
          <p className="text-xs text-soft">Taken here: {answer.rules.join(", ")}.</p>
        </div>
      )}
    </div>
  );
}
