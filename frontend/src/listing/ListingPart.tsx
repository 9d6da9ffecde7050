import type { Pair, Place } from "../api/client";
import { COLUMN } from "../bench/stations";
import { Waiting } from "../ui/Waiting";
import { PackPart } from "./PackPart";
import { PicturesPart } from "./PicturesPart";
import { TextsPart } from "./TextsPart";
import { useListing } from "./useListing";

/** The listing: text on the left, pictures in order, and the marketplace's findings. */
export function ListingPart({ place, pair, busy }: { place: Place; pair: Pair; busy: boolean }) {
  const listings = useListing(place, pair);
  const { listing } = listings;
  if (!listing)
    return (
      <Waiting problem={listings.problem} onRetry={listings.retry}>
        Loading the listing…
      </Waiting>
    );
  return (
    <div
      aria-busy={listings.busy}
      className="grid min-h-0 grow grid-cols-[20rem_minmax(0,1fr)_21rem] grid-rows-[minmax(0,1fr)]"
    >
      <section aria-label="Words" className={COLUMN}>
        <TextsPart listing={listing} listings={listings} pair={pair} />
      </section>
      <section aria-label="Pictures of the listing" className="flex min-h-0 flex-col gap-3 overflow-y-auto p-4">
        <PicturesPart listing={listing} listings={listings} place={place} pair={pair} />
      </section>
      <section
        aria-label="Listing pack"
        className="flex min-h-0 flex-col gap-4 overflow-y-auto border-l border-rule p-4"
      >
        <PackPart listing={listing} listings={listings} busy={busy} />
      </section>
    </div>
  );
}
