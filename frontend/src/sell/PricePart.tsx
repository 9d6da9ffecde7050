import type { Sell } from "../api/client";
import { Choice } from "../ui/Choice";
import { Pick } from "../ui/fields";
import { Button, Heading } from "../ui/parts";
import { AmountField } from "./AmountField";
import type { Selling } from "./useSelling";

const ENDINGS = [
  ["", "exact"],
  ["0.99", "… .99"],
  ["0.95", "… .95"],
  ["0.50", "… .50"],
  ["0", "whole"],
  ["9.95", "…9.95"],
] as const;

const PERCENT_OF = [
  ["net", "your revenue without tax"],
  ["paid", "what the buyer pays"],
] as const;

/** The price of this pair, and the suggested price for the target profit. */
export function PricePart({ sell, selling }: { sell: Sell; selling: Selling }) {
  const { sale } = sell;
  const unit = sell.shop.currency ?? "";
  const set = (change: Partial<Sell["sale"]>) => selling.decide({ sale: { ...sale, ...change } });
  const ending = ENDINGS.find(([value]) => value === (sale.ending ?? ""))?.[0] ?? "";
  return (
    <>
      <div className="grid gap-1.5">
        <Heading>Your price</Heading>
        <AmountField label="List price" value={sale.price ?? "0"} suffix={unit} onValue={(price) => set({ price })} />
        <AmountField
          label="Planned discount"
          value={sale.discount ?? "0"}
          suffix="%"
          onValue={(discount) => set({ discount })}
        />
      </div>
      <VariantPrices sell={sell} selling={selling} />
      <div className="grid gap-1.5">
        <Heading aside="in the worst case too">Target profit</Heading>
        <Choice
          label="Unit of the profit"
          value={sale.wanted_percent ? "percent" : "amount"}
          options={[
            { value: "percent", label: "Per cent" },
            { value: "amount", label: "Amount" },
          ]}
          onChange={(how) => set({ wanted_percent: how === "percent" })}
        />
        <AmountField
          label="At least"
          value={sale.wanted ?? "30"}
          suffix={sale.wanted_percent ? "%" : unit}
          onValue={(wanted) => set({ wanted })}
        />
        {sale.wanted_percent && (
          <Pick
            label="Per cent of"
            value={sale.percent_of ?? "net"}
            options={PERCENT_OF}
            onValue={(percent_of) => set({ percent_of })}
          />
        )}
        <Pick
          label="Price ending"
          value={ending}
          options={ENDINGS}
          onValue={(value) => set({ ending: value || null })}
        />
        {sell.suggested === null ? (
          <p className="text-sm">No price leaves that profit: fees and tax take too much of it.</p>
        ) : (
          <div className="flex items-center justify-between gap-2 border border-rule bg-paper p-2 text-sm">
            <span>
              Suggested price <b>{sell.suggested}</b> {unit}
            </span>
            <Button
              waits={selling.busy}
              disabled={sell.suggested === sale.price}
              onClick={() => set({ price: sell.suggested ?? sale.price })}
            >
              Use this price
            </Button>
          </div>
        )}
        <Losses sell={sell} />
      </div>
    </>
  );
}

/** The prices of colours and sizes that cost more: the list price, or one of their own. */
function VariantPrices({ sell, selling }: { sell: Sell; selling: Selling }) {
  const { sale, variants } = sell;
  const unit = sell.shop.currency ?? "";
  if (!variants.length) return null;
  const prices = sale.prices ?? {};
  const set = (next: typeof prices) => selling.decide({ sale: { ...sale, prices: next } });
  return (
    <div className="grid gap-1.5">
      <Heading aside="profit now, and at worst">Colours and sizes</Heading>
      {variants.map((variant) => (
        <div key={variant.title} className="grid grid-cols-[minmax(0,1fr)_6.5rem] items-center gap-x-2 text-sm">
          <span className="truncate">
            {variant.title}
            {!variant.own && <span className="text-soft"> · list price</span>}
          </span>
          <AmountField
            label=""
            name={`${variant.title}: price`}
            value={variant.price}
            suffix={unit}
            onValue={(price) => set({ ...prices, [variant.title]: price })}
          />
          <span
            className={`col-span-2 flex items-baseline justify-between text-xs ${Number(variant.worst) < 0 ? "" : "text-soft"}`}
          >
            <span>
              {variant.left} {unit} profit, {variant.worst} at worst{Number(variant.worst) < 0 && ": a loss"}
            </span>
            {variant.own && (
              <button
                type="button"
                className="underline"
                onClick={() =>
                  set(Object.fromEntries(Object.entries(prices).filter(([name]) => name !== variant.title)))
                }
              >
                List price
              </button>
            )}
          </span>
        </div>
      ))}
    </div>
  );
}

/** Which prices lose: below break-even, and past a threshold of free shipping again. */
function Losses({ sell }: { sell: Sell }) {
  const unit = sell.shop.currency ?? "";
  if (sell.safe_from === null)
    return sell.break_even && <p className="text-xs text-soft">However high the price, some sale is a loss.</p>;
  const again = sell.losses.filter(([low]) => Number(low) > 0);
  return (
    <div className="grid gap-0.5 text-xs text-soft">
      <p>
        No price from{" "}
        <b className="text-ink">
          {sell.safe_from} {unit}
        </b>{" "}
        up is a loss, in any case.
      </p>
      {again.map(([low, high]) => (
        <p key={low}>
          From {low} to {high} {unit} free shipping makes the worst case a loss again.
        </p>
      ))}
      {again.length > 0 && <p>Below {sell.break_even} it is a loss without that.</p>}
    </div>
  );
}
