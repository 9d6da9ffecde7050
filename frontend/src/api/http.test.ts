import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { json, Problem, resendUnanswered, send } from "./http";

const LARGE = { text: "x".repeat(100_000) };
const calls: { path: string; init: RequestInit }[] = [];
let answer: () => Promise<Response>;

beforeEach(() => {
  calls.length = 0;
  answer = async () => new Response("{}");
  vi.stubGlobal("fetch", (path: string, init: RequestInit) => {
    calls.push({ path, init });
    return answer();
  });
});
afterEach(() => vi.unstubAllGlobals());

test("a save of any size is an ordinary request: browsers refuse large ones that outlive their page", async () => {
  await send("PUT", "/api/pairs/1/mug/pieces", LARGE);
  expect(calls).toHaveLength(1);
  expect(calls[0]?.init.keepalive).toBeUndefined();
});

test("a save without an answer is sent once more as the page goes away, and then outlives it", async () => {
  const waiting: ((answer: Response) => void)[] = [];
  answer = () => new Promise((resolve) => waiting.push(resolve));
  const saved = send("PUT", "/api/pairs/1/mug/placement", { scale: 2 });
  resendUnanswered();
  expect(calls).toHaveLength(2);
  expect(calls[1]).toMatchObject({ path: calls[0]?.path, init: { body: '{"scale":2}', keepalive: true } });
  waiting[0]?.(new Response("{}"));
  await saved;
  resendUnanswered();
  expect(calls).toHaveLength(2);
});

test("actions that count are never sent twice", () => {
  answer = () => new Promise(() => {});
  send("POST", "/api/pairs/1/mug/undo", {});
  resendUnanswered();
  expect(calls).toHaveLength(1);
});

test("the server's own sentence is what the person reads", async () => {
  answer = async () => new Response('{"detail": "Choose another colour."}', { status: 422 });
  await expect(json("GET", "/api/board")).rejects.toEqual(new Problem("Choose another colour."));
  answer = async () => new Response("<html>", { status: 502 });
  await expect(send("GET", "/api/board")).rejects.toThrow("The request failed (502).");
  answer = () => Promise.reject(new TypeError("no network"));
  await expect(send("GET", "/api/board")).rejects.toMatchObject({ offline: true });
});
