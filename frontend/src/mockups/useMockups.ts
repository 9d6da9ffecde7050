import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type Colours, type Film, type MockupSettings, type MockupState, type Preset } from "../api/client";
import type { PairEditor } from "../bench/usePair";
import { type Jobs, useJobs } from "../jobs/useJobs";
import { useDraft } from "../ui/useDraft";

const SHOW_JOBS = ["pictures", "film"] as const;

/** The mock-ups of a pair: which are made, how they look, and the jobs that make them. */
export type Mockups = {
  state: MockupState | null;
  settings: MockupSettings | null;
  /** What previews are rendered with: light, words, background; not which views are made. */
  /** The settings that change the look of a single mock-up. */
  mockupSettings: MockupSettings | null;
  change: (values: Partial<MockupSettings>) => void;
  /** Show values that are not saved yet. */
  hold: (values: Partial<MockupSettings>) => void;
  work: Jobs;
  make: () => void;
  film: (film: Film) => void;
  presets: Preset[];
  savePreset: (name: string) => void;
  removePreset: (name: string) => void;
  applyPreset: (name: string) => void;
  settling: boolean;
  problem: string | null;
};

export function useMockups(editor: PairEditor, active: boolean): Mockups {
  const queries = useQueryClient();
  const { place, pair } = editor;
  const key = ["showing", place.art, place.template];
  // Findings about the pictures depend on colours and printed content.
  const stateKey = [...key, pair.colours, pair.panels.map((panel) => panel.printed)];
  const state = useQuery({
    queryKey: stateKey,
    queryFn: () => api.mockupSettings(place),
    enabled: active,
    placeholderData: (old) => old,
  });
  const draft = useDraft<MockupSettings, MockupState>({
    saved: (state.data?.mockup_settings as MockupSettings | undefined) ?? null,
    subject: `settings ${place.art}/${place.template}`,
    editKey: state.data?.edit_key,
    keyOf: (answer) => answer.edit_key,
    onStale: state.refetch,
    onAnswer: (answer) => keepAnswer(queries, stateKey, answer),
  });
  const presets = useQuery({ queryKey: ["presets"], queryFn: api.presets, enabled: active });
  const keep = useMutation({
    mutationFn: ([name, settings, colours]: [string, MockupSettings, Colours]) =>
      api.savePreset(name, settings, colours),
    onSuccess: (answer) => keepAnswer(queries, ["presets"], answer),
  });
  const forget = useMutation({
    mutationFn: api.removePreset,
    onSuccess: (answer) => keepAnswer(queries, ["presets"], answer),
  });
  /** Applied after changes that are still being saved: else a late answer would undo it. */
  const applyPreset = (name: string) =>
    draft.act(async () => {
      const answer = await api.applyPreset(place, name);
      queries.invalidateQueries({ queryKey: key });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
      return answer;
    });
  const work = useJobs(place, SHOW_JOBS, active);
  const settings = draft.value;
  const problem = draft.error ?? keep.error ?? forget.error;
  return {
    state: state.data ?? null,
    settings,
    mockupSettings: settings && {
      ...settings,
      shots: [],
      variants: {},
      sizes: [[2000, 2000]],
      format: settings.clear ? "png" : "jpg",
    },
    change: (values) => draft.save(values, (settings, base) => api.setMockupSettings(place, settings, base)),
    hold: draft.hold,
    work,
    make: () => work.start(() => api.makePictures(place)),
    film: (film) => work.start(() => api.makeFilm(place, film)),
    presets: presets.data ?? [],
    savePreset: (name) => settings && keep.mutate([name, settings, editor.colours]),
    removePreset: forget.mutate,
    applyPreset,
    settling: draft.pending,
    problem: work.problem ?? problem?.message ?? null,
  };
}
