import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { type Art, api, type Cell, type Template } from "../api/client";
import { Mark, Verdict } from "../ui/parts";

export function BoardRow(props: {
  art: Art;
  templates: Template[];
  cells: Cell[];
  onRemove: (art: Art) => void;
  onRename: (art: Art, title: string) => void;
}) {
  const { art } = props;
  return (
    <tr className="border-t border-rule align-top" data-art={art.title}>
      <th scope="row" className="py-3 text-left font-normal">
        <div className="flex gap-3">
          <div className="size-52 shrink-0 border border-rule bg-paper p-1.5">
            <img src={api.preview(art, 400)} alt="" className="size-full min-h-0 object-contain" />
          </div>
          <div className="min-w-0 grow">
            <Title art={art} onRename={props.onRename} />
            <p className="truncate text-sm text-soft" title={art.file_name}>
              {art.file_name}
            </p>
            <p className="mt-1 text-sm">
              {art.vector ? "Drawn as lines" : `${art.px[0]} × ${art.px[1]} px`}
              {art.tagged_dpi && !art.vector && (
                <span className="text-soft"> tagged {Math.round(art.tagged_dpi[0])} dpi</span>
              )}
            </p>
            <p className="text-sm text-soft">
              {art.mode}
              {art.has_alpha && !art.vector && ", with transparency"}
            </p>
            {art.notes.map((note) => (
              <p key={note} className="text-xs text-soft">
                {note}
              </p>
            ))}
            <button type="button" className="mt-2 text-xs underline" onClick={() => props.onRemove(art)}>
              Take off the board
            </button>
          </div>
        </div>
      </th>
      {props.templates.map((template) => {
        const cell = props.cells.find((c) => c.template_id === template.id);
        return (
          <td key={template.id} className="py-3 pl-4">
            {cell && <BoardCell cell={cell} art={art} template={template} />}
          </td>
        );
      })}
    </tr>
  );
}

/** The artwork's title, which can be typed over: Enter or leaving keeps it, Escape does not. */
function Title({ art, onRename }: { art: Art; onRename: (art: Art, title: string) => void }) {
  return (
    <input
      key={art.title}
      aria-label={`Title of ${art.title}`}
      defaultValue={art.title}
      maxLength={120}
      className="-mx-1 w-full truncate rounded-[3px] border border-transparent px-1 text-base leading-tight font-bold hover:border-rule focus:bg-paper"
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

const STEPS: { key: "fitted" | "pictured" | "printed"; done: string; open: string; station: string }[] = [
  { key: "fitted", done: "Fitted by hand", open: "Fitted as proposed", station: "fit" },
  { key: "pictured", done: "Pictured", open: "No pictures yet", station: "show" },
  { key: "printed", done: "Print file made", open: "No print file yet", station: "print" },
];

function BoardCell({ cell: known, art, template }: { cell: Cell; art: Art; template: Template }) {
  const judged = useQuery({
    queryKey: ["board", "cell", art.id, template.id, known.shown],
    queryFn: () => api.cell(art.id, template.id),
    enabled: known.verdict === null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const cell = known.verdict === null ? (judged.data ?? known) : known;
  const bench = `/bench/${art.id}/${template.id}`;
  return (
    <div className="flex gap-3">
      <Link to={`${bench}/fit`} aria-label={`${art.title} on ${template.title}: open the bench`} className="shrink-0">
        <img src={cell.shown} alt="" width={208} height={208} className="size-52 border border-rule bg-rule" />
      </Link>
      <ul className="grid content-start gap-1 text-sm">
        <li>
          <Link to={`${bench}/prove`} className="hover:underline">
            {cell.verdict ? <Verdict status={cell.verdict} /> : <span className="text-soft">Judging…</span>}
            {cell.blocker && <span className="ml-1.5">{cell.blocker}</span>}
          </Link>
        </li>
        {STEPS.map(({ key, done, open, station }) => (
          <li key={key}>
            <Link
              to={`${bench}/${station}`}
              className={`inline-flex items-center gap-1.5 hover:underline ${cell[key] ? "" : "text-soft"}`}
            >
              {cell[key] ? (
                <Mark status="pass" />
              ) : (
                <span className="ml-[3px] size-2 border border-soft" aria-hidden="true" />
              )}
              <span className={cell[key] ? "" : "ml-[3px]"}>{cell[key] ? done : open}</span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}
