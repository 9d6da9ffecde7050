import type { Sell } from "../api/client";

/** A sale now, at the discount, and in the worst case, line by line. */
export function CasesTable({ sell }: { sell: Sell }) {
  const { cases } = sell;
  const fees = cases[0]?.fees.map(([title]) => title) ?? [];
  const lines: { name: string; of: (one: Sell["cases"][number]) => string; minus?: boolean }[] = [
    { name: "Price after discount", of: (one) => one.item },
    { name: "Shipping paid by the buyer", of: (one) => one.shipping },
    ...(sell.shop.tax_mode === "within the price" ? [{ name: "Tax in the price", of: taxed, minus: true }] : []),
    ...fees.map((name, i) => ({ name, of: (one: Sell["cases"][number]) => one.fees[i]?.[1] ?? "0", minus: true })),
    { name: "Your cost", of: (one) => one.spent, minus: true },
  ];
  return (
    <table className="w-full text-sm">
      <caption className="sr-only">Profit of a sale</caption>
      <thead>
        <tr className="text-left align-bottom">
          <th className="font-normal text-soft">in {sell.shop.currency}</th>
          {cases.map((one) => (
            <th key={one.title} className="pl-3 text-right font-bold">
              {one.title}
              <span className="block text-xs font-normal text-soft">{circumstances(one)}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map(({ name, of, minus }) => (
          <tr key={name} className="border-t border-rule">
            <th scope="row" className="py-0.5 font-normal text-soft">
              <span className="block text-left">{name}</span>
            </th>
            {cases.map((one) => (
              <td key={one.title} className="text-right">
                {minus && Number(of(one)) !== 0 && "− "}
                {of(one)}
              </td>
            ))}
          </tr>
        ))}
        <tr className="border-t-2 border-ink font-bold">
          <th scope="row" className="py-1">
            <span className="block text-left">Profit</span>
          </th>
          {cases.map((one) => (
            <td key={one.title} className="text-right" data-case={one.title}>
              {one.left.replace("-", "− ")}
              <span className="block text-xs font-normal text-soft">
                {one.loss ? "a loss" : one.percent === null ? "" : `${one.percent} % of net`}
                {!one.loss && one.percent_paid !== one.percent && one.percent_paid !== null && (
                  <span className="block">{one.percent_paid} % of what the buyer pays</span>
                )}
              </span>
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

const taxed = (one: Sell["cases"][number]) => one.tax;

function circumstances(one: Sell["cases"][number]): string {
  const terms = [Number(one.discount) !== 0 && `${one.discount} % off`, `to ${one.region}`, one.extra];
  return terms.filter(Boolean).join(", ");
}
