import type { components } from "./generated";

type Schemas = components["schemas"];
export type Art = Schemas["Art"];
export type Board = Schemas["Board"];
export type Cell = Schemas["Cell"];
export type Check = Schemas["CheckShape"];
export type MadeFile = Schemas["MadeFile"];
export type Pair = Schemas["Pair"];
export type Panel = Schemas["PanelShape"];
export type Placing = Schemas["PlacingBody"];
export type Proof = Schemas["ProofShape"];
export type Region = Schemas["RegionShape"];
export type Scene = Schemas["SceneShape"];
export type Template = Schemas["TemplateShape"];
export type Status = Check["status"];
export type Colours = Pair["colours"];

/** A sentence for the person at the page. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly offline = false,
  ) {
    super(message);
  }
}

async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  const init: RequestInit = { method, signal };
  if (body instanceof FormData) init.body = body;
  else if (body !== undefined) {
    init.body = JSON.stringify(body);
    init.headers = { "Content-Type": "application/json" };
    init.keepalive = true; // what was decided arrives even if the page is left at once
  }
  let answer: Response;
  try {
    answer = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Problem("Improva does not answer. Is it still running? What you decided so far is kept.", true);
  }
  if (answer.ok) return answer;
  const told = await answer.json().catch(() => null);
  throw new Problem(typeof told?.detail === "string" ? told.detail : `The request failed (${answer.status}).`);
}

async function json<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  return (await (await send(method, path, body, signal)).json()) as T;
}

const at = (art: number, template: string) => `/api/pairs/${art}/${encodeURIComponent(template)}`;

function lookQuery(placing: Placing, colours: Colours, angle: number, size: [number, number]): string {
  return new URLSearchParams({
    placing: JSON.stringify(placing),
    colours: JSON.stringify(colours),
    angle: String(angle),
    width: String(size[0]),
    height: String(size[1]),
  }).toString();
}

export const api = {
  board: () => json<Board>("GET", "/api/board"),
  cell: (art: number, template: string) => json<Cell>("GET", `/api/board/${art}/${encodeURIComponent(template)}`),
  addArt: (file: File) => {
    const form = new FormData();
    form.set("file", file);
    return json<Art>("POST", "/api/artworks", form);
  },
  renameArt: (id: number, title: string) => json<Art>("PATCH", `/api/artworks/${id}`, { title }),
  removeArt: (id: number) => send("DELETE", `/api/artworks/${id}`),
  restoreArt: (id: number) => json<Art>("POST", `/api/artworks/${id}/restore`),
  preview: (art: Art, px: number) => `/api/artworks/${art.id}/preview?px=${px}&of=${art.sha256.slice(0, 12)}`,
  pair: (art: number, template: string) => json<Pair>("GET", at(art, template)),
  place: (art: number, template: string, placing: Placing) =>
    json<Pair>("PUT", `${at(art, template)}/placing`, placing),
  step: (art: number, template: string, way: "undo" | "redo") => json<Pair>("POST", `${at(art, template)}/${way}`),
  choose: (art: number, template: string, choices: { route: Pair["route"]; angle: number; colours: Colours }) =>
    json<Pair>("PUT", `${at(art, template)}/choices`, choices),
  proof: (art: number, template: string, placing: Placing, signal?: AbortSignal) =>
    json<Proof>("GET", `${at(art, template)}/proof?${lookQuery(placing, {}, 0, [160, 160])}`, undefined, signal),
  look: async (
    art: number,
    template: string,
    placing: Placing,
    colours: Colours,
    angle: number,
    size: [number, number],
  ) => (await send("GET", `${at(art, template)}/look?${lookQuery(placing, colours, angle, size)}`)).blob(),
  printFile: (art: number, template: string, body: { format: "png" | "tif" | "pdf"; dpi: number }) =>
    json<MadeFile>("POST", `${at(art, template)}/print-file`, body),
  picture: (
    art: number,
    template: string,
    body: {
      scene_id: string;
      view: string;
      angle: number | null;
      size: [number, number];
      format: "jpg" | "png" | "webp";
    },
    signal?: AbortSignal,
  ) => json<MadeFile>("POST", `${at(art, template)}/picture`, body, signal),
};
