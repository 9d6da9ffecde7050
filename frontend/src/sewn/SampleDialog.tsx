import { useMutation } from "@tanstack/react-query";
import { useDrag } from "@use-gesture/react";
import { Dialog } from "radix-ui";
import { type ChangeEvent, type KeyboardEvent, useEffect, useRef, useState } from "react";
import { api, type Panel, type Place } from "../api/client";
import { type At, Grip, Loupe, stepped, taken } from "../photo/Grips";
import { Alert, Button } from "../ui/parts";
import { useSize } from "../ui/useSize";
import type { Sewn } from "./useSewing";

const NAMES = [
  "Its upper left corner",
  "Its upper right corner",
  "A line of the design, where it meets the edge",
  "The same line, where it goes on",
];
const FIRST: At[] = [
  [0.35, 0.4],
  [0.65, 0.4],
  [0.3, 0.6],
  [0.36, 0.6],
];
type Photo = { url: string; px: [number, number] };

/** A photograph of a sample: four points on it give the panel's offset from its place. The photograph is not uploaded. */
export function SampleDialog({ place, panel, sewn, seam }: { place: Place; panel: Panel; sewn: Sewn; seam: string }) {
  const [open, setOpen] = useState(false);
  const [photo, setPhoto] = useState<Photo | null>(null);
  const [points, setPoints] = useState<At[]>(FIRST);
  useEffect(() => () => URL.revokeObjectURL(photo?.url ?? ""), [photo]);
  const shows = useMutation({
    mutationFn: () => {
      const [left, right, on, off] = points as [At, At, At, At];
      return api.measureSample(place, { seam, px: photo?.px ?? [1, 1], known: [left, right], on, off });
    },
    onSuccess: ({ right_mm, down_mm }) => {
      sewn.hold({ seam, right: right_mm, down: down_mm });
      setOpen(false);
    },
  });
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    if (!file) return;
    const url = URL.createObjectURL(file);
    const image = new Image();
    image.onload = () => setPhoto({ url, px: [image.naturalWidth, image.naturalHeight] });
    image.onerror = () => setPhoto(null);
    image.src = url;
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button>From a photograph of the sample</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content className="fixed inset-6 flex flex-col gap-3 border border-ink bg-paper p-4">
          <Dialog.Title className="text-lg font-bold">What the sample shows</Dialog.Title>
          <Dialog.Description className="text-sm text-soft">
            Taken straight from above. Put two points on the corners of the {panel.title.toLowerCase()}, one where a
            line of the design meets its edge from outside, and one where that line goes on upon it.
          </Dialog.Description>
          <input type="file" accept="image/*" aria-label="Photograph of the sample" onChange={choose} />
          {photo ? <Marked photo={photo} points={points} onPoints={setPoints} /> : <div className="grow bg-table" />}
          {shows.error && <Alert>{shows.error.message}</Alert>}
          <div className="flex gap-2">
            <Button tone="main" disabled={!photo || shows.isPending} onClick={() => shows.mutate()}>
              Use these points
            </Button>
            <Dialog.Close asChild>
              <Button>Cancel</Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Marked({ photo, points, onPoints }: { photo: Photo; points: At[]; onPoints: (points: At[]) => void }) {
  const [frame, size] = useSize<HTMLDivElement>();
  const surface = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const [focused, setFocused] = useState<number | null>(null);
  const scale = Math.min(size.width / photo.px[0], size.height / photo.px[1]) || 0.001;
  const [w, h] = [photo.px[0] * scale, photo.px[1] * scale];
  const within = (v: number) => Math.min(1, Math.max(0, v));
  const put = (index: number, at: At) =>
    onPoints(points.map((p, i) => (i === index ? [within(at[0]), within(at[1])] : p)));
  const place = ([x, y]: At): At => {
    const box = surface.current?.getBoundingClientRect();
    return [(x - (box?.left ?? 0)) / w, (y - (box?.top ?? 0)) / h];
  };
  const drag = useDrag(
    ({ xy, first, last }) => {
      if (first) setDragged(taken(points, place(xy), [w, h]));
      else if (dragged !== null) put(dragged, place(xy));
      if (last) setDragged(null);
    },
    { pointer: { keys: false } },
  );
  const keys = (index: number) => (event: KeyboardEvent) => {
    const from = points[index];
    const to = from && stepped(event, from, photo.px);
    if (!to) return;
    event.preventDefault();
    put(index, to);
  };
  const near = dragged ?? focused;
  const at = near === null ? null : (points[near] ?? null);
  return (
    <div ref={frame} className="relative grid min-h-0 grow place-items-center overflow-hidden bg-table">
      {/* biome-ignore lint/a11y/noSvgWithoutTitle: the dialog names it, and its points are buttons of their own */}
      <svg ref={surface} width={w} height={h} className="touch-none" data-sample="" {...drag()}>
        <image href={photo.url} width={w} height={h} />
        {points.map(([x, y], i) => (
          <Grip
            key={NAMES[i]}
            name={NAMES[i] ?? ""}
            x={x * w}
            y={y * h}
            onFocus={() => setFocused(i)}
            onBlur={() => setFocused(null)}
            onKeyDown={keys(i)}
          />
        ))}
      </svg>
      {at && <Loupe picture={photo.url} at={at} size={[w, h]} name={NAMES[near ?? 0] ?? ""} right={at[0] < 0.5} />}
    </div>
  );
}
