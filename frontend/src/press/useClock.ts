import { useCallback, useEffect, useRef, useState } from "react";
import type { PressStep } from "../api/client";
import { keep, read } from "../ui/kept";
import { peekBefore, stepAfterPeek } from "./order";

/** The state of a pressing. `endsAt` is the end of the current heated step, in ms since 1970; null while nothing runs. */
type Stand = { plan: string; index: number; endsAt: number | null; rung: boolean };

export type Clock = {
  index: number;
  step: PressStep;
  /** Seconds left of a heated step, negative once it is over; null while it does not run. */
  left: number | null;
  over: boolean;
  start: () => void;
  next: () => void;
  back: () => void;
  answer: (seen: "even" | "pale" | "ends") => void;
  restart: () => void;
  finished: boolean;
};

const TICK_MS = 200;

function kept(key: string, plan: string): Stand {
  const fresh = { plan, index: 0, endsAt: null, rung: false };
  const stored = read<Stand>(key, fresh);
  return stored.plan === plan ? stored : fresh;
}

/** Three short tones, or silence if the browser has no sound. */
function ring() {
  try {
    const sound = new AudioContext();
    for (const n of [0, 1, 2]) {
      const tone = sound.createOscillator();
      const volume = sound.createGain();
      tone.frequency.value = 880;
      volume.gain.value = 0.25;
      tone.connect(volume).connect(sound.destination);
      tone.start(sound.currentTime + 0.35 * n);
      tone.stop(sound.currentTime + 0.35 * n + 0.2);
    }
    setTimeout(() => sound.close(), 2000);
  } catch {
    // no sound available; the clock is visible
  }
}

/** Keep the screen awake while a step runs under heat. */
function useAwake(running: boolean) {
  useEffect(() => {
    if (!running || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const take = () =>
      navigator.wakeLock
        .request("screen")
        .then((taken) => {
          lock = taken;
          if (gone) taken.release();
        })
        .catch(() => {});
    const again = () => document.visibilityState === "visible" && take();
    take();
    document.addEventListener("visibilitychange", again);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", again);
      lock?.release().catch(() => {});
    };
  }, [running]);
}

/** The press clock: goes through the steps, times the heated ones, and keeps its state over a reload. */
export function useClock(key: string, steps: PressStep[]): Clock {
  const plan = JSON.stringify(steps.map((step) => [step.kind, step.seconds, step.lie]));
  const [stand, setStand] = useState<Stand>(() => kept(key, plan));
  const [now, setNow] = useState(() => Date.now());
  const latest = useRef(stand);
  const set = useCallback(
    (change: Partial<Stand>) => {
      latest.current = { ...latest.current, ...change };
      setStand(latest.current);
      keep(key, latest.current);
    },
    [key],
  );
  // Other settings give another plan, which starts at its first step.
  useEffect(() => {
    if (latest.current.plan !== plan) set({ plan, index: 0, endsAt: null, rung: false });
  }, [plan, set]);

  const running = stand.endsAt !== null;
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    setNow(Date.now());
    return () => clearInterval(timer);
  }, [running]);
  useAwake(running);

  const left = stand.endsAt === null ? null : (stand.endsAt - now) / 1000;
  const over = left !== null && left <= 0;
  useEffect(() => {
    if (over && !latest.current.rung) {
      ring();
      set({ rung: true });
    }
  }, [over, set]);

  const index = Math.min(stand.index, steps.length - 1);
  const step = steps[index] as PressStep;
  const go = (to: number) => set({ index: Math.max(0, Math.min(steps.length - 1, to)), endsAt: null, rung: false });
  const next = () => {
    const after = steps[index + 1];
    if (step.kind === "again" || (step.kind === "if-pale" && after?.kind !== "if-pale")) go(peekBefore(steps, index));
    else go(index + 1);
  };
  return {
    index,
    step,
    left,
    over,
    start: () => set({ endsAt: Date.now() + step.seconds * 1000, rung: false }),
    next,
    back: () => go(index - 1),
    answer: (seen) => {
      const to = stepAfterPeek(steps, index, seen);
      if (to >= 0) go(to);
    },
    restart: () => go(0),
    finished: index === steps.length - 1,
  };
}
