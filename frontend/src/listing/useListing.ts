import { useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Listing, type ListingChange, type MarketLimits, type Pair, type Place } from "../api/client";
import { type Jobs, useJobs } from "../jobs/useJobs";
import { useDraft } from "../ui/useDraft";

const LISTING_JOBS = ["listing"] as const;

/** The listing of the open pair: its pictures, text and pack. */
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

export function useListing(place: Place, pair: Pair): Listings {
  const queries = useQueryClient();
  const key = ["listing", place.art, place.template];
  const stateKey = [...key, pair.content_key, pair.colours, pair.artwork.sha256];
  const query = useQuery({
    queryKey: stateKey,
    queryFn: () => api.listing(place),
    placeholderData: (old) => old,
    refetchOnMount: "always", // prices, pictures and licences change on other pages
  });
  const draft = useDraft<Listing, Listing>({
    saved: query.data ?? null,
    subject: key.join(),
    onAnswer: async (listing) => {
      await keepAnswer(queries, stateKey, listing);
      // text of a blank or an artwork, and limits, apply to other pairs too
      queries.invalidateQueries({
        queryKey: ["listing"],
        predicate: ({ queryKey }) => queryKey.join() !== stateKey.join(),
      });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
    },
  });
  const work = useJobs(place, LISTING_JOBS, true);
  return {
    listing: draft.value,
    decide: (change) =>
      draft.save(
        (now) => ahead(now, change),
        () => api.decideListing(place, change),
      ),
    overrule: (why) => draft.act(() => api.overrule(place, why)),
    withdraw: () => draft.act(() => api.withdrawOverruling(place)),
    setMarket: (id, limits) =>
      draft.act(async () => {
        await (limits ? api.setMarket(id, limits) : api.resetMarket(id));
        return limits ? api.decideListing(place, { market: id }) : api.listing(place);
      }),
    work,
    make: () => work.start(() => api.makePack(place)),
    handIn: (url) => draft.act(() => api.submitPack(place, url)),
    busy: draft.pending,
    problem: draft.error?.message ?? work.problem ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}

/** The expected answer to a change, where it is obvious: pictures change places at once. */
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

/** The key that identifies a picture in its listing. */
export const nameOf = ({ kind, scene_id, view, colours, measured, close }: Listing["slots"][number] | Offered) =>
  JSON.stringify([kind, scene_id, view ?? null, colours ?? {}, measured ?? false, close ?? false]);
type Offered = NonNullable<ListingChange["slots"]>[number];
