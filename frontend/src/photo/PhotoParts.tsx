import { Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { Length, Percent, Pick, Plain, Tick } from "../ui/fields";
import { Button, Heading } from "../ui/parts";
import type { Tool } from "./tools";
import type { Photo } from "./usePhoto";

type MarkingProps = {
  photo: Photo;
  tool: Tool;
  onTool: (tool: Tool) => void;
  reach: number;
  onReach: (reach: number) => void;
};
const PAPER_MM: [number, number] = [215.9, 279.4];
const FILE = { dpi: 300 };

/** The position of the print. */
export function Print({ photo }: MarkingProps) {
  const { scene, marks } = photo;
  const panels = Object.entries(scene.panels);
  const other = marks.size_mm;
  return (
    <>
      <p className="text-sm">
        {scene.round
          ? "Drag the points to the upper and lower edge of the print: to their left and right ends, and to the point nearest to you. The line shows the outline of a blank with these figures."
          : "Drag the four points to the corners of the print."}{" "}
        A magnifier shows the point; arrow keys move it by a pixel.
      </p>
      {panels.length > 1 && <Pick label="Side" value={scene.panel} options={panels} onValue={photo.show} />}
      {scene.round ? (
        <Plain
          label="Angle to the camera"
          value={marks.facing_deg}
          suffix="°"
          least={-180}
          most={180}
          onValue={(facing_deg) => photo.mark({ facing_deg })}
        />
      ) : (
        <>
          <Tick
            label="The corners are those of another object"
            hint="For example a sheet of paper on the cloth: its size gives the scale, and the print is placed from its centre"
            on={other !== null}
            onValue={(on) => photo.mark({ size_mm: on ? PAPER_MM : null, offset_mm: [0, 0] })}
          />
          {other && (
            <div className="grid gap-1.5">
              <Length
                label="Its width"
                mm={other[0]}
                panel={FILE}
                least={1}
                onValue={(w) => photo.mark({ size_mm: [w, other[1]] })}
              />
              <Length
                label="Its height"
                mm={other[1]}
                panel={FILE}
                least={1}
                onValue={(h) => photo.mark({ size_mm: [other[0], h] })}
              />
              <Length
                label="Print: right"
                mm={marks.offset_mm[0]}
                panel={FILE}
                least={-5000}
                onValue={(x) => photo.mark({ offset_mm: [x, marks.offset_mm[1]] })}
              />
              <Length
                label="Print: down"
                mm={marks.offset_mm[1]}
                panel={FILE}
                least={-5000}
                onValue={(y) => photo.mark({ offset_mm: [marks.offset_mm[0], y] })}
              />
            </div>
          )}
        </>
      )}
    </>
  );
}

function BrushFields(props: MarkingProps & { list: "product" | "front" }) {
  const { photo, list } = props;
  const strokes = photo.marks[list];
  return (
    <>
      <Percent label="Brush size" share={props.reach} least={0.3} most={20} onShare={props.onReach} />
      <div className="flex gap-2">
        <Button disabled={strokes.length === 0} onClick={() => photo.mark({ [list]: strokes.slice(0, -1) })}>
          Undo the last stroke
        </Button>
        <Button disabled={strokes.length === 0} onClick={() => photo.mark({ [list]: [] })}>
          Remove all strokes
        </Button>
      </div>
    </>
  );
}

/** The product's mask: the area that is recoloured and cut out. */
export function Product(marking: MarkingProps) {
  const { photo, tool, onTool } = marking;
  return (
    <>
      <p className="text-sm">
        The darkened part is left out. Paint over mistakes. Also leave out parts that keep their own colour, such as a
        steel rim.
      </p>
      <Choice
        label="Brush"
        value={tool === "box" ? "box" : tool === "keep" ? "keep" : "leave"}
        onChange={onTool}
        options={[
          { value: "leave", label: "Leave out" },
          { value: "keep", label: "Keep" },
          { value: "box", label: "Draw the box" },
        ]}
      />
      {tool === "box" ? (
        <p className="text-sm text-soft">Draw a rough box round the whole product, with some background around it.</p>
      ) : (
        <BrushFields {...marking} list="product" />
      )}
      {photo.marks.box && <Button onClick={() => photo.mark({ box: null })}>Reset the box to the points</Button>}
    </>
  );
}

/** Objects in front of the print. */
export function InFront(marking: MarkingProps) {
  const { tool, onTool } = marking;
  return (
    <>
      <p className="text-sm">
        Paint over objects in front of the print, such as a hand, a cord or leaves. The print stays behind them, up to
        their edges near the painted spot.
      </p>
      <Choice
        label="Brush"
        value={tool === "behind" ? "behind" : "front"}
        onChange={onTool}
        options={[
          { value: "front", label: "In front" },
          { value: "behind", label: "Not in front" },
        ]}
      />
      <BrushFields {...marking} list="front" />
    </>
  );
}

/** The colour of the photographed blank. */
export function Colour({ photo }: MarkingProps) {
  const { marks } = photo;
  return (
    <>
      <ColourField
        label="The blank is"
        value={marks.colour}
        offered={[]}
        onValue={(colour) => colour && photo.mark({ colour })}
      />
      <Heading aside={marks.plain ? "marked" : "not marked"}>Ordinary light</Heading>
      <p className="text-sm">
        Press a spot where the blank shows this colour in ordinary light, without highlight or shade. All other light is
        measured against it. Without such a spot, the product's middle tone is used.
      </p>
      {marks.plain && <Button onClick={() => photo.mark({ plain: null })}>Remove the spot</Button>}
    </>
  );
}
