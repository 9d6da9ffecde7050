import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { waitToSave } from "../api/http";

/** New values of some fields, or a function that computes them from the newest value. */
type Change<Value> = Partial<Value> | ((now: Value) => Partial<Value>);

type Options<Value, Answer> = {
  /** The newest saved value; null until it is loaded. */
  saved: Value | null;
  /** Identifies what is edited. Editing something else drops the draft. */
  subject: string;
  /** Saves of one scope are sent one after another, in the order they were made; the subject if not given. */
  scope?: string;
  /** Stores an answer where `saved` comes from. */
  onAnswer: (answer: Answer) => void | Promise<void>;
  onSettled?: (answer: Answer | undefined) => void;
};

type Kept<Value> = { subject: string; value: Value };

export type Draft<Value, Answer> = {
  /** The edited value, or the saved one. */
  value: Value | null;
  /** There are changes whose save has not been answered. */
  isEdited: boolean;
  /** Show a change and do not save it. */
  hold: (change: Change<Value>) => void;
  /** Show a change at once, together with unsaved changes, and save it. */
  save: (change: Change<Value>, send: (value: Value) => Promise<Answer>) => void;
  /** Run another request that returns the saved value. `replaces` says whether that value replaces the draft, as for undo. */
  act: (work: () => Promise<Answer>, replaces?: boolean) => void;
  pending: boolean;
  error: Error | null;
};

/** An optimistic edit: changes are shown at once, saved in order, and replaced by the answer to the last of them. */
export function useDraft<Value extends object, Answer>(options: Options<Value, Answer>): Draft<Value, Answer> {
  const { saved, subject, scope = subject, onAnswer, onSettled } = options;
  // The reference is ahead of the state: two changes can happen before the page renders again.
  const newest = useRef<Kept<Value> | null>(null);
  const [draft, setDraft] = useState(newest.current);
  const keep = (next: Kept<Value> | null) => {
    newest.current = next;
    setDraft(next);
  };
  const current = draft?.subject === subject ? draft : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a draft belongs to its subject
  useEffect(() => keep(null), [subject]);

  const request = useMutation({
    mutationFn: ({ work, sent }: { work: () => Promise<Answer>; settles: Kept<Value> | null; sent?: () => void }) => {
      sent?.();
      return work();
    },
    scope: { id: scope },
    onSuccess: onAnswer,
    onSettled: (answer, _error, { settles }) => {
      if (settles && newest.current === settles) keep(null); // later changes stay
      onSettled?.(answer);
    },
  });

  const hold = (change: Change<Value>): Value | null => {
    const now = newest.current?.subject === subject ? newest.current.value : saved;
    if (!now) return null;
    const value = { ...now, ...(typeof change === "function" ? change(now) : change) };
    keep({ subject, value });
    return value;
  };
  return {
    value: current?.value ?? saved,
    isEdited: current !== null,
    hold,
    save: (change, send) => {
      const value = hold(change);
      if (!value) return;
      const work = () => send(value);
      request.mutate({ work, settles: newest.current, sent: waitToSave(work) });
    },
    act: (work, replaces = true) => request.mutate({ work, settles: replaces ? newest.current : null }),
    pending: request.isPending,
    error: request.error,
  };
}
