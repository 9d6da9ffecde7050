import { useQuery } from "@tanstack/react-query";
import { memo, useRef } from "react";
import { Link } from "react-router";
import { type Art, api, type BoardBlank, type Cell } from "../api/client";
import { Mark, WORDS } from "../ui/parts";
import { useSeen } from "../ui/useSeen";
import { PickBox } from "./PickBox";

type RowProps = {
  art: Art;
  /** Its position on the board, from 0. */
  index: number;
  /** Receives the row's element, to measure its height. */
  measured: (row: HTMLElement | null) => void;
  templates: BoardBlank[];
  /** Ids of the blanks selected with this artwork, separated by spaces: a string, so that a row renders again only when
   * they change. */
  picked: string;
  picking: boolean;
  /** Ids of the blanks that the filter leaves out for this artwork, separated by spaces. */
  hidden: string;
  onPick: (arts: number[], templates: string[]) => void;
  onRemove: (art: Art) => void;
  onRename: (art: Art, title: string) => void;
};

/** An artwork on every blank of the board. */
export const BoardRow = memo(function BoardRow(props: RowProps) {
  const { art } = props;
  const cellQuery = useQuery({
    queryKey: ["board", "row", art.id, props.templates.map(({ id }) => id).join(" ")],
    queryFn: () => api.boardRow(art.id),
    placeholderData: (old) => old,
  });
  const picked = props.picked ? props.picked.split(" ") : [];
  const blanks = props.templates.map(({ id }) => id);
  const hidden = props.hidden ? props.hidden.split(" ") : [];
  const open = blanks.filter((id) => !hidden.includes(id));
  const chosen = picked.filter((id) => open.includes(id)).length;
  return (
    <tr
      ref={props.measured}
      className="relative h-[13.5rem] align-top" // its own layer: an arriving picture repaints only its row
      data-index={props.index}
      data-id={art.id}
      data-art={art.title}
      aria-rowindex={props.index + 2}
    >
      <th
        scope="row"
        className="sticky left-0 z-[5] border-b border-rule bg-ground py-2.5 pr-4 pl-4 text-left font-normal"
      >
        <div className="w-52">
          <div className="mb-1.5 h-24 border border-rule bg-paper p-1">
            <img src={api.preview(art, 400)} alt="" loading="lazy" className="size-full min-h-0 object-contain" />
          </div>
          <div className="flex items-center gap-2">
            <PickBox
              label={`Select ${art.title} on every blank`}
              state={chosen === 0 ? "none" : chosen === open.length ? "all" : "some"}
              onTurn={() => props.onPick([art.id], blanks)}
            />
            <Title art={art} onRename={props.onRename} />
          </div>
          <p className="truncate text-xs text-soft" title={art.file_name}>
            {art.vector ? "Vector" : `${art.px[0]} × ${art.px[1]} px`}
            {art.tagged_dpi && !art.vector && `, tagged ${Math.round(art.tagged_dpi[0])} dpi`}
          </p>
          <p className="truncate text-xs text-soft" title={art.notes.join(" ")}>
            {art.mode}
            {art.has_alpha && !art.vector && ", transparent"}
            {art.notes.length > 0 && `. ${art.notes[0]}`}
          </p>
          <button type="button" className="text-xs underline" onClick={() => props.onRemove(art)}>
            Remove from the board
          </button>
        </div>
      </th>
      {props.templates.map((template) => {
        const cell = cellQuery.data?.cells.find((c) => c.template_id === template.id);
        return (
          <td key={template.id} className="border-b border-rule px-2 py-2.5">
            {cellQuery.error && template === props.templates[0] && (
              <p className="w-32 text-xs">{cellQuery.error.message}</p>
            )}
            {cell && !hidden.includes(template.id) && (
              <div className="group grid">
                <BoardCell cell={cell} art={art} template={template} />
                <span className="col-start-1 row-start-1 mt-1.5 ml-1.5 grid justify-self-start self-start">
                  <PickBox
                    label={`Select ${art.title} on ${template.title}`}
                    state={picked.includes(template.id) ? "all" : "none"}
                    onTurn={() => props.onPick([art.id], [template.id])}
                    quiet={!props.picking}
                  />
                </span>
              </div>
            )}
          </td>
        );
      })}
    </tr>
  );
});

/** The artwork's editable title: Enter or leaving saves it, Escape discards the change. */
function Title({ art, onRename }: { art: Art; onRename: (art: Art, title: string) => void }) {
  return (
    <input
      key={art.title}
      aria-label={`Title of ${art.title}`}
      defaultValue={art.title}
      maxLength={120}
      className="-mx-1 w-full truncate rounded-[3px] border border-transparent px-1 text-[0.9375rem] leading-tight font-bold hover:border-rule focus:bg-paper"
      onKeyDown={(event) => {
        if (event.key === "Escape") event.currentTarget.value = art.title;
        if (event.key === "Enter" || event.key === "Escape") event.currentTarget.blur();
      }}
      onBlur={(event) => {
        const title = event.target.value.trim();
        if (!title) event.target.value = art.title;
        else if (title !== art.title) onRename(art, title);
      }}
    />
  );
}

/** The progress of a pair, in a few words. */
function progress(cell: Cell): string {
  const done = [
    cell.pictured && "mock-ups made",
    cell.printed && "print file made",
    cell.pressed && "pressed",
    cell.listed && "listed",
  ].filter(Boolean);
  return [cell.fitted ? "Placed by hand" : "Placed as suggested", ...done].join(", ");
}

/** One artwork on one blank. It is checked when it becomes visible, unless its results are stored. */
const BoardCell = memo(function BoardCell({
  cell: known,
  art,
  template,
}: {
  cell: Cell;
  art: Art;
  template: BoardBlank;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const seen = useSeen(frame, known.verdict !== null);
  const judged = useQuery({
    queryKey: ["board", "cell", art.id, template.id, known.shown],
    queryFn: () => api.cell(art.id, template.id),
    enabled: known.verdict === null && seen,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const cell = known.verdict === null ? (judged.data ?? known) : known;
  const bench = `/bench/${art.id}/${template.id}`;
  return (
    <div ref={frame} className="col-start-1 row-start-1 w-32">
      <Link to={`${bench}/fit`} aria-label={`${art.title} on ${template.title}: open the bench`}>
        <img
          src={cell.shown}
          alt=""
          width={128}
          height={128}
          loading="lazy"
          className="size-32 border border-rule bg-rule"
        />
      </Link>
      <Link to={`${bench}/check`} className="mt-1 block text-sm leading-tight hover:underline">
        {cell.verdict ? (
          <>
            <span className={`flex items-center gap-1.5 ${cell.verdict === "pass" ? "text-soft" : ""}`}>
              <Mark status={cell.verdict} size={12} />
              <b>{WORDS[cell.verdict] + (cell.blocker ? ": " : "")}</b>
            </span>
            {cell.blocker && (
              <span className="block truncate" title={cell.blocker}>
                {cell.blocker.toLowerCase()}
                {cell.open > 1 && <span className="text-soft">, +{cell.open - 1} more</span>}
              </span>
            )}
          </>
        ) : (
          <span className="text-soft">Checking…</span>
        )}
      </Link>
      <p className="text-xs leading-tight text-soft">{progress(cell)}</p>
    </div>
  );
});
