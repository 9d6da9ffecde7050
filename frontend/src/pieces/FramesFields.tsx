import { type Art, api, type Frames, type Slot } from "../api/client";
import { ColourField } from "../ui/ColourField";
import { Length, Pick, Plain } from "../ui/fields";
import { KeptText } from "../ui/KeptText";
import { ArtPick } from "./ArtPick";
import { PhotoDrop } from "./PhotoDrop";
import type { PieceProps } from "./props";

const LAYOUTS = [
  ["single", "One frame each"],
  ["instant", "Broad foot"],
  ["strip", "Strip"],
  ["grid", "Grid"],
  ["round", "Round"],
] as const;

/** Picture frames: layout, the artwork of each slot, and its focus. */
export function FramesFields({ piece, panel, arts, offered, lay }: PieceProps<Frames>) {
  const count = piece.across * piece.down;
  const slots = Array.from(
    { length: count },
    (_, i): Slot => (piece.slots[i] as Slot) ?? { art: null, focus: [0.5, 0.5], zoom: 1, field: "" },
  );
  const put = (index: number, change: Partial<Slot>) =>
    lay({ slots: slots.map((slot, i) => (i === index ? { ...slot, ...change } : slot)) });
  const layout = (next: Frames["layout"]) => {
    const row =
      next === "strip"
        ? { across: 1, down: Math.max(2, count), size_mm: [...piece.size_mm].reverse() as [number, number] }
        : {};
    lay({ layout: next, ...row });
  };
  return (
    <>
      <Pick label="Frames" value={piece.layout} options={LAYOUTS} onValue={layout} />
      <Plain
        label="Across"
        value={piece.across}
        suffix="×"
        least={1}
        most={16}
        onValue={(v) => lay({ across: Math.round(v) })}
      />
      <Plain
        label="Down"
        value={piece.down}
        suffix="×"
        least={1}
        most={16}
        onValue={(v) => lay({ down: Math.round(v) })}
      />
      <Length
        label="Total width"
        mm={piece.size_mm[0]}
        panel={panel}
        onValue={(w) => lay({ size_mm: [w, piece.size_mm[1]] })}
      />
      <Length
        label="Total height"
        mm={piece.size_mm[1]}
        panel={panel}
        onValue={(h) => lay({ size_mm: [piece.size_mm[0], h] })}
      />
      <Length label="Rim width" mm={piece.rim_mm} panel={panel} least={0} onValue={(rim_mm) => lay({ rim_mm })} />
      <Length label="Gap" mm={piece.gap_mm} panel={panel} least={0} onValue={(gap_mm) => lay({ gap_mm })} />
      <Plain
        label="Rotation"
        value={piece.rotate_deg}
        suffix="°"
        least={-360}
        most={360}
        onValue={(rotate_deg) => lay({ rotate_deg })}
      />
      <ColourField
        label="Frame colour"
        value={piece.colour}
        offered={offered}
        onValue={(colour) => colour && lay({ colour })}
      />
      <p className="mt-1 text-sm font-bold">Pictures</p>
      <p className="text-xs text-soft">Press a picture to set its focus: the part that must stay visible.</p>
      {slots.map((slot, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a slot is identified by its position
        <SlotFields key={i} number={i + 1} slot={slot} arts={arts} put={(change) => put(i, change)} />
      ))}
      <PhotoDrop
        onPhotos={(photos) => lay({ slots: filledFrom(slots, photos) })}
        onBoard={arts.length > 1 ? () => lay({ slots: filledFrom(slots, arts) }) : undefined}
      />
    </>
  );
}

/** Empty slots take unused artworks in order, then start again with the first. */
function filledFrom(slots: Slot[], arts: Art[]): Slot[] {
  const used = new Set(slots.map((slot) => slot.art));
  const left = arts.filter((art) => !used.has(art.id));
  const order = left.length ? left : arts;
  let next = 0;
  return slots.map((slot) => (slot.art === null ? { ...slot, art: order[next++ % order.length]?.id ?? null } : slot));
}

function SlotFields(props: { number: number; slot: Slot; arts: Art[]; put: (change: Partial<Slot>) => void }) {
  const { number, slot, arts, put } = props;
  const art = arts.find((each) => each.id === slot.art);
  return (
    <div className="grid grid-cols-[3.5rem_1fr] gap-2">
      {art ? (
        <button
          type="button"
          aria-label={`Focus of picture ${number}`}
          className="relative self-start"
          onClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const at = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 1000) / 1000;
            put({ focus: [at((event.clientX - box.left) / box.width), at((event.clientY - box.top) / box.height)] });
          }}
        >
          <img src={api.preview(art, 200)} alt="" className="w-full" />
          <span
            aria-hidden="true"
            className="absolute size-3 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-ink bg-paper"
            style={{ left: `${slot.focus[0] * 100}%`, top: `${slot.focus[1] * 100}%` }}
          />
        </button>
      ) : (
        <span className="grid h-10 place-items-center border border-rule text-xs text-soft">empty</span>
      )}
      <div className="grid gap-1">
        <ArtPick
          arts={arts}
          label={`${number}`}
          value={slot.art}
          none="empty"
          narrow
          onValue={(next) => put({ art: next, focus: [0.5, 0.5] })}
        />
        {art && (
          <input
            type="range"
            aria-label={`Zoom of picture ${number} is`}
            min={1}
            max={5}
            step={0.05}
            defaultValue={slot.zoom}
            onPointerUp={(event) => put({ zoom: Number(event.currentTarget.value) })}
            onKeyUp={(event) => put({ zoom: Number(event.currentTarget.value) })}
          />
        )}
        <KeptText
          name={`Name of picture ${number} in orders`}
          hint="open for orders as…"
          title="Give it a name, and orders put their own photograph here"
          value={slot.field}
          most={40}
          className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-0.5 text-xs"
          onValue={(field) => put({ field: field.replace(/[{}\s]+/g, " ").trim() })}
        />
      </div>
    </div>
  );
}
