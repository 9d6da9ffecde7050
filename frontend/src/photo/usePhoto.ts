import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { keepAnswer } from "../api/answers";
import { api, type OwnScene, type PhotoMarks } from "../api/client";
import { useDraft } from "../ui/useDraft";

export type Photo = {
  scene: OwnScene;
  marks: PhotoMarks;
  /** Show marks that are not saved yet. */
  hold: (values: Partial<PhotoMarks>) => void;
  /** Save marks; the server checks them. */
  mark: (values: Partial<PhotoMarks>) => void;
  name: (title: string) => void;
  show: (panel: string) => void;
  make: () => Promise<unknown>;
  busy: boolean;
  making: boolean;
  problem: string | null;
};

type Edited = { title: string; panel: string; marks: PhotoMarks };

/** A photograph being marked. */
export function usePhoto(id: number): { photo: Photo | null; problem: string | null } {
  const queries = useQueryClient();
  const key = ["own-scene", id];
  const query = useQuery({ queryKey: key, queryFn: () => api.ownScene(id) });
  const scene = query.data;
  const draft = useDraft<Edited, OwnScene>({
    saved: scene ? { title: scene.title, panel: scene.panel, marks: scene.marks as PhotoMarks } : null,
    subject: `own scene ${id}`,
    editKey: scene?.edit_key,
    keyOf: (answer) => answer.edit_key,
    onStale: query.refetch,
    onAnswer: (answer) => keepAnswer(queries, key, answer),
  });
  const make = useMutation({
    mutationFn: () => api.makeScene(id),
    onSuccess: async (scene) => {
      await keepAnswer(queries, key, scene);
      queries.invalidateQueries({ queryKey: ["pair"] });
      queries.invalidateQueries({ queryKey: ["showing"] });
      queries.invalidateQueries({ queryKey: ["own-scenes"] });
    },
  });
  if (!scene || !draft.value) return { photo: null, problem: query.error?.message ?? null };
  const marked = (values: Partial<PhotoMarks>) => (now: Edited) => ({ marks: { ...now.marks, ...values } });
  const save = (change: Parameters<typeof draft.save>[0]) =>
    draft.save(change, (edited, base) => api.markScene(id, edited, base));
  return {
    problem: null,
    photo: {
      scene,
      marks: draft.value.marks,
      hold: (values) => draft.hold(marked(values)),
      mark: (values) => save(marked(values)),
      name: (title) => save({ title }),
      show: (panel) => save({ panel }),
      make: make.mutateAsync,
      busy: draft.pending,
      making: make.isPending,
      problem: draft.error?.message ?? make.error?.message ?? null,
    },
  };
}
