import createClient, { type ClientPathsWithMethod, createFinalURL, createQuerySerializer } from "openapi-fetch";
import type { components, paths } from "./generated";

/** An error with a message for the user. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly offline = false,
    readonly status = 0,
  ) {
    super(message);
  }
}

/** This page, for the server: of the previews that wait for one place of a page, only the newest is made. */
const page = globalThis.crypto?.randomUUID?.() ?? String(Math.random());
export const forView = (view: string | undefined) => ({ headers: view ? { "Improva-View": `${page} ${view}` } : {} });

/** Event on the window: the server has answered that its user is not logged in. */
export const LOGGED_OUT = "improva:logged-out";

/** Browsers refuse keepalive requests above 64 kB. */
const KEEPALIVE_BYTES = 60_000;

/** The page is being left: requests sent now must outlive it. */
let leaving = false;

/** Whether the page is being left. */
export const isLeaving = () => leaving;

/** A request that knows the JSON it sends: a request's own body can be read only once. */
class ApiRequest extends Request {
  readonly jsonBody: string | null;

  constructor(input: RequestInfo | URL, init: RequestInit = {}) {
    const json = typeof init.body === "string" ? init.body : null;
    super(input, leaving && json !== null ? { ...init, keepalive: json.length < KEEPALIVE_BYTES } : init);
    this.jsonBody = json;
  }
}

/** Saves without an answer yet: sent again if the page is left. */
const unanswered = new Set<ApiRequest>();

/** Saves that wait for an earlier save's answer: sent at once if the page is left. */
const waiting = new Set<() => unknown>();

/** Register a save that waits for its turn. Call the returned function when it is sent or given up. */
export function waitToSave(save: () => unknown): () => void {
  waiting.add(save);
  return () => waiting.delete(save);
}

/** While this is a list, saves are added to it and not sent. */
let collected: ApiRequest[] | null = null;

/** What a save replaces: its address, without the state that it is based on. */
function subjectOf({ method, url }: Request): string {
  const place = new URL(url);
  place.searchParams.delete("based_on");
  return `${method} ${place}`;
}

/** Send saves that may have been cut off once more, and saves that still wait, so that they outlive the page. Of several saves
 * to one address only the newest is sent: it replaces the others. A save that arrives twice changes nothing. */
export function resendUnanswered(): void {
  const late: ApiRequest[] = [];
  collected = late;
  for (const save of waiting) save();
  collected = null;
  waiting.clear();
  const newest = new Map([...unanswered, ...late].map((request) => [subjectOf(request), request]));
  for (const { url, method, headers, jsonBody } of newest.values()) {
    if (jsonBody !== null && jsonBody.length < KEEPALIVE_BYTES)
      fetch(url, { method, headers, body: jsonBody, keepalive: true }).catch(() => {});
  }
}

if (typeof window !== "undefined") {
  // Runs before the listeners of components, which may still save an edit.
  const leave = () => {
    leaving = true;
    resendUnanswered();
  };
  window.addEventListener("pagehide", leave, { capture: true });
  window.addEventListener("pageshow", () => {
    leaving = false;
  });
}

/** Send a request. An unsuccessful answer throws a {@link Problem} with the server's message. */
async function send(request: Request): Promise<Response> {
  const save = request instanceof ApiRequest && request.method === "PUT" && request.jsonBody !== null ? request : null;
  if (save && collected) {
    collected.push(save);
    return new Promise(() => {}); // the page is gone before an answer arrives
  }
  if (save) unanswered.add(save);
  let response: Response;
  try {
    response = await fetch(request);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Problem("Improva does not answer. Is it still running? Everything saved so far is safe.", true);
  } finally {
    if (save) unanswered.delete(save);
  }
  if (response.ok) return response;
  if (response.status === 401 && !request.url.endsWith("/api/session")) window.dispatchEvent(new Event(LOGGED_OUT));
  const problem = await response.json().catch(() => null);
  const detail = typeof problem?.detail === "string" ? problem.detail : `The request failed (${response.status}).`;
  throw new Problem(detail, false, response.status);
}

/** The server's API. Paths, parameters and bodies are checked against its OpenAPI document as the page is compiled.
 * openapi-fetch is held at 0.15: the types of 0.16 and 0.17 turn tuples such as `[width, height]` into arrays. */
export const server = createClient<paths>({
  baseUrl: globalThis.location?.origin ?? "http://localhost",
  Request: ApiRequest,
  fetch: send,
});

/** The data of an answer. {@link send} throws for unsuccessful answers, so the data is present. */
export async function data<Answer extends { data?: unknown }>(
  answer: Promise<Answer>,
): Promise<Exclude<Answer["data"], undefined>> {
  return (await answer).data as Exclude<Answer["data"], undefined>;
}

/** An answer without content. */
export async function done(answer: Promise<unknown>): Promise<void> {
  await answer;
}

type Readable = ClientPathsWithMethod<typeof server, "get">;

/** The address of a picture or file that the browser fetches by itself. */
export function address<Path extends Readable>(
  path: Path,
  params: Pick<paths[Path]["get"]["parameters"], "path" | "query">,
): string {
  return createFinalURL(path, {
    baseUrl: "",
    params,
    querySerializer: createQuerySerializer(),
  });
}

/** Most megabytes that the server accepts. */
const MOST_MB = 250;

/** A form with one file. Throws for a file that the server would refuse after it was sent whole. The type says which part the form has; the browser sends the form as it is. */
export function upload(file: File): components["schemas"]["UploadForm"] {
  if (file.size > MOST_MB * 1e6)
    throw new Problem(`${file.name} is over ${MOST_MB} MB. Save it smaller, and add it again.`);
  const form = new FormData();
  form.set("file", file);
  return form as unknown as components["schemas"]["UploadForm"];
}
