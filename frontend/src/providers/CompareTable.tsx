import type { Provider, Providers } from "../api/client";
import { Mark } from "../ui/parts";

const days = (value: number | null) => (value === null ? "–" : `${Number(value.toFixed(1))}`);

/** One row per provider, one column per region; the cheapest and the quickest are named in words. */
export function CompareTable(props: { state: Providers; chosen: string | null; onChoose: (name: string) => void }) {
  const { state } = props;
  return (
    <div className="overflow-x-auto border border-rule bg-paper">
      <table className="w-full border-collapse text-sm">
        <thead className="text-left text-xs text-soft">
          <tr className="border-b border-rule">
            <th className="px-2 py-1 font-normal">Provider</th>
            {state.regions.map((region) => (
              <th key={region} className="px-2 py-1 text-right font-normal">
                {region}, {state.currency}
              </th>
            ))}
            <th className="px-2 py-1 text-right font-normal">Days to ship</th>
            <th className="px-2 py-1 text-right font-normal">in total</th>
            <th className="px-2 py-1 font-normal">Print file</th>
          </tr>
        </thead>
        <tbody>
          {state.providers.map((each) => (
            <tr
              key={each.name}
              data-provider={each.name}
              className={`border-b border-rule align-top last:border-b-0 ${each.name === props.chosen ? "bg-table" : ""}`}
            >
              <td className="px-2 py-1.5">
                <button
                  type="button"
                  aria-pressed={each.name === props.chosen}
                  className="font-medium underline-offset-2 hover:underline"
                  onClick={() => props.onChoose(each.name)}
                >
                  {each.name}
                </button>
                {each.origin && <span className="block text-xs text-soft">from {each.origin}</span>}
              </td>
              {state.regions.map((region) => (
                <At key={region} provider={each} region={region} />
              ))}
              <td className="px-2 py-1.5 text-right">{days(each.days.to_ship)}</td>
              <td className="px-2 py-1.5 text-right">
                {days(each.days.in_all)}
                <span className="block text-xs text-soft">
                  {each.quickest
                    ? "quickest"
                    : each.samples
                      ? `${each.samples} ${each.samples === 1 ? "sample" : "samples"}`
                      : "no sample"}
                </span>
              </td>
              <td className="max-w-56 px-2 py-1.5">
                {each.offer && (
                  <span className="flex items-start gap-1.5">
                    <span className="mt-0.5">
                      <Mark status={each.file_ok ? "pass" : "fail"} size={12} />
                    </span>
                    {each.file_ok ? "accepts this file" : each.file_says}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function At({ provider, region }: { provider: Provider; region: string }) {
  const cost = provider.landed.find((each) => each.region === region);
  if (!cost) return <td className="px-2 py-1.5 text-right text-soft">not sent</td>;
  return (
    <td className="px-2 py-1.5 text-right">
      <span className={cost.least ? "font-bold" : ""}>{cost.total}</span>
      <span className="block text-xs text-soft">
        {[cost.least && "cheapest", Number(cost.duty) > 0 ? `${cost.duty} customs` : cost.exposed && "customs possible"]
          .filter(Boolean)
          .join(", ") || " "}
      </span>
    </td>
  );
}
