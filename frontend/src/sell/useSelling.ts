import { useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Place, type Sell, type SellChange } from "../api/client";
import { useDraft } from "../ui/useDraft";

/** Everything about the price of the open pair. */
export type Selling = {
  sell: Sell | null;
  decide: (change: SellChange) => void;
  busy: boolean;
  problem: string | null;
  retry: () => void;
};

export function useSelling(place: Place): Selling {
  const queries = useQueryClient();
  const key = ["selling", place.art, place.template];
  const query = useQuery({ queryKey: key, queryFn: () => api.selling(place) });
  const draft = useDraft<Sell, Sell>({
    saved: query.data ?? null,
    subject: key.join(),
    onAnswer: async (sell) => {
      await keepAnswer(queries, key, sell);
      // fees and a blank's costs apply to other pairs too
      queries.invalidateQueries({ queryKey: ["selling"], predicate: ({ queryKey }) => queryKey.join() !== key.join() });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
    },
  });
  return {
    sell: draft.value,
    decide: (change) => draft.save(change, () => api.decideSelling(place, change)),
    busy: draft.pending,
    problem: draft.error?.message ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}
