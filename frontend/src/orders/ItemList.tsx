import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type OrderItem, type ProofState } from "../api/client";
import { Choice } from "../ui/Choice";
import { INPUT } from "../ui/KeptText";
import { Alert, Button } from "../ui/parts";
import { filters, type Shown, STATES, shown } from "./states";

type Move = { ids: number[]; state: ProofState; words?: string };

/** Items of orders with the states of their proofs, filtered by state; all that are shown can be moved on together. */
export function ItemList({ items, withTitle = false }: { items: readonly OrderItem[]; withTitle?: boolean }) {
  const queries = useQueryClient();
  const [filter, setFilter] = useState<Shown>("all");
  const [asking, setAsking] = useState<number | null>(null);
  const move = useMutation({
    mutationFn: ({ ids, state, words }: Move) => api.putOrderState(ids, state, words ?? ""),
    onSuccess: () => {
      setAsking(null);
      queries.invalidateQueries({ queryKey: ["orders"] });
    },
  });
  const now = shown(items, filter);
  return (
    <div className="grid gap-2" aria-busy={move.isPending}>
      {move.error && <Alert>{move.error.message}</Alert>}
      <div className="flex flex-wrap items-center justify-between gap-2">
        <Choice
          label="Show"
          value={now.length === items.length ? "all" : filter}
          options={filters(items)}
          onChange={setFilter}
        />
        <label className="flex items-center gap-2 text-sm">
          <span className="text-soft">{now.length === 1 ? "Set this one to" : `Set these ${now.length} to`}</span>
          <select
            aria-label="Set all that are shown to"
            className="rounded-[3px] border border-rule bg-paper px-2 py-1"
            value=""
            onChange={(event) => move.mutate({ ids: now.map(({ id }) => id), state: event.target.value as ProofState })}
          >
            <option value="">…</option>
            {STATES.filter(([state]) => state !== "changes").map(([state, label]) => (
              <option key={state} value={state}>
                {label}
              </option>
            ))}
          </select>
        </label>
      </div>
      <ul aria-label="Items" className="grid text-sm">
        {now.map((item) => (
          <li key={item.id} className="grid gap-1 border-b border-rule py-1">
            <div className="grid grid-cols-[7rem_3rem_minmax(0,1fr)_auto] items-center gap-2">
              <b className="truncate" title={item.name}>
                {item.name}
              </b>
              <span className="text-soft">× {item.quantity}</span>
              <span className="truncate">
                {withTitle && (
                  <Link className="underline" to={`/bench/${item.artwork_id}/${item.template_id}/sell?part=orders`}>
                    {item.title}
                  </Link>
                )}
                {withTitle && Object.keys(item.values).length > 0 && <span className="text-soft"> · </span>}
                {Object.values(item.values).join(", ")}
              </span>
              <select
                aria-label={`State of ${item.name}`}
                className="rounded-[3px] border border-rule bg-paper px-2 py-1"
                value={asking === item.id ? "changes" : item.state}
                onChange={(event) => {
                  const state = event.target.value as ProofState;
                  if (state === "changes") setAsking(item.id);
                  else move.mutate({ ids: [item.id], state });
                }}
              >
                {STATES.map(([state, label]) => (
                  <option key={state} value={state}>
                    {label}
                  </option>
                ))}
              </select>
            </div>
            {asking === item.id && (
              <Asked item={item} onWords={(words) => move.mutate({ ids: [item.id], state: "changes", words })} />
            )}
            {asking !== item.id && item.words && (
              <button type="button" className="pl-32 text-left italic" onClick={() => setAsking(item.id)}>
                “{item.words}”
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The changes that a buyer asks for, in the buyer's words. */
function Asked({ item, onWords }: { item: OrderItem; onWords: (words: string) => void }) {
  const [words, setWords] = useState(item.words);
  return (
    <form
      className="flex gap-2 pl-32"
      onSubmit={(event) => {
        event.preventDefault();
        onWords(words);
      }}
    >
      <input
        aria-label={`Changes asked for ${item.name}`}
        className={INPUT}
        placeholder="What does the buyer ask for?"
        maxLength={2000}
        value={words}
        // biome-ignore lint/a11y/noAutofocus: the field opens because the seller chose to fill it
        autoFocus
        onChange={(event) => setWords(event.target.value)}
      />
      <Button type="submit" disabled={!words.trim()}>
        Keep
      </Button>
    </form>
  );
}
