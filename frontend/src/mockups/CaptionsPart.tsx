import { useQuery } from "@tanstack/react-query";
import { Plus, Trash2 } from "lucide-react";
import { api, type Caption, type MockupSettings, type Pair } from "../api/client";
import { ColourField } from "../ui/ColourField";
import { Percent, Pick, Tick } from "../ui/fields";
import { Button, Heading, IconButton } from "../ui/parts";

const PLACES = [
  ["top-left", "Top left"],
  ["top", "Top"],
  ["top-right", "Top right"],
  ["left", "Left"],
  ["right", "Right"],
  ["bottom-left", "Bottom left"],
  ["bottom", "Bottom"],
  ["bottom-right", "Bottom right"],
] as const;
const NEW: Caption = {
  text: "",
  font: "sans-bold",
  size: 0.045,
  place: "top-left",
  colour: "#26231f",
  plate: "#fbf9f4",
  round: false,
  over: false,
};

/** Captions and badges on every picture, beside the product unless overlap is allowed. */
export function CaptionsPart(props: {
  pair: Pair;
  settings: MockupSettings;
  onChange: (values: Partial<MockupSettings>) => void;
}) {
  const { settings } = props;
  const captions = settings.captions as Caption[];
  const fonts = useQuery({ queryKey: ["fonts"], queryFn: api.fonts });
  const set = (i: number, values: Partial<Caption>) =>
    props.onChange({ captions: captions.map((c, k) => (k === i ? { ...c, ...values } : c)) });
  return (
    <div className="grid gap-4">
      {captions.map((caption, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: captions have no name but their place in the list
        <fieldset key={i} className="grid gap-1.5">
          <legend className="sr-only">Caption {i + 1}</legend>
          <Heading
            aside={
              <IconButton
                label={`Remove caption ${i + 1}`}
                onClick={() => props.onChange({ captions: captions.filter((_, k) => k !== i) })}
              >
                <Trash2 size={14} aria-hidden="true" />
              </IconButton>
            }
          >
            {caption.round ? "Badge" : "Caption"} {i + 1}
          </Heading>
          <textarea
            aria-label={`Words of caption ${i + 1}`}
            key={caption.text}
            defaultValue={caption.text}
            maxLength={120}
            rows={2}
            className="w-full resize-none rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
            onKeyDown={(event) => event.stopPropagation()}
            onBlur={(event) => {
              const text = event.target.value.trim();
              if (text && text !== caption.text) set(i, { text });
              else event.target.value = caption.text;
            }}
          />
          <Pick
            label="Font"
            value={caption.font}
            options={(fonts.data ?? []).map((font) => [font.key, font.title] as const)}
            onValue={(font) => set(i, { font })}
          />
          <Pick label="Where" value={caption.place} options={PLACES} onValue={(place) => set(i, { place })} />
          <Percent
            label="Letter height"
            share={caption.size}
            least={1}
            most={30}
            onShare={(size) => set(i, { size })}
          />
          <ColourField
            label="Text colour"
            value={caption.colour}
            offered={props.pair.palette}
            onValue={(colour) => colour && set(i, { colour })}
          />
          <ColourField
            label="Plate"
            value={caption.plate}
            none="no plate"
            offered={[]}
            onValue={(plate) => set(i, { plate })}
          />
          <Tick label="A round badge" on={caption.round} onValue={(round) => set(i, { round })} />
          <Tick
            label="May overlap the product"
            hint="Otherwise it moves to the nearest free place"
            on={caption.over}
            onValue={(over) => set(i, { over })}
          />
        </fieldset>
      ))}
      <Button onClick={() => props.onChange({ captions: [...captions, { ...NEW, text: "New words" }] })}>
        <Plus size={15} aria-hidden="true" /> Add words
      </Button>
    </div>
  );
}
