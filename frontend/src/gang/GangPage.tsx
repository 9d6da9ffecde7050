import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { keepAnswer } from "../api/answers";
import { api, type Gang, type GangState } from "../api/client";
import { COLUMN } from "../bench/stations";
import { Choice } from "../ui/Choice";
import { Downloads, fetchFile } from "../ui/Downloads";
import { Length, Pick, Plain, Tick } from "../ui/fields";
import { Below, Masthead } from "../ui/Masthead";
import { show } from "../ui/measure";
import { Alert, Button, Heading, IconButton } from "../ui/parts";
import { UnitChoice } from "../ui/UnitChoice";
import { useUnit } from "../ui/unit";
import { useDraft } from "../ui/useDraft";
import { GangDrawing } from "./GangDrawing";

const going = (state: GangState) => state.jobs.find((job) => job.state === "queued" || job.state === "running");

/** Several prints on one sheet or roll: the list of prints, the packing, and the unused paper. */
export function GangPage() {
  const queries = useQueryClient();
  const query = useQuery({
    queryKey: ["gang"],
    queryFn: api.gang,
    refetchInterval: (now) => (now.state.data && going(now.state.data) ? 400 : false),
  });
  const startedJob = useRef<number | null>(null);
  const make = useMutation({
    mutationFn: api.makeGang,
    onSuccess: (job) => {
      startedJob.current = job.id;
      queries.invalidateQueries({ queryKey: ["gang"] });
    },
  });
  const state = query.data;
  const draft = useDraft<Gang, GangState>({
    saved: (state?.gang as Gang | undefined) ?? null,
    subject: "gang",
    editKey: state?.edit_key,
    keyOf: (answer) => answer.edit_key,
    onStale: query.refetch,
    onAnswer: (answer) => keepAnswer(queries, ["gang"], answer),
  });
  const onChange: Changes["onChange"] = (update) => draft.save(update, api.setGang);
  useEffect(() => {
    const job = state?.jobs.find((each) => each.id === startedJob.current);
    if (job?.state !== "done") return;
    startedJob.current = null;
    for (const file of job.files) fetchFile(file);
  }, [state]);
  const problem = query.error ?? draft.error ?? make.error;
  return (
    <div className="flex h-full flex-col">
      <Masthead
        where={
          <Below>
            <b className="text-ink">Gang sheet</b>
          </Below>
        }
      >
        <UnitChoice />
      </Masthead>
      {!state &&
        (problem ? (
          <Alert onRetry={() => query.refetch()}>{problem.message}</Alert>
        ) : (
          <p className="p-8 text-soft">Packing…</p>
        ))}
      {state && (
        <main className="grid min-h-0 grow grid-cols-[22rem_minmax(0,1fr)] grid-rows-[minmax(0,1fr)]">
          <section aria-label="Gang sheet" className={COLUMN}>
            <Items state={state} onChange={onChange} />
            <AddPrint onChange={onChange} />
            <Sheet gang={draft.value ?? (state.gang as Gang)} onChange={onChange} />
            <div className="sticky -bottom-4 -mx-4 -mb-4 mt-auto grid gap-2 border-t border-rule bg-table p-4 pt-3">
              {problem && <Alert>{problem.message}</Alert>}
              {state.problem && <Alert>{state.problem}</Alert>}
              <Made state={state} onMake={() => make.mutate()} making={make.isPending || draft.pending} />
            </div>
          </section>
          <GangDrawing state={state} />
        </main>
      )}
    </div>
  );
}

type Changes = { state: GangState; onChange: (update: (gang: Gang) => Gang) => void };

type Item = { artwork_id: number; template_id: string; panel: string };
const same = (a: Item, b: Item) =>
  a.artwork_id === b.artwork_id && a.template_id === b.template_id && a.panel === b.panel;

function Items({ state, onChange }: Changes) {
  const { unit } = useUnit();
  const set = (changed: Item, count: number) =>
    onChange((gang) => ({
      ...gang,
      items: gang.items.map((item) => (same(item, changed) ? { ...item, count } : item)),
    }));
  return (
    <div className="grid grid-cols-1 gap-2">
      <Heading aside={`${state.puts.length} prints`}>Prints on the sheet</Heading>
      {new Set(state.items.map((item) => item.mirrored)).size > 1 && (
        <p className="text-xs text-soft">
          Mirrored and unmirrored prints are on one sheet: check each before printing.
        </p>
      )}
      {state.items.length === 0 && <p className="text-sm">Nothing yet. Add prints here, or from a Print station.</p>}
      {state.items.map((item, i) => (
        <div key={`${item.artwork_id} ${item.template_id} ${item.panel}`} className="flex items-start gap-2">
          <span className="grid size-5 shrink-0 place-items-center bg-ink text-xs font-bold text-paper">{i + 1}</span>
          <div className="min-w-0 grow text-sm leading-tight">
            <b className="block truncate">{item.title}</b>
            <span className="text-xs text-soft">
              {show(item.size_mm[0], unit, 2)} × {show(item.size_mm[1], unit, 2)} {unit}
              {item.mirrored ? ", mirrored" : ""}
            </span>
          </div>
          <div className="w-20 shrink-0">
            <Plain
              label=""
              name={`Copies of ${item.title}`}
              value={item.count ?? 1}
              suffix="×"
              least={1}
              most={2000}
              onValue={(n) => set(item, Math.round(n))}
            />
          </div>
          <IconButton
            label={`Take ${item.title} off`}
            onClick={() => onChange((gang) => ({ ...gang, items: gang.items.filter((one) => !same(one, item)) }))}
          >
            ✕
          </IconButton>
        </div>
      ))}
    </div>
  );
}

