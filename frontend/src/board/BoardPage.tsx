import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useDropzone } from "react-dropzone";
import { Link } from "react-router";
import { type Art, api } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Masthead } from "../ui/Masthead";
import { Alert } from "../ui/parts";
import { BatchStrip } from "./BatchStrip";
import { BoardTable } from "./BoardTable";
import { PickBar } from "./PickBar";
import { SearchField } from "./SearchField";
import { StateFilter } from "./StateFilter";
import { useBatches } from "./useBatches";
import { usePicks } from "./usePicks";
import { useStates } from "./useStates";

type Arrival = { name: string; problem?: string };
const KINDS = ".png,.jpg,.jpeg,.tif,.tiff,.webp,.svg";

export function BoardPage() {
  const queries = useQueryClient();
  const board = useQuery({ queryKey: ["board"], queryFn: api.board });
  const [arrivals, setArrivals] = useState<Arrival[]>([]);
  const [arrived, setArrived] = useState<number | null>(null);
  const [removed, setRemoved] = useState<Art | null>(null);
  const states = useStates(board.data);
  const picks = usePicks(board.data, states.shows);
  const batches = useBatches();
  const [pane, setPane] = useState<HTMLElement | null>(null);

  async function take(files: File[]) {
    for (const file of files) {
      setArrivals((now) => [...now.filter((a) => a.name !== file.name), { name: file.name }]);
      try {
        const art = await api.addArt(file);
        setArrived(art.id);
        setArrivals((now) => now.filter((a) => a.name !== file.name));
      } catch (error) {
        const problem = (error as Error).message;
        setArrivals((now) => now.map((a) => (a.name === file.name ? { ...a, problem } : a)));
      }
      await queries.invalidateQueries({ queryKey: ["board"], exact: true });
    }
  }
  const { getRootProps, isDragActive } = useDropzone({ onDrop: take, noClick: true, noKeyboard: true });

  async function remove(art: Art) {
    await api.removeArt(art.id);
    setRemoved(art);
    await queries.invalidateQueries({ queryKey: ["board"], exact: true });
  }
  async function rename(art: Art, title: string) {
    await api.renameArt(art.id, title);
    await queries.invalidateQueries({ queryKey: ["board"], exact: true });
  }
  async function putBack(art: Art) {
    await api.restoreArt(art.id);
    setRemoved(null);
    await queries.invalidateQueries({ queryKey: ["board"], exact: true });
  }

  return (
    <div {...getRootProps({ className: "flex h-full flex-col" })}>
      <Masthead where="Range board">
        {removed && (
          <span className="text-sm" role="status">
            “{removed.title}” is off the board.{" "}
            <button type="button" className="font-bold underline" onClick={() => putBack(removed)}>
              Restore
            </button>
          </span>
        )}
        <SearchField blank={board.data?.templates[0]?.id} />
        <Link to="/plan" className="rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink">
          Plan
        </Link>
        <Link to="/orders" className="rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink">
          Orders
        </Link>
        <Link to="/gang" className="rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink">
          Gang sheet
        </Link>
        <Link to="/blanks" className="rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink">
          Blanks
        </Link>
        <FileButton name="Artwork files" accept={KINDS} multiple tone="main" onFiles={take}>
          Add artwork
        </FileButton>
      </Masthead>
      {board.data && board.data.artworks.length > 0 && (
        <div className="flex shrink-0 items-center gap-3 border-b border-rule bg-ground px-4 py-1.5">
          <StateFilter states={states} />
        </div>
      )}
      {/* Opaque, because browsers repaint a transparent one at each scroll step. */}
      <main ref={setPane} className="relative min-h-0 grow overflow-auto bg-ground">
        {board.isPending && <p className="p-8 text-soft">Loading the board…</p>}
        {board.error && <Alert onRetry={() => board.refetch()}>{board.error.message}</Alert>}
        {board.data && board.data.artworks.length === 0 && <Empty />}
        {board.data && states.shown !== "all" && states.filtered?.artworks.length === 0 && (
          <p className="p-4 text-soft">No pair of the board is in this state.</p>
        )}
        {board.data && (states.filtered ?? board.data).artworks.length > 0 && (
          <BoardTable
            board={states.filtered ?? board.data}
            shows={states.shows}
            picks={picks}
            pane={pane}
            arrived={arrived}
            onRemove={remove}
            onRename={rename}
          />
        )}
        <ul className="sticky left-0 m-4 grid gap-2" aria-live="polite">
          {arrivals.map((a) => (
            <li key={a.name}>
              {a.problem ? (
                <Alert>
                  <b>{a.name}</b>: {a.problem}{" "}
                  <button
                    type="button"
                    className="underline"
                    onClick={() => setArrivals((now) => now.filter((other) => other !== a))}
                  >
                    Dismiss
                  </button>
                </Alert>
              ) : (
                <p className="rounded-[3px] border border-rule bg-table p-3 text-sm text-soft">Reading {a.name}…</p>
              )}
            </li>
          ))}
        </ul>
        {isDragActive && (
          <div className="pointer-events-none fixed inset-0 z-10 grid place-items-center bg-ground/90">
            <p className="border-y-2 border-ink px-10 py-6 text-xl font-bold">Drop to add the artwork to every blank</p>
          </div>
        )}
      </main>
      <BatchStrip work={batches} />
      <PickBar picks={picks} batches={batches} arts={board.data?.artworks ?? []} />
    </div>
  );
}

function Empty() {
  return (
    <div className="m-4 grid h-[calc(100%-2rem)] min-h-80 place-items-center border border-rule bg-table">
      <div className="max-w-md text-center">
        <p className="mb-1 text-xl font-bold">Drop your first picture here</p>
        <p className="text-soft">
          PNG, JPEG, TIFF, WebP or SVG. It is laid on every blank at once, measured and shown; your file itself is never
          changed.
        </p>
      </div>
    </div>
  );
}
