import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Refused } from "../api/client";
import { forget } from "../test/providers";
import { draftOf, typed } from "./drafts";
import { allNotices } from "./notices";
import { openSaves, save, teachSaves } from "./saves";
import { openStore } from "./store";

const answered = (status: number, body: unknown = {}) =>
  new Response(status === 204 ? null : JSON.stringify(body), { status });

let sent: { path: string; key: string; body: unknown }[];

function server(...answers: (Response | Error)[]) {
  sent = [];
  vi.stubGlobal(
    "fetch",
    vi.fn(async (path: string, init: RequestInit) => {
      const headers = init.headers as Record<string, string>;
      sent.push({ path, key: headers["X-Save"] ?? "", body: JSON.parse(String(init.body)) });
      const next = answers.shift() ?? answered(200);
      if (next instanceof Error) throw next;
      return next;
    }),
  );
}

const kept = () => Object.keys(localStorage).filter((key) => key.startsWith("swapglow.save/"));

function client() {
  const made = new QueryClient();
  teachSaves(made);
  return made;
}

beforeEach(() => {
  forget();
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test("a save is kept until it is answered, and sent again under the same name while nothing answers", async () => {
  server(new TypeError("no line"), new TypeError("no line"), answered(200));
  const done = save(client(), { method: "PATCH", path: "/api/a", body: { name: "Bow" } });
  await vi.advanceTimersByTimeAsync(100);
  expect(kept()).toHaveLength(1);
  expect(localStorage.getItem(kept()[0] ?? "")).toContain("Bow");
  await vi.advanceTimersByTimeAsync(5000);
  await done;
  expect(sent).toHaveLength(3);
  expect(new Set(sent.map((s) => s.key)).size).toBe(1);
  expect(kept()).toEqual([]);
});

test("saves go one after the other, and a refused one lets the rest go on", async () => {
  const errors = [{ field: "low", message: "Above the usual." }];
  server(answered(422, { errors }), answered(200), answered(200));
  const queries = client();
  const first = save(queries, { method: "PATCH", path: "/api/1", body: 1 }).catch(
    (e: unknown) => e,
  );
  const rest = ["/api/2", "/api/3"].map((path) =>
    save(queries, { method: "PATCH", path, body: 2 }),
  );
  await vi.advanceTimersByTimeAsync(100);
  expect(((await first) as Refused).of("low")).toBe("Above the usual.");
  await Promise.all(rest);
  expect(sent.map((s) => s.path)).toEqual(["/api/1", "/api/2", "/api/3"]);
});

test("a busy server is asked three times more and then said to be", async () => {
  const errors = [{ field: "", message: "The database was busy." }];
  server(...[1, 2, 3, 4].map(() => answered(503, { errors })));
  const refused = save(client(), { method: "POST", path: "/api/a", body: 0, label: "Move" }).catch(
    (e: unknown) => e,
  );
  await vi.advanceTimersByTimeAsync(10_000);
  expect(await refused).toBeInstanceOf(Refused);
  expect(sent).toHaveLength(4);
  expect(allNotices().map((n) => n.text)).toEqual(["Move: not done. The database was busy."]);
});

test.each([
  [422, JSON.stringify({ errors: [{ field: "owner", message: "Too long." }] }), "Too long."],
  [500, "<html>oops</html>", "Something other than Swap Glow answered."],
  [200, "<html>Log in</html>", "Something other than Swap Glow answered."],
])("an answer of %i with %s is told at the field, whose text stays", async (status, body, says) => {
  server(new Response(body, { status }));
  typed("e.owner", '"Ann"', '""');
  const field = { draft: "e.owner", text: '"Ann"', base: '""', names: ["owner"], label: "Owner" };
  save(client(), { method: "PATCH", path: "/api/e", body: {}, field }).catch(() => undefined);
  await vi.advanceTimersByTimeAsync(100);
  expect(draftOf("e.owner")).toMatchObject({ text: '"Ann"', base: '""' });
  expect(draftOf("e.owner")?.refused).toContain(says);
});

test("what an earlier visit could not send is sent at the start, in turn and once", async () => {
  server(new TypeError("no line"));
  const before = client();
  for (const name of ["one", "two"]) {
    void save(before, { method: "PATCH", path: `/api/${name}`, body: name }).catch(() => undefined);
  }
  await vi.advanceTimersByTimeAsync(100);
  const keys = kept().map((at) => localStorage.getItem(at) ?? "");
  expect(keys).toHaveLength(2);
  before.clear();
  // As after a reload: nothing of the page's memory, all of what the browser kept.
  vi.resetModules();
  server(answered(200), answered(200));
  const fresh = await import("./saves");
  const store = await import("./store");
  await store.openStore();
  const after = new QueryClient();
  await fresh.openSaves(after);
  await vi.advanceTimersByTimeAsync(1000);
  expect(sent.map((s) => s.body)).toEqual(["one", "two"]);
  expect(keys.every((text, n) => text.includes(sent[n]?.key ?? "no key"))).toBe(true);
  expect(kept()).toEqual([]);
});

test("what the version before kept in its one list is sent too", async () => {
  localStorage.setItem(
    "swapglow.outbox",
    JSON.stringify([{ id: "x", method: "PATCH", path: "/api/equipment/e", body: { owner: "us" } }]),
  );
  server(answered(200));
  await openStore();
  await openSaves(new QueryClient());
  await vi.advanceTimersByTimeAsync(100);
  expect(sent.map((s) => [s.path, s.body])).toEqual([["/api/equipment/e", { owner: "us" }]]);
  expect(localStorage.getItem("swapglow.outbox")).toBeNull();
});

test("what is asked for the first time while a save is answered is asked again", async () => {
  server(answered(200));
  const queries = client();
  // The first answer is from before the save, and slow.
  const answers = ["before", "after"];
  const view = new QueryObserver(queries, {
    queryKey: ["equipment", "1"],
    queryFn: async () => {
      const answer = answers.shift();
      await new Promise((done) => setTimeout(done, 300));
      return answer;
    },
  });
  const leave = view.subscribe(() => undefined);
  const done = save(queries, { method: "PATCH", path: "/api/equipment/1", body: { notes: "x" } });
  await vi.advanceTimersByTimeAsync(1000);
  await done;
  expect(view.getCurrentResult().data).toBe("after");
  leave();
});
