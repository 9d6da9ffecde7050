import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Place, type Providers } from "../api/client";

/** The providers of the open pair's blank, and its samples. */
export type Providing = {
  state: Providers | null;
  /** Run a request that returns the whole state. It is given the newest state, which earlier requests may just have changed. */
  act: (deed: (now: Providers) => Promise<Providers>) => void;
  /** Run a request that does not, and fetch the state again. */
  change: (deed: () => Promise<unknown>) => void;
  busy: boolean;
  problem: string | null;
  retry: () => void;
};

export function useProviders(place: Place): Providing {
  const queries = useQueryClient();
  const key = ["providers", place.art, place.template];
  const query = useQuery({ queryKey: key, queryFn: () => api.providers(place), refetchOnMount: "always" });
  const act = useMutation({
    scope: { id: key.join() },
    mutationFn: async (deed: (now: Providers) => Promise<Providers>) =>
      deed(queries.getQueryData<Providers>(key) ?? (await api.providers(place))),
    onSuccess: async (state) => {
      await keepAnswer(queries, key, state);
      queries.invalidateQueries({ queryKey: ["selling"] });
      queries.invalidateQueries({ queryKey: ["sewing"] });
    },
  });
  return {
    state: query.data ?? null,
    act: act.mutate,
    change: (deed) =>
      act.mutate(async () => {
        await deed();
        return api.providers(place);
      }),
    busy: act.isPending,
    problem: act.error?.message ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}
