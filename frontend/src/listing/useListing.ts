import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Listing, type ListingChange, type MarketLimits } from "../api/client";
import type { Hand } from "../bench/usePair";
import { type Jobs, useJobs } from "../jobs/useJobs";

const LISTING_JOBS = ["listing"] as const;

/** The listing of the pair in hand: its pictures, words and pack. */
export type Listings = {
  listing: Listing | null;
  decide: (change: ListingChange) => void;
  overrule: (why: string) => void;
  withdraw: () => void;
  setMarket: (id: string, limits: MarketLimits | null) => void;
  work: Jobs;
  make: () => void;
  handIn: (url: string) => void;
  busy: boolean;
  problem: string | null;
  retry: () => void;
};

export function useListing(hand: Hand): Listings {
  const queries = useQueryClient();
  const { place, pair } = hand;
  const key = ["listing", place.art, place.template];
  const asked = [...key, pair.content_key, pair.colours, pair.artwork.sha256];
  const query = useQuery({
    queryKey: asked,
    queryFn: () => api.listing(place),
    placeholderData: (old) => old,
    refetchOnMount: "always", // prices, pictures and origins are decided elsewhere
  });
  const act = useMutation({
    mutationKey: key,
    scope: { id: key.join() }, // one after another, in the order they were made
    mutationFn: (deed: () => Promise<Listing>) => deed(),
    onSuccess: async (listing) => {
      // an answer to an earlier change does not undo what was decided since
      if (queries.isMutating({ mutationKey: key }) === 1) await keepAnswer(queries, asked, listing);
      // words of a blank and an artwork, and limits, hold for other pairs too
      queries.invalidateQueries({
        queryKey: ["listing"],
        predicate: ({ queryKey }) => queryKey.join() !== asked.join(),
      });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
    },
    onError: () => queries.invalidateQueries({ queryKey: key }),
  });
  const work = useJobs(place, LISTING_JOBS, true);
  return {
    listing: query.data ?? null,
    decide: (change) => {
      queries.setQueryData<Listing>(asked, (now) => now && ahead(now, change));
      act.mutate(() => api.decideListing(place, change));
    },
    overrule: (why) => act.mutate(() => api.overrule(place, why)),
    withdraw: () => act.mutate(() => api.withdrawOverruling(place)),
    setMarket: (id, limits) =>
      act.mutate(async () => {
        await (limits ? api.setMarket(id, limits) : api.forgetMarket(id));
        return limits ? api.decideListing(place, { market: id }) : api.listing(place);
      }),
    work,
    make: () => work.start(() => api.makePack(place)),
    handIn: (url) => act.mutate(() => api.handIn(place, url)),
    busy: act.isPending,
    problem: act.error?.message ?? work.problem ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}

/** A change as it will be answered, as far as that is plain: pictures change places at once. */
function ahead(now: Listing, change: ListingChange): Listing {
  const known = new Map(now.slots.map((slot) => [nameOf(slot), slot]));
  return {
    ...now,
    art_words: { ...now.art_words, ...change.art_words },
    blank_words: { ...now.blank_words, ...change.blank_words },
    film: change.film ?? now.film,
    slots: change.slots
      ? change.slots.map((slot) => known.get(nameOf(slot)) ?? { ...slot, title: "…", alt: "" })
      : now.slots,
  };
}

/** What tells a picture from the others of its listing. */
export const nameOf = ({ kind, scene_id, view, colours, measured, close }: Listing["slots"][number] | Offered) =>
  JSON.stringify([kind, scene_id, view ?? null, colours ?? {}, measured ?? false, close ?? false]);
type Offered = NonNullable<ListingChange["slots"]>[number];
