import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { keepAnswer } from "../api/answers";
import { api, type OwnScene, type PhotoMarks } from "../api/client";

export type Photo = {
  scene: OwnScene;
  marks: PhotoMarks;
  /** Marks in the hand, not kept yet. */
  hold: (values: Partial<PhotoMarks>) => void;
  /** Marks that are kept, and judged anew. */
  mark: (values: Partial<PhotoMarks>) => void;
  name: (title: string) => void;
  show: (panel: string) => void;
  make: () => Promise<unknown>;
  busy: boolean;
  making: boolean;
  problem: string | null;
};

/** A photograph being marked. */
export function usePhoto(id: number): { photo: Photo | null; problem: string | null } {
  const queries = useQueryClient();
  const key = ["own-scene", id];
  const found = useQuery({ queryKey: key, queryFn: () => api.ownScene(id) });
  const [held, setHeld] = useState<PhotoMarks | null>(null);
  const keep = useMutation({
    mutationFn: ([title, panel, marks]: [string, string, PhotoMarks]) => api.markScene(id, title, panel, marks),
    scope: { id: `own scene ${id}` },
    onSuccess: (scene) => keepAnswer(queries, key, scene),
    onSettled: (_, __, [, , settled]) => setHeld((now) => (now === settled ? null : now)),
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
  const scene = found.data;
  if (!scene) return { photo: null, problem: found.error?.message ?? null };
  const marks = held ?? (scene.marks as PhotoMarks);
  const send = (title: string, panel: string, next: PhotoMarks) => {
    setHeld(next);
    keep.mutate([title, panel, next]);
  };
  return {
    problem: null,
    photo: {
      scene,
      marks,
      hold: (values) => setHeld({ ...marks, ...values }),
      mark: (values) => send(scene.title, scene.panel, { ...marks, ...values }),
      name: (title) => send(title, scene.panel, marks),
      show: (panel) => send(scene.title, panel, marks),
      make: make.mutateAsync,
      busy: keep.isPending,
      making: make.isPending,
      problem: keep.error?.message ?? make.error?.message ?? null,
    },
  };
}
