import { X } from "lucide-react";
import type { Sell } from "../api/client";
import { Pick, Tick } from "../ui/fields";
import { Button, Heading, IconButton } from "../ui/parts";
import { AmountField } from "./AmountField";
import { fresh, Named } from "./Named";
import type { Selling } from "./useSelling";

const BASES = [
  ["item", "of the price"],
  ["item and shipping", "with shipping"],
  ["all with tax", "with tax too"],
] as const;
const TAXES = [
  ["none", "No tax"],
  ["within the price", "Within the price"],
  ["on top", "On top of it"],
] as const;

/** Fees, tax and free shipping, which apply to everything that is sold. */
export function ShopPart({ sell, selling }: { sell: Sell; selling: Selling }) {
  const { shop } = sell;
  const own = shop.market_fees?.[sell.market];
  const fees = own ?? shop.fees ?? [];
  const set = (change: Partial<Sell["shop"]>) => selling.decide({ shop: { ...shop, ...change } });
  const ofMarket = (list: typeof fees | null) => {
    const { [sell.market]: _, ...others } = shop.market_fees ?? {};
    return set({ market_fees: list ? { ...others, [sell.market]: list } : others });
  };
  const setFees = (list: typeof fees) => (own ? ofMarket(list) : set({ fees: list }));
  const fee = (i: number, change: Partial<(typeof fees)[number]>) =>
    setFees(fees.map((each, j) => (i === j ? { ...each, ...change } : each)));
  return (
    <>
      <div className="grid gap-1.5">
        <Heading aside={own ? `at ${sell.market_title}` : "of every sale"}>Fees</Heading>
        <Tick
          label={`${sell.market_title} has fees of its own`}
          hint="The marketplace that is chosen at Listing. Others keep the fees of every sale."
          on={own !== undefined}
          onValue={(on) => ofMarket(on ? fees : null)}
        />
        {fees.length === 0 && <p className="text-xs text-soft">Marketplace, payment, advertising: what others take.</p>}
        {fees.map((each, i) => (
          <div key={each.title} className="grid gap-1 border-b border-rule pb-1.5">
            <div className="flex items-center">
              <Named label="Fee" value={each.title} onValue={(title) => fee(i, { title })} />
              <IconButton
                label={`Remove the fee ${each.title}`}
                onClick={() => setFees(fees.filter((_, j) => j !== i))}
              >
                <X size={14} aria-hidden="true" />
              </IconButton>
            </div>
            <div className="grid grid-cols-[4.75rem_6rem_minmax(0,1fr)] gap-1">
              <AmountField
                label=""
                name={`${each.title} in per cent`}
                value={each.percent ?? "0"}
                suffix="%"
                onValue={(percent) => fee(i, { percent })}
              />
              <AmountField
                label=""
                name={`${each.title}, fixed amount`}
                value={each.fixed ?? "0"}
                suffix={shop.currency ?? ""}
                onValue={(fixed) => fee(i, { fixed })}
              />
              <select
                aria-label={`${each.title} is taken`}
                className="min-w-0 rounded-[3px] border border-rule bg-paper px-1 text-xs"
                value={each.of}
                onChange={(event) => fee(i, { of: event.target.value as (typeof each)["of"] })}
              >
                {BASES.map(([value, label]) => (
                  <option key={value} value={value}>
                    {label}
                  </option>
                ))}
              </select>
            </div>
          </div>
        ))}
        <Button
          onClick={() =>
            setFees([...fees, { title: fresh("Fee", fees), percent: "0", fixed: "0", of: "item and shipping" }])
          }
        >
          Add a fee
        </Button>
      </div>
      <div className="grid gap-1.5">
        <Heading>Tax and shipping</Heading>
        <Pick label="Tax" value={shop.tax_mode ?? "none"} options={TAXES} onValue={(tax_mode) => set({ tax_mode })} />
        {shop.tax_mode !== "none" && (
          <AmountField
            label="Rate"
            value={shop.tax_percent ?? "0"}
            suffix="%"
            onValue={(tax_percent) => set({ tax_percent })}
          />
        )}
        <Tick
          label="Shipping is free from a price on"
          on={shop.free_from !== null}
          onValue={(on) => set({ free_from: on ? "50" : null })}
        />
        {shop.free_from !== null && shop.free_from !== undefined && (
          <AmountField
            label="Free shipping from"
            value={shop.free_from}
            suffix={shop.currency ?? ""}
            onValue={(free_from) => set({ free_from })}
          />
        )}
        <Tick
          label="Stop listings of bought art used unchanged"
          hint="Others can sell the same art. Without this, its findings warn, and a licence that allows print on demand is enough."
          on={shop.unchanged_stops ?? false}
          onValue={(unchanged_stops) => set({ unchanged_stops })}
        />
        <label className="flex items-center gap-2 text-sm">
          <span className="w-28 shrink-0 text-soft">Currency</span>
          <input
            aria-label="Currency"
            key={shop.currency}
            defaultValue={shop.currency}
            maxLength={3}
            className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm uppercase"
            onBlur={(event) =>
              event.target.value !== shop.currency && set({ currency: event.target.value.toUpperCase() })
            }
            onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          />
        </label>
      </div>
    </>
  );
}
