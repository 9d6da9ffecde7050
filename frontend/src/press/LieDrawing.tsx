import type { PressStep } from "../api/client";

const INK = "var(--color-ink)";
const HEAT = "var(--color-accent)";
const PAPER = "var(--color-paper)";
const SEAM_AT: Record<string, number> = {
  "seam-down": 90,
  "seam-up": -90,
  "side-left": 180,
  "side-right": 0,
  wrapped: -90,
};

const NAMES: Record<string, string> = {
  sheet: "The printed sheet, trimmed flush at one end",
  wrapped: "The print taped round the blank",
  "seam-down": "Seen from the end: the seam lies down",
  "seam-up": "Seen from the end: the seam lies up",
  "side-left": "Seen from the end: the seam lies left",
  "side-right": "Seen from the end: the seam lies right",
  bottom: "Seen from the side: the bottom is under heat",
  top: "Seen from the side: the top is under heat",
  flat: "Seen from above: the platen over the print",
  mug: "Seen from above: the handle stays free",
  cooling: "Hot: on something that bears heat",
};

/** The position of the blank in the press. */
export function LieDrawing({ step, printMm }: { step: PressStep; printMm: [number, number] }) {
  const under = step.kind === "press" || step.kind === "again" || step.kind === "if-pale";
  return (
    <svg viewBox="-130 -95 260 202" role="img" aria-label={NAMES[step.lie] ?? step.lie} className="h-full w-full">
      {step.lie in SEAM_AT && <Round seam={SEAM_AT[step.lie] ?? 0} hot={under} />}
      {(step.lie === "bottom" || step.lie === "top") && <Side end={step.lie} />}
      {step.lie === "mug" && <Mug hot={under} />}
      {step.lie === "flat" && <Flat box={step.box} print={printMm} hot={under} />}
      {step.lie === "sheet" && <Sheet />}
      {step.lie === "cooling" && <Cooling />}
      <text y="102" textAnchor="middle" fontSize="11" fill={INK}>
        {NAMES[step.lie]}
      </text>
    </svg>
  );
}

/** A round blank seen from its end, between the heater's two shells; the gap in the paper's ring is the seam. */
function Round({ seam, hot }: { seam: number; hot: boolean }) {
  const gap = 5;
  const at = (deg: number, r: number) => {
    const a = (deg * Math.PI) / 180;
    return `${(r * Math.cos(a)).toFixed(2)} ${(r * Math.sin(a)).toFixed(2)}`;
  };
  return (
    <g fill="none" stroke={INK}>
      <circle r="46" fill={PAPER} strokeWidth="2" />
      <circle r="40" strokeWidth="1" />
      <path d={`M${at(seam + gap, 51)}A51 51 0 1 1 ${at(seam - gap, 51)}`} strokeWidth="4" />
      <path d={`M${at(seam, 56)}L${at(seam, 82)}`} strokeWidth="1" strokeDasharray="3 2" />
      <text
        x={98 * Math.cos((seam * Math.PI) / 180)}
        y={(Math.abs(seam) === 90 ? 79 : 98) * Math.sin((seam * Math.PI) / 180) + (Math.abs(seam) === 90 ? 4 : -6)}
        dx={Math.abs(seam) === 90 ? 18 : 0}
        textAnchor="middle"
        fontSize="11"
        fill={INK}
        stroke="none"
      >
        seam
      </text>
      {hot &&
        [18, 198].map((from) => (
          <path key={from} d={`M${at(from, 61)}A61 61 0 0 1 ${at(from + 144, 61)}`} stroke={HEAT} strokeWidth="9" />
        ))}
    </g>
  );
}

function Side({ end }: { end: "bottom" | "top" }) {
  const x = end === "bottom" ? 44 : -84;
  return (
    <g fill="none" stroke={INK} strokeWidth="2">
      <rect x="-90" y="-32" width="180" height="64" rx="4" fill={PAPER} />
      <path d="M-90 -32v64M-84 -32v64" />
      <rect x={x} y="-46" width="40" height="10" fill={HEAT} stroke="none" />
      <rect x={x} y="36" width="40" height="10" fill={HEAT} stroke="none" />
      <g fill={INK} stroke="none" fontSize="11" textAnchor="middle">
        <text x="-64" y="4">
          top
        </text>
        <text x="60" y="4">
          bottom
        </text>
      </g>
    </g>
  );
}

function Mug({ hot }: { hot: boolean }) {
  return (
    <g fill="none" stroke={INK} strokeWidth="2">
      <circle r="46" fill={PAPER} />
      <circle r="40" strokeWidth="1" />
      <path d="M44 -14h34q10 0 10 14t-10 14h-34" fill={PAPER} />
      <path d="M38 33A51 51 0 1 1 38 -33" strokeWidth="4" />
      {hot && <path d="M40 46A61 61 0 1 1 40 -46" stroke={HEAT} strokeWidth="9" />}
    </g>
  );
}

function Flat({ box, print, hot }: { box: PressStep["box"]; print: [number, number]; hot: boolean }) {
  const k = Math.min(200 / print[0], 140 / print[1]);
  const [w, h] = [print[0] * k, print[1] * k];
  const [x, y, bw, bh] = (box ?? [0, 0, ...print]).map((mm) => mm * k) as [number, number, number, number];
  return (
    <g transform={`translate(${-w / 2} ${-h / 2 - 8})`} stroke={INK}>
      <rect width={w} height={h} fill={PAPER} strokeWidth="2" />
      {hot && (
        <>
          <rect x={x} y={y} width={bw} height={bh} fill={HEAT} fillOpacity="0.25" stroke={HEAT} strokeWidth="3" />
          <text x={x + bw / 2} y={y + bh / 2 + 4} textAnchor="middle" fontSize="11" fill={INK} stroke="none">
            platen
          </text>
        </>
      )}
    </g>
  );
}

function Sheet() {
  return (
    <g stroke={INK} strokeWidth="2" fill={PAPER}>
      <rect x="-90" y="-60" width="180" height="120" />
      <path d="M72 -60v120" strokeWidth="1" />
      <path d="M-90 -70v140" strokeDasharray="5 3" />
      <text x="81" y="0" transform="rotate(-90 81 0)" textAnchor="middle" dy="4" fontSize="11" fill={INK} stroke="none">
        tab
      </text>
      <text x="-80" y="4" fontSize="11" fill={INK} stroke="none">
        cut flush
      </text>
    </g>
  );
}

function Cooling() {
  return (
    <g fill="none" stroke={INK} strokeWidth="2">
      <rect x="-26" y="-30" width="52" height="84" rx="4" fill={PAPER} />
      <path d="M-80 58h160M-70 66h140" strokeWidth="3" />
      {[-22, 0, 22].map((x) => (
        <path key={x} d={`M${x} -40q-8 -10 0 -20t0 -20`} stroke={HEAT} strokeWidth="3" />
      ))}
    </g>
  );
}
