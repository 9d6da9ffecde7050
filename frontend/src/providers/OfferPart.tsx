import { X } from "lucide-react";
import { useId } from "react";
import { api, type Offer, type Panel, type Place, type Provider, type Providers } from "../api/client";
import { AmountField } from "../sell/AmountField";
import { fresh, Named } from "../sell/Named";
import { Length, Plain, Tick } from "../ui/fields";
import { KeptText } from "../ui/KeptText";
import { Button, Heading, IconButton } from "../ui/parts";
import type { Providing } from "./useProviders";

type Route = Required<Offer["routes"][number]>;
const NEW: Offer = { piece: "0", routes: [], least_dpi: 0, file_mm: null };
type NewValues = Partial<Offer> | ((routes: Route[]) => Route[]);

const offerOf = (state: Providers, name: string) =>
  (state.providers.find((each) => each.name === name)?.offer as Offer | null | undefined) ?? NEW;

/** One provider's prices for this blank, and its file format. */
export function OfferPart(props: {
  provider: Provider;
  state: Providers;
  providing: Providing;
  place: Place;
  panel: Panel;
}) {
  const { provider, state, providing, place, panel } = props;
  const id = useId();
  const offer = offerOf(state, provider.name);
  const routes = offer.routes as Route[];
  const set = (change: NewValues) =>
    providing.act((state) => {
      const now = offerOf(state, provider.name);
      const values = typeof change === "function" ? { routes: change(now.routes as Route[]) } : change;
      return api.keepOffer(place, provider.name, { ...now, ...values });
    });
  const route = (i: number, change: Partial<Route>) =>
    set((now) => now.map((each, j) => (i === j ? { ...each, ...change } : each)));
  const say = (origin: string, note: string) => providing.change(() => api.keepProvider(provider.name, origin, note));
  const unused = state.regions.find((region) => !routes.some((each) => each.region === region));
  const title =
    unused ??
    fresh(
      "Region",
      routes.map((each) => ({ title: each.region })),
    ); // prettier-ignore
  const [w, h] = offer.file_mm ?? panel.file_mm;
  return (
    <>
      <Heading aside="per piece, before any sale">Offer of {provider.name}</Heading>
      <div className="grid grid-cols-2 gap-x-6 gap-y-1.5">
        <AmountField
          label="Printed piece"
          value={offer.piece}
          suffix={state.currency}
          onValue={(piece) => set({ piece })}
        />
        <div className="flex items-center gap-2 text-sm">
          <label htmlFor={`${id} from`} className="w-28 shrink-0 text-soft">
            Ships from
          </label>
          <KeptText
            id={`${id} from`}
            value={provider.origin ?? ""}
            most={120}
            onValue={(origin) => say(origin, provider.note ?? "")}
          />
        </div>
        <Plain
          label="Minimum resolution"
          value={offer.least_dpi}
          suffix="dpi"
          least={0}
          most={2400}
          onValue={(least_dpi) => set({ least_dpi })}
        />
        <Tick
          label="Needs a different file size"
          on={offer.file_mm !== null}
          onValue={(on) => set({ file_mm: on ? [...panel.file_mm] : null })}
        />
        {offer.file_mm && (
          <>
            <Length label="File’s width" mm={w} panel={panel} onValue={(mm) => set({ file_mm: [mm, h] })} />
            <Length label="File’s height" mm={h} panel={panel} onValue={(mm) => set({ file_mm: [w, mm] })} />
          </>
        )}
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_repeat(4,7rem)_1.25rem] items-center gap-1 text-xs text-soft">
        <span>Region</span>
        <span className="text-right">shipping</span>
        <span className="text-right">duty and tax</span>
        <span className="text-right">duty-free up to</span>
        <span className="text-right">customs fee</span>
        <span />
        {routes.map((each, i) => (
          <RouteLine key={each.region} each={each} unit={state.currency} change={(change) => route(i, change)}>
            {() => set((now) => now.filter((_, j) => j !== i))}
          </RouteLine>
        ))}
      </div>
      <div className="flex flex-wrap gap-2">
        <Button waits={providing.busy} onClick={() => set((now) => [...now, { ...NEW_ROUTE, region: title }])}>
          Add {unused ?? "a region"}
        </Button>
        <Button
          waits={providing.busy}
          disabled={!provider.offer}
          onClick={() => providing.act(() => api.takeCosts(place, provider.name))}
        >
          Use these costs for the price
        </Button>
        <Button tone="quiet" onClick={() => providing.change(() => api.removeProvider(provider.name))}>
          Remove {provider.name}
        </Button>
      </div>
      <div className="grid gap-0.5 text-xs">
        <label htmlFor={`${id} notes`} className="text-soft">
          Notes
        </label>
        <KeptText
          id={`${id} notes`}
          rows={3}
          value={provider.note ?? ""}
          onValue={(note) => say(provider.origin ?? "", note)}
        />
      </div>
    </>
  );
}

const NEW_ROUTE = {
  shipping: "0",
  duty_percent: "0",
  free_up_to: null,
  handling: "0",
  limit_counts_shipping: false,
};

function RouteLine(props: {
  each: Route;
  unit: string;
  change: (change: Partial<Route>) => void;
  children: () => void;
}) {
  const { each, unit, change } = props;
  return (
    <>
      <Named label="Region shipped to" value={each.region} onValue={(region) => change({ region })} />
      <AmountField
        label=""
        name={`Shipping to ${each.region}`}
        value={each.shipping}
        suffix={unit}
        onValue={(shipping) => change({ shipping })}
      />
      <AmountField
        label=""
        name={`Duty to ${each.region}`}
        value={each.duty_percent}
        suffix="%"
        onValue={(duty_percent) => change({ duty_percent })}
      />
      <AmountField
        label=""
        name={`No duty to ${each.region} up to`}
        value={each.free_up_to ?? ""}
        suffix={unit}
        onValue={(free_up_to) => change({ free_up_to })}
      />
      <AmountField
        label=""
        name={`Clearing to ${each.region}`}
        value={each.handling}
        suffix={unit}
        onValue={(handling) => change({ handling })}
      />
      <IconButton label={`Remove ${each.region}`} onClick={props.children}>
        <X size={14} aria-hidden="true" />
      </IconButton>
      {each.free_up_to !== null && (
        <div className="col-span-6 mb-1 justify-self-end pr-6">
          <Tick
            label={`The duty-free limit for ${each.region} counts shipping too`}
            on={each.limit_counts_shipping ?? false}
            onValue={(limit_counts_shipping) => change({ limit_counts_shipping })}
          />
        </div>
      )}
    </>
  );
}
