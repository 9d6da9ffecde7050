import { useState } from "react";
import { api, type Backdrop, type Film, type MockupSettings, type Pair } from "../api/client";
import { Choice } from "../ui/Choice";
import { FileButton } from "../ui/FileButton";
import { Percent, Pick, Plain, Tick } from "../ui/fields";
import { Alert, Button, Heading } from "../ui/parts";
import type { Mockups } from "./useMockups";

const SIZES: { label: string; px: [number, number] }[] = [
  { label: "Square", px: [2000, 2000] },
  { label: "4 : 3", px: [2700, 2025] },
  { label: "3 : 2", px: [3000, 2000] },
];
const same = (a: readonly number[], b: readonly number[]) => a[0] === b[0] && a[1] === b[1];

/** Sizes and kinds of the files. */
export function FilesPart({
  pair,
  busy,
  shows,
  settings,
}: {
  pair: Pair;
  busy: boolean;
  shows: Mockups;
  settings: MockupSettings;
}) {
  const own = settings.sizes.find((size) => !SIZES.some((s) => same(s.px, size))) ?? null;
  const toggle = (px: [number, number]) => {
    const next = settings.sizes.some((s) => same(s, px))
      ? settings.sizes.filter((s) => !same(s, px))
      : [...settings.sizes, px];
    if (next.length > 0) shows.change({ sizes: next });
  };
  const resize = (px: [number, number]) => shows.change({ sizes: [...settings.sizes.filter((s) => s !== own), px] });
  return (
    <>
      <fieldset>
        <legend className="sr-only">Listing sizes</legend>
        <Heading aside="the picture is cropped, never stretched">Listing sizes</Heading>
        <div className="grid gap-1 text-sm">
          {SIZES.map(({ label, px }) => (
            <span key={label} className="flex items-center justify-between">
              <Tick label={label} on={settings.sizes.some((s) => same(s, px))} onValue={() => toggle(px)} />
              <span className="text-xs text-soft">
                {px[0]} × {px[1]} px
              </span>
            </span>
          ))}
          <Tick
            label="Custom size"
            on={own !== null}
            onValue={(on) => (on ? resize([1600, 1200]) : own && settings.sizes.length > 1 && toggle(own))}
          />
          {own && (
            <div className="grid grid-cols-2 gap-2">
              <Plain
                label="Width"
                value={own[0]}
                suffix="px"
                least={64}
                most={5000}
                onValue={(w) => resize([Math.round(w), own[1]])}
              />
              <Plain
                label="Height"
                value={own[1]}
                suffix="px"
                least={64}
                most={5000}
                onValue={(h) => resize([own[0], Math.round(h)])}
              />
            </div>
          )}
        </div>
      </fieldset>
      <div className="grid gap-1.5">
        <Heading>Files</Heading>
        <Choice
          label="Picture format"
          value={settings.format}
          onChange={(format) => shows.change({ format, clear: settings.clear && format !== "jpg" })}
          options={[
            { value: "jpg", label: "JPEG" },
            { value: "png", label: "PNG" },
            { value: "webp", label: "WebP" },
          ]}
        />
        <Tick
          label="Transparent background with shadow"
          hint="The product and its shadow on a transparent background, as PNG or WebP"
          on={settings.clear}
          onValue={(clear) =>
            shows.change({ clear, format: clear && settings.format === "jpg" ? "png" : settings.format })
          }
        />
        <Tick
          label="List of what they show"
          hint="A JSON file beside them: design, blank, colours, scene and view of each picture"
          on={settings.listed}
          onValue={(listed) => shows.change({ listed })}
        />
        <Tick label="Contact sheet" on={settings.sheet} onValue={(sheet) => shows.change({ sheet })} />
      </div>
      <BackdropPart shows={shows} settings={settings} />
      <FilmPart pair={pair} busy={busy} shows={shows} />
    </>
  );
}

/** The seller's own photograph behind the product. */
function BackdropPart({ shows, settings }: { shows: Mockups; settings: MockupSettings }) {
  const [problem, setProblem] = useState<string | null>(null);
  const { backdrop } = settings;
  const set = (values: Partial<Backdrop>) => backdrop && shows.change({ backdrop: { ...backdrop, ...values } });
  async function take(file: File) {
    try {
      const photo = await api.addPhoto(file);
      shows.change({
        backdrop: { across: 0.5, foot: 0.9, size: 0.6, ...backdrop, artwork_id: photo.id },
        clear: false,
      });
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
  }
  return (
    <div className="grid gap-1.5">
      <Heading aside="the product with its shadow">On a photograph of your own</Heading>
      <div className="flex gap-2">
        <FileButton name="Photograph to lay the product on" accept="image/*" onFiles={([file]) => file && take(file)}>
          {backdrop ? "Another photograph" : "Choose a photograph"}
        </FileButton>
        {backdrop && <Button onClick={() => shows.change({ backdrop: null })}>The scene itself</Button>}
      </div>
      {problem && <Alert>{problem}</Alert>}
      {backdrop && (
        <>
          <Percent label="How tall" share={backdrop.size} least={5} most={150} onShare={(size) => set({ size })} />
          <Percent label="From the left" share={backdrop.across} most={100} onShare={(across) => set({ across })} />
          <Percent label="Base at" share={backdrop.foot} most={120} onShare={(foot) => set({ foot })} />
        </>
      )}
    </div>
  );
}

const FILM: Film = { scene_id: "", seconds: 6, size: [1080, 1080], format: "mp4" };

/** A film of a rotating blank. */
function FilmPart({ pair, busy, shows }: { pair: Pair; busy: boolean; shows: Mockups }) {
  const turning = pair.scenes.filter((scene) => scene.turns);
  const [film, setFilm] = useState<Film>(FILM);
  const first = turning[0];
  if (!first) return null;
  const scene = turning.find((s) => s.id === film.scene_id) ?? first;
  return (
    <div className="grid gap-1.5">
      <Heading aside="loops without a jump">Turntable film</Heading>
      {turning.length > 1 && (
        <Pick
          label="Scene"
          value={scene.id}
          options={turning.map((s) => [s.id, s.title] as const)}
          onValue={(scene_id) => setFilm({ ...film, scene_id })}
        />
      )}
      <Choice
        label="Film format"
        value={film.format}
        onChange={(format) => setFilm({ ...film, format })}
        options={[
          { value: "mp4", label: "MP4" },
          { value: "webp", label: "WebP" },
          { value: "gif", label: "GIF" },
        ]}
      />
      <Plain
        label="One turn"
        value={film.seconds}
        suffix="s"
        least={4}
        most={15}
        onValue={(seconds) => setFilm({ ...film, seconds })}
      />
      <Button waits={busy} disabled={shows.work.busy} onClick={() => shows.film({ ...film, scene_id: scene.id })}>
        Make the film
      </Button>
    </div>
  );
}
