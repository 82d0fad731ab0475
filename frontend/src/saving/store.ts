/**
 * What this browser keeps until the server has it: texts by key, in local storage, which is written before a
 * keystroke's handler returns. Where that is full, in IndexedDB, which has more room; where there is none, only
 * while the page stays open. Which of them it is, is told at once.
 */
import { createStore, del, entries, promisifyRequest } from "idb-keyval";

const PREFIX = "swapglow.";
/** How long the page waits for the larger store before it is shown. */
const PATIENCE_MS = 1500;

const room = createStore("keyval-store", "keyval");

/** Write into the larger store. Committed at once: a page that goes takes with it what is still open. */
async function enlarge(key: string, text: string): Promise<void> {
  await room("readwrite", (store) => {
    store.put(text, PREFIX + key);
    store.transaction.commit();
    return promisifyRequest(store.transaction);
  });
}

/** Where what is kept is kept: as it should be, in the larger store, or nowhere but in this page. */
export type Keeping = "well" | "larger" | "page";

const memory = new Map<string, string>();
const larger = new Set<string>();
/** What was let go in this visit: a larger store that answers late must not bring it back. */
const dropped = new Set<string>();
const listeners = new Set<() => void>();
let keeping: Keeping = "well";

function tell(next: Keeping) {
  if (next === keeping) return;
  keeping = next;
  listeners.forEach((listener) => listener());
}

/**
 * Read what an earlier visit kept; to be awaited before anything is shown. What the larger store has is waited for only
 * so long: `whenLate` is told the keys that it brings after that.
 */
export async function openStore(
  whenLate: (keys: readonly string[]) => void = () => undefined,
): Promise<void> {
  let shown = false;
  // A browser without IndexedDB, or with one that does not answer, has nothing in it.
  const asked = (async () => {
    const keys = fromLarger(await entries<string, string>(room));
    if (shown) whenLate(keys);
  })().catch(() => undefined);
  await Promise.race([asked, new Promise((done) => setTimeout(done, PATIENCE_MS))]);
  shown = true;
  for (let n = 0; n < localStorage.length; n += 1) {
    const key = localStorage.key(n) ?? "";
    if (key.startsWith(PREFIX))
      memory.set(key.slice(PREFIX.length), localStorage.getItem(key) ?? "");
  }
}

/** Take over what the larger store has of keys that nobody has written or dropped since; gives those. */
function fromLarger(found: readonly [string, string][]): string[] {
  const taken: string[] = [];
  for (const [at, text] of found) {
    const key = at.slice(PREFIX.length);
    if (!at.startsWith(PREFIX) || memory.has(key)) continue;
    if (dropped.has(key)) {
      void del(at, room).catch(() => undefined);
      continue;
    }
    memory.set(key, text);
    larger.add(key);
    taken.push(key);
  }
  return taken;
}

export const readKept = (key: string): string | undefined => memory.get(key);

export const keptKeys = (prefix: string): string[] =>
  [...memory.keys()].filter((key) => key.startsWith(prefix)).sort();

/** Keys as they stand in local storage now, those of other tabs among them. */
export function keysOfAllTabs(prefix: string): string[] {
  const out: string[] = [];
  for (let n = 0; n < localStorage.length; n += 1) {
    const key = localStorage.key(n) ?? "";
    if (key.startsWith(PREFIX + prefix)) out.push(key.slice(PREFIX.length));
  }
  return out;
}

export const readOfAnyTab = (key: string): string | undefined =>
  localStorage.getItem(PREFIX + key) ?? memory.get(key);

export function keep(key: string, text: string): void {
  memory.set(key, text);
  try {
    localStorage.setItem(PREFIX + key, text);
    if (larger.delete(key)) void del(PREFIX + key, room).catch(() => undefined);
    if (larger.size === 0) tell("well");
  } catch {
    larger.add(key);
    // An older text under this key would come back in place of the newer one.
    localStorage.removeItem(PREFIX + key);
    tell(keeping === "page" ? "page" : "larger");
    enlarge(key, text).catch(() => tell("page"));
  }
}

export function drop(key: string): void {
  memory.delete(key);
  dropped.add(key);
  localStorage.removeItem(PREFIX + key);
  if (larger.delete(key)) void del(PREFIX + key, room).catch(() => undefined);
  if (larger.size === 0) tell("well");
}

export const howKept = (): Keeping => keeping;

export function subscribeStore(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
