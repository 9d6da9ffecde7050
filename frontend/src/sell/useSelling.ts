import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
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
    mutationFn: (body: SellChange) => api.decideSelling(place, body),
    onSuccess: (sell) => {
      queries.setQueryData(key, sell);
      // fees and a blank's costs hold for other pairs too
      queries.invalidateQueries({ queryKey: ["selling"], predicate: ({ queryKey }) => queryKey !== key });
    },
  });
  return {
    sell: query.data ?? null,
    decide: change.mutate,
    busy: change.isPending,
    problem: change.error?.message ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}
