import { X } from "lucide-react";
import type { Sell } from "../api/client";
import { Button, Heading, IconButton } from "../ui/parts";
import { AmountField } from "./AmountField";
import { fresh, Named } from "./Named";
import type { Selling } from "./useSelling";

const NEW_REGION = { cost: "0", charged: "0", free: "as elsewhere", free_from: "0" } as const;

/** The costs of one piece of the blank, which apply to every artwork on it. */
export function CostsPart({ sell, selling, blank }: { sell: Sell; selling: Selling; blank: string }) {
  const { costs } = sell;
  const unit = sell.shop.currency;
  const set = (change: Partial<Sell["costs"]>) => selling.decide({ costs: { ...costs, ...change } });
  const region = (i: number, change: Partial<Sell["costs"]["regions"][number]>) =>
    set({ regions: costs.regions.map((each, j) => (i === j ? { ...each, ...change } : each)) });
  const extra = (i: number, change: Partial<Sell["costs"]["extras"][number]>) =>
    set({ extras: costs.extras.map((each, j) => (i === j ? { ...each, ...change } : each)) });
  return (
    <>
      <div className="grid gap-1.5">
        <Heading aside="one piece">{blank}</Heading>
        <AmountField label="Blank" value={costs.blank} suffix={unit} onValue={(value) => set({ blank: value })} />
        <AmountField label="Print" value={costs.print} suffix={unit} onValue={(value) => set({ print: value })} />
        <AmountField label="Packing" value={costs.packing} suffix={unit} onValue={(value) => set({ packing: value })} />
      </div>
      <div className="grid gap-1.5">
        <Heading>Shipping</Heading>
        <div className="grid grid-cols-[minmax(0,1fr)_5.5rem_5.5rem_1.25rem] items-center gap-1 text-xs text-soft">
          <span>To</span>
          <span className="text-right">cost</span>
          <span className="text-right">buyer pays</span>
          <span />
          {costs.regions.map((each, i) => (
            <Region key={each.title} each={each} only={costs.regions.length === 1} unit={unit}>
              {{
                change: (change) => region(i, change),
                remove: () => set({ regions: costs.regions.filter((_, j) => j !== i) }),
              }}
            </Region>
          ))}
        </div>
        <Button
          onClick={() => set({ regions: [...costs.regions, { ...NEW_REGION, title: fresh("Region", costs.regions) }] })}
        >
          Add a region
        </Button>
      </div>
      <div className="grid gap-1.5">
        <Heading>Colours or sizes that cost more</Heading>
        {costs.extras.map((each, i) => (
          <div key={each.title} className="grid grid-cols-[minmax(0,1fr)_6.5rem_1.25rem] items-center gap-1">
            <Named label="Colour or size" value={each.title} onValue={(title) => extra(i, { title })} />
            <AmountField
              label=""
              name={`${each.title}: extra cost`}
              value={each.more ?? "0"}
              suffix={unit}
              onValue={(more) => extra(i, { more })}
            />
            <IconButton
              label={`Remove ${each.title}`}
              onClick={() => set({ extras: costs.extras.filter((_, j) => j !== i) })}
            >
              <X size={14} aria-hidden="true" />
            </IconButton>
          </div>
        ))}
        <Button
          onClick={() => set({ extras: [...costs.extras, { title: fresh("Variant", costs.extras), more: "0" }] })}
        >
          Add a colour or size
        </Button>
      </div>
    </>
  );
}

function Region(props: {
  each: Sell["costs"]["regions"][number];
  only: boolean;
  unit: string;
  children: { change: (change: Partial<Sell["costs"]["regions"][number]>) => void; remove: () => void };
}) {
  const { each, children: act } = props;
  return (
    <>
      <Named label="Region" value={each.title} onValue={(title) => act.change({ title })} />
      <AmountField
        label=""
        name={`Shipping to ${each.title}: cost`}
        value={each.cost ?? "0"}
        suffix=""
        onValue={(cost) => act.change({ cost })}
      />
      <AmountField
        label=""
        name={`Shipping to ${each.title}: buyer pays`}
        value={each.charged ?? "0"}
        suffix=""
        onValue={(charged) => act.change({ charged })}
      />
      <IconButton label={`Remove ${each.title}`} off={props.only} onClick={act.remove}>
        <X size={14} aria-hidden="true" />
      </IconButton>
      <div className="col-span-3 mb-1 grid grid-cols-[minmax(0,1fr)_5.5rem] gap-1">
        <select
          aria-label={`Free shipping to ${each.title}`}
          className="min-w-0 rounded-[3px] border border-rule bg-paper px-1 py-0.5 text-xs text-ink"
          value={each.free ?? "as elsewhere"}
          onChange={(event) => act.change({ free: event.target.value as NonNullable<typeof each.free> })}
        >
          <option value="as elsewhere">free as the shop says</option>
          <option value="never">never free</option>
          <option value="from">free from a price of its own</option>
        </select>
        {each.free === "from" && (
          <AmountField
            label=""
            name={`Free shipping to ${each.title} from`}
            value={each.free_from ?? "0"}
            suffix=""
            onValue={(free_from) => act.change({ free_from })}
          />
        )}
      </div>
      <span />
    </>
  );
}
