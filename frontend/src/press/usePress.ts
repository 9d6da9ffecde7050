import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Figures, type Machine, type Place, type Press, type Pressed } from "../api/client";
import { keep, read } from "../ui/kept";

export type Entry = { result: "good" | "usable" | "spoiled"; faults: string[]; note: string; photo: File | null };

/** Everything about pressing the open pair. */
export type Pressing = {
  press: Press | null;
  choose: (choice: Pressed) => void;
  keepMaker: (figures: Figures | null) => void;
  keepMachine: (machine: Machine) => void;
  log: (entry: Entry) => void;
  remove: (id: number) => void;
  busy: boolean;
  problem: string | null;
  retry: () => void;
};

/** Today's date where the seller is, as 2026-05-30. */
const today = () => {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, "0")}-${String(now.getDate()).padStart(2, "0")}`;
};

export function usePress(place: Place): Pressing {
  const queries = useQueryClient();
  const chosen = `improva.press.${place.art}.${place.template}`;
  const [choice, setChoice] = useState<Pressed>(() => read(chosen, {}));
  const storeChoice = (next: Pressed) => {
    keep(chosen, next);
    setChoice(next);
  };
  const key = ["press", place.art, place.template, place.panel, choice];
  const query = useQuery({ queryKey: key, queryFn: () => api.press(place, choice), placeholderData: (old) => old });
  const press = query.data ?? null;
  const here: Pressed = press
    ? { method: press.method, press: press.press, finish: press.finish, by: choice.by ?? "" }
    : choice;
  const change = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => {
      for (const name of ["press", "board"]) queries.invalidateQueries({ queryKey: [name] });
      queries.invalidateQueries({ queryKey: ["pair", place.art, place.template] });
    },
  });
  return {
    press,
    choose: (next) => storeChoice({ ...here, ...next }),
    keepMaker: (figures) => change.mutate(() => api.keepMaker(place, here, figures)),
    keepMachine: (machine) =>
      change.mutate(async () => {
        await api.keepPress(place, here, machine);
        storeChoice({ ...here, press: machine.name });
      }),
    log: ({ photo, ...entry }) =>
      change.mutate(async () => {
        if (!press) return;
        const logged = await api.logPressing(place, here, { ...entry, on: today(), figures: press.figures });
        const newest = Math.max(...logged.log.map((each) => each.id));
        if (photo) await api.keepPressingPhoto(newest, photo);
      }),
    remove: (id) => change.mutate(() => api.removePressing(id)),
    busy: change.isPending,
    problem: change.error?.message ?? query.error?.message ?? null,
    retry: () => query.refetch(),
  };
}
