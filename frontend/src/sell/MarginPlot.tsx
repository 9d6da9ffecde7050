import type { Sell } from "../api/client";

const W = 560;
const H = 220;
const AIR = { left: 46, right: 12, top: 18, bottom: 26 };

/** Profit over the price, now and in the worst case. */
export function MarginPlot({ sell }: { sell: Sell }) {
  const points = sell.curve.map(([price, now, worst]) => [Number(price), Number(now), Number(worst)] as const);
  const last = points.at(-1);
  if (!last) return null;
  const all = points.flatMap(([, now, worst]) => [now, worst]);
  const [low, high] = [Math.min(0, ...all), Math.max(1, ...all)];
  const x = (price: number) => AIR.left + ((W - AIR.left - AIR.right) * price) / last[0];
  const y = (left: number) => H - AIR.bottom - ((H - AIR.top - AIR.bottom) * (left - low)) / (high - low);
  const line = (of: 1 | 2) =>
    points.map((point, i) => `${i ? "L" : "M"}${x(point[0]).toFixed(1)} ${y(point[of]).toFixed(1)}`).join("");
  const price = Number(sell.sale.price);
  const marks = [
    { at: price, says: `your price ${sell.sale.price}`, bold: true },
    ...(sell.safe_from !== null
      ? [{ at: Number(sell.safe_from), says: `no loss from ${sell.safe_from}`, bold: false }]
      : []),
  ];
  return (
    <svg viewBox={`0 0 ${W} ${H}`} className="w-full" role="img" aria-label="Profit by price">
      {sell.losses
        .filter(([from]) => Number(from) < last[0])
        .map(([from, to]) => (
          <rect
            key={from}
            x={x(Number(from))}
            y={AIR.top}
            width={x(Math.min(Number(to), last[0])) - x(Number(from))}
            height={H - AIR.top - AIR.bottom}
            fill="var(--color-rule)"
            opacity={0.5}
          >
            <title>{`From ${from} to ${to} the worst case is a loss`}</title>
          </rect>
        ))}
      <line x1={AIR.left} x2={W - AIR.right} y1={y(0)} y2={y(0)} stroke="var(--color-ink)" />
      {[low, high].map((value) => (
        <text key={value} x={AIR.left - 5} y={y(value) + 3} textAnchor="end" className="fill-soft text-[10px]">
          {value.toFixed(0)}
        </text>
      ))}
      <text x={AIR.left - 5} y={y(0) + 3} textAnchor="end" className="fill-ink text-[10px]">
        0
      </text>
      {marks.map(({ at, says, bold }, i) => (
        <g key={says}>
          <line
            x1={x(at)}
            x2={x(at)}
            y1={AIR.top}
            y2={H - AIR.bottom}
            stroke="var(--color-ink)"
            strokeWidth={bold ? 1 : 0.4}
          />
          <text
            x={x(at)}
            y={H - (i ? 4 : 15)}
            textAnchor={x(at) > W * 0.75 ? "end" : "middle"}
            className={`fill-ink text-[10px] ${bold ? "font-bold" : ""}`}
          >
            {says}
          </text>
        </g>
      ))}
      <path d={line(1)} fill="none" stroke="var(--color-accent)" strokeWidth={2} />
      <path
        d={line(2)}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1.4}
        strokeDasharray="1 3"
        strokeLinecap="round"
      />
      <text x={x(last[0])} y={y(last[1]) - 5} textAnchor="end" className="fill-accent text-[11px] font-bold">
        now
      </text>
      <text x={x(last[0])} y={y(last[2]) - 7} textAnchor="end" className="fill-ink text-[11px]">
        worst case
      </text>
    </svg>
  );
}
