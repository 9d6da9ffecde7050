import { useDrag } from "@use-gesture/react";
import { api, type Backdrop, type MockupRequest, type Scene } from "../api/client";
import type { Mockups } from "../mockups/useMockups";
import type { Nudge } from "../sewn/useSewing";
import { useNewestPicture } from "../ui/useNewest";
import { useSize } from "../ui/useSize";
import type { PairEditor } from "./usePair";

const DEGREES_PER_PX = 0.5;
const MOST_PX = 1000;
/** Up to this number, the views of all scenes are offered side by side; above it, those of one scene. */
const FEW_VIEWS = 4;
const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-0.01, 0],
  ArrowRight: [0.01, 0],
  ArrowUp: [0, -0.01],
  ArrowDown: [0, 0.01],
};
/** Sizes in steps of 16 px, so that the server renders few different ones. */
const stepped = (px: number) => Math.round(px / 16) * 16;

type Angle = { scene: Scene; name: string; degrees: number };
/** The shown scene and view. */
export type Seen = { scene: string; view: string | null; measured?: boolean };

/** Every named view of every scene of the blank; a scene that shows the panel in front comes first. */
function anglesOf(editor: PairEditor): Angle[] {
  const shows = (scene: Scene) => scene.regions.some((region) => region.panel === editor.panel.id);
  const scenes = [...editor.pair.scenes].sort((a, b) => Number(shows(b)) - Number(shows(a)));
  return scenes.flatMap((scene) => Object.entries(scene.views).map(([name, degrees]) => ({ scene, name, degrees })));
}

