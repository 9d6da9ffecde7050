import { ArrowLeft, ArrowRight, X } from "lucide-react";
import { useState } from "react";
import { api, type Listing, type ListingSlot, type Pair, type Place, type ShownSlot } from "../api/client";
import { Tick } from "../ui/fields";
import { Button, Heading, IconButton } from "../ui/parts";
import { useNewestPicture } from "../ui/useNewest";
import { type Listings, nameOf } from "./useListing";

const KINDS: Record<ListingSlot["kind"], string> = {
  front: "the front",
  side: "another side",
  lifestyle: "in use",
  detail: "close-up",
  size: "its size",
  unprinted: "unprinted part",
  colour: "another colour",
};
const plain = ({ title: _, alt: __, ...slot }: ShownSlot): ListingSlot => slot;

/** The listing's pictures in order, moved by dragging or by arrow buttons, and offers of missing kinds. */
export function PicturesPart({
  listing,
  listings,
  place,
  pair,
}: {
  listing: Listing;
  listings: Listings;
  place: Place;
  pair: Pair;
}) {
  const { slots } = listing;
  const [dragged, setDragged] = useState<number | null>(null);
  const [over, setOver] = useState<number | null>(null);
  const most = listing.markets.find((market) => market.id === listing.market)?.pictures_most ?? 10;
  const keep = (next: ListingSlot[]) => listings.decide({ slots: next });
  const move = (from: number, to: number) => {
    const next = slots.map(plain);
    const [moved] = next.splice(from, 1);
    if (moved && to >= 0 && to <= next.length && from !== to) {
      next.splice(to, 0, moved);
      keep(next);
    }
  };
  const add = (slot: ListingSlot) => keep([...slots.map(plain), slot]);
  return (
    <>
      <Heading aside={`${slots.length} of ${most}, the first is the cover`}>Pictures</Heading>
      <ol className="grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-3" aria-label="Pictures in order">
        {slots.map((slot, i) => (
          <li
            key={nameOf(slot)}
            draggable
            aria-label={`${i + 1}: ${slot.title}`}
            onDragStart={(event) => {
              event.dataTransfer.effectAllowed = "move";
              event.dataTransfer.setData("text/plain", slot.title);
              setDragged(i);
            }}
            onDragEnd={() => {
              setDragged(null);
              setOver(null);
            }}
            onDragOver={(event) => {
              if (dragged === null) return; // files are for the board
              event.preventDefault();
              setOver(i);
            }}
            onDrop={(event) => {
              if (dragged === null) return;
              event.preventDefault();
              move(dragged, i);
            }}
            className={`grid cursor-grab content-start gap-1 border bg-paper p-1.5 ${
              over === i && dragged !== null && dragged !== i ? "border-ink" : "border-rule"
            } ${dragged === i ? "opacity-50" : ""}`}
          >
            <SlotPreview place={place} slot={slot} stamp={listing.stamp} />
            <div className="flex items-center text-xs">
              <b className="mr-1">{i + 1}</b>
              <span className="truncate text-soft">{KINDS[slot.kind]}</span>
              <span className="ml-auto flex shrink-0">
                <IconButton label={`Picture ${i + 1} earlier`} off={i === 0} onClick={() => move(i, i - 1)}>
                  <ArrowLeft size={13} aria-hidden="true" />
                </IconButton>
                <IconButton
                  label={`Picture ${i + 1} later`}
                  off={i === slots.length - 1}
                  onClick={() => move(i, i + 1)}
                >
                  <ArrowRight size={13} aria-hidden="true" />
                </IconButton>
                <IconButton
                  label={`Remove picture ${i + 1}`}
                  onClick={() => keep(slots.filter((_, j) => j !== i).map(plain))}
                >
                  <X size={13} aria-hidden="true" />
                </IconButton>
              </span>
            </div>
            <p className="truncate text-sm" title={slot.title}>
              {slot.title}
            </p>
          </li>
        ))}
      </ol>
      {listing.missing.length > 0 && (
        <div className="grid gap-1.5">
          <Heading>Missing</Heading>
          {listing.missing.map((missing) => (
            <div
              key={missing.kind}
              className="flex items-center justify-between gap-2 border border-rule bg-paper px-2 py-1 text-sm"
            >
              <span>No picture shows {missing.what}.</span>
              <Button
                aria-label={`Add ${missing.what}`}
                disabled={slots.length >= most}
                onClick={() => add(missing.offered)}
              >
                Add it
              </Button>
            </div>
          ))}
        </div>
      )}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <AnyView pair={pair} off={slots.length >= most} onAdd={add} />
        {listing.decided && (
          <Button tone="quiet" onClick={() => listings.decide({ proposed: true })}>
            As proposed
          </Button>
        )}
        {listing.can_film && (
          <Tick
            label="A turntable film"
            hint="Six seconds that loop, beside the pictures"
            on={listing.film}
            onValue={(film) => listings.decide({ film })}
          />
        )}
      </div>
    </>
  );
}

/** Any view of any scene of the blank. */
function AnyView(props: { pair: Pair; off: boolean; onAdd: (slot: ListingSlot) => void }) {
  const views = props.pair.scenes.flatMap((scene) => {
    const names = Object.keys(scene.views);
    const slot = { scene_id: scene.id, colours: {}, measured: false, close: false };
    const kind = scene.kind === "lifestyle" ? ("lifestyle" as const) : ("side" as const);
    return [
      ...names.map((view) => ({ label: `${scene.title}, ${view}`, slot: { ...slot, kind, view } })),
      {
        label: `${scene.title}, close-up`,
        slot: { ...slot, kind: "detail" as const, view: names[0] ?? null, close: true },
      },
      ...(scene.measures > 0
        ? [
            {
              label: `${scene.title}, with measures`,
              slot: { ...slot, kind: "size" as const, view: names[0] ?? null, measured: true },
            },
          ]
        : []),
    ];
  });
  return (
    <select
      aria-label="Add a picture"
      value=""
      disabled={props.off}
      className="min-h-8 max-w-64 rounded-[3px] border border-rule bg-paper px-2 text-sm disabled:text-soft"
      onChange={(event) => {
        const chosen = views[Number(event.target.value)];
        if (chosen) props.onAdd(chosen.slot);
      }}
    >
      <option value="">Add a picture…</option>
      {views.map(({ label }, i) => (
        <option key={label} value={i}>
          {label}
        </option>
      ))}
    </select>
  );
}

/** A preview of one of the listing's pictures; `stamp` changes with all that it depends on. */
function SlotPreview({ place, slot, stamp }: { place: Place; slot: ShownSlot; stamp: string }) {
  const { url } = useNewestPicture(
    { place: place, slot: plain(slot) },
    ({ place, slot }) => api.listingPreview(place, slot),
    stamp,
  );
  return (
    <img
      src={url ?? undefined}
      alt={slot.alt}
      draggable={false}
      className="aspect-square w-full bg-rule/40 object-contain"
    />
  );
}
