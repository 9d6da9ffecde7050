import type { MockupSettings, Region, Surface } from "../api/client";
import type { PairEditor } from "../bench/usePair";
import { Swatches } from "../ui/ColourField";
import { Heading } from "../ui/parts";
import type { Mockups } from "./useMockups";

/** The choice for a part: a colour, a surface, or both. */
function split(chosen: string, surfaces: Surface[]): { colour: string; surface: string } {
  const at = chosen.lastIndexOf(" ");
  const last = chosen.slice(at + 1);
  return surfaces.some((s) => s.id === last)
    ? { colour: at < 0 ? "" : chosen.slice(0, at), surface: last }
    : { colour: chosen, surface: "" };
}

/** The colour or surface of one part or background, and the colours in which every picture is made. */
export function PartChoice(props: { region: Region; editor: PairEditor; shows: Mockups; settings: MockupSettings }) {
  const { region, editor, shows, settings } = props;
  const use = region.shows === "colour" ? null : region.shows;
  const surfaces = (shows.state?.surfaces ?? []).filter((s) => s.use === use);
  const first = region.surface ?? region.default ?? Object.keys(region.colours)[0] ?? "#ffffff";
  // Backgrounds differ between scenes until one is chosen for all.
  const { around } = region;
  const current = editor.colours[region.id] ?? null;
  const chosen = split(current ?? (around ? "" : first), surfaces);
  const own = chosen.colour.startsWith("#");
  const choose = (colour: string, surface: string) => {
    const value = [colour, surface].filter(Boolean).join(" ");
    editor.choose({ colours: { ...editor.colours, [region.id]: value } });
  };
  const dye = (colour: string) => choose(colour, use === "cloth" ? chosen.surface : "");
  const variants = settings.variants[region.id] ?? [];
  const names = Object.keys(region.colours);
  return (
    <fieldset>
      <legend className="sr-only">{region.title} colour</legend>
      <Heading
        aside={
          around && current ? (
            <button
              type="button"
              className="underline"
              onClick={() => editor.choose({ colours: { ...editor.colours, [region.id]: null } })}
            >
              as in each scene
            </button>
          ) : around ? (
            "as in each scene"
          ) : own ? (
            chosen.colour
          ) : undefined
        }
      >
        {region.title}
      </Heading>
      {surfaces.length > 0 && (
        <select
          aria-label={use === "cloth" ? `${region.title}: weave` : `${region.title}: surface`}
          className="mb-1.5 w-full rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
          value={chosen.surface}
          onChange={(event) =>
            use === "cloth"
              ? choose(chosen.colour || first, event.target.value)
              : choose(event.target.value ? "" : (names[0] ?? "#cccccc"), event.target.value)
          }
        >
          <option value="">{use === "cloth" ? "Plain" : current ? "A plain colour" : "Choose a surface"}</option>
          {surfaces.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
      )}
      <div className="flex flex-wrap gap-x-2 gap-y-1 text-sm">
        {Object.entries(region.colours).map(([name, hex]) => (
          <label
            key={name}
            title={name}
            className={`flex items-center gap-1 pr-1 ${name === chosen.colour ? "font-bold" : ""}`}
          >
            <input
              type="radio"
              name={region.id}
              className="peer sr-only"
              aria-label={name}
              checked={name === chosen.colour}
              onChange={() => dye(name)}
            />
            <span
              aria-hidden="true"
              style={{ background: hex }}
              className={`size-5 border peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-accent ${
                name === chosen.colour ? "border-[3px] border-double border-ink" : "border-soft"
              }`}
            />
            {(names.length < 8 || name === chosen.colour) && name}
          </label>
        ))}
        <label className={`flex items-center gap-1.5 ${own ? "font-bold" : ""}`}>
          <input
            type="color"
            className="h-6 w-7 border border-rule"
            value={own ? chosen.colour : (region.colours[chosen.colour] ?? "#ffffff")}
            onChange={(event) => dye(event.target.value)}
          />
          Own
        </label>
        <Swatches label={region.title} colours={editor.pair.palette} value={chosen.colour} onValue={dye} />
      </div>
      {!around && names.length > 1 && (
        <details className="mt-1 text-sm" open={variants.length > 0}>
          <summary className="cursor-pointer text-soft">
            {variants.length ? `Each picture in ${variants.length} colours` : "Make mock-ups in several colours"}
          </summary>
          <div className="mt-1 flex flex-wrap gap-x-3 gap-y-0.5">
            {names.map((name) => (
              <label key={name} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-accent"
                  checked={variants.includes(name)}
                  onChange={() => {
                    const next = variants.includes(name) ? variants.filter((v) => v !== name) : [...variants, name];
                    shows.change({ variants: { ...settings.variants, [region.id]: next } });
                  }}
                />
                {name}
              </label>
            ))}
          </div>
        </details>
      )}
    </fieldset>
  );
}
