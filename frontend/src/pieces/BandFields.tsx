import type { Band } from "../api/client";
import { Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { Length } from "../ui/fields";
import { ArtPick } from "./ArtPick";
import type { PieceProps } from "./props";

/** A border: sides, width, fill and inner line. */
export function BandFields({ piece, panel, arts, offered, hold, lay }: PieceProps<Band>) {
  return (
    <>
      <Choice
        label="Sides"
        value={piece.sides}
        options={[
          { value: "all", label: "All round" },
          { value: "level", label: "Above, below" },
          { value: "ends", label: "Both ends", hint: "Hides a wrap's seam" },
        ]}
        onChange={(sides) => lay({ sides })}
      />
      <Length label="Width" mm={piece.width_mm} panel={panel} onValue={(width_mm) => lay({ width_mm })} />
      <ColourField
        label="Colour"
        value={piece.colour}
        offered={offered}
        none={piece.art === null ? undefined : "none"}
        onHold={(colour) => hold({ colour })}
        onValue={(colour) => lay({ colour })}
      />
      <ArtPick arts={arts} label="Pattern" value={piece.art} none="none" onValue={(art) => lay({ art })} />
      {piece.art !== null && (
        <Length
          label="Tile width"
          mm={piece.tile_mm}
          panel={panel}
          least={0.6}
          onValue={(tile_mm) => lay({ tile_mm })}
        />
      )}
      <Length label="Inner line" mm={piece.line_mm} panel={panel} least={0} onValue={(line_mm) => lay({ line_mm })} />
      {piece.line_mm > 0 && (
        <>
          <Length
            label="Distance from trim"
            mm={piece.line_gap_mm}
            panel={panel}
            least={0}
            onValue={(line_gap_mm) => lay({ line_gap_mm })}
          />
          <ColourField
            label="Line colour"
            value={piece.line_colour}
            offered={offered}
            onHold={(line_colour) => hold({ line_colour })}
            onValue={(line_colour) => line_colour && lay({ line_colour })}
          />
        </>
      )}
    </>
  );
}
