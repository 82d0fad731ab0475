import { entries } from "idb-keyval";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { draftOf, openDrafts, putBack, typed } from "./drafts";
import { openStore } from "./store";

const written = vi.hoisted(() => vi.fn(() => Promise.resolve()));
vi.mock("idb-keyval", () => ({
  createStore: () => written,
  entries: vi.fn(),
  del: vi.fn(() => Promise.resolve()),
}));

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

const kept = (name: string, text: string): [string, string] => [
  `swapglow.draft/only/${name}`,
  JSON.stringify({ text }),
];

test("what the larger store brings after the page is shown stands in its field, but for what was typed since", async () => {
  let bring: (found: [string, string][]) => void = () => undefined;
  vi.mocked(entries).mockReturnValue(new Promise((done) => (bring = done)));
  const opened = openStore((late) => openDrafts(new Set(), late));
  await vi.advanceTimersByTimeAsync(1500);
  await opened;
  openDrafts(new Set());
  expect(draftOf("a.notes")).toBeUndefined();
  typed("a.name", "newer");
  typed("a.maker", "newer, and saved");
  putBack("a.maker");
  bring([
    kept("a.notes", "typed before"),
    kept("a.name", "older"),
    kept("a.maker", "older"),
    ["swapglow.save/only/1", "{}"],
  ]);
  await vi.advanceTimersByTimeAsync(0);
  expect(draftOf("a.notes")?.text).toBe("typed before");
  expect(draftOf("a.name")?.text).toBe("newer");
  expect(draftOf("a.maker")).toBeUndefined();
  // There is room again in the smaller store: nothing is written into the larger.
  expect(written).not.toHaveBeenCalled();
});
