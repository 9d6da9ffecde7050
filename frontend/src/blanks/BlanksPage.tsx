import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, type Blank } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Below, Masthead } from "../ui/Masthead";
import { show } from "../ui/measure";
import { Alert, Button } from "../ui/parts";
import { UnitChoice } from "../ui/UnitChoice";
import { useUnit } from "../ui/unit";
import { BlankDrawing } from "./BlankDrawing";
import { BlankSheet } from "./BlankSheet";
import { MeasureForm } from "./MeasureForm";

const MEASURE = "measure";

/** The shelf: the blanks on the board, the figures of each, and measuring a custom blank. */
export function BlanksPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { unit } = useUnit();
  const wanted = useParams().id;
  const shelf = useQuery({ queryKey: ["blanks"], queryFn: api.blanks });
  const blanks = shelf.data ?? [];
  const open = (id: string) => navigate(`/blanks/${id}`, { replace: true });
  const shown = blanks.find((b) => b.template.id === wanted) ?? blanks[0];
  const [problem, setProblem] = useState<string | null>(null);
  const [away, setAway] = useState<Blank | null>(null);
  const refresh = () => Promise.all(["blanks", "board"].map((key) => queries.invalidateQueries({ queryKey: [key] })));
  const board = useMutation({ mutationFn: api.setBoard, onSettled: refresh });

  function toggle(blank: Blank) {
    const now = blanks.filter((b) => b.on_board !== (b === blank)).map((b) => b.template.id);
    if (now.length) board.mutate(now);
    else setProblem("At least one blank stays on the board.");
  }
  async function bringBack(blank: Blank) {
    await api.restoreBlank(blank.template.id);
    setAway(null);
    await refresh();
    open(blank.template.id);
  }
  async function take(file: File) {
    setProblem(null);
    try {
      const blank = await api.importBlank(file);
      await refresh();
      open(blank.template.id);
    } catch (error) {
      setProblem((error as Error).message);
    }
  }

  return (
    <div className="flex h-full flex-col">
      <Masthead
        where={
          <Below>
            <b className="text-ink">Blanks</b>
          </Below>
        }
      >
        {away && (
          <span className="text-sm" role="status">
            “{away.template.title}” was removed.{" "}
            <button type="button" className="font-bold underline" onClick={() => bringBack(away)}>
              Restore
            </button>
          </span>
        )}
        <FileButton name="Template file" accept=".toml" onFiles={([file]) => file && take(file)}>
          Open a template file
        </FileButton>
        <Button tone="main" onClick={() => open(MEASURE)}>
          Measure a blank
        </Button>
        <UnitChoice />
      </Masthead>
      <main className="grid min-h-0 grow grid-cols-[24rem_minmax(0,1fr)]">
        <section aria-label="Shelf" className="overflow-y-auto border-r border-rule bg-table">
          {shelf.isPending && <p className="p-4 text-soft">Loading the blanks…</p>}
          {shelf.error && <Alert onRetry={() => shelf.refetch()}>{shelf.error.message}</Alert>}
          <ul>
            {blanks.map((blank, i) => {
              const { template } = blank;
              const first = template.panels[0];
              const head = template.kind !== blanks[i - 1]?.template.kind;
              return (
                <li key={template.id}>
                  {head && (
                    <h2 className="border-b border-rule px-4 pt-3 pb-0.5 text-sm font-bold first-letter:uppercase">
                      {template.kind === "own" ? "my own" : template.kind}
                    </h2>
                  )}
                  <div
                    className={`flex items-center gap-3 px-4 py-1 ${blank === shown && wanted !== MEASURE ? "bg-accent-tint" : "hover:bg-paper"}`}
                  >
                    <input
                      type="checkbox"
                      aria-label={`${template.title} on the board`}
                      checked={blank.on_board}
                      onChange={() => toggle(blank)}
                    />
                    <button
                      type="button"
                      className="flex grow items-center gap-3 text-left"
                      onClick={() => open(template.id)}
                    >
                      <BlankDrawing template={template} width={46} height={38} />
                      <span className="grow">
                        <span className="block leading-tight">{template.title}</span>
                        <span className="block text-xs text-soft">
                          {first && `${show(first.worn_mm[0], unit, 1)} × ${show(first.worn_mm[1], unit, 1)} ${unit}`}
                          {template.panels.length > 1 && `, ${template.panels.length} sides`}
                          {template.own && ", your own"}
                        </span>
                      </span>
                    </button>
                  </div>
                </li>
              );
            })}
          </ul>
        </section>
        <section aria-label="Blank" className="overflow-y-auto p-6">
          {problem && (
            <div className="mb-4">
              <Alert>{problem}</Alert>
            </div>
          )}
          {wanted === MEASURE ? (
            <MeasureForm onKept={(blank) => open(blank.template.id)} />
          ) : (
            shown && (
              <BlankSheet
                key={shown.template.id}
                blank={shown}
                onRemoved={() => {
                  setAway(shown);
                  open("");
                }}
              />
            )
          )}
        </section>
      </main>
    </div>
  );
}
