import type { Piece } from "../api/client";
import { Pick, Plain, Tick } from "../ui/fields";
import { nameOf } from "./kinds";

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
