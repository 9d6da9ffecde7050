import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { address, data, Problem, resendUnanswered, server, upload, waitToSave } from "./http";

type Call = { url: string; method: string; body: string; keepalive: boolean };
const calls: Promise<Call>[] = [];
let answer: () => Promise<Response>;

const MUG = { params: { path: { artwork_id: 1, template_id: "mug" } } };
const title = (length: number) => ({ params: { path: { artwork_id: 1 } }, body: { title: "x".repeat(length) } });
const pieces = { ...MUG, body: { pieces: [] } };
const PLACEMENT = "/api/pairs/{artwork_id}/{template_id}/placement";
const scaled = (scale: number) => ({ ...MUG, body: { scale } as never });

beforeEach(() => {
  calls.length = 0;
  answer = async () => new Response("{}");
  vi.stubGlobal("fetch", (input: Request | string, init?: RequestInit) => {
    const request = new Request(input, init);
    const { url, method, keepalive } = request;
    calls.push(request.text().then((body) => ({ url, method, body, keepalive: init?.keepalive ?? keepalive })));
    return answer();
  });
});
afterEach(() => vi.unstubAllGlobals());

test("a save of any size is an ordinary request: browsers refuse large ones that outlive their page", async () => {
  await server.PATCH("/api/artworks/{artwork_id}", title(100_000));
  expect(await Promise.all(calls)).toMatchObject([{ method: "PATCH", keepalive: false }]);
});

test("a save without an answer is sent once more as the page goes away, and then outlives it", async () => {
  const waiting: ((answer: Response) => void)[] = [];
  answer = () => new Promise((resolve) => waiting.push(resolve));
  const saved = server.PUT("/api/pairs/{artwork_id}/{template_id}/pieces", pieces);
  await vi.waitFor(() => expect(calls).toHaveLength(1));
  resendUnanswered();
  const [first, again] = await Promise.all(calls);
  expect(again).toEqual({ ...first, keepalive: true });
  expect(first).toMatchObject({ url: "http://localhost/api/pairs/1/mug/pieces", body: '{"pieces":[]}' });
  waiting[0]?.(new Response("{}"));
  await saved;
  resendUnanswered();
  expect(calls).toHaveLength(2);
});

test("a save that waits for its turn is sent as the page goes away, instead of an older one to its address", async () => {
  const waiting: ((answer: Response) => void)[] = [];
  answer = () => new Promise((resolve) => waiting.push(resolve));
  const saved = server.PUT(PLACEMENT, scaled(1));
  await vi.waitFor(() => expect(calls).toHaveLength(1));
  const sent = waitToSave(() => server.PUT(PLACEMENT, scaled(2)));
  waitToSave(() => server.PUT(PLACEMENT, scaled(3)));
  sent();
  resendUnanswered();
  const [, again, ...more] = await Promise.all(calls);
  expect(again).toMatchObject({ body: '{"scale":3}', keepalive: true });
  expect(more).toEqual([]);
  waiting[0]?.(new Response("{}"));
  await saved;
  resendUnanswered();
  expect(calls).toHaveLength(2);
});

test("actions that count are never sent twice", async () => {
  answer = () => new Promise(() => {});
  server.POST("/api/pairs/{artwork_id}/{template_id}/undo", MUG);
  await vi.waitFor(() => expect(calls).toHaveLength(1));
  resendUnanswered();
  expect(calls).toHaveLength(1);
});

test("the server's own sentence is what the person reads", async () => {
  answer = async () => new Response('{"detail": "Choose another colour."}', { status: 422 });
  await expect(data(server.GET("/api/board"))).rejects.toEqual(new Problem("Choose another colour.", false, 422));
  answer = async () => new Response("<html>", { status: 502 });
  await expect(data(server.GET("/api/board"))).rejects.toThrow("The request failed (502).");
  answer = () => Promise.reject(new TypeError("no network"));
  await expect(data(server.GET("/api/board"))).rejects.toMatchObject({ offline: true });
});

test("a file travels as a form", async () => {
  await server.POST("/api/fonts", { body: upload(new File(["letters"], "face.ttf")) });
  const [call] = await Promise.all(calls);
  expect(call?.body).toContain('name="file"; filename="face.ttf"');
});

test("addresses carry what is there and leave out what is not", () => {
  const path = { artwork_id: 3, template_id: "a/b" };
  const at = "/api/pairs/{artwork_id}/{template_id}/flat";
  expect(address(at, { path, query: { panel: null, width: 900 } })).toBe("/api/pairs/3/a%2Fb/flat?width=900");
  expect(address(at, { path, query: { panel: "back pocket" } })).toBe("/api/pairs/3/a%2Fb/flat?panel=back%20pocket");
});
