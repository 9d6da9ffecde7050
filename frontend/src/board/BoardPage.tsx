import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { type Art, api, type Board } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Masthead } from "../ui/Masthead";
import { show } from "../ui/measure";
import { Alert } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { useDrop } from "../ui/useDrop";
import { BatchStrip } from "./BatchStrip";
import { BoardRow } from "./BoardRow";
import { PickBar } from "./PickBar";
import { PickBox } from "./PickBox";
import { SearchField } from "./SearchField";
import { useBatches } from "./useBatches";
import { type Picks, usePicks } from "./usePicks";

type Arrival = { name: string; problem?: string };
const KINDS = ".png,.jpg,.jpeg,.tif,.tiff,.webp,.svg";

export function BoardPage() {
  const queries = useQueryClient();
  const board = useQuery({ queryKey: ["board"], queryFn: api.board });
  const [arrivals, setArrivals] = useState<Arrival[]>([]);
  const [removed, setRemoved] = useState<Art | null>(null);
  const picks = usePicks(board.data);
  const batches = useBatches();

  async function take(files: File[]) {
    for (const file of files) {
      setArrivals((now) => [...now.filter((a) => a.name !== file.name), { name: file.name }]);
      try {
        await api.addArt(file);
        setArrivals((now) => now.filter((a) => a.name !== file.name));
      } catch (error) {
        const problem = (error as Error).message;
        setArrivals((now) => now.map((a) => (a.name === file.name ? { ...a, problem } : a)));
      }
      await queries.invalidateQueries({ queryKey: ["board"], exact: true });
    }
  }
  const over = useDrop(take);

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
    <div className="flex h-full flex-col">
      <Masthead where="Range board">
        {removed && (
          <span className="text-sm" role="status">
            “{removed.title}” is off the board.{" "}
            <button type="button" className="font-bold underline" onClick={() => putBack(removed)}>
              Put it back
            </button>
          </span>
        )}
        <SearchField blank={board.data?.templates[0]?.id} />
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
      <main className="relative min-h-0 grow overflow-auto">
        {board.isPending && <p className="p-8 text-soft">Laying out the board…</p>}
        {board.error && <Alert onRetry={() => board.refetch()}>{board.error.message}</Alert>}
        {board.data && <Table board={board.data} picks={picks} onRemove={remove} onRename={rename} />}
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
                    Put away
                  </button>
                </Alert>
              ) : (
                <p className="rounded-[3px] border border-rule bg-table p-3 text-sm text-soft">Reading {a.name}…</p>
              )}
            </li>
          ))}
        </ul>
        {over && (
          <div className="pointer-events-none fixed inset-0 z-10 grid place-items-center bg-ground/90">
            <p className="border-y-2 border-ink px-10 py-6 text-xl font-bold">Let go to lay it on every blank</p>
          </div>
        )}
      </main>
      <BatchStrip work={batches} />
      <PickBar picks={picks} batches={batches} />
    </div>
  );
}

type RowActions = { onRemove: (art: Art) => void; onRename: (art: Art, title: string) => void };

function Table({ board, picks, ...actions }: { board: Board; picks: Picks } & RowActions) {
  const { unit } = useUnit();
  const arts = board.artworks.map(({ id }) => id);
  const blanks = board.templates.map(({ id }) => id);
  if (board.artworks.length === 0)
    return (
      <div className="m-4 grid h-[calc(100%-2rem)] min-h-80 place-items-center border border-rule bg-table">
        <div className="max-w-md text-center">
          <p className="mb-1 text-xl font-bold">Drop your first picture here</p>
          <p className="text-soft">
            PNG, JPEG, TIFF, WebP or SVG. It is laid on every blank at once, measured and shown; your file itself is
            never changed.
          </p>
        </div>
      </div>
    );
  return (
    <table className="border-separate border-spacing-0">
      <caption className="sr-only">Artworks down, blanks across</caption>
      <thead>
        <tr className="text-left">
          <th
            scope="col"
            className="sticky top-0 left-0 z-20 border-b border-ink bg-ground pt-3 pr-4 pb-1.5 pl-4 align-bottom text-xs font-medium text-soft"
          >
            <span className="flex items-center gap-2">
              <PickBox
                label="Pick the whole board"
                state={picks.state(arts, blanks)}
                onTurn={() => picks.turn(arts, blanks)}
              />
              {board.artworks.length} artworks on {board.templates.length} blanks
            </span>
          </th>
          {board.templates.map((t) => (
            <th
              key={t.id}
              scope="col"
              className="sticky top-0 z-10 border-b border-ink bg-ground px-2 pt-3 pb-1.5 align-bottom"
            >
              <span className="flex items-start gap-1.5 text-sm leading-tight font-bold">
                <PickBox
                  label={`Pick every artwork on ${t.title}`}
                  state={picks.state(arts, [t.id])}
                  onTurn={() => picks.turn(arts, [t.id])}
                />
                {t.title}
              </span>
              <span className="block text-xs font-normal text-soft">
                {t.panels > 1
                  ? `${t.panels} sides`
                  : `${show(t.size_mm[0], unit, 1)} × ${show(t.size_mm[1], unit, 1)} ${unit}`}
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {board.artworks.map((art) => (
          <BoardRow
            key={art.id}
            art={art}
            templates={board.templates}
            picked={blanks.filter((id) => picks.has(art.id, id)).join(" ")}
            picking={picks.count > 0}
            onPick={picks.turn}
            {...actions}
          />
        ))}
      </tbody>
    </table>
  );
}
