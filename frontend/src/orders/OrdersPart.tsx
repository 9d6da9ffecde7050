import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, type Orders, type Place } from "../api/client";
import { COLUMN } from "../bench/stations";
import { JobList } from "../jobs/JobList";
import { type Jobs, useJobs } from "../jobs/useJobs";
import { FileButton } from "../ui/FileButton";
import { Tick } from "../ui/fields";
import { INPUT } from "../ui/KeptText";
import { Alert, Button, Heading, Mark } from "../ui/parts";
import { Waiting } from "../ui/Waiting";
import { ItemList } from "./ItemList";
import { toPrint } from "./states";

const ORDER_JOBS = ["orders"] as const;

/** Personalised orders: a table with pictures, or one order by hand, and their results. */
export function OrdersPart({ place, busy }: { place: Place; busy: boolean }) {
  const queries = useQueryClient();
  const key = ["orders", place.art, place.template];
  const query = useQuery({ queryKey: key, queryFn: () => api.orders(place), refetchOnMount: "always" });
  const work = useJobs(place, ORDER_JOBS, true);
  const ended = work.jobs.filter((job) => job.state === "done").length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the orders are fetched again when some have ended
  useEffect(() => {
    queries.invalidateQueries({ queryKey: key });
  }, [ended, queries]);
  const [held, setHeld] = useState<boolean | null>(null);
  const state = query.data;
  if (!state)
    return (
      <Waiting problem={query.error?.message} onRetry={() => query.refetch()}>
        Loading the open places…
      </Waiting>
    );
  const holds = held ?? state.held;
  const ready = toPrint(state.items);
  return (
    <div aria-busy={work.busy} className="grid min-h-0 grow grid-cols-[24rem_minmax(0,1fr)] grid-rows-[minmax(0,1fr)]">
      <section aria-label="Orders" className={COLUMN}>
        <Places state={state} place={place} />
        {state.places.length > 0 && (
          <>
            <Tick
              label="Hold print files until the buyer approves"
              hint="Orders make only proofs for the buyers. Print files and tickets are made when a proof is approved."
              on={holds}
              onValue={setHeld}
            />
            <FromTable state={state} work={work} place={place} busy={busy} held={holds} />
            <ByHand state={state} work={work} place={place} held={holds} />
          </>
        )}
      </section>
      <section aria-label="Results" className="flex min-h-0 flex-col gap-3 overflow-y-auto p-4">
        {work.problem && <Alert>{work.problem}</Alert>}
        <Heading
          aside={holds ? "proofs now, print file and ticket after approval" : "a print file, proofs and a ticket each"}
        >
          Results
        </Heading>
        <JobList work={work} most={3} />
        {state.made > 0 && (
          <p className="text-sm" role="status">
            {state.made === 1 ? "1 order made." : `${state.made} orders made.`} Send each buyer the proof before you
            print.
          </p>
        )}
        <ul aria-label="To check" className="grid gap-1 text-sm">
          {state.issues.map((issue) => (
            <li key={`${issue.name} ${issue.why}`} className="flex items-start gap-2 border border-rule bg-paper p-2">
              <span className="mt-0.5">
                <Mark status={issue.made ? "warn" : "fail"} size={13} />
              </span>
              <span>
                <b>{issue.name}</b> {issue.made ? "" : "was not made. "}
                {issue.why}
              </span>
            </li>
          ))}
        </ul>
        {state.items.length > 0 && (
          <>
            <Heading
              aside={
                <Link className="underline" to="/orders">
                  of all designs
                </Link>
              }
            >
              Items and their proofs
            </Heading>
            {ready > 0 && (
              <Button tone="main" disabled={work.busy} onClick={() => work.start(() => api.printApproved(place))}>
                {ready === 1
                  ? "Make the print file of the approved item"
                  : `Make print files of the ${ready} approved items`}
              </Button>
            )}
            <ItemList items={state.items} />
          </>
        )}
      </section>
    </div>
  );
}

