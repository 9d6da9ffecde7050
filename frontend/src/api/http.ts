/** A sentence for the person at the page. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly offline = false,
  ) {
    super(message);
  }
}

/** Browsers refuse to send more than 64 kB for pages that are gone. */
const KEEPALIVE_BYTES = 60_000;

/** Saves whose answer has not come: sent once more if the page goes away meanwhile. */
const unanswered = new Map<object, { path: string; init: RequestInit }>();

/** Send saves that may have been cut off once more, so that they outlive the page. A save that arrives twice changes nothing. */
export function resendUnanswered(): void {
  for (const { path, init } of unanswered.values()) {
    if (String(init.body).length < KEEPALIVE_BYTES)
      fetch(path, { ...init, signal: undefined, keepalive: true }).catch(() => {});
  }
}

/** The page is going away: what is sent now must outlive it. */
let leaving = false;

if (typeof window !== "undefined") {
  // Before the listeners of components, which may still save what is being edited.
  const leave = () => {
    leaving = true;
    resendUnanswered();
  };
  window.addEventListener("pagehide", leave, { capture: true });
  window.addEventListener("pageshow", () => {
    leaving = false;
  });
}

/** Ask the server; an answer that is no success becomes a {@link Problem} with the server's own sentence. */
export async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  const init: RequestInit = { method, signal };
  if (body instanceof FormData) init.body = body;
  else if (body !== undefined) {
    init.body = JSON.stringify(body);
    init.headers = { "Content-Type": "application/json" };
    if (leaving) init.keepalive = init.body.length < KEEPALIVE_BYTES;
  }
  const request = {};
  if (method === "PUT" && typeof init.body === "string") unanswered.set(request, { path, init });
  let answer: Response;
  try {
    answer = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Problem("Improva does not answer. Is it still running? What you decided so far is kept.", true);
  } finally {
    unanswered.delete(request);
  }
  if (answer.ok) return answer;
  const told = await answer.json().catch(() => null);
  throw new Problem(typeof told?.detail === "string" ? told.detail : `The request failed (${answer.status}).`);
}

/** Ask the server and read its answer as JSON. */
export async function json<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  return (await (await send(method, path, body, signal)).json()) as T;
}
