import type { Pair, Panel, Place } from "../api/client";
import { COLUMN } from "../bench/stations";
import { ListingPart } from "../listing/ListingPart";
import { OrdersPart } from "../orders/OrdersPart";
import { ProvidersPart } from "../providers/ProvidersPart";
import { PartTabs } from "../ui/PartTabs";
import { Alert, Heading } from "../ui/parts";
import { usePart } from "../ui/usePart";
import { Waiting } from "../ui/Waiting";
import { CasesTable } from "./CasesTable";
import { CostsPart } from "./CostsPart";
import { MarginPlot } from "./MarginPlot";
import { PricePart } from "./PricePart";
import { ShopPart } from "./ShopPart";
import { useSelling } from "./useSelling";

const PARTS = [
  { value: "price", label: "Price" },
  { value: "listing", label: "Listing" },
  { value: "providers", label: "Providers and samples" },
  { value: "orders", label: "Orders" },
] as const;

/** Selling: the price, and the listing. */
export function SellStation({ place, pair, panel, busy }: { place: Place; pair: Pair; panel: Panel; busy: boolean }) {
  const [part, turn] = usePart(["price", "listing", "providers", "orders"]);
  return (
    <main className="flex min-h-0 grow flex-col">
      <PartTabs
        label="Part of selling"
        value={part}
        parts={PARTS}
        onChange={turn}
        className="w-full px-4 pt-1.5 [&>button]:grow-0 [&>button]:px-4"
        partClassName="flex min-h-0 grow flex-col"
      >
        {part === "price" && <PriceSheet place={place} pair={pair} />}
        {part === "listing" && <ListingPart place={place} pair={pair} busy={busy} />}
        {part === "providers" && <ProvidersPart place={place} pair={pair} panel={panel} />}
        {part === "orders" && <OrdersPart place={place} busy={busy} />}
      </PartTabs>
    </main>
  );
}

/** Costs of a piece, fees, and profit. */
function PriceSheet({ place, pair }: { place: Place; pair: Pair }) {
  const selling = useSelling(place);
  const { sell } = selling;
  if (!sell)
    return (
      <Waiting problem={selling.problem} onRetry={selling.retry}>
        Loading the price…
      </Waiting>
    );
  return (
    <div
      aria-busy={selling.busy}
      className="grid min-h-0 grow grid-cols-[21rem_minmax(0,1fr)_20rem] grid-rows-[minmax(0,1fr)]"
    >
      <section aria-label="Costs" className={COLUMN}>
        <CostsPart sell={sell} selling={selling} blank={pair.template.title} />
      </section>
      <section aria-label="Profit" className="flex min-h-0 flex-col gap-4 overflow-y-auto p-4">
        {(selling.problem ?? sell.problem) && <Alert>{selling.problem ?? sell.problem}</Alert>}
        {!sell.known && (
          <p className="border border-ink bg-paper p-2 text-sm">
            Enter the cost of one piece in the left column. It applies to every artwork on this blank.
          </p>
        )}
        <Heading>Profit of a sale</Heading>
        <CasesTable sell={sell} />
        <div className="border border-rule bg-paper p-2">
          <MarginPlot sell={sell} />
        </div>
      </section>
      <section
        aria-label="Price and fees"
        className="flex min-h-0 flex-col gap-4 overflow-y-auto border-l border-rule p-4"
      >
        <PricePart sell={sell} selling={selling} />
        <ShopPart sell={sell} selling={selling} />
      </section>
    </div>
  );
}
