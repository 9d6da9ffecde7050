import { COLUMN } from "../bench/stations";
import type { Hand } from "../bench/usePair";
import { Alert, Heading } from "../ui/parts";
import { CasesTable } from "./CasesTable";
import { CostsPart } from "./CostsPart";
import { MarginPlot } from "./MarginPlot";
import { PricePart } from "./PricePart";
import { ShopPart } from "./ShopPart";
import { useSelling } from "./useSelling";

/** Selling: what a piece costs, what others take, and what is left of the price. */
export function SellStation({ hand }: { hand: Hand }) {
  const selling = useSelling(hand);
  const { sell } = selling;
  if (!sell)
    return (
      <main className="p-6">
        {selling.problem ? (
          <Alert onRetry={selling.retry}>{selling.problem}</Alert>
        ) : (
          <p className="text-soft">Doing the sums…</p>
        )}
      </main>
    );
  return (
    <main
      aria-busy={selling.busy}
      className="grid min-h-0 grow grid-cols-[21rem_minmax(0,1fr)_20rem] grid-rows-[minmax(0,1fr)]"
    >
      <section aria-label="What it costs" className={COLUMN}>
        <CostsPart sell={sell} selling={selling} blank={hand.pair.template.title} />
      </section>
      <section aria-label="What is left" className="flex min-h-0 flex-col gap-4 overflow-y-auto p-4">
        {(selling.problem ?? sell.problem) && <Alert>{selling.problem ?? sell.problem}</Alert>}
        {!sell.known && (
          <p className="border border-ink bg-paper p-2 text-sm">
            Say at the left what a piece costs you. It holds for every artwork on this blank.
          </p>
        )}
        <Heading>What is left of a sale</Heading>
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
    </main>
  );
}
