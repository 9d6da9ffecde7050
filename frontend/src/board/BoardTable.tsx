import { defaultRangeExtractor, type Range, useVirtualizer, type VirtualItem } from "@tanstack/react-virtual";
import { Fragment, useEffect, useRef } from "react";
import type { Art, Board } from "../api/client";
import { show } from "../ui/measure";
import { useUnit } from "../ui/unit";
import { BoardRow } from "./BoardRow";
import { PickBox } from "./PickBox";
import type { Picks } from "./usePicks";

type Rows = {
  board: Board;
  /** Whether the filter shows a pair. */
  shows: (art: number, template: string) => boolean;
  picks: Picks;
  onRemove: (art: Art) => void;
  onRename: (art: Art, title: string) => void;
  /** The scrolling element. */
  pane: HTMLElement | null;
  /** Id of the newest artwork; its row is scrolled into view. */
  arrived: number | null;
};

const ROW_PX = 216;
const HEAD_PX = 64;

/** Scroll position of the board, restored after a visit to a pair. */
const left: { offset: number; sizes: VirtualItem[] } = { offset: 0, sizes: [] };

/** Artworks down, blanks across. Columns have fixed widths, so that rows can come and go without shifting the layout. */
export function BoardTable(props: Rows) {
  const { board, picks } = props;
  const { unit } = useUnit();
  const arts = board.artworks.map(({ id }) => id);
  const blanks = board.templates.map(({ id }) => id);
  return (
    <table aria-rowcount={arts.length + 1} className="w-0 table-fixed border-separate border-spacing-0">
      <caption className="sr-only">Artworks down, blanks across</caption>
      <colgroup>
        <col className="w-60" />
        {blanks.map((id) => (
          <col key={id} className="w-36" />
        ))}
      </colgroup>
      <thead>
        <tr className="text-left">
          <th
            scope="col"
            className="sticky top-0 left-0 z-20 border-b border-ink bg-ground pt-3 pr-4 pb-1.5 pl-4 align-bottom text-xs font-medium text-soft"
          >
            <span className="flex items-center gap-2">
              <PickBox
                label="Select the whole board"
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
                  label={`Select every artwork on ${t.title}`}
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
      <Rows {...props} />
    </table>
  );
}

/** The rows near what is in sight, and the one being worked in; the others are room left free, so a board of any length opens
 * at once and scrolls smoothly. */
function Rows({ board, shows, picks, pane, arrived, onRemove, onRename }: Rows) {
  const focused = useRef<number | null>(null);
  const { artworks, templates } = board;
  const rows = useVirtualizer({
    count: artworks.length,
    getScrollElement: () => pane,
    estimateSize: () => ROW_PX,
    scrollPaddingStart: HEAD_PX,
    scrollPaddingEnd: HEAD_PX,
    getItemKey: (n) => artworks[n]?.id ?? n,
    overscan: 4,
    initialOffset: left.offset,
    initialMeasurementsCache: left.sizes,
    onChange: ({ scrollOffset, measurementsCache }) => {
      if (scrollOffset !== null) Object.assign(left, { offset: scrollOffset, sizes: measurementsCache });
    },
    rangeExtractor: (range: Range) => {
      const near = defaultRangeExtractor(range);
      const focusedIndex = artworks.findIndex(({ id }) => id === focused.current);
      return focusedIndex < 0 || near.includes(focusedIndex) ? near : [...near, focusedIndex].sort((a, b) => a - b);
    },
  });
  const place = artworks.findIndex(({ id }) => id === arrived);
  const brought = useRef<number | null>(null);
  useEffect(() => {
    if (place < 0 || brought.current === arrived) return;
    brought.current = arrived; // once: a change of the board does not scroll back to it
    rows.scrollToIndex(place);
  }, [arrived, place, rows]);
  const near = rows.getVirtualItems();
  const free = (px: number) =>
    px > 0 && (
      <tr>
        <td colSpan={templates.length + 1} style={{ height: px }} />
      </tr>
    );
  return (
    <tbody
      onFocus={(event) => {
        focused.current = Number((event.target as HTMLElement).closest("tr")?.dataset.id);
      }}
      onBlur={() => {
        focused.current = null;
      }}
    >
      {near.map((item, n) => {
        const art = artworks[item.index] as Art;
        return (
          <Fragment key={item.key}>
            {free(item.start - (near[n - 1]?.end ?? 0))}
            <BoardRow
              art={art}
              index={item.index}
              measured={rows.measureElement}
              hidden={templates.flatMap(({ id }) => (shows(art.id, id) ? [] : [id])).join(" ")}
              templates={templates}
              picked={templates.flatMap(({ id }) => (picks.has(art.id, id) ? [id] : [])).join(" ")}
              picking={picks.count > 0}
              onPick={picks.turn}
              onRemove={onRemove}
              onRename={onRename}
            />
          </Fragment>
        );
      })}
      {free(rows.getTotalSize() - (near.at(-1)?.end ?? 0))}
    </tbody>
  );
}
