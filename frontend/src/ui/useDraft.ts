import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { isLeaving, Problem, waitToSave } from "../api/http";
import { useConflict } from "./conflict";

/** New values of some fields, or a function that computes them from the newest value. */
type Change<Value> = Partial<Value> | ((now: Value) => Partial<Value>);

type Options<Value, Answer> = {
  /** The newest saved value; null until it is loaded. */
  saved: Value | null;
  /** Identifies what is edited. Editing something else drops the draft. */
  subject: string;
  /** Saves of one scope are sent one after another, in the order they were made; the subject if not given. */
  scope?: string;
  /** Key of the saved value. An edit is sent with the key that it is based on, and refused if somebody else has changed it since. */
  editKey?: string | undefined;
  keyOf?: (answer: Answer) => string;
  /** Fetches the saved value again, after an edit was refused. */
  onStale?: () => Promise<unknown>;
  /** Stores an answer where `saved` comes from. */
  onAnswer: (answer: Answer) => void | Promise<void>;
  onSettled?: (answer: Answer | undefined) => void;
};

type Kept<Value> = { subject: string; value: Value };
type Send<Value, Answer> = (value: Value, basedOn: string | undefined) => Promise<Answer>;

export type Draft<Value, Answer> = {
  /** The edited value, or the saved one. */
  value: Value | null;
  /** There are changes whose save has not been answered. */
  isEdited: boolean;
  /** Show a change and do not save it. */
  hold: (change: Change<Value>) => void;
  /** Show a change at once, together with unsaved changes, and save it. */
  save: (change: Change<Value>, send: Send<Value, Answer>) => void;
  /** Run another request that returns the saved value. `replaces` says whether that value replaces the draft, as for undo. */
  act: (work: (basedOn: string | undefined) => Promise<Answer>, replaces?: boolean) => void;
  pending: boolean;
  error: Error | null;
};

/** An optimistic edit: changes are shown at once, saved in order, and replaced by the answer to the last of them. */
export function useDraft<Value extends object, Answer>(options: Options<Value, Answer>): Draft<Value, Answer> {
  const { saved, subject, scope = subject, editKey, keyOf, onAnswer, onSettled, onStale } = options;
  // The reference is ahead of the state: two changes can happen before the page renders again.
  const newest = useRef<Kept<Value> | null>(null);
  const [draft, setDraft] = useState(newest.current);
  const keep = (next: Kept<Value> | null) => {
    newest.current = next;
    setDraft(next);
  };
  // What the next edit is based on: the saved value, or the answer to an earlier edit of this page.
  const base = useRef(editKey);
  if (newest.current?.subject !== subject) base.current = editKey;
  const lastSend = useRef<Send<Value, Answer> | null>(null);
  const [refused, setRefused] = useState(false);
  const current = draft?.subject === subject ? draft : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a draft belongs to its subject
  useEffect(() => {
    keep(null);
    setRefused(false);
  }, [subject]);

  const request = useMutation({
    mutationFn: ({ work, sent }: { work: () => Promise<Answer>; settles: Kept<Value> | null; sent?: () => void }) => {
      sent?.();
      return work();
    },
    scope: { id: scope },
    onSuccess: (answer) => {
      base.current = keyOf?.(answer);
      return onAnswer(answer);
    },
    onError: async (error) => {
      if (!(error instanceof Problem) || error.status !== 409) return;
      await onStale?.();
      setRefused(newest.current !== null);
    },
    onSettled: (answer, error, { settles }) => {
      const waits = error instanceof Problem && error.status === 409; // until the user has chosen between both values
      if (!waits && settles && newest.current === settles) keep(null); // later changes stay
      onSettled?.(answer);
    },
  });
  useConflict(refused && draft && saved ? { mine: draft.value, theirs: saved } : null, (mine) => {
    setRefused(false);
    const kept = newest.current;
    const send = lastSend.current;
    if (!mine || !kept || !send) return keep(null);
    base.current = editKey;
    request.mutate({ work: () => send(kept.value, base.current), settles: kept });
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
      lastSend.current = send;
      const work = () => send(value, isLeaving() ? undefined : base.current);
      request.mutate({ work, settles: newest.current, sent: waitToSave(work) });
    },
    act: (work, replaces = true) =>
      request.mutate({ work: () => work(base.current), settles: replaces ? newest.current : null }),
    pending: request.isPending,
    error: request.error,
  };
}
