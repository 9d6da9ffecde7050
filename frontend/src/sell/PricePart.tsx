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
        {sell.break_even && (
          <p className="text-xs text-soft">
            Below {sell.break_even} {unit} the worst case is a loss.
          </p>
        )}
      </div>
    </>
  );
}
