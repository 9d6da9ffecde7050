import { useEffect, useRef, useState } from "react";
import { api } from "../api/client";
import { useSize } from "../ui/useSize";
import type { Hand } from "./usePair";

const DEGREES_PER_PX = 0.5;
const MOST_PX = 1000;
/** Sizes in steps of 16 px, so that the server lights few. */
const stepped = (px: number) => Math.round(px / 16) * 16;

/** The newest picture of what is in the hand: one request at a time, and what came meanwhile is skipped. */
function useLook(hand: Hand, size: [number, number]): { url: string | null; problem: string | null } {
  const [shown, setShown] = useState<{ url: string | null; problem: string | null }>({ url: null, problem: null });
  const wanted = useRef<string>("");
  const busy = useRef(false);
  const { pair, placing, colours, angle } = hand;
  const key = JSON.stringify([pair.artwork.id, pair.template.id, placing, colours, angle, size]);

  useEffect(() => {
    if (size[0] < 160 || size[1] < 160) return;
    wanted.current = key;
    async function run() {
      if (busy.current) return;
      busy.current = true;
      let done = "";
      while (done !== wanted.current) {
        done = wanted.current;
        const [art, template, placing, colours, angle, size] = JSON.parse(done);
        try {
          const picture = await api.look(art, template, placing, colours, angle, size);
          const url = URL.createObjectURL(picture);
          setShown((old) => {
            if (old.url) setTimeout(URL.revokeObjectURL, 1000, old.url);
            return { url, problem: null };
          });
        } catch (error) {
          setShown((old) => ({ ...old, problem: (error as Error).message }));
        }
      }
      busy.current = false;
    }
    run();
  }, [key, size[0], size[1]]);
  return shown;
}

/** The mock-up of what lies on the flat. It turns by dragging or by the left and right arrow keys. */
export function ShownPane({ hand }: { hand: Hand }) {
  const [frame, size] = useSize<HTMLDivElement>();
  const density = Math.min(window.devicePixelRatio || 1, MOST_PX / Math.max(size.width, size.height, 1));
  const wanted: [number, number] = [stepped(size.width * density), stepped(size.height * density)];
  const { url, problem } = useLook(hand, wanted);
  const start = useRef<{ x: number; angle: number } | null>(null);
  const scene = hand.pair.scenes[0];
  const turns = scene?.turns ?? false;
  const wrap = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;
  const near = Object.entries(scene?.views ?? {}).find(([, degrees]) => Math.abs(wrap(degrees - hand.angle)) < 0.5);

  return (
    <section aria-label="Shown" className="flex min-w-0 flex-col bg-table">
      <div className="flex items-baseline justify-between px-3 pt-2 text-sm">
        <h2 className="font-bold">Shown</h2>
        <span className="text-xs text-soft">{scene?.title}</span>
      </div>
      <div ref={frame} className="relative m-3 mb-2 min-h-0 grow overflow-hidden bg-rule">
        {url && (
          <button
            type="button"
            aria-label={`Mock-up of ${hand.pair.artwork.title}. ${turns ? "Drag or press the left and right arrow keys to turn it." : ""}`}
            className="absolute inset-0 block touch-none select-none"
            style={{ cursor: turns ? "ew-resize" : "default" }}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              start.current = { x: event.clientX, angle: hand.angle };
            }}
            onPointerMove={(event) => {
              const from = start.current;
              if (from && turns) hand.turn(wrap(from.angle - (event.clientX - from.x) * DEGREES_PER_PX), false);
            }}
            onPointerUp={() => {
              if (start.current && turns) hand.turn(hand.angle, true);
              start.current = null;
            }}
            onKeyDown={(event) => {
              const way = { ArrowLeft: -5, ArrowRight: 5 }[event.key];
              if (way && turns) {
                event.preventDefault();
                hand.turn(wrap(hand.angle + way), true);
              }
            }}
          >
            <img src={url} alt="" draggable={false} className="size-full object-cover" data-look="" />
          </button>
        )}
        {!url && !problem && <p className="grid h-full place-items-center text-soft">Lighting the scene…</p>}
        {problem && (
          <p role="alert" className="absolute inset-x-3 bottom-3 bg-paper p-2 text-sm">
            {problem}
          </p>
        )}
      </div>
      {scene && turns && (
        <div className="flex items-center gap-1 px-3 pb-2 text-sm">
          {Object.entries(scene.views).map(([name, degrees]) => (
            <button
              key={name}
              type="button"
              aria-pressed={near?.[0] === name}
              onClick={() => hand.turn(degrees, true)}
              className={`rounded-[3px] px-2 py-0.5 capitalize ${near?.[0] === name ? "bg-ink text-paper" : "hover:bg-paper"}`}
            >
              {name}
            </button>
          ))}
          <span className="ml-auto text-xs text-soft">turned {Math.round(hand.angle)}°</span>
        </div>
      )}
    </section>
  );
}
