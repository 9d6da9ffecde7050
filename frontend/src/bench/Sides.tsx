import type { Pair, Panel } from "../api/client";
import { Mark } from "../ui/parts";

/** The printed sides of the blank, each with its verdict; the selected one is edited. */
export function Sides({ pair, panel, onSide }: { pair: Pair; panel: Panel; onSide: (side: string) => void }) {
  return (
    <nav aria-label="Sides" className="grid grid-cols-2 gap-1">
      {pair.panels.map((side) => (
        <button
          key={side.id}
          type="button"
          aria-pressed={side.id === panel.id}
          onClick={() => onSide(side.id)}
          className={`flex items-center gap-1.5 border px-2 py-1 text-left text-sm ${
            side.id === panel.id ? "border-ink bg-accent-tint font-bold" : "border-rule bg-paper hover:border-ink"
          }`}
        >
          {side.verdict ? (
            <Mark status={side.verdict} size={11} />
          ) : (
            <span className="size-2 border border-soft" aria-hidden="true" />
          )}
          {side.title}
          {side.follows && <span className="ml-auto text-xs font-normal text-soft">follows</span>}
          {!side.printed && !side.follows && <span className="ml-auto text-xs font-normal text-soft">empty</span>}
        </button>
      ))}
    </nav>
  );
}