/** The mock-up of the current design. It rotates by dragging or by the left and right arrow keys. */
export function PreviewPane(props: {
  editor: PairEditor;
  seen: Seen | null;
  onSee: (seen: Seen | null) => void;
  /** At the Mock-ups station: previews are rendered as its mock-ups will be, and the product is moved about a photograph. */
  shows?: Mockups | null;
  /** An unsaved correction of a panel: the preview shows a sample that is sewn there. */
  nudge?: Nudge | null;
}) {
  const { editor, seen, onSee, shows, nudge } = props;
  const mockupSettings = shows?.mockupSettings ?? null;
  const backdrop = shows?.settings?.backdrop ?? null;
  const [frame, size] = useSize<HTMLDivElement>();
  const every = anglesOf(editor);
  const scene = editor.pair.scenes.find((s) => s.id === seen?.scene) ?? every[0]?.scene;
  const few = every.length <= FEW_VIEWS;
  const angles = few ? every : every.filter((at) => at.scene === scene);
  // Views with the same name are distinguished by their scenes.
  const isUnique = ({ name }: Angle) => angles.filter((at) => at.name === name).length === 1;
  const view = seen?.scene === scene?.id ? seen?.view : null;
  const { place, colours, angle } = editor;
  // Upright products fill the pane; wide ones are shown whole, in a square.
  const tall = scene?.turns ? size.height : Math.min(size.height, size.width);
  const density = Math.min(window.devicePixelRatio || 1, MOST_PX / Math.max(size.width, tall, 1));
  const wanted: [number, number] = [stepped(size.width * density), stepped(tall * density)];
  const own = Object.fromEntries(Object.entries(colours).filter(([id]) => scene?.regions.some((r) => r.id === id)));
  const ready = scene && wanted[0] >= 160 && wanted[1] >= 160;
  const { url, problem } = useNewestPicture(
    ready
      ? {
          place,
          now: editor.now,
          scene: scene.id,
          colours: own,
          angle: scene.turns ? angle : 0,
          size: wanted,
          view: view && scene.views[view] !== undefined && !scene.turns ? view : null,
          settings: mockupSettings,
          measured: seen?.scene === scene.id && Boolean(seen.measured),
          nudged: nudge ? { [nudge.seam]: [nudge.right, nudge.down] } : {},
        }
      : null,
    (request: MockupRequest) => api.mockupPreview(request, "preview"),
    `${editor.pair.artwork.sha256} ${editor.pair.content_key}`,
  );
  const turns = (scene?.turns ?? false) && !backdrop;
  const within = (v: number, most: number) => Math.min(most, Math.max(0, v));
  const moveTo = (from: Backdrop, right: number, down: number, done: boolean) => {
    const next = { ...from, across: within(from.across + right, 1), foot: within(from.foot + down, 1.2) };
    shows?.[done ? "change" : "hold"]({ backdrop: next });
  };
  const wrap = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;
  const drag = useDrag(
    ({ movement: [right, down], last, memo }) => {
      const from: { angle: number; backdrop: Backdrop | null } = memo ?? { angle: editor.angle, backdrop };
      if (turns) editor.turn(wrap(from.angle - right * DEGREES_PER_PX), last);
      if (from.backdrop) moveTo(from.backdrop, right / size.width, down / tall, last);
      return from;
    },
    { pointer: { keys: false } },
  );
  const near = (at: Angle) =>
    at.scene === scene &&
    (turns ? Math.abs(wrap(at.degrees - angle)) < 0.5 : at.name === (view ?? Object.keys(scene?.views ?? {})[0]));

  return (
    <section aria-label="Preview" className="flex min-w-0 flex-col bg-table">
      <div className="flex items-baseline justify-between px-3 pt-2 text-sm">
        <h2 className="font-bold">Preview</h2>
        {editor.pair.scenes.length > 1 && !few ? (
          <select
            aria-label="Scene"
            className="max-w-64 truncate bg-transparent text-xs text-soft"
            value={scene?.id}
            onChange={(event) => onSee({ scene: event.target.value, view: null })}
          >
            {editor.pair.scenes.map((s) => (
              <option key={s.id} value={s.id}>
                {s.title}
              </option>
            ))}
          </select>
        ) : (
          <span className="text-xs text-soft">{scene?.title}</span>
        )}
      </div>
      <div ref={frame} className="relative m-3 mb-2 min-h-0 grow overflow-hidden">
        {url && (
          <button
            type="button"
            aria-label={`Mock-up of ${editor.pair.artwork.title}. ${turns ? "Drag, or press the left and right arrow keys, to rotate it." : ""}${backdrop ? "Drag it, or press the arrow keys, to move it on the photograph." : ""}`}
            className="absolute inset-x-0 block touch-none select-none"
            style={{
              cursor: turns ? "ew-resize" : backdrop ? "move" : "default",
              height: tall,
              top: (size.height - tall) / 2,
            }}
            {...drag()}
            onKeyDown={(event) => {
              const way = { ArrowLeft: -5, ArrowRight: 5 }[event.key];
              if (way && turns) {
                event.preventDefault();
                editor.turn(wrap(editor.angle + way), true);
              }
              const step = STEPS[event.key];
              if (step && backdrop) {
                event.preventDefault();
                moveTo(backdrop, step[0], step[1], true);
              }
            }}
          >
            <img src={url} alt="" draggable={false} className="size-full object-cover" data-preview="" />
          </button>
        )}
        {!url && !problem && <p className="grid h-full place-items-center text-soft">Rendering the preview…</p>}
        {problem && problem !== editor.problem && (
          <p role="alert" className="absolute inset-x-3 bottom-3 bg-paper p-2 text-sm">
            {problem}
          </p>
        )}
      </div>
      {angles.length > 1 && (
        <div className="flex flex-wrap items-center gap-1 px-3 pb-2 text-sm">
          {angles.map((at) => (
            <button
              key={`${at.scene.id} ${at.name}`}
              type="button"
              aria-pressed={near(at)}
              onClick={() => {
                onSee({ scene: at.scene.id, view: at.name });
                if (at.scene.turns) editor.turn(at.degrees, true);
              }}
              className={`rounded-[3px] px-2 py-0.5 first-letter:uppercase ${near(at) ? "bg-ink text-paper" : "hover:bg-paper"}`}
            >
              {isUnique(at) ? at.name : at.scene.title}
            </button>
          ))}
          {turns && <span className="ml-auto text-xs text-soft">turned {Math.round(angle)}°</span>}
        </div>
      )}
    </section>
  );
}
