import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type MadeFile, type Region } from "../api/client";
import type { Hand } from "../bench/usePair";
import { Swatches } from "../ui/ColourField";
import { Downloads } from "../ui/Downloads";
import { Alert, Button, Choice, Heading } from "../ui/parts";

const SIZES: { label: string; px: [number, number] }[] = [
  { label: "Square", px: [2000, 2000] },
  { label: "4 : 3", px: [2700, 2025] },
  { label: "3 : 2", px: [3000, 2000] },
];
type Format = "jpg" | "png" | "webp";

function toggled<T>(list: T[], item: T): T[] {
  return list.includes(item) ? list.filter((other) => other !== item) : [...list, item];
}

export function ShowStation({ hand }: { hand: Hand }) {
  const queries = useQueryClient();
  const { pair } = hand;
  const scene = pair.scenes[0];
  const [views, setViews] = useState<string[]>(
    ["as turned", Object.keys(pair.scenes[0]?.views ?? {})[0] ?? "front"].slice(
      pair.scenes[0]?.turns ? 0 : 1,
      pair.scenes[0]?.turns ? 1 : 2,
    ),
  );
  const [sizes, setSizes] = useState<string[]>(["Square"]);
  const [format, setFormat] = useState<Format>("jpg");
  const [files, setFiles] = useState<MadeFile[]>([]);
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  if (!scene) return <p className="text-soft">No scene shows this blank yet.</p>;

  const named = pair.scenes.flatMap((s) => Object.keys(s.views).map((view) => ({ scene: s, view })));
  const options = [...(scene.turns ? ["as turned"] : []), ...named.map((n) => n.view)];
  const wanted = views
    .filter((view) => options.includes(view))
    .flatMap((view) => SIZES.filter((s) => sizes.includes(s.label)).map((s) => ({ view, px: s.px })));
  async function make() {
    if (!scene) return;
    const stopper = new AbortController();
    stop.current = stopper;
    setProblem(null);
    setFiles([]);
    try {
      for (const [i, { view, px }] of wanted.entries()) {
        setProgress({ done: i, of: wanted.length });
        const turned = view === "as turned";
        const shown = named.find((n) => n.view === view) ?? { scene, view: Object.keys(scene.views)[0] ?? "front" };
        const file = await api.picture(
          hand.place,
          {
            scene_id: shown.scene.id,
            view: shown.view,
            angle: turned ? Math.round(hand.angle * 10) / 10 : null,
            size: px,
            format,
          },
          stopper.signal,
        );
        setFiles((now) => [...now, file]);
      }
    } catch (error) {
      if (!stopper.signal.aborted) setProblem((error as Error).message);
    }
    setProgress(null);
    queries.invalidateQueries({ queryKey: ["pair", pair.artwork.id, pair.template.id] });
    queries.invalidateQueries({ queryKey: ["board"] });
  }

  return (
    <>
      {scene.regions
        .filter((region) => region.panel === null)
        .map((region) => (
          <PartColour key={region.id} region={region} hand={hand} />
        ))}
      <Ticks title="Views" options={options} chosen={views} onToggle={(view) => setViews(toggled(views, view))} />
      <Ticks
        title="Listing sizes"
        options={SIZES.map((s) => s.label)}
        hints={SIZES.map((s) => `${s.px[0]} × ${s.px[1]}`)}
        chosen={sizes}
        onToggle={(size) => setSizes(toggled(sizes, size))}
      />
      <Choice
        label="Picture format"
        value={format}
        onChange={setFormat}
        options={[
          { value: "jpg", label: "JPEG" },
          { value: "png", label: "PNG" },
          { value: "webp", label: "WebP" },
        ]}
      />
      {progress ? (
        <div role="status" className="grid gap-1">
          <progress className="h-2 w-full accent-accent" max={progress.of} value={progress.done} />
          <div className="flex items-center justify-between text-sm">
            Picture {progress.done + 1} of {progress.of}
            <Button onClick={() => stop.current?.abort()}>Stop</Button>
          </div>
        </div>
      ) : (
        <Button tone="main" disabled={wanted.length === 0 || hand.busy} onClick={make}>
          Make {wanted.length === 1 ? "1 picture" : `${wanted.length} pictures`}
        </Button>
      )}
      {problem && <Alert onRetry={make}>{problem}</Alert>}
      <Downloads files={files} />
    </>
  );
}

function Ticks(props: {
  title: string;
  options: string[];
  hints?: string[];
  chosen: string[];
  onToggle: (option: string) => void;
}) {
  return (
    <fieldset>
      <legend className="sr-only">{props.title}</legend>
      <Heading>{props.title}</Heading>
      <div className={`grid gap-x-3 gap-y-1 text-sm ${props.hints ? "" : "grid-cols-2"}`}>
        {props.options.map((option, i) => (
          <label key={option} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-accent"
              checked={props.chosen.includes(option)}
              onChange={() => props.onToggle(option)}
            />
            <span className="inline-block first-letter:uppercase">{option}</span>
            {props.hints && <span className="ml-auto text-xs text-soft">{props.hints[i]} px</span>}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function PartColour({ region, hand }: { region: Region; hand: Hand }) {
  const chosen = hand.colours[region.id] ?? region.default ?? Object.keys(region.colours)[0] ?? "#ffffff";
  const own = chosen.startsWith("#");
  const choose = (colour: string) => hand.choose({ colours: { ...hand.colours, [region.id]: colour } });
  return (
    <fieldset>
      <legend className="sr-only">{region.title} colour</legend>
      <Heading aside={own ? chosen : undefined}>{region.title}</Heading>
      <div className="flex flex-wrap gap-x-3 gap-y-1 text-sm">
        {Object.entries(region.colours).map(([name, hex]) => (
          <label
            key={name}
            className={`flex items-center gap-1.5 rounded-[3px] pr-1 ${name === chosen ? "font-bold" : ""}`}
          >
            <input
              type="radio"
              name={region.id}
              className="sr-only peer"
              checked={name === chosen}
              onChange={() => choose(name)}
            />
            <span
              aria-hidden="true"
              style={{ background: hex }}
              className={`size-5 border peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-accent ${
                name === chosen ? "border-[3px] border-double border-ink" : "border-soft"
              }`}
            />
            {name}
          </label>
        ))}
        <label className={`flex items-center gap-1.5 ${own ? "font-bold" : ""}`}>
          <input
            type="color"
            className="h-6 w-7 border border-rule"
            value={own ? chosen : (region.colours[chosen] ?? "#ffffff")}
            onChange={(event) => choose(event.target.value)}
          />
          Own
        </label>
        <Swatches label={region.title} colours={hand.pair.palette} value={chosen} onValue={choose} />
      </div>
    </fieldset>
  );
}
