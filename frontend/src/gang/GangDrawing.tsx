import type { GangState } from "../api/client";
import { show } from "../ui/measure";
import { useUnit } from "../ui/unit";
import { useSize } from "../ui/useSize";

const GAP_PX = 22;
const LABEL_PX = 26;

/** The sheets as they will be printed, each print at its place. */
export function GangDrawing({ state }: { state: GangState }) {
  const { unit } = useUnit();
  const [frame, size] = useSize<HTMLDivElement>();
  const sheets = state.sheets_mm;
  const paper = sheets.reduce((sum, [w, h]) => sum + w * h, 0);
  const widest = Math.max(1, ...sheets.map(([w]) => w));
  const highest = Math.max(1, ...sheets.map(([, h]) => h));
  const across = Math.min(sheets.length, 4) || 1;
  const down = Math.ceil(sheets.length / across) || 1;
  const k = Math.max(
    0.02,
    Math.min(
      (size.width - GAP_PX * (across + 1)) / (across * widest),
      (size.height - (GAP_PX + LABEL_PX) * down) / (Math.min(down, 2) * highest),
    ),
  );
  return (
    <section aria-label="Packed" className="flex min-w-0 flex-col bg-table">
      <p className="px-4 pt-3 text-sm">
        {sheets.length > 0 && (
          <>
            <b>
              {state.gang.length_mm === null
                ? "One piece of roll"
                : `${sheets.length} ${sheets.length === 1 ? "sheet" : "sheets"}`}
            </b>
            , {Math.round(100 * state.waste)} % of {(paper / 1e6).toFixed(2)} m² of paper is unused
          </>
        )}
      </p>
      <div ref={frame} className="flex min-h-0 grow flex-wrap content-start gap-5 overflow-y-auto p-5">
        {sheets.map(([w, h], sheet) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a sheet is known by its number
          <figure key={sheet}>
            <svg
              width={w * k}
              height={h * k}
              viewBox={`0 0 ${w} ${h}`}
              role="img"
              aria-label={`Sheet ${sheet + 1}`}
              className="border border-ink bg-paper"
            >
              {state.puts
                .filter((put) => put.sheet === sheet)
                .map((put) => (
                  <Print key={put.box.join(" ")} put={put} state={state} k={k} />
                ))}
            </svg>
            <figcaption className="text-xs text-soft">
              {show(w, unit, 2)} × {show(h, unit, 2)} {unit}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}

function Print({ put, state, k }: { put: GangState["puts"][number]; state: GangState; k: number }) {
  const item = state.items[put.item];
  const [x, y, w, h] = put.box;
  if (!item) return null;
  const [px, py, pw, ph] = item.print_box;
  const turn = put.turned ? `translate(${w} 0) rotate(90)` : "";
  const flip = item.mirrored ? `translate(${2 * px + pw} 0) scale(-1 1)` : "";
  return (
    <g transform={`translate(${x} ${y})`}>
      <image
        href={item.picture}
        x={px}
        y={py}
        width={pw}
        height={ph}
        transform={`${turn} ${flip}`}
        preserveAspectRatio="none"
      />
      <rect
        width={w}
        height={h}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1 / k}
        strokeDasharray={state.gang.cut_lines ? `${5 / k} ${3 / k}` : undefined}
      />
      <g transform={`translate(${4 / k} ${4 / k}) scale(${1 / k})`}>
        <rect width="18" height="18" fill="var(--color-ink)" />
        <text x="9" y="13" textAnchor="middle" fontSize="12" fontWeight="700" fill="var(--color-paper)">
          {put.item + 1}
        </text>
      </g>
    </g>
  );
}