function AddPrint({ onChange }: { onChange: Changes["onChange"] }) {
  const board = useQuery({ queryKey: ["board"], queryFn: api.board });
  const [art, setArt] = useState("");
  const [blank, setBlank] = useState("");
  const arts = board.data?.artworks ?? [];
  const blanks = board.data?.templates ?? [];
  const add = useMutation({
    mutationFn: async () => {
      const place = { art: Number(art || arts[0]?.id), template: blank || (blanks[0]?.id ?? ""), panel: null };
      const pair = await api.pair(place);
      const sides = pair.panels.filter((panel) => panel.printed);
      return sides.map((panel) => ({ artwork_id: place.art, template_id: place.template, panel: panel.id, count: 1 }));
    },
    onSuccess: (items) =>
      onChange((gang) => ({
        ...gang,
        items: [...gang.items, ...items.filter((item) => !gang.items.some((one) => same(one, item)))],
      })),
  });
  if (!arts.length) return null;
  return (
    <div className="grid gap-2">
      <Heading>Add a print</Heading>
      <Pick
        label="Artwork"
        value={art || String(arts[0]?.id)}
        options={arts.map((each) => [String(each.id), each.title] as const)}
        onValue={setArt}
      />
      <Pick
        label="Blank"
        value={blank || (blanks[0]?.id ?? "")}
        options={blanks.map((each) => [each.id, each.title] as const)}
        onValue={setBlank}
      />
      {add.error && <Alert>{add.error.message}</Alert>}
      <Button disabled={add.isPending} onClick={() => add.mutate()}>
        Add
      </Button>
    </div>
  );
}

function Sheet({ gang, onChange }: { gang: Gang; onChange: Changes["onChange"] }) {
  const change = (values: Partial<Gang>) => onChange((now) => ({ ...now, ...values }));
  const length = (label: string, mm: number, least: number, onValue: (mm: number) => void) => (
    <Length label={label} mm={mm} least={least} panel={{ dpi: 300 }} onValue={onValue} />
  );
  return (
    <div className="grid gap-2">
      <Heading>Paper</Heading>
      <Choice
        label="Sheet or roll"
        value={gang.length_mm === null ? "roll" : "sheet"}
        options={[
          { value: "sheet", label: "Sheets" },
          { value: "roll", label: "Roll" },
        ]}
        onChange={(kind) => change({ length_mm: kind === "roll" ? null : 482 })}
      />
      {length("Width", gang.width_mm, 10, (width_mm) => change({ width_mm }))}
      {gang.length_mm !== null && length("Length", gang.length_mm, 10, (length_mm) => change({ length_mm }))}
      {length("Margin", gang.margin_mm, 0, (margin_mm) => change({ margin_mm }))}
      {length("Gap", gang.gap_mm, 0, (gap_mm) => change({ gap_mm }))}
      <Tick label="Prints may be rotated" on={gang.turn} onValue={(turn) => change({ turn })} />
      <Tick label="Cut lines" on={gang.cut_lines} onValue={(cut_lines) => change({ cut_lines })} />
    </div>
  );
}

function Made({ state, onMake, making }: { state: GangState; onMake: () => void; making: boolean }) {
  const queries = useQueryClient();
  const now = going(state);
  const stop = useMutation({
    mutationFn: api.stopJob,
    onSettled: () => queries.invalidateQueries({ queryKey: ["gang"] }),
  });
  const failed = state.jobs[0]?.state === "failed" ? state.jobs[0].problem : null;
  return (
    <>
      {now ? (
        <div role="status" className="flex items-center gap-2 text-sm">
          <progress className="h-2 grow accent-accent" max={1} value={now.share} aria-label={now.title} />
          <Button onClick={() => stop.mutate(now.id)}>Stop</Button>
        </div>
      ) : (
        <Button tone="main" disabled={making || state.puts.length === 0} onClick={onMake}>
          Make the gang sheet
        </Button>
      )}
      {failed && <Alert>{failed}</Alert>}
      <Downloads files={state.jobs.flatMap((job) => job.files).slice(0, 2)} />
    </>
  );
}
