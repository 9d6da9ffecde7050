import { useState } from "react";
import type { Listing } from "../api/client";
import { JobList } from "../jobs/JobList";
import { Pick } from "../ui/fields";
import { Alert, Button, Heading, Mark } from "../ui/parts";
import { MarketLimits } from "./MarketLimits";
import type { Listings } from "./useListing";

const PARTS: Record<string, string> = {
  title: "Title",
  description: "Description",
  tags: "Tags",
  search: "Search description",
  pictures: "Pictures",
  price: "Price",
};

/** The listing pack: its final text, the marketplace's findings, the pack itself, and the answers to it. */
export function PackPart({ listing, listings, busy }: { listing: Listing; listings: Listings; busy: boolean }) {
  const market = listing.markets.find((each) => each.id === listing.market);
  const { texts } = listing;
  const pack = listings.work.jobs.flatMap((job) => job.files)[0];
  return (
    <>
      <div className="grid gap-1.5">
        <Heading aside={market?.invented ? "an invented one" : undefined}>Marketplace</Heading>
        <Pick
          label="Listed at"
          value={listing.market}
          options={listing.markets.map((each) => [each.id, each.title] as const)}
          onValue={(id) => listings.decide({ market: id })}
        />
        {market && <MarketLimits key={JSON.stringify(market)} market={market} onLimits={listings.setMarket} />}
      </div>
      {listings.problem && <Alert>{listings.problem}</Alert>}
      <Licence listing={listing} listings={listings} />
      <div className="grid gap-1.5">
        <Heading>Preview of the text</Heading>
        <div className="grid gap-1.5 border border-rule bg-paper p-2 text-sm">
          <p className="font-bold" data-part="title">
            {texts.title}
          </p>
          <p className="max-h-36 overflow-y-auto whitespace-pre-line" data-part="description">
            {texts.description}
          </p>
          <p data-part="tags" className="text-soft">
            {texts.tags.join(" · ")}
          </p>
          <p data-part="search" className="border-t border-rule pt-1 text-xs text-soft">
            {texts.search}
          </p>
          <p className="text-xs">{listing.price ? `${listing.price} ${listing.currency}` : "no price yet"}</p>
        </div>
        <ul className="grid gap-1" aria-label="Marketplace check">
          {listing.findings.map((finding) => (
            <li key={finding.message} className="flex items-start gap-1.5 text-sm">
              <span className="mt-0.5">
                <Mark status={finding.status} size={12} />
              </span>
              <span>
                <b>{PARTS[finding.subject] ?? finding.subject}:</b> {finding.message}
              </span>
            </li>
          ))}
        </ul>
      </div>
      <div className="grid gap-1.5">
        <Heading>Pack</Heading>
        <Button
          tone="main"
          disabled={!listing.ready || listings.work.busy}
          waits={busy || listings.busy}
          onClick={listings.make}
        >
          Make the listing pack
        </Button>
        <JobList work={listings.work} most={1} />
        {pack && (
          <Button waits={listings.busy} disabled={!listing.ready} onClick={() => listings.handIn(pack.url)}>
            Submit the pack (simulated)
          </Button>
        )}
        <Answers listing={listing} />
      </div>
    </>
  );
}

/** Why the pair may not be listed, and the seller's override. */
function Licence({ listing, listings }: { listing: Listing; listings: Listings }) {
  const [why, setWhy] = useState("");
  if (listing.stopped.length === 0) return null;
  if (listing.overruled)
    return (
      <div className="grid gap-1 border border-rule bg-paper p-2 text-sm">
        <p>
          Listed on your word since {listing.overruled.at.slice(0, 10)}: “{listing.overruled.why}”
        </p>
        <p className="text-xs text-soft">{listing.stopped.join(" ")}</p>
        <Button onClick={listings.withdraw}>Withdraw</Button>
      </div>
    );
  return (
    <Alert>
      <p className="font-bold">It may not be listed.</p>
      <ul>
        {listing.stopped.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
      </ul>
      <form
        className="mt-2 grid gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          listings.overrule(why);
        }}
      >
        <label className="grid gap-0.5 text-xs">
          If the licence does allow it, say why. Your reason is recorded.
          <textarea
            rows={2}
            value={why}
            onChange={(event) => setWhy(event.target.value)}
            className="rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
          />
        </label>
        <Button type="submit" disabled={why.trim().length < 3}>
          List it anyway
        </Button>
      </form>
    </Alert>
  );
}

/** Answers of the simulated marketplaces, newest first. */
function Answers({ listing }: { listing: Listing }) {
  if (listing.handed.length === 0) return null;
  const title = (id: string) => listing.markets.find((each) => each.id === id)?.title ?? id;
  return (
    <ul aria-label="Answers" className="grid gap-1 text-sm">
      {listing.handed.slice(0, 4).map((answer) => (
        <li key={answer.at} className="border border-rule bg-paper p-2">
          <span className="flex items-center gap-1.5 font-medium">
            <Mark status={answer.accepted ? "pass" : "fail"} size={12} />
            {answer.accepted ? `Taken as no. ${answer.number}` : "Refused"}
            <span className="ml-auto text-xs font-normal text-soft">
              {title(answer.market)}, {answer.at.slice(0, 16).replace("T", " ")}
            </span>
          </span>
          {answer.reasons.map((reason) => (
            <span key={reason} className="block">
              {reason}
            </span>
          ))}
        </li>
      ))}
    </ul>
  );
}
