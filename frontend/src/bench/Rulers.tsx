import { MM_PER_IN, type Unit } from "../ui/measure";

/** Rulers along the top and left of the trim, with zero at its corner. */
export function Rulers(props: {
  width: number;
  height: number;
  k: number;
  unit: Unit;
  offset: number;
  /** Distance of the left ruler from the trim, if something is between them. */
  aside?: number;
}) {
  const { k, unit, offset } = props;
  const aside = offset + (props.aside ?? 0);
  const whole = unit === "in" ? MM_PER_IN : 10;
  const parts = unit === "in" ? 8 : 10;
  const label = (i: number) => (unit === "in" ? i : i * 10);
  const skip = whole * k < 22 ? Math.ceil(22 / (whole * k)) : 1;

  function ticks(length: number) {
    const marks = [];
    const fine = (whole * k) / parts >= 4;
    for (let i = 0; i * whole <= length * parts * (1 / parts) + 1e-6; i += 1) {
      marks.push({ at: i * whole * k, reach: 8, text: i % skip === 0 ? String(label(i)) : "" });
      if (fine)
        for (let j = 1; j < parts && (i + j / parts) * whole <= length; j += 1)
          marks.push({ at: (i + j / parts) * whole * k, reach: j * 2 === parts ? 5.5 : 3, text: "" });
    }
    return marks;
  }

  return (
    <g stroke="var(--color-soft)" strokeWidth={0.8} pointerEvents="none">
      {ticks(props.width).map(({ at, reach, text }) => (
        <g key={at}>
          <path d={`M${at} ${-offset}v${-reach}`} />
          <text x={at + 3} y={-offset - 4} stroke="none" className="fill-soft text-[11px]">
            {text}
          </text>
        </g>
      ))}
      {ticks(props.height).map(({ at, reach, text }) => (
        <g key={at}>
          <path d={`M${-aside - 10} ${at}h${-reach}`} />
          <text x={-aside - 21} y={at + 11} textAnchor="end" stroke="none" className="fill-soft text-[11px]">
            {text}
          </text>
        </g>
      ))}
    </g>
  );
}
