import type { Overlay } from "../api/client";
import { LightFields } from "../fit/LightFields";
import { Choice } from "../ui/Choice";
import { Plain } from "../ui/fields";
import { ArtPick } from "./ArtPick";
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
