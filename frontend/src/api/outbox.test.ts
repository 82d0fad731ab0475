import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Refused } from "./client";

const answer = (status: number, body?: unknown) =>
  ({ ok: status < 400, status, text: async () => (body ? JSON.stringify(body) : "") }) as Response;

beforeEach(() => {
  vi.useFakeTimers();
  vi.resetModules();
  localStorage.clear();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test("a save is kept in storage until the server has answered, however often the line drops", async () => {
  const send = vi
    .fn()
    .mockRejectedValueOnce(new TypeError("no line"))
    .mockResolvedValue(answer(204));
  vi.stubGlobal("fetch", send);
  const { save, unsaved } = await import("./outbox");
  const done = save("PATCH", "/api/positions/1", { name: "Bow light" });
  await vi.advanceTimersByTimeAsync(10);
  expect(unsaved()).toBe(1);
  expect(localStorage.getItem("swapglow.outbox")).toContain("Bow light");
  await vi.advanceTimersByTimeAsync(2500);
  await done;
  expect(unsaved()).toBe(0);
  expect(JSON.parse(localStorage.getItem("swapglow.outbox") ?? "")).toEqual([]);
});

test("what an earlier visit could not send is sent on start, in order", async () => {
  const kept = ["one", "two"].map((name) => ({ id: name, method: "PATCH", path: `/api/${name}` }));
  localStorage.setItem("swapglow.outbox", JSON.stringify(kept));
  const send = vi.fn().mockResolvedValue(answer(204));
  vi.stubGlobal("fetch", send);
  const { start } = await import("./outbox");
  start();
  await vi.advanceTimersByTimeAsync(50);
  expect(send.mock.calls.map((c) => c[0] as string)).toEqual(["/api/one", "/api/two"]);
});

test("a refusal rejects with its fields and does not block what follows", async () => {
  const refusal = { errors: [{ field: "low", message: "The lowest is above the usual." }] };
  const send = vi.fn().mockResolvedValueOnce(answer(422, refusal)).mockResolvedValue(answer(204));
  vi.stubGlobal("fetch", send);
  const { save } = await import("./outbox");
  const refused = save("PATCH", "/api/rails/1", {}).catch((e: unknown) => e);
  const after = save("PATCH", "/api/rails/2", {});
  await vi.advanceTimersByTimeAsync(50);
  const problem = (await refused) as Refused;
  expect(problem.problems[0]?.field).toBe("low");
  await after;
});
