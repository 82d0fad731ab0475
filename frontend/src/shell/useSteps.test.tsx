import { screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { BenchView } from "../features/bench/BenchView";
import { answer, forget, leave, press, savedAt, show } from "../test/providers";
import { wide } from "../test/still";

const item = (id: string, name: string) => ({
  id,
  name,
  maker_model: "",
  positions: [],
  lights: [],
});
const bench = (undo: number, redo: number | null = null) => ({
  equipment: [item("e1", "Tide gauge"), item("e2", "Fog bell")],
  steps: {
    undo: { id: undo, label: `step ${undo}` },
    redo: redo === null ? null : { id: redo, label: `step ${redo}` },
  },
});
const done = (step: number) => ({ label: `step ${step}`, step: step + 100, gone: [] });

beforeEach(() => {
  forget();
  vi.stubGlobal("matchMedia", wide);
});
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

const button = (name: string) => screen.findByRole("button", { name });

/** An answer that comes when it is let go. */
function later() {
  let resolve: (answer: unknown) => void = () => undefined;
  const promise = new Promise<unknown>((go) => (resolve = go));
  return { promise, resolve: (answer: unknown) => resolve(answer) };
}

/** Ask for nothing and answer nothing for a while of turns. */
const aWhile = () => new Promise((go) => setTimeout(go, 60));

test("undo pressed while a change is on its way takes back that change, not the one before", async () => {
  let now: unknown = bench(7);
  const held = later();
  const asked = answer({
    "/api/bench": () => now,
    "/api/equipment/move": held.promise,
    "/api/undo": done(8),
  });
  show(<BenchView />);
  press(await button("Arrange"));
  press(await button("Move Fog bell up"));
  press(await button("Undo step 7"));
  await aWhile();
  expect(savedAt(asked, "/api/undo")).toEqual([]);
  now = bench(8);
  held.resolve({ status: 204 });
  await waitFor(() => expect(savedAt(asked, "/api/undo")).toEqual([{ step: 8, choice: "ask" }]));
});

test("undo pressed before the view knows a change that is saved waits for it", async () => {
  let now: unknown = bench(7);
  const asked = answer({
    "/api/bench": () => now,
    "/api/equipment/move": { status: 204 },
    "/api/undo": done(8),
  });
  show(<BenchView />);
  press(await button("Arrange"));
  const held = later();
  await button("Undo step 7");
  now = held.promise;
  press(await button("Move Fog bell up"));
  await waitFor(() => expect(asked.filter((a) => a.path === "/api/bench")).toHaveLength(2));
  press(await button("Undo step 7"));
  await aWhile();
  expect(savedAt(asked, "/api/undo")).toEqual([]);
  held.resolve(bench(8));
  await waitFor(() => expect(savedAt(asked, "/api/undo")).toEqual([{ step: 8, choice: "ask" }]));
});

test("pressed twice, two steps are taken back, each once; redo does the last again", async () => {
  let now: unknown = bench(8);
  const asked = answer({
    "/api/bench": () => now,
    "/api/undo": () => {
      now = bench(7, 108);
      return done(8);
    },
    "/api/redo": done(8),
  });
  show(<BenchView />);
  const undo = await button("Undo step 8");
  press(undo);
  press(undo);
  await waitFor(() => expect(savedAt(asked, "/api/undo")).toHaveLength(2));
  expect(savedAt(asked, "/api/undo")).toEqual([
    { step: 8, choice: "ask" },
    { step: 7, choice: "ask" },
  ]);
  press(await button("Redo step 108"));
  await waitFor(() => expect(savedAt(asked, "/api/redo")).toEqual([{ step: 108, choice: "ask" }]));
});
