import { useMemo, useRef } from "react";
import { api, type MockupSettings, type Scene, type Shot } from "../api/client";
import type { Seen } from "../bench/PreviewPane";
import type { PairEditor } from "../bench/usePair";
import { useNewestPicture } from "../ui/useNewest";
import { useSeen } from "../ui/useSeen";
import { OwnScenes, OwnSceneTools } from "./OwnScenes";
import type { Mockups } from "./useMockups";

const THUMB: [number, number] = [352, 264];
const KINDS: Record<string, string> = {
  studio: "studio",
  lifestyle: "in use",
  flat: "flat",
  size: "size",
  detail: "close-up",
};
const same = (a: Shot, b: Shot) =>
  a.scene_id === b.scene_id &&
  a.view === b.view &&
  a.angle === b.angle &&
  Boolean(a.measured) === Boolean(b.measured) &&
  Boolean(a.close) === Boolean(b.close);

/** Every scene of the blank, rendered with the design; tick a view to make its picture. */
export function ScenesPane(props: {
  editor: PairEditor;
  shows: Mockups;
  seen: Seen | null;
  onSee: (seen: Seen) => void;
}) {
  const { editor, shows } = props;
  const settings = shows.settings;
  const all = editor.pair.scenes.flatMap((scene) =>
    Object.keys(scene.views).map(
      (view) => ({ scene_id: scene.id, view, angle: null, colours: {}, measured: false, close: false }) as Shot,
    ),
  );
  const every = all.every((shot) => settings?.shots.some((s) => same(s, shot)));
  return (
    <section aria-label="Scenes" className="flex min-h-0 flex-col border-r border-rule">
      <div className="flex items-baseline justify-between px-3 pt-2 text-sm">
        <h2 className="font-bold">Scenes</h2>
        {settings && (
          <button
            type="button"
            className="text-xs text-soft underline hover:text-ink"
            onClick={() => shows.change({ shots: every ? [] : all })}
          >
            {every ? "Deselect all views" : "Select every view"}
          </button>
        )}
      </div>
      <div className="grid min-h-0 grow auto-rows-min grid-cols-[repeat(auto-fill,minmax(13.5rem,1fr))] gap-3 overflow-y-auto p-3">
        {editor.pair.scenes.map((scene) => (
          <SceneCard
            key={scene.id}
            scene={scene}
            editor={editor}
            settings={settings}
            mockupSettings={shows.mockupSettings}
            seen={props.seen?.scene === scene.id}
            onSee={(view, measured) => props.onSee({ scene: scene.id, view, measured })}
            onShots={(shots) => shows.change({ shots })}
          />
        ))}
        <OwnScenes place={editor.place} />
      </div>
    </section>
  );
}

function SceneCard(props: {
  scene: Scene;
  editor: PairEditor;
  settings: MockupSettings | null;
  mockupSettings: MockupSettings | null;
  seen: boolean;
  onSee: (view: string, measured?: boolean) => void;
  onShots: (shots: Shot[]) => void;
}) {
  const { scene, editor, settings, mockupSettings, seen } = props;
  const frame = useRef<HTMLDivElement>(null);
  const near = useSeen(frame, false, "200px");
  const views = Object.keys(scene.views);
  const first = views[0] ?? "front";
  const colours = useMemo(
    () => Object.fromEntries(Object.entries(editor.colours).filter(([id]) => scene.regions.some((r) => r.id === id))),
    [editor.colours, scene],
  );
  const { url } = useNewestPicture(
    near && !editor.busy
      ? {
          place: editor.place,
          now: editor.now,
          scene: scene.id,
          colours,
          angle: scene.turns ? (scene.views[first] ?? 0) : 0,
          size: THUMB,
          view: first,
          settings: mockupSettings && { ...mockupSettings, captions: [] },
          measured: false,
        }
      : null,
    (request) => api.mockupPreview(request),
    editor.pair.artwork.sha256,
  );
  const shots = settings?.shots ?? [];
  const toggle = (shot: Shot) =>
    props.onShots(shots.some((s) => same(s, shot)) ? shots.filter((s) => !same(s, shot)) : [...shots, shot]);
  const size: Shot = { scene_id: scene.id, view: first, angle: null, colours: {}, measured: true, close: false };
  const close: Shot = { ...size, measured: false, close: true };
  const angle = Math.round(editor.angle * 10) / 10;
  const named = views.some((view) => scene.views[view] === angle);
  const turned = shots.filter((s) => s.scene_id === scene.id && s.angle !== null && s.angle !== undefined);
  return (
    <div
      ref={frame}
      className={`grid grid-cols-[minmax(0,1fr)] content-start gap-1 p-1.5 ${seen ? "bg-paper outline outline-ink" : ""}`}
    >
      <button
        type="button"
        aria-label={`See ${scene.title}`}
        aria-pressed={seen}
        className="block aspect-4/3 w-full overflow-hidden bg-rule/40"
        onClick={() => props.onSee(first)}
      >
        {url ? (
          <img src={url} alt="" className="size-full object-cover" data-scene={scene.id} />
        ) : (
          <span className="text-xs text-soft">Lighting…</span>
        )}
      </button>
      <div className="flex items-baseline justify-between gap-2 text-sm">
        <span className="truncate font-medium" title={scene.title}>
          {scene.title}
        </span>
        <span className="shrink-0 text-xs text-soft">
          {scene.photograph ? "yours" : (KINDS[scene.kind] ?? scene.kind)}
        </span>
      </div>
      <div className="flex flex-wrap gap-x-3 gap-y-0.5 text-sm">
        {views.map((view) => {
          const shot: Shot = { scene_id: scene.id, view, angle: null, colours: {}, measured: false, close: false };
          return (
            <label key={view} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-accent"
                aria-label={`${scene.title}: ${view}`}
                checked={shots.some((s) => same(s, shot))}
                onChange={() => toggle(shot)}
                onFocus={() => props.onSee(view)}
              />
              <span className="inline-block first-letter:uppercase">{view}</span>
            </label>
          );
        })}
        {scene.measures > 0 && (
          <label className="flex items-center gap-1.5" title="With its measures in inches and centimetres">
            <input
              type="checkbox"
              className="accent-accent"
              aria-label={`${scene.title}: size`}
              checked={shots.some((s) => same(s, size))}
              onChange={() => toggle(size)}
              onFocus={() => props.onSee(first, true)}
            />
            Size
          </label>
        )}
        <label className="flex items-center gap-1.5" title="The print large">
          <input
            type="checkbox"
            className="accent-accent"
            aria-label={`${scene.title}: close-up`}
            checked={shots.some((s) => same(s, close))}
            onChange={() => toggle(close)}
            onFocus={() => props.onSee(first)}
          />
          Close-up
        </label>
        {turned.map((shot) => (
          <label key={shot.angle} className="flex items-center gap-1.5">
            <input type="checkbox" className="accent-accent" checked onChange={() => toggle(shot)} />
            {shot.angle}°
          </label>
        ))}
        {scene.turns && seen && !named && !turned.some((s) => s.angle === angle) && (
          <label className="flex items-center gap-1.5 text-soft">
            <input
              type="checkbox"
              className="accent-accent"
              checked={false}
              onChange={() =>
                toggle({ scene_id: scene.id, view: null, angle, colours: {}, measured: false, close: false })
              }
            />
            as turned, {angle}°
          </label>
        )}
      </div>
      {scene.photograph && <OwnSceneTools place={editor.place} scene={scene} />}
    </div>
  );
}
