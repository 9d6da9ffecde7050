import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Sell, type SellChange } from "../api/client";
import type { Hand } from "../bench/usePair";

/** Everything about the price of the pair in hand. */
export type Selling = {
  sell: Sell | null;
  decide: (change: SellChange) => void;
  busy: boolean;
  problem: string | null;
  retry: () => void;
};

export function useSelling(hand: Hand): Selling {
  const queries = useQueryClient();
  const { place } = hand;
  const key = ["selling", place.art, place.template];
  const query = useQuery({ queryKey: key, queryFn: () => api.selling(place) });
  const change = useMutation({
    mutationKey: key,
    scope: { id: key.join() }, // one after another, in the order they were made
    mutationFn: (body: SellChange) => api.decideSelling(place, body),
    onSuccess: async (sell) => {
      // an answer to an earlier change does not undo what was typed since
      if (queries.isMutating({ mutationKey: key }) === 1) await keepAnswer(queries, key, sell);
      // fees and a blank's costs hold for other pairs too
      queries.invalidateQueries({ queryKey: ["selling"], predicate: ({ queryKey }) => queryKey.join() !== key.join() });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
    },
    onError: () => queries.invalidateQueries({ queryKey: key }),
  });
  const decide = (body: SellChange) => {
    // what is typed next builds on this at once, not on what the last answer said
    queries.setQueryData<Sell>(key, (now) => now && { ...now, ...body });
    change.mutate(body);
  };
  return {
    sell: query.data ?? null,
    decide,
    busy: change.isPending,
    problem: change.error?.message ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}
