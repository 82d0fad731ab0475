/**
 * What this browser keeps until the server has it: texts by key, in local storage, which is written before a
 * keystroke's handler returns. Where that is full, in IndexedDB, which has more room; where there is none, only
 * while the page stays open. Which of them it is, is told at once.
 */
import { del, entries, set } from "idb-keyval";

const PREFIX = "swapglow.";
/** How long the page waits for the larger store before it is shown. */
const PATIENCE_MS = 1500;

/** Where what is kept is kept: as it should be, in the larger store, or nowhere but in this page. */
export type Keeping = "well" | "larger" | "page";

const memory = new Map<string, string>();
const larger = new Set<string>();
const listeners = new Set<() => void>();
let keeping: Keeping = "well";

function tell(next: Keeping) {
  if (next === keeping) return;
  keeping = next;
  listeners.forEach((listener) => listener());
}

/** Read what an earlier visit kept; to be awaited before anything is shown. */
export async function openStore(): Promise<void> {
  // A browser without IndexedDB, or with one that does not answer, has nothing in it.
  const late = new Promise<[string, string][]>((done) => setTimeout(() => done([]), PATIENCE_MS));
  const asked = (async () => entries<string, string>())();
  const found = await Promise.race([asked, late]).catch(() => []);
  for (const [key, text] of found) {
    if (key.startsWith(PREFIX)) {
      memory.set(key.slice(PREFIX.length), text);
      larger.add(key.slice(PREFIX.length));
    }
  }
  for (let n = 0; n < localStorage.length; n += 1) {
    const key = localStorage.key(n) ?? "";
    if (key.startsWith(PREFIX))
      memory.set(key.slice(PREFIX.length), localStorage.getItem(key) ?? "");
  }
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
    if (larger.delete(key)) void del(PREFIX + key).catch(() => undefined);
    if (larger.size === 0) tell("well");
  } catch {
    larger.add(key);
    // An older text under this key would come back in place of the newer one.
    localStorage.removeItem(PREFIX + key);
    tell(keeping === "page" ? "page" : "larger");
    set(PREFIX + key, text).catch(() => tell("page"));
  }
}

export function drop(key: string): void {
  memory.delete(key);
  localStorage.removeItem(PREFIX + key);
  if (larger.delete(key)) void del(PREFIX + key).catch(() => undefined);
  if (larger.size === 0) tell("well");
}

export const howKept = (): Keeping => keeping;

export function subscribeStore(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
