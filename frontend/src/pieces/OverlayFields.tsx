import type { Overlay, Piece } from "../api/client";
import { LightFields } from "../fit/LightFields";
import { Choice } from "../ui/Choice";
import { Pick, Plain, Tick } from "../ui/fields";
import { ArtPick } from "./ArtPick";
import { nameOf } from "./kinds";
import type { PieceProps } from "./props";

/** A second artwork: choice, size and rotation. */
export function OverlayFields({ piece, arts, lay }: PieceProps<Overlay>) {
  const placement = (change: Partial<Overlay["placement"]>) => lay({ placement: { ...piece.placement, ...change } });
  return (
    <>
      <ArtPick arts={arts} label="Artwork" value={piece.art} onValue={(art) => art !== null && lay({ art })} />
      <Choice
        label="Size"
        value={piece.placement.fit === "cover" ? "cover" : "contain"}
        options={[
          { value: "contain", label: "All of it" },
          { value: "cover", label: "Covering" },
        ]}
        onChange={(fit) => placement({ fit, scale: fit === "cover" ? 1 : 0.4, shift_mm: [0, 0] })}
      />
      <Plain
        label="Scale"
        value={piece.placement.scale * 100}
        suffix="%"
        least={1}
        most={10000}
        onValue={(v) => placement({ scale: v / 100 })}
      />
      <Plain
        label="Rotation"
        value={piece.placement.rotate_deg}
        suffix="°"
        least={-360}
        most={360}
        onValue={(rotate_deg) => placement({ rotate_deg })}
      />
      <LightFields placement={piece.placement} onValue={placement} />
    </>
  );
}

const BLENDS = [
  ["normal", "Normal"],
  ["multiply", "Multiply"],
  ["screen", "Screen"],
  ["overlay", "Overlay"],
  ["darken", "Darken"],
  ["lighten", "Lighten"],
  ["color-dodge", "Colour dodge"],
  ["color-burn", "Colour burn"],
  ["hard-light", "Hard light"],
  ["soft-light", "Soft light"],
  ["difference", "Difference"],
  ["exclusion", "Exclusion"],
  ["hue", "Hue"],
  ["saturation", "Saturation"],
  ["color", "Colour"],
  ["luminosity", "Luminosity"],
] as const; // by their names in the W3C's specification

const FLIPS = [
  ["", "Not mirrored"],
  ["across", "Left and right"],
  ["down", "Top and bottom"],
  ["both", "Both ways"],
] as const;
const TWINS = [
  ["", "None"],
  ["across", "On the other side"],
  ["down", "Above and below"],
  ["both", "In all four corners"],
] as const;

type MixingProps = { piece: Piece; before: Piece | undefined; lay: (change: Partial<Piece>) => void };

/** Mirroring of a piece, and of a copy of it past the middle of the panel. */
export function MirrorFields({ piece, lay }: Omit<MixingProps, "before">) {
  return (
    <>
      <Pick label="Flip" value={piece.flip} options={FLIPS} onValue={(flip) => lay({ flip })} />
      <Pick label="Mirrored copy" value={piece.twin} options={TWINS} onValue={(twin) => lay({ twin })} />
    </>
  );
}

/** How a piece blends with what is below it. `before` is the piece that it can be clipped to. */
export function MixingFields({ piece, before, lay }: MixingProps) {
  const clips = [
    ["", "Everywhere"],
    ["artwork", "Inside the artwork"],
    ...(before || piece.clipped === "beneath"
      ? [["beneath", before ? `Inside ${nameOf(before)}` : "Inside the piece before it"] as const]
      : []),
  ] as const;
  return (
    <>
      <Plain
        label="Opacity"
        value={piece.opacity * 100}
        suffix="%"
        least={0}
        most={100}
        onValue={(v) => lay({ opacity: v / 100 })}
      />
      <Pick label="Blend" value={piece.blend} options={BLENDS} onValue={(blend) => lay({ blend })} />
      <Tick label="Behind the artwork" on={piece.behind} onValue={(behind) => lay({ behind })} />
      <Pick label="Clipping" value={piece.clipped} options={clips} onValue={(clipped) => lay({ clipped })} />
    </>
  );
}
