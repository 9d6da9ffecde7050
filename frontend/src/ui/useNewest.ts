import { useEffect, useRef, useState } from "react";

type Result<T> = { value: T | null; problem: string | null };
const NOTHING = { value: null, problem: null };

/**
 * The result of the newest request. One request runs at a time; requests that were replaced in the meantime are skipped.
 *
 * A request is plain data. It is sent again when its content or `version` changes: the version of what the server
 * computes it from. No request, no result.
 */
export function useNewest<R, T>(
  request: R | null,
  fetch: (request: R) => Promise<T>,
  version: string | null = null,
): Result<T> {
  const [result, setResult] = useState<Result<T>>(NOTHING);
  const key = request === null ? null : JSON.stringify([version, request]);
  const wanted = useRef<{ key: string; request: R } | null>(null);
  const busy = useRef(false);
  const latest = useRef({ request, fetch });
  latest.current = { request, fetch };

  useEffect(() => {
    wanted.current = key === null ? null : { key, request: latest.current.request as R };
    if (key === null) return setResult(NOTHING);
    async function run() {
      if (busy.current) return;
      busy.current = true;
      let done: string | null = null;
      while (wanted.current !== null && done !== wanted.current.key) {
        done = wanted.current.key;
        try {
          const value = await latest.current.fetch(wanted.current.request);
          if (wanted.current !== null) setResult({ value, problem: null });
        } catch (error) {
          setResult((old) => ({ ...old, problem: (error as Error).message }));
        }
      }
      busy.current = false;
    }
    run();
  }, [key]);
  return result;
}

/** The picture of the newest request, as an object URL that is revoked when the next one comes. */
export function useNewestPicture<R>(
  request: R | null,
  fetch: (request: R) => Promise<Blob>,
  version: string | null = null,
) {
  const { value, problem } = useNewest(request, async (now: R) => URL.createObjectURL(await fetch(now)), version);
  const before = useRef<string | null>(null);
  useEffect(() => {
    const old = before.current;
    before.current = value;
    if (old && old !== value) setTimeout(URL.revokeObjectURL, 1000, old);
  }, [value]);
  return { url: value, problem };
}
