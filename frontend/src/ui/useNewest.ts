import { useEffect, useRef, useState } from "react";

/** The newest result for a key: one request at a time, and keys that came and went meanwhile are skipped. */
export function useNewest<T>(
  key: string | null,
  fetch: (key: string) => Promise<T>,
): { value: T | null; problem: string | null } {
  const [shown, setShown] = useState<{ value: T | null; problem: string | null }>({ value: null, problem: null });
  const wanted = useRef<string | null>(null);
  const busy = useRef(false);
  const latest = useRef(fetch);
  latest.current = fetch;

  useEffect(() => {
    wanted.current = key;
    if (key === null) return setShown({ value: null, problem: null });
    async function run() {
      if (busy.current) return;
      busy.current = true;
      let done: string | null = null;
      while (done !== wanted.current && wanted.current !== null) {
        done = wanted.current;
        try {
          const value = await latest.current(done);
          if (wanted.current !== null) setShown({ value, problem: null });
        } catch (error) {
          setShown((old) => ({ ...old, problem: (error as Error).message }));
        }
      }
      busy.current = false;
    }
    run();
  }, [key]);
  return shown;
}

/** A picture fetched as it changes, as an address of its own that is given back when the next one comes. */
export function useNewestPicture(key: string | null, fetch: (key: string) => Promise<Blob>) {
  const { value, problem } = useNewest(key, async (asked) => URL.createObjectURL(await fetch(asked)));
  const before = useRef<string | null>(null);
  useEffect(() => {
    const old = before.current;
    before.current = value;
    if (old && old !== value) setTimeout(URL.revokeObjectURL, 1000, old);
  }, [value]);
  return { url: value, problem };
}