function Places({ state, place }: { state: Orders; place: Place }) {
  const { art, template } = place;
  return (
    <div className="grid gap-1.5">
      <Heading>Open places of this design</Heading>
      {state.places.length === 0 && (
        <p className="text-sm text-soft">
          None yet. Write {"{name}"} in words, or give a slot of frames a name, at{" "}
          <Link className="underline" to={`/bench/${art}/${template}/artwork?part=with-it`}>
            Text and extras
          </Link>
          : each order puts its own there.
        </p>
      )}
      <ul className="grid gap-0.5 text-sm">
        {state.places.map((place) => (
          <li key={place.name} className="flex justify-between gap-2">
            <b>{place.name}</b>
            <span className="truncate text-soft">{place.kind === "words" ? `in “${place.about}”` : place.about}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

type Parts = { state: Orders; work: Jobs; place: Place; busy: boolean; held: boolean };

function FromTable({ state, work, place, busy, held }: Parts) {
  const [table, setTable] = useState<File | null>(null);
  const [photos, setPhotos] = useState<File[]>([]);
  const pictures = state.places.some(({ kind }) => kind === "photograph");
  return (
    <div className="grid gap-1.5">
      <Heading aside="one item per row; an order may have several">From a table</Heading>
      <pre className="overflow-x-auto border border-rule bg-paper p-2 text-xs">{state.example}</pre>
      <div className="flex flex-wrap gap-2">
        <FileButton name="Table of orders" accept=".csv,text/csv" onFiles={([file]) => setTable(file ?? null)}>
          {table ? table.name : "Table (CSV)"}
        </FileButton>
        {pictures && (
          <FileButton name="Pictures of the orders" accept="image/*" multiple onFiles={setPhotos}>
            {photos.length ? `${photos.length} pictures` : "Their pictures"}
          </FileButton>
        )}
      </div>
      <Button
        tone="main"
        disabled={!table || work.busy}
        waits={busy}
        onClick={() => table && work.start(() => api.makeOrders(place, table, photos, held))}
      >
        Make these orders
      </Button>
    </div>
  );
}

function ByHand({ state, work, place, held }: Omit<Parts, "busy">) {
  const [name, setName] = useState("");
  const [quantity, setQuantity] = useState(1);
  const [values, setValues] = useState<Record<string, string>>({});
  const [photos, setPhotos] = useState<Record<string, { id: number; title: string }>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const whole =
    name.trim() && state.places.every(({ name: place, kind }) => (kind === "words" ? values[place] : photos[place]));
  async function take(place: string, file: File) {
    try {
      const art = await api.addPhoto(file);
      setPhotos((now) => ({ ...now, [place]: { id: art.id, title: art.title } }));
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
  }
  return (
    <form
      className="grid gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        const chosen = Object.fromEntries(Object.entries(photos).map(([place, { id }]) => [place, id]));
        work.start(() => api.makeOrder(place, name.trim(), values, chosen, quantity, held));
      }}
    >
      <Heading>One order by hand</Heading>
      <label className="grid grid-cols-[7rem_minmax(0,1fr)] items-center gap-2 text-sm">
        <span className="text-soft">Order</span>
        <input className={INPUT} value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
      </label>
      <label className="grid grid-cols-[7rem_minmax(0,1fr)] items-center gap-2 text-sm">
        <span className="text-soft">Quantity</span>
        <input
          className={INPUT}
          type="number"
          min={1}
          max={999}
          value={quantity}
          onChange={(event) => setQuantity(Math.max(1, Math.min(999, Math.round(Number(event.target.value)) || 1)))}
        />
      </label>
      {state.places.map((place) =>
        place.kind === "words" ? (
          <label key={place.name} className="grid grid-cols-[7rem_minmax(0,1fr)] items-center gap-2 text-sm">
            <span className="truncate text-soft">{place.name}</span>
            <input
              className={INPUT}
              value={values[place.name] ?? ""}
              onChange={(event) => setValues({ ...values, [place.name]: event.target.value })}
            />
          </label>
        ) : (
          <div key={place.name} className="grid grid-cols-[7rem_minmax(0,1fr)] items-center gap-2 text-sm">
            <span className="truncate text-soft">{place.name}</span>
            <FileButton
              name={`Picture for ${place.name}`}
              accept="image/*"
              onFiles={([file]) => file && take(place.name, file)}
            >
              {photos[place.name]?.title ?? "Choose a picture"}
            </FileButton>
          </div>
        ),
      )}
      {problem && <Alert>{problem}</Alert>}
      <Button type="submit" disabled={!whole || work.busy}>
        Make this order
      </Button>
    </form>
  );
}
